"""Equipment that stands in a home already, whoever sold it: what it is, how old it is, and what it
goes on costing.
"""

from __future__ import annotations

from datetime import date
from decimal import Decimal
from typing import Literal

from .analytes import ANALYTES, analyte
from .doing import NOTHING, Does
from .errors import RuleError
from .record import Words, record

Scope = Literal["house", "tap"]


@record
class InPlaceKind:
    """One kind of equipment as it is met with.

    Args:
        name, scope: how it is called, and which branch it usually stands in.
        part: what is changed in it; drawing: its picture on the page.
        works_on: analytes that it may change; of each it counts what was measured behind it here.
        service: what its service is, in words. does: what rules ask it by. place: where it stands
            in its branch; smaller stands earlier.
        asks: fields that are asked of it, beside its name,
            when it was fitted, its rent and the price of its service.
    """

    name: str
    scope: Scope
    part: str
    drawing: str
    works_on: tuple[str, ...]
    service: str
    does: frozenset[Does] = NOTHING
    place: int = 12
    asks: tuple[str, ...] = ()


_CHLORINE = ("chlorine_free", "chlorine_total", "chlorine_combined")
_CARTRIDGE = (*_CHLORINE, "turbidity", "lead", "pfoa", "pfos")
_BY_MEMBRANE = tuple(a.id for a in ANALYTES.values() if a.by_membrane and a.id not in _CARTRIDGE)
_BY_RESIN = tuple(a.id for a in ANALYTES.values() if a.by_resin)
_CHANGED = ("changed_on", "months", "part_price")
_BY_GALLONS = (*_CHANGED, "gallons", "gal_day")
_VALVE = ("resin_ft3", "dose_lb_ft3", "setting_gpg", "clock_days")
#: kinds of equipment in place: trade practice (2024)
KINDS: dict[str, InPlaceKind] = {
    "fridge": InPlaceKind(
        name="Refrigerator filter",
        scope="tap",
        part="cartridge",
        drawing="cartridge",
        works_on=_CARTRIDGE,
        service="A fresh cartridge, flushed with the gallons its maker says.",
        asks=_BY_GALLONS,
        place=125,
    ),
    "jug": InPlaceKind(
        name="Pitcher",
        scope="tap",
        part="cartridge",
        drawing="pitcher",
        works_on=(*_CARTRIDGE, "hardness", "tds"),
        service="A fresh cartridge, soaked and flushed as its maker says; the jug washed.",
        asks=(*_BY_GALLONS, "change_at_tds"),
        place=125,
    ),
    "tap_filter": InPlaceKind(
        name="Filter at the tap",
        scope="tap",
        part="cartridge",
        drawing="tap_carbon",
        works_on=_CARTRIDGE,
        service="A fresh cartridge, O-ring cleaned and greased, flushed.",
        asks=_BY_GALLONS,
        place=125,
    ),
    "dispenser": InPlaceKind(
        name="Water dispenser",
        scope="tap",
        part="cartridge or bottle",
        drawing="cartridge",
        works_on=_CARTRIDGE,
        service="Cleaned and sanitized, and a fresh cartridge or bottle.",
        asks=_BY_GALLONS,
        place=125,
    ),
    "membrane": InPlaceKind(
        name="RO system at the tap",
        scope="tap",
        part="filters and membrane",
        drawing="membrane",
        works_on=(*_CARTRIDGE, *_BY_MEMBRANE),
        service="Pre-filters and membrane changed, tank and tap sanitized, flushed, then measured.",
        asks=(*_CHANGED, "change_at_tds"),
        does=frozenset({"holds back"}),
        place=130,
    ),
    "softener": InPlaceKind(
        name="Softener",
        scope="house",
        part="salt",
        drawing="softener",
        works_on=("hardness", "iron", "manganese", *_BY_RESIN),
        service=(
            "Salt without a bridge, injector and resin cleaned, one regeneration by hand, then"
            " measured."
        ),
        asks=_VALVE,
        does=frozenset({"softens"}),
        place=50,
    ),
    "conditioner": InPlaceKind(
        name="Conditioner without salt",
        scope="house",
        part="media",
        drawing="salt_free",
        works_on=(),
        service="Media by its date; the minerals stay in the water in any case.",
        asks=_CHANGED,
        does=frozenset({"leaves minerals"}),
        place=51,
    ),
    "carbon": InPlaceKind(
        name="Carbon tank or housing",
        scope="house",
        part="carbon",
        drawing="carbon",
        works_on=(*_CHLORINE, "tannin", "colour"),
        service="Fresh carbon, flushed until it runs clear.",
        asks=_BY_GALLONS,
        does=frozenset({"takes chlorine"}),
        place=70,
    ),
    "sediment": InPlaceKind(
        name="Sediment filter",
        scope="house",
        part="cartridge",
        drawing="sediment",
        works_on=("turbidity",),
        service="A fresh cartridge, housing washed, O-ring cleaned and greased.",
        asks=_CHANGED,
        place=10,
    ),
    "iron_filter": InPlaceKind(
        name="Iron filter",
        scope="house",
        part="media",
        drawing="iron_filter",
        works_on=("iron", "manganese", "hydrogen_sulfide"),
        service="Backwash flow, air or oxidant and media looked at, then measured.",
        asks=_CHANGED,
        does=frozenset({"takes iron"}),
        place=30,
    ),
    "neutraliser": InPlaceKind(
        name="Acid neutralizer",
        scope="house",
        part="calcite",
        drawing="neutraliser",
        works_on=("ph", "alkalinity", "hardness"),
        service="Bed topped up and loosened, then the pH measured behind it.",
        asks=_CHANGED,
        does=frozenset({"raises pH"}),
        place=40,
    ),
    "uv": InPlaceKind(
        name="UV lamp",
        scope="house",
        part="lamp",
        drawing="uv",
        works_on=("coliform", "e_coli"),
        service="Lamp changed after a year of days powered, sleeve cleaned, alarm tried.",
        asks=_CHANGED,
        does=frozenset({"inactivates"}),
        place=90,
    ),
    "other": InPlaceKind(
        name="Other equipment",
        scope="house",
        part="part",
        drawing="sediment",
        works_on=(),
        service="Serviced as its maker says.",
    ),
}

