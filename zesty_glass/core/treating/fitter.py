"""What is said of how a stage comes to a home: rented or bought, and who fits it, the firm, a
licensed person, or the household itself, with the caution where code asks for somebody licensed.
"""

from __future__ import annotations

from typing import Literal

from .checks import told
from .items import Item
from .letting import Letting
from .report import Check
from .stages import service_of

Fitter = Literal["firm", "licensed", "self"]
FITTERS: dict[Fitter, str] = {
    "firm": "the firm",
    "licensed": "a licensed person",
    "self": "yourself",
}
#: minutes of the household's own, once [min]: trade practice (2024)
UNPLUMBED_MIN, TAP_MIN, HOUSE_MIN = 15, 90, 240


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
    if service_of(item.kind).specialist:
        return told("fit.specialist", "stop", what=item.name)
    if not item.plumbed:
        return told("fit.self_loose", "say", what=item.name, need=own_minutes(item))
    return told("fit.self", "warn", what=item.name, need=own_minutes(item))


def letting_check(name: str, let: Letting | None) -> Check | None:
    """What is said of an item that is rented; None for one that is bought."""
    if let is None:
        return None
    if let.kind == "rent_to_own":
        return told("let.to_own", "say", what=name, need=let.months)
    parts = "parts and service are in the rent" if let.covers_parts else "parts are paid beside it"
    return told("let.rental", "say", what=name, need=let.months, have=parts)
