"""Catalog items as value objects: what a stage is, needs, does and costs.

A figure that the item must have and lacks is unknown, never a default; fields that may be unknown
are therefore None.
"""

from __future__ import annotations

from dataclasses import fields
from decimal import Decimal
from operator import attrgetter
from typing import Annotated, Any, Literal

from ..analytes import analyte
from ..errors import RuleError
from ..evidence import Evidence, Level
from ..record import record
from .figures import Fault, Figures, OfAnyTechnology
from .letting import Letting, one_of_each


@record
class Effect:
    """Share removed of one analyte (0 to 1, from ``low`` to ``high``), with its evidence.

    ``out_at_most`` [canonical unit] is a claim on the product instead. A claim may hold only inside
    a pH window; one on arsenic holds for As(V) alone, unless it is for ``any_form`` (NSF/ANSI 53
    and 58, 2022).
    """

    analyte: str
    low: float = 0.0
    best: float = 0.0
    high: float = 0.0
    out_at_most: float | None = None
    ph_min: float | None = None
    ph_max: float | None = None
    any_form: bool = False
    evidence: Evidence

    def __post_init__(self) -> None:
        analyte(self.analyte)
        if not 0 <= self.low <= self.best <= self.high <= 1:
            raise RuleError(
                "effect.share",
                f"A removal from {self.low:.0%} to {self.high:.0%} of {self.analyte} is not"
                " possible.",
                f"effects[{self.analyte}]",
                "Shares run from 0 to 1, low to high.",
            )
        if self.evidence.level in (Level.NO_CLAIM, Level.DOES_NOT_REMOVE) and self.high > 0:
            raise RuleError(
                "effect.no_claim",
                f"“{self.evidence.level}” cannot carry a removal of {self.analyte}.",
                f"effects[{self.analyte}]",
                "Leave the shares at 0.",
            )


@record
class Need:
    """What the water reaching a stage must be. ``severity`` is what an unmet need does."""

    analyte: str
    op: Literal["at_most", "at_least"] = "at_most"
    limit: float
    severity: Literal["stop", "warn"] = "stop"
    why: str = ""
    strict: bool = False  # an uncertain range stops too (needs of health and of UV)


@record
class Consumable:
    """A part or a job that falls due: by calendar, by gallons, or by both, whichever is sooner.

    Args:
        kind: filter, membrane, lamp, media, resin, part, service, test or sanitizing.
        months: calendar interval [months]; capacity_gal: gallons it treats [gal].
        minutes: work each time [min]; own: the household does it.
        common: a common size; False means one maker's only.
        months_private: its interval on a supply of the household's own, where its maker tells it
            from that on a town's [months].
        flush_gal: run off before the first use, by its sheet [gal]; None where it says nothing.
    """

    code: str
    name: str
    kind: Literal[
        "filter", "membrane", "lamp", "media", "resin", "part", "service", "test", "sanitising"
    ]
    price: Decimal
    months: float | None = None
    capacity_gal: float | None = None
    minutes: int = 15
    own: bool = True
    common: bool = True
    flush_gal: float | None = None
    months_private: float | None = None

    def __post_init__(self) -> None:
        where = f"consumables[{self.code}]"
        if self.price < 0:
            raise RuleError(
                "consumable.price", f"{self.name} has a negative price.", where, "Use 0 or more."
            )
        if self.months is None and self.capacity_gal is None:
            raise RuleError(
                "consumable.interval",
                f"{self.name} has neither months nor gallons.",
                where,
                "Give at least one.",
            )
        given = (self.months, self.capacity_gal, self.months_private)
        if any(x is not None and x <= 0 for x in given):
            raise RuleError(
                "consumable.interval",
                f"{self.name} has an interval that is not above 0.",
                where,
                "Give months or gallons above 0.",
            )


@record
class SystemFigures(Figures):
    """Several stages sold as one, by item code, in order."""

    kind: Literal["system"] = "system"
    parts: tuple[str, ...]

    def faults(self, code: str) -> tuple[Fault, ...]:
        """A system that names itself."""
        if code not in self.parts:
            return ()
        return (("circular", "a system cannot be a part of itself.", "Name its stages only."),)


@record
class Item:
    """One thing in the catalog.

    Args:
        figures: what is special to its kind; ``figures.kind`` names the kind.
        drop_psi at drop_gpm: pressure drop [psi] at a flow [gpm]; scales with the square of flow.
        flow_gpm: largest service flow [gpm].
        drain, socket: needed; headroom_in, clearance_in [in]; weight_lb full [lb].
        psi_min: least running pressure [psi].
        kwh_year: electricity [kWh a year].
        lets: how the firm lets it instead of selling it, at most one of each kind.
    """

    code: str
    name: str
    maker: str
    scope: Literal["house", "tap"]
    price: Decimal
    installation: Decimal = Decimal("0")
    figures: Annotated[Figures, OfAnyTechnology()]
    effects: tuple[Effect, ...] = ()
    needs: tuple[Need, ...] = ()
    consumables: tuple[Consumable, ...] = ()
    drain: bool = False
    socket: bool = False
    plumbed: bool = True
    headroom_in: float | None = None
    clearance_in: float | None = None
    footprint_in: str = ""
    weight_lb: float | None = None
    flow_gpm: float | None = None
    drop_psi: float | None = None
    drop_gpm: float | None = None
    psi_min: float | None = None
    kwh_year: float = 0.0
    service_year: Decimal = Decimal("0")
    warranty: str = ""
    spares_years: float | None = None
    parts: Literal["common", "single_source"] = "common"
    priced_on: str = ""
    for_what: str = ""
    lets: tuple[Letting, ...] = ()

    def __post_init__(self) -> None:
        def refuse(code: str, what: str, remedy: str) -> None:
            raise RuleError(f"item.{code}", f"{self.name}: {what}", f"items[{self.code}]", remedy)

        if self.price < 0 or self.installation < 0 or self.service_year < 0:
            refuse("price", "a price is negative.", "Use 0 or more.")
        for code, what, remedy in (*self.figures.impossible(), *self.figures.faults(self.code)):
            refuse(code, what, remedy)
        one_of_each(self.lets)
        names = [e.analyte for e in self.effects]
        if len(names) != len(set(names)):
            refuse("effects", "two effects name the same analyte.", "Keep one.")

    @property
    def kind(self) -> str:
        """The technology, e.g. ``softener``."""
        return self.figures.kind


_SOLD_BY = frozenset(
    {
        "code",
        "name",
        "maker",
        "price",
        "installation",
        "warranty",
        "spares_years",
        "priced_on",
        "for_what",
        "footprint_in",
        "parts",
        "lets",
    }
)  # decides nothing about the water
_PLUMBED_BY = frozenset({"flow_gpm", "drop_psi", "drop_gpm"})  # a remark, and the pressure it takes
_DOES = attrgetter(
    *(f.name for f in fields(Item) if f.name not in _SOLD_BY | _PLUMBED_BY | {"consumables"})
)
_TAKES = attrgetter(*sorted(_PLUMBED_BY))
_PART = attrgetter(*(f.name for f in fields(Consumable) if f.name not in ("code", "name", "price")))


def alike(item: Item, plumbing: bool = True) -> Any:
    """What two items must share to do the same to every water: everything but name, maker and
    prices; without ``plumbing`` the flow they pass and the pressure they take may differ too.
    """
    return (
        _DOES(item),
        tuple(_PART(c) for c in item.consumables),
        _TAKES(item) if plumbing else None,
    )
