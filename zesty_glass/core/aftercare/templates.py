"""What a sheet of steps is made from: its blanks, and when it and each of its lines applies."""

from __future__ import annotations

import calendar
import math
from collections.abc import Callable
from typing import Literal

from ..costing.falling import interval_months
from ..home import Home
from ..record import record
from ..treating.line import LineReport
from ..treating.report import StageReport
from ..treating.stages import does
from ..treating.stages.neutraliser_media import BAG_LB
from .disinfecting import METHODS, Plumbing, bleach_ml, litres, well_litres

Purpose = Literal["fit", "change", "disinfect", "season"]
MOST_LINES = 8

#: what falls due and is no part that is taken along by its name
NO_PARTS = frozenset({"service", "media", "sanitising", "test"})
#: run off first where the catalogue says nothing [gal], by scope; trade practice, 2024
USUAL_FLUSH_GAL = {"house": 10.0, "tap": 2.0}


@record
class About:
    """What a sheet's blanks are filled from, and its conditions are asked of."""

    line: LineReport
    home: Home
    plumbing: Plumbing
    stage: StageReport | None = None

    def flush_gal(self, kinds: tuple[str, ...]) -> float:
        """What is run off before the first use [gal]: the most that the stage's parts of these
        kinds say, else by trade practice.
        """
        s = self.stage
        dues = s.dues if s else ()
        said = [d.flush_gal for d in dues if d.kind in kinds and d.flush_gal is not None]
        return max(said, default=USUAL_FLUSH_GAL["house" if s is None else s.scope])

    @property
    def top_up(self) -> str:
        """How much of a bed is topped up each time, in words; nothing where it is not known."""
        s = self.stage
        lb = next((f.number for f in s.figures if f.id == "media"), None) if s else None
        months = (
            next((interval_months(d) for d in s.dues if d.kind == "media"), None) if s else None
        )
        if not lb or not months:
            return ""
        bags = math.ceil(lb * months / 12 / BAG_LB)
        much = "1 bag" if bags == 1 else f"{bags} bags"
        return f", about {lb * months / 12:.0f} lb, {much} of {BAG_LB:g} lb"

    @property
    def may_be_metal(self) -> bool:
        """Whether the pipe that is cut is of metal, or nobody has said what it is of."""
        return self.home.metal_pipe or not self.home.pipe_material

    def parts_named(self, kinds: tuple[str, ...]) -> tuple[str, ...]:
        """What is taken along of these kinds, by name; lesser parts where there is nothing else."""
        dues = self.stage.dues if self.stage else ()
        those = [d for d in dues if d.kind in kinds]
        main = [d for d in those if d.kind != "part"] or those
        return tuple(dict.fromkeys(d.label for d in main if d.kind not in NO_PARTS))

    def has_parts(self, *kinds: str) -> bool:
        """Whether the stage has parts of these kinds that are changed."""
        return self.stage is not None and any(d.kind in kinds for d in self.stage.dues)

    def blanks(self, parts: tuple[str, ...]) -> dict[str, str]:
        """Quantities of this home, as words; ``parts``: kinds of parts that a sheet is about."""
        amount = sum(x for _, x in litres(self.plumbing))
        method, pct = METHODS[self.plumbing.method], self.plumbing.bleach_pct
        well = well_litres(self.plumbing)
        s = self.stage
        settings = "; ".join(f"{k}: {v}" for k, v in s.settings) if s else ""
        return {
            "name": s.name if s else "the line",
            "settings": settings or "as its manual says",
            "litres": f"{amount:.0f}",
            "ml": f"{bleach_ml(amount, method.dose_mg_l, pct):.0f}",
            "well_ml": f"{bleach_ml(well, method.dose_mg_l, pct):.0f}",
            "house_ml": f"{bleach_ml(amount - well, method.dose_mg_l, pct):.0f}",
            "house_litres": f"{amount - well:.0f}",
            "empty": _empty(self.home.calendar.empty_months),
            "pct": f"{pct:g}",
            "dose": f"{method.dose_mg_l:g}",
            "hours": f"{method.hours:g}",
            "top_up": self.top_up,
            "flush": f"{self.flush_gal(parts):g}",
            "place": "the yard or a dry well, not the septic" if self.home.septic else "the drain",
        }


def _empty(months: tuple[int, ...]) -> str:
    """In which months a home stands empty, in words; nothing where nobody said."""
    if not months:
        return ""
    return "Empty in " + ", ".join(calendar.month_name[m] for m in months) + "."


def contact_min(about: About) -> float:
    """How long the chlorine stands, by the method that is used [min]."""
    return METHODS[about.plumbing.method].hours * 60


def has_a_well(about: About) -> bool:
    """Whether a well’s own water is part of the dose."""
    return about.plumbing.well_ft > 0


When = Callable[[About], bool]


def always(about: About) -> bool:
    """A condition that holds everywhere."""
    return True


@record
class Step:
    """A line of a template: text with blanks, minutes that are waited [min], and when it is
    there.
    """

    text: str
    wait_min: float | Callable[[About], float] = 0.0
    when: When = always

    def waits(self, about: About) -> float:
        """Minutes that are waited at it [min]."""
        return self.wait_min(about) if callable(self.wait_min) else self.wait_min


@record
class Template:
    """A sheet before it is made for a home.

    Args:
        of_stage: one is made for every stage whose technology names it; else one for the whole
            line.
        when: whether it applies, to the line or to the stage.
        tools, caution, lines: texts with blanks; a line may be a ``Step``.
        parts: kinds of parts that it changes. rinses: kinds of parts whose first flush it is, where
            it changes none.
        metal: what is added to the caution where the pipe is or may be of metal.
    """

    id: str
    title: str
    purpose: Purpose
    of_stage: bool = True
    tools: tuple[str, ...]
    caution: str
    lines: tuple[str | Step, ...]
    when: When = always
    parts: tuple[str, ...] = ()
    rinses: tuple[str, ...] = ()
    metal: str = ""
    source: str = "trade practice"
    year: int = 2024

    @property
    def steps(self) -> tuple[Step, ...]:
        """Its lines, each with when it is there."""
        return tuple(x if isinstance(x, Step) else Step(text=x) for x in self.lines)


def house(a: About) -> bool:
    """Whether something of the line stands at the house's pipe."""
    return any(s.scope == "house" for s in a.line.stages)


def with_parts(*kinds: str) -> When:
    """A condition: the stage has parts of these kinds."""
    return lambda a: a.has_parts(*kinds)


def not_in_a_set(a: About) -> bool:
    """Not beside a membrane at the tap, whose own sheets cover its filters."""
    membrane = any("holds back" in does(x.kind) and x.scope == "tap" for x in a.line.stages)
    return not (membrane and a.stage is not None and a.stage.scope == "tap")


def in_a_housing(a: About) -> bool:
    """A cartridge in a housing that is not part of a membrane's set."""
    return a.has_parts("filter") and not_in_a_set(a)
