"""Kits and meters as data: what an instrument reads, how finely, and whether it is fit to use
today.
"""

from __future__ import annotations

from datetime import date, timedelta
from enum import StrEnum

from ..analytes import analyte
from ..errors import RuleError
from ..record import Words, record


class InstrumentKind(StrEnum):
    """How an instrument is read."""

    METER = "meter"  # repeated displays, with a range mark (TDS, conductivity)
    DROPS = "drops"  # drop titration
    STRIP = "strip"  # a list of pads
    COMPARATOR = "comparator"  # colour steps
    DISPLAY = "display"  # one number with its own accuracy
    BUCKET = "bucket"  # volume over time
    LABORATORY = "laboratory"
    SENSES = "senses"  # eyes and nose


@record
class Instrument:
    """A kit or meter of the firm.

    Args:
        analyte: what it reads; steps, drop value, accuracy and resolution are in that analyte's
            canonical unit unless ``unit`` says another.
        accuracy_share: share (0 to 1) of the reading or of full scale; ``accuracy_of`` unknown
            means full scale.
        accuracy_plus: plain accuracy [unit], e.g. 0.1 for a pH meter.
        factor: conductivity to TDS factor of a TDS meter (0.5 or 0.7).
        drop_value: what one drop stands for [unit], at ``sample_ml``.
        steps: pads of a strip or steps of a comparator [unit], rising.
        detection_limit: below this the reading is "under" [unit].
    """

    id: str
    name: str
    kind: InstrumentKind
    analyte: str
    unit: str = ""
    accuracy_share: float | None = None
    accuracy_of: str | None = None
    accuracy_plus: float = 0.0
    full_scale: float | None = None
    resolution: float = 1.0
    factor: float | None = None
    drop_value: float | None = None
    sample_ml: float | None = None
    steps: tuple[float, ...] = ()
    detection_limit: float | None = None
    reagent_expiry: date | None = None
    last_check: date | None = None
    check_every_days: int | None = None
    wait_s: int | None = None
    change_of_colour: str = ""
    simulated: bool = False
    note: Words = ""

    def __post_init__(self) -> None:
        analyte(self.analyte)

        def need(ok: bool, code: str, what: str, remedy: str) -> None:
            if not ok:
                raise RuleError(
                    f"instrument.{code}", f"{self.name}: {what}", f"instruments[{self.id}]", remedy
                )

        need(
            self.resolution > 0,
            "resolution",
            "the resolution must be above 0.",
            "Give the smallest step it shows.",
        )
        need(
            self.accuracy_of in (None, "reading", "full_scale"),
            "accuracy_of",
            "accuracy is a share of “reading” or “full_scale”.",
            "Use one of the two.",
        )
        need(
            self.accuracy_share is None or 0 <= self.accuracy_share < 1,
            "accuracy_share",
            "the accuracy is a share from 0 to 1.",
            "Write 2 % as 0.02.",
        )
        need(
            self.kind != InstrumentKind.DROPS or (self.drop_value or 0) > 0,
            "drop_value",
            "a drop kit needs the value of one drop.",
            "Read it off the kit.",
        )
        if self.kind in (InstrumentKind.STRIP, InstrumentKind.COMPARATOR):
            rising = all(a < b for a, b in zip(self.steps, self.steps[1:], strict=False))
            need(
                len(self.steps) >= 2 and rising and self.steps[0] >= 0,
                "steps",
                "its steps must be two or more, rising, from 0 up.",
                "List them in order.",
            )


@record
class Flag:
    """A remark that stays with a reading."""

    id: str
    sentence: str


def fitness(instrument: Instrument, on: date) -> tuple[Flag, ...]:
    """Flags for an expired reagent or an overdue check on the day of use."""
    flags = []
    if instrument.reagent_expiry is not None and instrument.reagent_expiry < on:
        flags.append(
            Flag(
                id="instrument.expired",
                sentence=(
                    f"The reagent of {instrument.name} expired on"
                    f" {instrument.reagent_expiry.isoformat()}: repeat with a fresh one."
                ),
            )
        )
    if instrument.check_every_days is not None:
        due = (
            None
            if instrument.last_check is None
            else instrument.last_check + timedelta(days=instrument.check_every_days)
        )
        if due is None:
            flags.append(
                Flag(
                    id="instrument.unchecked",
                    sentence=(
                        f"{instrument.name} has no check on record: check it before you rely on it."
                    ),
                )
            )
        elif due < on:
            flags.append(
                Flag(
                    id="instrument.unchecked",
                    sentence=f"{instrument.name} was due for a check on {due.isoformat()}.",
                )
            )
    return tuple(flags)