Kind = Literal[
    "fridge",
    "jug",
    "tap_filter",
    "dispenser",
    "membrane",
    "softener",
    "conditioner",
    "carbon",
    "sediment",
    "iron_filter",
    "neutraliser",
    "uv",
    "other",
]


@record
class Claimed:
    """What stands on a device: the share of one analyte that it is said to take out (0 to 1)."""

    analyte: str
    share: float

    def __post_init__(self) -> None:
        analyte(self.analyte)
        if not 0 < self.share <= 1:
            raise RuleError(
                "in_place.claims",
                f"A claim of {self.share:.0%} less {self.analyte} is not possible.",
                f"home.in_place.claims[{self.analyte}]",
                "Use more than 0 and at most 100 %.",
            )


@record
class InPlace:
    """One piece of equipment in place. What nobody knows stays None.

    Args:
        name: what stands on it, or how the household calls it.
        fitted_on, changed_on: when it was fitted, and when its part was last changed.
        months, gallons: what its part is rated for; gal_day: how much runs through it a day.
        part_price: each change [money]; rent_month: rental [money a month]; service_price: what a
            service of it costs [money].
        resin_ft3, dose_lb_ft3, setting_gpg, clock_days: of a softener: resin [ft³], salt [lb/ft³],
            the hardness its valve is set to [gpg], and its days between regenerations when a clock
            decides.
        change_at_tds: reading at which its maker wants the part changed [mg/L].
        claims: what stands on it of what it takes out.
    """

    id: str
    kind: Kind
    name: Words = ""
    fitted_on: date | None = None
    changed_on: date | None = None
    months: float | None = None
    gallons: float | None = None
    gal_day: float | None = None
    part_price: Decimal | None = None
    rent_month: Decimal = Decimal(0)
    service_price: Decimal | None = None
    resin_ft3: float | None = None
    dose_lb_ft3: float | None = None
    setting_gpg: float | None = None
    clock_days: float | None = None
    change_at_tds: float | None = None
    claims: tuple[Claimed, ...] = ()
    note: Words = ""

    def __post_init__(self) -> None:
        for field, low, high in _BOUNDS:
            value = getattr(self, field)
            if value is not None and not low <= value <= high:
                raise RuleError(
                    f"in_place.{field}",
                    f"{self.called}: {field.replace('_', ' ')} of {value:g} is not possible.",
                    f"home.in_place[{self.id}].{field}",
                    f"Use {low:g} to {high:g}.",
                )
        twice = len({c.analyte for c in self.claims}) < len(self.claims)
        if twice:
            raise RuleError(
                "in_place.claims",
                f"{self.called}: two claims on the same analyte.",
                f"home.in_place[{self.id}].claims",
                "Keep one.",
            )
        late = self.changed_on and self.fitted_on and self.changed_on < self.fitted_on
        if late:
            raise RuleError(
                "in_place.dates",
                f"{self.called}: its part cannot have been changed before it was fitted.",
                f"home.in_place[{self.id}].changed_on",
                "Check the two dates.",
            )

    @property
    def of(self) -> InPlaceKind:
        """What is known of its kind."""
        return KINDS[self.kind]

    @property
    def called(self) -> str:
        """Its name, or that of its kind."""
        return self.name.strip() or self.of.name

    @property
    def fresh_since(self) -> date | None:
        """Since when the part in it works; None where nobody knows."""
        return self.changed_on or self.fitted_on


#: how far its numbers go: a slip of the finger lies outside
_BOUNDS = (
    ("months", 0.1, 600),
    ("gallons", 1, 10_000_000),
    ("gal_day", 0, 100_000),
    ("part_price", 0, 100_000),
    ("rent_month", 0, 10_000),
    ("service_price", 0, 100_000),
    ("resin_ft3", 0.1, 50),
    ("dose_lb_ft3", 4, 15),
    ("setting_gpg", 0, 250),
    ("clock_days", 1, 99),
    ("change_at_tds", 1, 5000),
)
