"""A tap with a hidden true composition; the same seed gives the same water."""

from __future__ import annotations

import random
from collections.abc import Mapping

#: a plain water where nothing else is known [canonical units]
PLAIN = {
    "tds": 210.0,
    "hardness": 120.0,
    "iron": 0.12,
    "iron_ferrous": 0.1,
    "manganese": 0.02,
    "tannin": 0.1,
    "chlorine_free": 0.2,
    "chlorine_total": 0.4,
    "ph": 7.4,
    "alkalinity": 110.0,
    "temperature": 12.0,
    "turbidity": 0.4,
    "calcium": 80.0,
    "nitrate_n": 1.8,
    "arsenic": 0.001,
    "fluoride": 0.3,
    "copper": 0.05,
    "lead": 0.0005,
    "coliform": 0.0,
    "e_coli": 0.0,
    "uvt": 92.0,
    "radon": 240.0,
    "sulfate": 18.0,
    "chloride": 22.0,
}


class Tap:
    """True values by analyte, around what is known of a water; never shown to the page."""

    def __init__(self, seed: str, known: Mapping[str, float] | None = None) -> None:
        self._noise = random.Random(seed)
        base = {**PLAIN, **(known or {})}
        self.truth = {k: v * (1 + self._noise.uniform(-0.02, 0.02)) for k, v in base.items()}
