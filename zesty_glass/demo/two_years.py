"""Two years of the made-up firm's past, drawn by seed: who bought what, how it did, what was
changed when. Some promises fall short, as they do; the noise is that of the instruments and of
homes.
"""

from __future__ import annotations

import random

from . import homes
from .past import Earlier

SEED = 20261126
DAYS = 730  # how far back the earliest of them was fitted
SHORT = 0.15  # share of lines that fall short at first
LATE = 0.25  # spread of a change around its day, as a share of the interval
#: invented, every one of them
PEOPLE = (
    "Aldith Quenmarsh",
    "Barrow Tessingay",
    "Corvin Hallowmere",
    "Delphie Orrocks",
    "Emmot Stavely-Rook",
    "Fenella Cudbrook",
    "Garrick Wispmoor",
    "Hollis Umberlay",
    "Ishbel Tarnforth",
    "Jessamy Crake",
    "Kestrel Holdenby",
    "Lorrim Pashgate",
    "Mabyn Thistlewood",
    "Norrell Dapplewick",
    "Osanna Brightfell",
    "Piers Lambrook-Vane",
    "Quilla Redshaw",
    "Rowland Ebbsworth",
    "Sidony Marchlade",
    "Tamberlin Oxley",
    "Ursel Fogarthy",
    "Verity Sallowfield",
)
STREETS = ("Flintlock Row", "Chalk Steps", "Kiln Row", "Saddlers Lane", "Tollgate", "Weir Bank")
FARMS = ("Upper Rigg", "Lower Rigg", "Thornacre", "Pennock", "Withy End", "Hallow Bank")


def _town(n: int, rng: random.Random) -> Earlier:
    """A house on the chalk-fed town supply: a softener and a membrane at the tap."""
    fitted = rng.randrange(25, DAYS)
    salts = round(rng.uniform(0.75, 1.25), 2)
    short = rng.random() < SHORT
    year = int(365 * rng.uniform(1 - LATE, 1 + LATE))
    return Earlier(
        key=f"years-{n}",
        like=homes.home_1,
        name=PEOPLE[n],
        home=f"{rng.randrange(1, 30)} {rng.choice(STREETS)}",
        place="Marl End",
        option=1,
        fitted=fitted,
        salts=salts,
        lime=round(rng.uniform(0.7, 1.15), 2),
        declined=n % 6 == 5,
        drops=rng.choice((4, 5, 6)) if short else rng.choice((0, 0, 0, 1)),
        tds=tuple(
            (days, round(22 * salts * rng.uniform(0.85, 1.15) * (1 + days / 1500)))
            for days in (1, 190, 380, 570)
            if days < fitted
        ),
        changed=tuple(fitted - k * year for k in (1, 2) if k * year < fitted),
    )


def _hill(n: int, rng: random.Random) -> Earlier:
    """A farm on a hillside well with acid water: a bed of calcite."""
    fitted = rng.randrange(25, DAYS)
    short = rng.random() < SHORT
    ph = rng.uniform(6.2, 6.6) if short else rng.uniform(7.2, 7.8)
    filled = int(330 * rng.uniform(1 - LATE, 1 + LATE))
    return Earlier(
        key=f"years-{n}",
        like=homes.home_2,
        name=PEOPLE[n],
        home=f"{rng.choice(FARMS)}, {rng.randrange(1, 9)}",
        place="Cinderlow",
        option=0,
        fitted=fitted,
        salts=round(rng.uniform(0.6, 1.6), 2),
        lime=round(rng.uniform(0.6, 1.6), 2),
        declined=n % 6 == 2 and n > 12,
        ph=round(ph, 1),
        changed=tuple(fitted - k * filled for k in (1, 2) if k * filled < fitted),
    )


def _granite(n: int, rng: random.Random) -> Earlier:
    """A house above the valley: a membrane at the drinking tap."""
    fitted = rng.randrange(25, DAYS)
    salts = round(rng.uniform(0.8, 1.4), 2)
    year = int(365 * rng.uniform(1 - LATE, 1 + LATE))
    return Earlier(
        key=f"years-{n}",
        like=homes.home_5,
        name=PEOPLE[n],
        home=f"The {rng.choice(FARMS)} house",
        place="above Cinderlow",
        option=0,
        fitted=fitted,
        salts=salts,
        tds=tuple(
            (days, round(14 * salts * rng.uniform(0.8, 1.2)))
            for days in (2, 200, 400)
            if days < fitted
        ),
        lime=round(rng.uniform(0.5, 1.8), 2),
        changed=tuple(fitted - k * year for k in (1, 2) if k * year < fitted),
    )


def drawn(seed: int = SEED) -> tuple[Earlier, ...]:
    """The customers of two years; one seed is one past."""
    rng = random.Random(seed)
    of = (_town, _town, _hill, _granite)
    return tuple(of[n % len(of)](n, rng) for n in range(len(PEOPLE)))
