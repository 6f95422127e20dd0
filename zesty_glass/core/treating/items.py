"""Catalogue items as value objects: what a stage is, needs, does and costs.

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
from ..record import TaggedBy, record


@record
class Effect:
    """Share removed of one analyte (0 to 1, from ``low`` to ``high``), with its evidence.

    ``out_at_most`` [canonical unit] is a claim on the product instead. A claim may hold only inside
    a pH window.
    """

    analyte: str
    low: float = 0.0
    best: float = 0.0
    high: float = 0.0
    out_at_most: float | None = None
    ph_min: float | None = None
    ph_max: float | None = None
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
        kind: filter, membrane, lamp, media, resin, part, service, test or sanitising.
        months: calendar interval [months]; capacity_gal: gallons it treats [gal].
        minutes: work each time [min]; own: the household does it.
        common: a common size; False means one maker's only.
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
        if (self.months is not None and self.months <= 0) or (
            self.capacity_gal is not None and self.capacity_gal <= 0
        ):
            raise RuleError(
                "consumable.interval",
                f"{self.name} has an interval that is not above 0.",
                where,
                "Give months or gallons above 0.",
            )


@record
class SedimentFigures:
    """Sediment filter: rating [µm]."""

    kind: Literal["sediment"] = "sediment"
    micron: float
    absolute: bool = False
    style: Literal["spin_down", "cartridge", "backwashing"] = "cartridge"
    backwash_gpm: float | None = None
    backwash_gal: float | None = None
    backwash_days: float | None = None


@record
class CarbonFigures:
    """Carbon bed or cartridge: volume [ft³]; ``position`` for the tap branch."""

    kind: Literal["carbon"] = "carbon"
    media: Literal["standard", "catalytic"]
    volume_ft3: float | None = None
    position: Literal["pre", "post"] = "pre"
    backwash_gpm: float | None = None
    backwash_gal: float | None = None
    backwash_days: float | None = None


@record
class SoftenerFigures:
    """Cation softener. ``doses`` overrides the common capacity table (lb/ft³ -> grains/ft³)."""

    kind: Literal["softener"] = "softener"
    resin_ft3: float
    dose_lb_ft3: float = 8.0
    control: Literal["metered", "clock"] = "metered"
    clock_days: float | None = None
    rinse_gal_ft3: float = 60.0
    salt: Literal["sodium", "potassium"] = "sodium"
    iron_max: float = 2.0
    iron_interval_days: float = 4.0
    doses: tuple[tuple[float, float], ...] = ()


@record
class ConditionerFigures:
    """Salt-free (crystal-forming) or physical conditioner: sized by flow; the minerals remain."""

    kind: Literal["salt_free", "physical"]
    flow_min_gpm: float = 0.0
    flow_max_gpm: float
    protocol: str = ""
    covers: Literal["house", "appliance", "shower"] = "house"


@record
class IronFilterFigures:
    """Iron, manganese and sulfide filter; pH minima per contaminant, maxima [mg/L]."""

    kind: Literal["iron_filter"] = "iron_filter"
    oxidant: Literal["air", "chlorine", "none"] = "air"
    dense: bool = False
    iron_max: float
    manganese_max: float | None = None
    sulfide_max: float | None = None
    ph_min_iron: float
    ph_min_manganese: float | None = None
    backwash_gpm: float
    backwash_gal: float
    backwash_days: float


@record
class NeutraliserFigures:
    """Acid neutraliser: media bed [ft³], magnesia share by mass (0 to 0.5)."""

    kind: Literal["neutraliser"] = "neutraliser"
    style: Literal["upflow", "backwashing", "feed"]
    volume_ft3: float
    magnesia_share: float = 0.0
    iron_max: float | None = None
    service_gpm: float | None = None
    backwash_gpm: float | None = None
    backwash_min: float | None = None
    backwash_days: float = 7.0
    media_lb_ft3: float = 90.0
    bag_price: Decimal = Decimal("38")
    refill_months: float | None = None
    target_ph: float = 7.4


@record
class TanninFigures:
    """Tannin filter (anion resin) or a mixed tannin and softening bed."""

    kind: Literal["tannin", "mixed_bed"]
    resin_ft3: float
    cation_ft3: float = 0.0
    regen_days: float = 3.0
    salt_lb: float
    regen_gal: float
    service_gpm: float | None = None
    tannin_max: float | None = None


@record
class UvFigures:
    """UV chamber: rows of (UVT %, gpm) at its named dose and end of lamp life, rising."""

    kind: Literal["uv"] = "uv"
    device_class: Literal["A", "B", "none"]
    monitored: bool
    table: tuple[tuple[float, float], ...]
    uvt_min: float
    dose: float
    lamp_length_in: float
    flat: bool
    lamp_days: float = 365.0
    watts: float


@record
class MembraneFigures:
    """Reverse osmosis, as rated: permeate [gal/day] at [psi], [mg/L] and [°C]; ratio drain to
    permeate.

    ``efficiency`` (0 to 1) is the rating with tank and shut-off in use; ``recovery`` is never used
    for yearly waste. ``permeate_pump``: what the item's own test leaves of the ratio at a home, 0 <
    figure ≤ 1; the ratio is multiplied by it.
    """

    kind: Literal["membrane"] = "membrane"
    rated_gpd: float
    rated_ratio: float
    rated_psi: float = 60.0
    rated_tds: float = 500.0
    rated_c: float = 25.0
    rejection: float
    efficiency: float | None = None
    shut_off: bool = True
    tank_gal: float | None = None
    precharge_psi: float | None = None
    shutoff_share: float | None = None
    permeate_pump: float | None = None
    psi_max: float | None = None
    ph_min: float = 3.0
    ph_max: float = 11.0
    polished: bool = False

    def __post_init__(self) -> None:
        if self.permeate_pump is not None and not 0 < self.permeate_pump <= 1:
            raise RuleError(
                "membrane.permeate_pump",
                f"A permeate pump that leaves {self.permeate_pump:g} of the waste is not possible.",
                "figures.permeate_pump",
                "Give what its own test leaves: above 0, at most 1.",
            )


@record
class DistillerFigures:
    """Distiller [kWh/gal, gal/day]."""

    kind: Literal["distiller"] = "distiller"
    kwh_gal: float
    gal_day: float
    residue_share: float
    automatic: bool = False
    rejection: float = 0.98


@record
class CartridgeFigures:
    """Adsorptive cartridge with its own pH window; none stated means no claim."""

    kind: Literal["cartridge"] = "cartridge"
    media: Literal["alumina", "bone_char", "iron_media", "tannin_resin", "other"]
    ph_min: float | None = None
    ph_max: float | None = None


@record
class PitcherFigures:
    """Pitcher, refrigerator or counter filter."""

    kind: Literal["pitcher"] = "pitcher"
    style: Literal["pitcher", "refrigerator", "counter"]
    change_at_tds: float | None = None


@record
class OtherFigures:
    """Stages that need a laboratory result and a licensed specialist, and plumbing devices."""

    kind: Literal[
        "aeration",
        "nitrate",
        "arsenic",
        "chlorinator",
        "regulator",
        "expansion",
        "bypass",
        "booster",
        "polish",
    ]
    sets_psi: float | None = None


@record
class SystemFigures:
    """Several stages sold as one, by item code, in order."""

    kind: Literal["system"] = "system"
    parts: tuple[str, ...]


Figures = Annotated[
    SedimentFigures
    | CarbonFigures
    | SoftenerFigures
    | ConditionerFigures
    | IronFilterFigures
    | NeutraliserFigures
    | TanninFigures
    | UvFigures
    | MembraneFigures
    | DistillerFigures
    | CartridgeFigures
    | PitcherFigures
    | OtherFigures
    | SystemFigures,
    TaggedBy("kind"),
]


@record
class Item:
    """One thing in the catalogue.

    Args:
        figures: what is special to its kind; ``figures.kind`` names the kind.
        drop_psi at drop_gpm: pressure drop [psi] at a flow [gpm]; scales with the square of flow.
        flow_gpm: largest service flow [gpm].
        drain, socket: needed; headroom_in, clearance_in [in]; weight_lb full [lb].
        psi_min: least running pressure [psi].
        kwh_year: electricity [kWh a year].
    """

    code: str
    name: str
    maker: str
    scope: Literal["house", "tap"]
    price: Decimal
    installation: Decimal = Decimal("0")
    figures: Figures
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
    parts: Literal["common", "single_source"] = "common"
    priced_on: str = ""
    for_what: str = ""

    def __post_init__(self) -> None:
        def refuse(code: str, what: str, remedy: str) -> None:
            raise RuleError(f"item.{code}", f"{self.name}: {what}", f"items[{self.code}]", remedy)

        if self.price < 0 or self.installation < 0 or self.service_year < 0:
            refuse("price", "a price is negative.", "Use 0 or more.")
        f = self.figures
        if isinstance(f, MembraneFigures):
            if not 0 < f.rejection < 1:
                refuse(
                    "rejection",
                    f"a rejection of {f.rejection:.0%} is not possible.",
                    "Give a share between 0 and 1.",
                )
            if f.rated_gpd <= 0 or f.rated_ratio < 0:
                refuse(
                    "rated",
                    "rated permeate must be above 0 and the ratio 0 or more.",
                    "Read both off the data sheet.",
                )
            if f.efficiency is not None and not 0 < f.efficiency <= 1:
                refuse("efficiency", "efficiency is a share between 0 and 1.", "Write 40 % as 0.4.")
        if isinstance(f, SoftenerFigures) and f.resin_ft3 <= 0:
            refuse(
                "capacity", "the resin volume must be above 0 ft³.", "Read it off the data sheet."
            )
        if isinstance(f, UvFigures):
            uvt = [row[0] for row in f.table]
            if not f.table or uvt != sorted(set(uvt)) or any(gpm <= 0 for _, gpm in f.table):
                refuse(
                    "uv_table",
                    "the table of UVT and gpm must rise and hold flows above 0.",
                    "Enter its rows in order.",
                )
        if isinstance(f, SystemFigures) and self.code in f.parts:
            refuse("circular", "a system cannot be a part of itself.", "Name its stages only.")
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
        "priced_on",
        "for_what",
        "footprint_in",
        "parts",
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


KIND_NAMES = {
    "sediment": "Sediment filter",
    "carbon": "Carbon",
    "softener": "Softener",
    "salt_free": "Salt-free conditioner",
    "physical": "Physical conditioner",
    "iron_filter": "Iron filter",
    "neutraliser": "Acid neutraliser",
    "tannin": "Tannin filter",
    "mixed_bed": "Mixed tannin and softening bed",
    "uv": "UV",
    "membrane": "Membrane",
    "distiller": "Distiller",
    "cartridge": "Adsorptive cartridge",
    "pitcher": "Pitcher or counter filter",
    "aeration": "Aeration",
    "nitrate": "Nitrate unit",
    "arsenic": "Arsenic unit",
    "chlorinator": "Chlorinator",
    "regulator": "Pressure regulator",
    "expansion": "Expansion device",
    "bypass": "Untreated outdoor bypass",
    "booster": "Booster pump",
    "polish": "Mineral and pH polish",
    "system": "Drinking tap, complete",
}
