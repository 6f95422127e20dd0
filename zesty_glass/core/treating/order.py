"""The order of stages, by rule."""

from __future__ import annotations

from ..record import record
from .items import CarbonFigures, IronFilterFigures, Item, SedimentFigures
from .stream import Stream

#: kind -> place in the line; the house's branch first, then the drinking tap's
RANK = {
    "bypass": 1,
    "regulator": 2,
    "expansion": 3,
    "booster": 4,
    "sediment": 10,
    "aeration": 20,
    "chlorinator": 22,
    "iron_filter": 30,
    "neutraliser": 40,
    "softener": 50,
    "salt_free": 50,
    "physical": 51,
    "mixed_bed": 55,
    "tannin": 60,
    "nitrate": 62,
    "arsenic": 64,
    "carbon": 70,
    "uv": 90,
    "polish": 150,
    "cartridge": 125,
    "membrane": 130,
    "distiller": 130,
    "pitcher": 170,
}
CHLORINE_AHEAD_OF_CATION, CHLORINE_AHEAD_OF_ANION = 1.0, 0.1  # [mg/L]


def _chlorine(stream: Stream) -> float:
    return max(stream.best("chlorine_free") or 0.0, stream.best("chlorine_total") or 0.0)


@record
class Company:
    """What the place of an item depends on beside the item itself: which others stand on its
    branch, on this raw water.

    Args:
        uv: a UV chamber, which wants its fine sediment filter right ahead of it.
        iron_wants_ph: an iron filter whose least pH is above the raw water's.
        anion: anion resin; softener: cation resin.
    """

    uv: bool = False
    iron_wants_ph: bool = False
    anion: bool = False
    softener: bool = False


def wants_ph(item: Item, stream: Stream) -> bool:
    """Whether an iron filter's least pH is above the raw water's."""
    f, ph = item.figures, stream.best("ph")
    return (
        isinstance(f, IronFilterFigures)
        and ph is not None
        and ph < max(f.ph_min_iron, f.ph_min_manganese or 0.0)
    )


def company(items: tuple[Item, ...], stream: Stream) -> Company:
    """The company that items of one branch keep."""
    kinds = {i.kind for i in items}
    return Company(
        uv="uv" in kinds,
        iron_wants_ph=any(wants_ph(i, stream) for i in items),
        anion=bool(kinds & {"tannin", "mixed_bed"}),
        softener="softener" in kinds,
    )


def carbon_first(company_: Company, stream: Stream) -> bool:
    """Whether chlorine wants carbon ahead of the resins that are there."""
    chlorine = _chlorine(stream)
    return (company_.anion and chlorine > CHLORINE_AHEAD_OF_ANION) or (
        company_.softener and chlorine > CHLORINE_AHEAD_OF_CATION
    )


def rank(item: Item, stream: Stream, beside: Company) -> int:
    """Place of one item in its branch, on this raw water and in this company."""
    f = item.figures
    base = RANK.get(item.kind, 80)
    if item.scope == "tap":
        if item.kind == "sediment":
            return 110
        if isinstance(f, CarbonFigures):
            return 120 if f.position == "pre" else 140
        return 160 if item.kind == "uv" else base if base >= 100 else 125
    if isinstance(f, SedimentFigures):
        if f.style == "cartridge" and f.micron <= 5 and beside.uv:
            return 80
        return 10 if f.micron > 5 else 11
    if item.kind == "neutraliser":
        return 25 if beside.iron_wants_ph else base
    if isinstance(f, CarbonFigures):
        return 45 if carbon_first(beside, stream) else base
    return {"cartridge": 66, "membrane": 75}.get(item.kind, base)


def ordered(items: tuple[Item, ...], stream: Stream) -> tuple[Item, ...]:
    """Items in the order that the rules give them on this raw water; the house's branch before the
    tap's.
    """
    out: list[Item] = []
    for scope in ("house", "tap"):
        branch = tuple(i for i in items if i.scope == scope)
        beside = company(branch, stream)
        out += sorted(branch, key=lambda i: rank(i, stream, beside))
    return tuple(out)
