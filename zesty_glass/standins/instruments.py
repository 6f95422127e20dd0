"""The simulated meter, colorimeter and laboratory, reading one tap with honest noise."""

from __future__ import annotations

import math
import random
from collections.abc import Iterator
from datetime import datetime, timedelta

from ..core.analytes import ANALYTES, Analyte
from ..core.testing.by_laboratory import COLLECTION
from .interfaces import Look
from .tap import Tap

SETTLES_AFTER = 9  # looks until the display stands still


class SimulatedMeter:
    """A TDS meter on a wire: it drifts in, settles, follows temperature, and jumps to its x10 range
    above 999.
    """

    simulated = True

    def __init__(self, tap: Tap, seed: str, temperature_c: float | None = None) -> None:
        self._tap, self._seed = tap, seed
        self._c = tap.truth["temperature"] if temperature_c is None else temperature_c

    def look(self, n: int) -> Look:
        """The ``n``-th look; the same number always shows the same."""
        noise = random.Random(f"{self._seed}:{n}")
        true = self._tap.truth["tds"] * (1 + 0.002 * (self._c - 25) * 0.1)
        start = true * 0.82
        value = true + (start - true) * math.exp(-n / 2.2) + noise.gauss(0, max(0.6, true * 0.0025))
        scale = 10 if true > 999 else 1
        return Look(
            n=n,
            display=max(0.0, round(value / scale)),
            multiplier=scale,
            temperature_c=round(self._c + 0.3 * math.exp(-n / 4), 1),
            steady=n >= SETTLES_AFTER,
        )

    def looks(self, after: int = 0) -> Iterator[Look]:
        """Looks without end, from the one after ``after``."""
        n = after + 1
        while True:
            yield self.look(n)
            n += 1


class SimulatedColorimeter:
    """A pocket colorimeter with 3 % and two steps of noise."""

    simulated = True

    def __init__(self, tap: Tap, seed: str) -> None:
        self._tap, self._noise = tap, random.Random(seed)

    def read(self, analyte: str) -> float:
        """The number it shows for one analyte."""
        true = self._tap.truth.get(analyte, 0.0)
        return max(0.0, round(true + self._noise.gauss(0, 0.03 * true + 0.01), 2))


def _basis(a: Analyte) -> str:
    """What the simulated laboratory counts an analyte as."""
    bases = dict(a.bases)
    if a.half_life_d is not None:
        return COLLECTION
    return "CaCO3" if "CaCO3" in bases else next(iter(bases), "")


class SimulatedLaboratory:
    """A laboratory that returns its report as CSV, a simulated while after it
    received the bottle.
    """

    simulated = True
    takes = timedelta(seconds=40)

    def __init__(self, tap: Tap) -> None:
        self._tap = tap

    @classmethod
    def ready_at(cls, received_at: datetime) -> datetime:
        """When the report on a bottle received then is ready."""
        return received_at + cls.takes

    def report(self, analytes: tuple[str, ...]) -> bytes:
        """Results of the analytes asked for, with unit, basis and detection limit."""
        lines = ["analyte,result,unit,basis,detection_limit,laboratory,certified"]
        for a in analytes:
            true = self._tap.truth.get(a, 0.0)
            if ANALYTES[a].unit == "per 100 mL":
                lines.append(
                    f"{a},{'present' if true > 0 else 'absent'},,,,Simulated laboratory,yes"
                )
                continue
            basis, limit = _basis(ANALYTES[a]), ANALYTES[a].reported_from
            unit = ANALYTES[a].unit.replace(" as CaCO3", "")
            result = "ND" if true < limit else f"{true:.4g}"
            lines.append(f"{a},{result},{unit},{basis},{limit},Simulated laboratory,yes")
        return ("\n".join(lines) + "\n").encode()
