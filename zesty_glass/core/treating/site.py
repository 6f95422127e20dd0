"""What a stage may ask about the place it stands in."""

from __future__ import annotations

from enum import IntEnum

from ..home import SURFACE, Home
from ..ranges import Range
from ..record import record
from ..rules import Settings
from .demand import Demand


class Disinfected(IntEnum):
    """Whether something ahead of a place disinfects: nothing, one whose tests are open, or one
    that works.
    """

    NO = 0
    OPEN = 1
    YES = 2


@record
class Site:
    """Home, settings and demand, with what the laboratory said of bacteria in the raw water.

    ``bacteria``: "absent", "present" or None when no laboratory has answered. ``full_flow_gpm`` is
    the measured flow. ``mute``: nobody will read the sentences of the needs, so they are not
    written (a search makes many thousands).
    """

    home: Home
    settings: Settings
    demand: Demand
    bacteria: str | None
    running_psi: Range | None
    limiter_gpm: float | None = None
    mute: bool = False

    @property
    def units(self) -> str:
        """US or metric, for sentences; empty when nobody reads them."""
        return "" if self.mute else self.settings.units

    @property
    def unsafe_likely(self) -> bool:
        """Coliform found, or a surface or cistern water."""
        return self.bacteria == "present" or self.home.source in SURFACE

    def gallons_year(self, scope: str) -> float:
        """Gallons a year through a stage of this branch."""
        return self.demand.house_gal_year if scope == "house" else self.demand.drinking_gal_year
