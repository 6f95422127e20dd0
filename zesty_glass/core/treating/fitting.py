"""Who fits a stage: the firm, a licensed person, or the household itself, with what that changes,
and the caution where code asks for somebody licensed.
"""

from __future__ import annotations

from typing import Literal

from .checks import told
from .items import Item
from .report import Check

Fitter = Literal["firm", "licensed", "self"]
FITTERS: dict[Fitter, str] = {
    "firm": "the firm",
    "licensed": "a licensed person",
    "self": "the household itself",
}
#: minutes of the household's own, once [min]: trade practice (2024)
UNPLUMBED_MIN, TAP_MIN, HOUSE_MIN = 15, 90, 240
#: technologies that a licensed specialist fits in any case: trade practice (2024)
SPECIALISTS = frozenset({"aeration", "nitrate", "arsenic", "chlorinator", "uv"})


def own_minutes(item: Item) -> int:
    """What fitting an item asks of a household that does it itself [min]."""
    if not item.plumbed:
        return UNPLUMBED_MIN
    return TAP_MIN if item.scope == "tap" else HOUSE_MIN


def fitting_check(item: Item, fitter: Fitter) -> Check | None:
    """What is said of who fits an item; None for the firm."""
    if fitter == "firm":
        return None
    if fitter == "licensed":
        return told("fit.licensed", "say", what=item.name)
    if item.kind in SPECIALISTS:
        return told("fit.specialist", "stop", what=item.name)
    if not item.plumbed:
        return told("fit.self_loose", "say", what=item.name, need=own_minutes(item))
    return told("fit.self", "warn", what=item.name, need=own_minutes(item))
