"""The library of steps: fitting, first use, changes, disinfection and seasons, made for one line at
one home. Each sheet has at most eight lines; what applies to nothing here is not made.

A sheet is general practice. The item's own manual and local code come before it, and plumbing,
electrical and drainage work is done by people who are licensed for it.
"""

from __future__ import annotations

from ..home import Home, Source
from ..record import record
from ..treating.line import LineReport
from ..treating.stages import service_of
from .disinfecting import Plumbing, usual_plumbing
from .fitting import FITTING
from .keeping import KEEPING
from .templates import About, Purpose, Template

LIBRARY: tuple[Template, ...] = FITTING + KEEPING
#: in which order work is done
_WORK: tuple[Purpose, ...] = ("fit", "disinfect", "change", "season")


@record
class SheetStep:
    """One line of a sheet; ``wait_min``: a time that is waited, with its clock [min]."""

    text: str
    wait_min: float = 0.0


@record
class Sheet:
    """Steps for one piece of work, as they are ticked.

    Args:
        key: one name in the job. caution: where the hand is.
        tools: parts and tools, as they are taken along.
        parts: kinds of parts that it changes, so that a part finds its steps.
    """

    key: str
    title: str
    purpose: Purpose
    tools: tuple[str, ...]
    caution: str
    steps: tuple[SheetStep, ...]
    source: str
    year: int
    parts: tuple[str, ...] = ()


def sheets(line: LineReport, home: Home, plumbing: Plumbing) -> tuple[Sheet, ...]:
    """The steps for a line at a home, in the order of the work; what applies to nothing is left
    out.
    """
    whole = About(line=line, home=home, plumbing=plumbing)
    at = [
        (n, About(line=line, home=home, plumbing=plumbing, stage=s))
        for n, s in enumerate(line.stages)
    ]
    out: list[tuple[int, int, Sheet]] = []
    for t in LIBRARY:
        when = _WORK.index(t.purpose)
        if not t.of_stage:
            out += [(when, -1, _made(t, whole, t.id))] if t.when(whole) else []
            continue
        out += [
            (when, n, _made(t, about, f"{t.id}:{n}:{about.stage.code}"))
            for n, about in at
            if about.stage is not None and _fits(t, about)
        ]
    return tuple(s for _, _, s in sorted(out, key=lambda x: x[:2]))


@record
class LineSteps:
    """The steps of a line before it is sold: quantities are of a usual home."""

    name: str
    home: str
    place: str
    sheets: tuple[Sheet, ...]


def line_steps(line: LineReport, home: Home) -> LineSteps:
    """The steps of a line at a home, with what usually holds water there."""
    made = sheets(line, home, usual_plumbing(home.well, home.source is Source.WELL_DRILLED))
    return LineSteps(name=line.name, home=home.name, place=home.place, sheets=made)


def sheet_of(made: tuple[Sheet, ...], part: str, kind: str) -> Sheet | None:
    """The sheet that changes a part: of its own stage, else of the set at the tap.

    Args:
        part: its key, ``place in the line:code of the stage:code``. kind: of the part.
    """
    stage = ":".join(part.split(":")[:2])
    changing = [s for s in made if s.purpose == "change" and kind in s.parts]
    own = [s for s in changing if s.key.endswith(f":{stage}")]
    at_the_tap = [s for s in changing if s.key.startswith("tap_set:")]
    return next(iter((*own, *at_the_tap)), None)


def renewed(kept: tuple[Sheet, ...], made: tuple[Sheet, ...]) -> tuple[Sheet, ...]:
    """Kept sheets with the quantities of those made anew; one whose lines are not the same in
    number stays as it is, for its ticks are kept by line.
    """
    anew = {s.key: s for s in made}

    def of(s: Sheet) -> Sheet:
        other = anew.get(s.key, s)
        return other if len(other.steps) == len(s.steps) else s

    return tuple(of(s) for s in kept)


def _fits(t: Template, about: About) -> bool:
    """A sheet that the stage's technology names; a change of parts, only for one that has some."""
    assert about.stage is not None
    if t.id not in service_of(about.stage.kind).sheets:
        return False
    return t.when(about) and (not t.parts or about.has_parts(*t.parts))


def _made(t: Template, about: About, key: str) -> Sheet:
    blanks = about.blanks(t.parts or t.rinses)
    metal = t.metal and about.may_be_metal
    return Sheet(
        key=key,
        title=t.title.format_map(blanks),
        purpose=t.purpose,
        tools=(*about.parts_named(t.parts), *(x.format_map(blanks) for x in t.tools)),
        caution=(f"{t.caution} {t.metal}" if metal else t.caution).format_map(blanks),
        steps=tuple(
            SheetStep(text=s.text.format_map(blanks), wait_min=s.waits(about))
            for s in t.steps
            if s.when(about)
        ),
        source=t.source,
        year=t.year,
        parts=t.parts,
    )
