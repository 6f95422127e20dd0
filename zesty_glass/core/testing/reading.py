"""A reading, and from what was seen to its best value, low and high: a function an instrument
(``by_meter``, ``by_kit``, ``by_laboratory``).

Every one of them returns values in the analyte's canonical unit. Method of ranges: the instrument's
own accuracy and resolution, as in the maker's statement of error; no statistical narrowing from
repeats.
"""

from __future__ import annotations

import math
from dataclasses import replace
from datetime import date, datetime, timedelta

from ..analytes import POSSIBLE, analyte
from ..ranges import Range
from ..record import Words, record
from .by_kit import bucket, display, drops, pad
from .by_laboratory import laboratory
from .by_meter import meter
from .complaints import SIGNS
from .instruments import Flag, Instrument, InstrumentKind, fitness
from .observations import (
    BucketRuns,
    CupsSeen,
    DropCount,
    LaboratoryResult,
    MeterDisplays,
    Noticed,
    Observation,
    OneDisplay,
    PadMatch,
)
from .value import Value, refused


@record
class Reading:
    """A reading as made: the raw observation and the instrument as it was that day.

    ``made_at`` is the clock of the device it was typed on, ``kept_at`` the server's when it was
    kept.
    """

    id: str
    analyte: str
    instrument: Instrument
    observation: Observation
    made_at: datetime
    by: Words = ""
    struck_at: datetime | None = None
    struck_because: Words = ""
    note: Words = ""
    kept_at: datetime | None = None


def noticed(seen: Noticed) -> Value:
    """Eyes and nose: the signs in words. There is no number, so there is no range."""
    for s in seen.signs:
        if s not in SIGNS:
            raise refused(
                "noticed.sign",
                f"There is no sign “{s}”.",
                "Choose one from the list.",
                "observation.signs",
            )
    return Value(
        analyte="noticed",
        unit="",
        range=None,
        words=", ".join(SIGNS[s].name.lower() for s in seen.signs) or "nothing noticed",
    )


def work_out(reading: Reading) -> Value:
    """Best value and range of a reading, with every flag that belongs to it.

    Raises:
        RuleError: when the observation does not fit the instrument or holds an impossible number.
    """
    inst, seen = reading.instrument, reading.observation
    if inst.analyte != reading.analyte:
        raise refused(
            "reading.instrument",
            f"{inst.name} does not read {analyte(reading.analyte).name}.",
            "Choose the kit that does.",
            "instrument",
        )
    if not isinstance(seen, (*ACCEPTS[inst.kind], CupsSeen)):
        raise refused(
            "reading.method",
            f"{inst.name} is not read that way.",
            f"It is read as “{inst.kind}”.",
            "observation.method",
        )
    match seen:
        case MeterDisplays():
            value = meter(inst, seen)
        case DropCount():
            value = drops(inst, seen)
        case PadMatch():
            value = pad(inst, seen)
        case OneDisplay():
            value = display(inst, seen)
        case BucketRuns():
            value = bucket(inst, seen)
        case LaboratoryResult():
            value = laboratory(inst, seen)
        case Noticed():
            value = noticed(seen)
        case CupsSeen():
            value = Value(analyte="colour", unit="", range=None, words=seen.drawn)
    value = _within(value)
    _possible(value)
    flags = fitness(inst, _day(reading.made_at)) + _clock(reading) + value.flags
    return Value(
        analyte=value.analyte,
        unit=value.unit,
        range=value.range,
        below=value.below,
        open_ended=value.open_ended,
        words=value.words,
        flags=flags,
        laboratory=value.laboratory,
        certified=value.certified,
    )


def _within(value: Value) -> Value:
    """A value whose upper end is not past what can be: no transmittance over 100 %,
    no pH over 14.
    """
    top = {"%": 100.0, "pH": 14.0}.get(value.unit)
    r = value.range
    if top is None or r is None or r.high is None or r.high <= top or r.best > top:
        return value
    return replace(value, range=Range.of(r.low, r.best, top))


def _possible(value: Value) -> None:
    """RuleError ``reading.impossible`` for what cannot be in water at all."""
    low, high = POSSIBLE.get(value.unit, (-math.inf, math.inf))
    if value.range is not None and not (low <= value.range.best <= high and low <= value.range.low):
        name = analyte(value.analyte).name
        raise refused(
            "reading.impossible",
            f"{name} of {value.range.best:g}{'' if value.unit == 'pH' else f' {value.unit}'} is not"
            " possible.",
            f"Type what is shown: {low:g} to {high:g}.",
            "observation",
        )


#: how far the clock of a device may stand from the server's before the time of a reading is asked
#: about
CLOCK_OFF = timedelta(days=2)


def _clock(reading: Reading) -> tuple[Flag, ...]:
    """A remark where a reading was kept long after, or before, the time its device says it was
    made.
    """
    if reading.kept_at is None or abs(reading.kept_at - reading.made_at) <= CLOCK_OFF:
        return ()
    said = (
        f"Made on {reading.made_at:%d %B %Y} by the device’s clock, kept on"
        f" {reading.kept_at:%d %B %Y}"
    )
    return (
        Flag(id="reading.clock", sentence=f"{said}: was it kept later, or is the clock wrong?"),
    )


def _day(when: datetime) -> date:
    return when.date()


def extends(kept: Reading, more: Reading) -> bool:
    """Whether ``more`` is the same meter reading with repeats added: nothing kept is changed or
    dropped.
    """
    a, b = kept.observation, more.observation
    if (
        kept.struck_at is not None
        or not isinstance(a, MeterDisplays)
        or not isinstance(b, MeterDisplays)
    ):
        return False
    same = kept.instrument == more.instrument and a.multiplier == b.multiplier
    return (
        same and len(b.displays) > len(a.displays) and b.displays[: len(a.displays)] == a.displays
    )


#: which observation shapes an instrument kind accepts
ACCEPTS: dict[InstrumentKind, tuple[type, ...]] = {
    InstrumentKind.METER: (MeterDisplays,),
    InstrumentKind.DROPS: (DropCount,),
    InstrumentKind.STRIP: (PadMatch,),
    InstrumentKind.COMPARATOR: (PadMatch,),
    InstrumentKind.DISPLAY: (OneDisplay,),
    InstrumentKind.BUCKET: (BucketRuns,),
    InstrumentKind.LABORATORY: (LaboratoryResult,),
    InstrumentKind.SENSES: (Noticed,),
}
