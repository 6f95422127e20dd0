"""What a warning means, and what it weighs in the order of lines: they are weighed, not counted, so
that a line is no better because fewer checks exist for its technology.

The weights are a trade judgement (2026): one that says it may not work weighs one, as much as twice
the money.
"""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from types import MappingProxyType
from typing import Literal

from ..treating.report import Check

Means = Literal["health", "works", "wear", "upkeep", "place", "test"]
WEIGHTS: Mapping[Means, float] = MappingProxyType(
    {"health": 2.0, "works": 1.0, "wear": 0.5, "upkeep": 0.5, "place": 0.5, "test": 0.25}
)
#: what warnings mean, by their ids; one that is not named may keep it from working
MEANS: Mapping[str, Means] = MappingProxyType(
    {
        "evidence.health": "health",
        "line.undisinfected": "health",
        "arsenic.form": "health",
        "membrane.hardness": "wear",
        "membrane.iron": "wear",
        "membrane.manganese": "wear",
        "membrane.chlorine_total": "wear",
        "salt_free.manganese": "wear",
        "softener.chlorine_free": "wear",
        "tannin.chlorine_free": "wear",
        "tannin.hardness": "wear",
        "tannin.iron": "wear",
        "ultrafiltration.iron": "wear",
        "ultrafiltration.tannin": "wear",
        "ultrafiltration.turbidity": "wear",
        "cartridge.days": "upkeep",
        "pitcher.days": "upkeep",
        "distiller.energy": "upkeep",
        "neutraliser.iron": "upkeep",
        "neutraliser.overshoot": "upkeep",
        "neutraliser.ph_meter": "upkeep",
        "neutraliser.sodium": "upkeep",
        "softener.wasteful": "upkeep",
        "softener.diet": "upkeep",
        "fit.self": "place",
        "line.same_hour": "place",
        "pressure.shower": "place",
        "septic.discharge": "place",
        "space.floor": "place",
        "space.freezing": "place",
        "specialist": "place",
        "well.low_yield": "place",
        "nitrate.infant": "test",
    }
)


def weight(check: str) -> float:
    """What a warning weighs, by its id.

    >>> weight("membrane.iron"), weight("carbon.ebct")
    (0.5, 1.0)
    """
    return WEIGHTS[MEANS.get(check, "works")]


def by_weight(checks: Iterable[Check]) -> list[Check]:
    """Checks with what weighs most first."""
    return sorted(checks, key=lambda c: -weight(c.id))


def burden(checks: Iterable[Check]) -> float:
    """What a line's warnings weigh together; one sentence counts once."""
    warned = {c.sentence: weight(c.id) for c in checks if c.status == "warn"}
    return sum(warned.values())
