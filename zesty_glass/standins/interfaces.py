"""What a device or service looks like to the application; a real driver takes a stand-in's place by
filling one of these.
"""

from __future__ import annotations

from collections.abc import Iterator
from datetime import datetime
from typing import Protocol

from ..core.record import record


@record
class Look:
    """One look at a meter on a wire: running number, display as shown, range mark, temperature
    [°C], settled or not.
    """

    n: int
    display: float
    multiplier: int
    temperature_c: float
    steady: bool


class StreamingMeter(Protocol):
    """A meter that sends its display several times a second."""

    simulated: bool

    def looks(self, after: int = 0) -> Iterator[Look]:
        """Looks from the one after number ``after`` on, so that a dropped stream goes on where it
        was.
        """
        ...


class Colorimeter(Protocol):
    """A pocket colorimeter: one number a vial."""

    simulated: bool

    def read(self, analyte: str) -> float:
        """The number shown for an analyte [its canonical unit]."""
        ...


class Laboratory(Protocol):
    """A laboratory that takes a bottle and returns a report file."""

    simulated: bool

    def ready_at(self, received_at: datetime) -> datetime:
        """When the report on a bottle received then is expected."""
        ...

    def report(self, analytes: tuple[str, ...]) -> bytes:
        """The report as CSV, in the format of docs/file-formats.md."""
        ...
