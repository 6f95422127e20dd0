"""Salt for what is regenerated with brine: what it costs in bags, brought or carried."""

from __future__ import annotations

from ..report import Chore, Running
from ..site import Site
from .common import money

SALT_BAG_LB = 40.0
#: potassium chloride that does the work of a pound of sodium chloride [lb/lb]: equivalent weights
#: 74.551 / 58.443 (IUPAC, 2021)
KCL_PER_NACL = 1.276


def salt_costs(salt_lb_year: float, site: Site, potassium: bool = False) -> tuple[Running, ...]:
    """Bags of salt a year, and what bringing them costs where the firm does [money/year].

    Args:
        salt_lb_year: of the salt that is used [lb/year]. potassium: potassium chloride, at its own
            price.
    """
    bags, firm = salt_lb_year / SALT_BAG_LB, site.settings
    salt = Running(
        label="Potassium chloride" if potassium else "Salt",
        kind="salt",
        per_year=money(bags) * (firm.potassium_bag if potassium else firm.salt_bag),
        why=f"{salt_lb_year:,.0f} lb a year in {SALT_BAG_LB:g}-lb bags",
    )
    if firm.salt_delivery <= 0:
        return (salt,)
    brought = Running(
        label="Salt, brought",
        kind="salt",
        per_year=money(bags) * firm.salt_delivery,
        why=f"{bags:,.1f} bags a year at {firm.salt_delivery} each",
    )
    return salt, brought


def salt_chore(salt_lb_year: float, site: Site) -> Chore:
    """Two bags at a time, carried by the household; brought ones are only filled in."""
    bags = salt_lb_year / SALT_BAG_LB
    if site.settings.salt_delivery > 0:
        return Chore(label="Fill in salt that is brought", times_year=bags / 2, minutes=4, bags=0)
    return Chore(label="Carry salt", times_year=bags / 2, minutes=10, bags=bags)
