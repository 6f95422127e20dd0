"""A water card: one page to leave on the refrigerator, with what was read, what is set by it, and
what is next.
"""

from __future__ import annotations

from datetime import datetime

from .. import words
from ..analytes import ANALYTES
from ..assess import Assessment
from ..errors import RuleError
from ..record import record
from ..testing.finding import Weight
from ..visit import Visit
from .first import before_buying

MOST_READINGS, MOST_NEXT = 10, 6
#: what a household asks about, in this order; what was found stands before it
ASKED = ("hardness", "tds", "ph", "iron", "chlorine_free", "chlorine_combined", "tannin")
HONEST = (
    "These are readings of one day at one tap. They say nothing of what was not tested, and a kit"
    " never says that water is safe: health questions go to a certified laboratory and the local"
    " health authority."
)


@record
class CardLine:
    """One reading: value, range, what it means, and whether it asks for something."""

    name: str
    shown: str
    span: str
    sentence: str
    asks: bool


@record
class WaterCard:
    """The card. ``settings``: appliance and what to set; ``tonight``: said first where something of
    health was found; ``next``: what to do, what costs nothing first; ``untested``: what was not
    looked for.
    """

    home: str
    place: str
    made_at: datetime
    firm: str
    by: str
    tonight: tuple[str, ...]
    readings: tuple[CardLine, ...]
    settings: tuple[tuple[str, str], ...]
    next: tuple[str, ...]
    untested: tuple[str, ...]
    honest: str = HONEST


def water_card(visit: Visit, a: Assessment) -> WaterCard:
    """The card of a visit.

    Raises:
        RuleError: ``card.no_raw``, nothing was read of the water as it comes.
    """
    if a.raw is None or a.meaning is None or not a.raw.values:
        raise RuleError(
            "card.no_raw",
            "Nothing was read of the raw water yet.",
            "samples",
            "Draw a glass ahead of all treatment and test it.",
        )
    return WaterCard(
        home=visit.home.name,
        place=visit.home.place,
        made_at=visit.started_at,
        firm=visit.firm,
        by=visit.consultant,
        tonight=a.meaning.tonight,
        readings=_readings(visit, a),
        settings=a.meaning.sets,
        next=before_buying(visit, a)[:MOST_NEXT],
        untested=tuple(u.name for u in a.meaning.unknown),
    )


def _readings(visit: Visit, a: Assessment) -> tuple[CardLine, ...]:
    assert a.raw is not None and a.meaning is not None
    units = visit.settings.units
    found = {f.analyte: f for f in reversed(a.meaning.findings)}
    asks = [f.analyte for f in a.meaning.findings if f.weight in (Weight.HEALTH, Weight.ACT)]
    order = [n for n in dict.fromkeys((*asks, *ASKED)) if n in a.raw.values and n in ANALYTES]
    out = []
    for name in order[:MOST_READINGS]:
        v, f, called = a.raw.values[name], found.get(name), ANALYTES[name].name
        shown = words.value(name, v.range, v.below, units, v.words)
        out.append(
            CardLine(
                name=called,
                shown=words.beside_name(shown, called),
                span=words.beside_name(words.span(name, v.range, units), called),
                sentence="" if f is None else f.sentence,
                asks=name in asks,
            )
        )
    return tuple(out)
