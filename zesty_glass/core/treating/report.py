"""What a stage answers: checks, figures with their working, water to the drain, costs
and chores.
"""

from __future__ import annotations

from decimal import Decimal
from typing import Literal

from ..record import record
from ..working import Working
from .stream import Stream

Status = Literal["met", "say", "warn", "stop", "unknown"]


@record
class Check:
    """One check at one stage. ``test`` names the missing test of an unknown."""

    id: str
    status: Status
    sentence: str
    test: str = ""


@record
class Figure:
    """A number of a stage that opens its working; ``worst`` is the figure at the worst end of the
    ranges.
    """

    id: str
    label: str
    value: str
    unit: str
    number: float | None
    worst: str = ""
    working: Working


@record
class Drain:
    """Water to the drain. ``per_gallon``: for a membrane, gallons to drain per gallon
    at the tap.
    """

    kind: Literal["membrane", "regeneration", "backwash", "distiller"]
    gal_year: float
    largest_gal: float
    times_year: float
    brine: bool = False
    per_gallon: float | None = None
    scope: Literal["house", "tap"] = "house"


@record
class Due:
    """Something that falls due again and again; ``gallons_year`` run through it, ``life_factor``
    for this water; ``used_months``: what the part that is in there has served already [months];
    ``flush_gal``: what is run off before its first use [gal]; ``lived_days``: days of somebody
    there that use it up, where no gallons say so [days].
    """

    code: str
    label: str
    kind: str
    price: Decimal
    months: float | None
    capacity_gal: float | None
    gallons_year: float
    life_factor: float = 1.0
    why: str = ""
    scope: Literal["house", "tap"] = "house"
    minutes: int = 0
    own: bool = True
    common: bool = True
    used_months: float = 0.0
    flush_gal: float | None = None
    lived_days: float | None = None


@record
class Running:
    """A cost that runs all year, spread by month.

    Args:
        per_year: [money/year]. missing: what has to be known to price it, in words; it is in no
            total then. counted: what it counts at, beside ``per_year``, where lines are ordered,
            so that what nobody can price is never cheaper [money/year].
    """

    label: str
    kind: str
    per_year: Decimal
    why: str = ""
    scope: Literal["house", "tap"] = "house"
    missing: str = ""
    counted: Decimal = Decimal(0)


@record
class Chore:
    """Work in a year: how often and how long each time [min]."""

    label: str
    times_year: float
    minutes: int
    own: bool = True
    bags: float = 0.0


@record
class StageReport:
    """One stage of a line, worked out. ``idle``: nothing may be promised of it, for a check stops
    it or a question that decides is open; ``held_back``: analytes that it would make better, and
    does not as it stands here. ``drain_unknown``: what it sends to the drain hangs on a test
    that is not made.
    """

    code: str
    name: str
    kind: str
    scope: Literal["house", "tap"]
    outlet: Stream
    checks: tuple[Check, ...]
    figures: tuple[Figure, ...] = ()
    settings: tuple[tuple[str, str], ...] = ()
    drains: tuple[Drain, ...] = ()
    dues: tuple[Due, ...] = ()
    running: tuple[Running, ...] = ()
    chores: tuple[Chore, ...] = ()
    drop_psi: float | None = 0.0
    summary: str = ""
    idle: bool = False
    drain_unknown: bool = False
    held_back: tuple[str, ...] = ()

    @property
    def status(self) -> Status:
        """The gravest status among its checks: stop, then unknown, warn, say, met."""
        worst: tuple[Status, ...] = ("stop", "unknown", "warn", "say")
        for s in worst:
            if any(c.status == s for c in self.checks):
                return s
        return "met"
