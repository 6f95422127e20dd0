"""The order of stages, by rule (chapter 4)."""

from __future__ import annotations

from .items import CarbonFigures, IronFilterFigures, Item, SedimentFigures
from .stream import Stream

#: kind -> place in the line; the house's branch first, then the drinking tap's
RANK = {
    "bypass": 1, "regulator": 2, "expansion": 3, "booster": 4, "sediment": 10, "aeration": 20, "chlorinator": 22, "iron_filter": 30, "neutraliser": 40,
    "softener": 50, "salt_free": 50, "physical": 51, "mixed_bed": 55, "tannin": 60, "nitrate": 62, "arsenic": 64, "carbon": 70, "uv": 90,
    "polish": 150, "cartridge": 125, "membrane": 130, "distiller": 130, "pitcher": 170,
}
CHLORINE_AHEAD_OF_CATION, CHLORINE_AHEAD_OF_ANION = 1.0, 0.1  # [mg/L]


def _chlorine(stream: Stream) -> float:
    return max(stream.best("chlorine_free") or 0.0, stream.best("chlorine_total") or 0.0)


def rank(item: Item, stream: Stream, items: tuple[Item, ...]) -> int:
    """Place of one item among ``items`` on this raw water."""
    f = item.figures
    base = RANK.get(item.kind, 80)
    if item.scope == "tap":
        if item.kind == "sediment":
            return 110
        if isinstance(f, CarbonFigures):
            return 120 if f.position == "pre" else 140
        return 160 if item.kind == "uv" else base if base >= 100 else 125
    if isinstance(f, SedimentFigures):
        fine = f.style == "cartridge" and f.micron <= 5 and any(i.kind == "uv" and i.scope == "house" for i in items)
        coarse = any(i is not item and isinstance(i.figures, SedimentFigures) and i.scope == "house" and i.figures.micron > f.micron for i in items)
        return 80 if fine and (coarse or len(items) > 2) else 10 if f.micron > 5 else 11
    if item.kind == "neutraliser":
        ph = stream.best("ph")
        for other in items:
            if isinstance(other.figures, IronFilterFigures) and ph is not None:
                wants = max(other.figures.ph_min_iron, other.figures.ph_min_manganese or 0.0)
                if ph < wants:
                    return 25
        return base
    if isinstance(f, CarbonFigures):
        chlorine = _chlorine(stream)
        if any(i.kind in ("tannin", "mixed_bed") for i in items) and chlorine > CHLORINE_AHEAD_OF_ANION:
            return 45
        if any(i.kind == "softener" for i in items) and chlorine > CHLORINE_AHEAD_OF_CATION:
            return 45
    if item.kind == "cartridge":
        return 66
    if item.kind == "membrane":
        return 75
    return base


def ordered(items: tuple[Item, ...], stream: Stream) -> tuple[Item, ...]:
    """Items in the order that the rules give them on this raw water; the house's branch before the tap's."""
    house = tuple(i for i in items if i.scope == "house")
    tap = tuple(i for i in items if i.scope == "tap")
    by = sorted(house, key=lambda i: rank(i, stream, house)) + sorted(tap, key=lambda i: rank(i, stream, tap))
    return tuple(by)
