"""A large catalog made from the demo's: every stage in several makers' prices, flows and pressure
drops, for measuring the search.
"""

from __future__ import annotations

import random
from dataclasses import replace
from decimal import Decimal

from zesty_glass.catalogue.examples import example_items
from zesty_glass.core.treating.items import Item, SystemFigures

MAKERS = (
    "Quorrel",
    "Tessaby Works",
    "Hodmarrow",
    "Ulvenby",
    "Brindleware",
    "Ashcombrel",
    "Veltane",
    "Oskelware",
)


def _priced(price: Decimal, factor: float) -> Decimal:
    return (price * Decimal(repr(round(factor, 3)))).quantize(Decimal("0.01"))


def large_catalogue(many: int = 500, seed: int = 7) -> tuple[Item, ...]:
    """``many`` items: the demo's own, and copies with other prices; every third copy also passes
    more water at less pressure drop.
    """
    chance = random.Random(seed)
    own = example_items()
    out: list[Item] = list(own)
    turn = 1
    while len(out) < many:
        for i in own:
            if len(out) >= many:
                break
            factor, parts = chance.uniform(0.8, 1.35), chance.uniform(0.8, 1.3)
            more: dict[str, object] = {}
            if (
                turn % 3 == 0
                and i.flow_gpm is not None
                and not isinstance(i.figures, SystemFigures)
            ):
                more = {
                    "flow_gpm": round(i.flow_gpm * 1.25, 1),
                    "drop_psi": None if i.drop_psi is None else round(i.drop_psi * 0.8, 2),
                }
            out.append(
                replace(
                    i,
                    code=f"{i.code}-{turn}",
                    name=f"{i.name}, {turn}",
                    maker=MAKERS[(turn + len(i.code)) % len(MAKERS)],
                    price=_priced(i.price, factor),
                    installation=_priced(i.installation, factor),
                    consumables=tuple(
                        replace(c, code=f"{c.code}-{turn}", price=_priced(c.price, parts))
                        for c in i.consumables
                    ),
                    **more,  # type: ignore[arg-type]
                )
            )
        turn += 1
    return tuple(out)
