"""Which demonstrations this water calls for, in their order, and what each still lacks."""

from __future__ import annotations

from collections.abc import Collection

from ..record import record
from ..testing.finding import Weight
from ..testing.findings import Meaning
from .about import ABOUT

#: demonstration -> analytes whose finding it makes visible
SHOWS_WHAT = {
    "chlorine": ("chlorine_free", "chlorine_total", "chlorine_combined"),
    "colour": ("tannin", "iron", "manganese", "colour", "turbidity"),
    "lather": ("hardness",),
    "kettle": ("hardness",),
    "breath": ("ph",),
    "side_by_side": ("tds",),
    "distilling": ("tds",),
}
#: demonstration -> analytes of which one has to be measured, in any glass or in the raw one
_MEASURED = {
    "side_by_side": ("tds",),
    "distilling": ("tds",),
    "kettle": ("hardness", "calcium"),
    "chlorine": ("chlorine_free", "chlorine_total"),
}
_FOUND = (Weight.NOTICE, Weight.ACT, Weight.HEALTH)  # what is fine calls for nothing
_FIRST = {
    "tds": "measure dissolved solids first",
    "hardness": "measure hardness first",
    "chlorine_free": "measure chlorine first",
}


@record
class Ready:
    """A demonstration as this visit stands.

    Args:
        called_for: something that was found is made visible by it.
        lacks: what is missing before it can be shown; empty when it can.
        measure: the analyte to measure for it, where that is what is missing; draw: a glass is.
    """

    id: str
    called_for: bool = False
    lacks: str = ""
    measure: str = ""
    draw: bool = False


def _ready(id: str, called_for: bool, measured: Collection[str], glasses: int, lines: int) -> Ready:
    lacks, measure, draw = "", "", False
    wanted = _MEASURED.get(id, ())
    if id == "through":
        lacks = "" if lines else "design a line first"
    elif glasses == 0:
        lacks, draw = "draw a glass first", True
    elif id == "tasting" and glasses == 1:
        lacks, draw = "draw a second water", True
    elif id == "side_by_side" and glasses == 1 and not lines:
        lacks, draw = "draw a second water, or design a line", True
    elif wanted and not any(a in measured for a in wanted):
        lacks, measure = _FIRST[wanted[0]], wanted[0]
    return Ready(id=id, called_for=called_for, lacks=lacks, measure=measure, draw=draw)


def in_order(
    meaning: Meaning | None, measured: Collection[str], glasses: int, lines: int
) -> tuple[Ready, ...]:
    """All demonstrations: those that this water calls for first, then those that can be shown.

    Args:
        measured: analytes that were measured in any glass.
        glasses: drawn in this visit [count]; ``lines``: designed [count].
    """
    found = {f.analyte for f in meaning.findings if f.weight in _FOUND} if meaning else set()
    every = [
        _ready(id, bool(found & set(SHOWS_WHAT.get(id, ()))), measured, glasses, lines)
        for id in ABOUT
    ]
    return tuple(sorted(every, key=lambda r: (not (r.called_for and not r.lacks), r.lacks != "")))
