"""What a demonstration is worked out from."""

from __future__ import annotations

from ..home import Home
from ..record import record
from ..rules import Settings
from ..testing.findings import Meaning
from ..testing.value import Value
from ..testing.water import Sample, Water
from ..treating.line import LineReport


@record
class Around:
    """What a demonstration is worked out from: samples, their waters and meanings, lines by option,
    home and settings.
    """

    samples: dict[str, Sample]
    waters: dict[str, Water]
    lines: dict[str, LineReport]
    home: Home
    settings: Settings
    meanings: dict[str, Meaning]

    def value(self, sample: str, analyte: str) -> Value | None:
        """A sample's value, or None."""
        w = self.waters.get(sample)
        return None if w is None else w.values.get(analyte)
