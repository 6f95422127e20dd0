"""From what was seen to best value, low and high: one function an instrument.

Every function returns values in the analyte's canonical unit. Method of ranges: the instrument's
own accuracy and resolution, as in the maker's statement of error; no statistical narrowing from
repeats.
"""

from __future__ import annotations

import math
from dataclasses import replace
from datetime import date, datetime, timedelta
from statistics import median
from typing import Any

from ..analytes import POSSIBLE, analyte
from ..errors import RuleError
from ..ranges import Range
from ..record import record
from ..units import convert
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

RADON_HALF_LIFE_D = 3.8235  # [d] Rn-222, evaluated nuclear data (DDEP, 2010)
NITRATE_NO3_PER_N = 62.0049 / 14.0067  # molar masses, IUPAC 2021
NITRITE_NO2_PER_N = 46.0055 / 14.0067


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
    by: str = ""
    struck_at: datetime | None = None
    struck_because: str = ""
    note: str = ""
    kept_at: datetime | None = None


@record
class Value:
    """A reading worked out.

    ``range`` is None for a result in words (bacteria present, a colour finding). ``below`` is the
    limit a result is under [canonical unit]; ``open_ended`` says that there is no upper end and
    that a diluted repeat is needed.
    """

    analyte: str
    unit: str
    range: Range | None
    below: float | None = None
    open_ended: bool = False
    words: str = ""
    flags: tuple[Flag, ...] = ()
    laboratory: bool = False
    certified: bool = False


def _fail(code: str, what: str, remedy: str, where: str = "observation") -> RuleError:
    return RuleError(code, what, where, remedy)


def _dilution(d: float) -> float:
    if not d >= 1:
        raise _fail(
            "dilution.below_one",
            f"A dilution of {d:g} is not possible.",
            "One part sample in d parts: d is 1 or more.",
        )
    return d


def _undiluted(name: str, dilution: float) -> None:
    """RuleError for a dilution of what is no amount in the water."""
    if dilution != 1 and name in ("ph", "temperature", "uvt"):
        raise _fail(
            "dilution.no_amount",
            f"{analyte(name).name} of a diluted sample says nothing of the sample.",
            "Measure it undiluted.",
        )


def _unit(instrument: Instrument) -> str:
    return instrument.unit or analyte(instrument.analyte).unit


def _meter_error(instrument: Instrument, display: float) -> float:
    share = instrument.accuracy_share or 0.0
    if instrument.accuracy_of == "reading":
        return share * display + instrument.accuracy_plus
    return share * (instrument.full_scale or display) + instrument.accuracy_plus


def spread_allowed(displays: tuple[float, ...]) -> float:
    """Largest spread of repeats [as displayed]: the larger of 3 and 3 % of their median."""
    return max(3.0, 0.03 * median(displays))


def repeats_needed(displays: tuple[float, ...]) -> int:
    """How many repeats the procedure asks for: two, and a third when two disagree."""
    if len(displays) < 2:
        return 2
    return 2 if max(displays[:2]) - min(displays[:2]) <= spread_allowed(displays[:2]) else 3


def tenfold(displays: tuple[float, ...]) -> bool:
    """Whether repeats differ about tenfold (8 to 12 times), which asks whether a x10 mark was
    missed.
    """
    shown = [d for d in displays if d > 0]
    return len(shown) >= 2 and 8.0 <= max(shown) / min(shown) <= 12.0


def _meter_repeats(displays: tuple[float, ...]) -> list[Flag]:
    """What the repeats themselves ask for."""
    flags, spread, allowed = [], max(displays) - min(displays), spread_allowed(displays)
    if len(displays) < repeats_needed(displays):
        words = "Two repeats at least, and a third when the two disagree."
        flags.append(Flag(id="meter.repeats", sentence=words))
    elif spread > allowed and len(displays) < 4:
        words = (
            f"The repeats spread over {spread:g}, {allowed:.3g} is allowed: rinse, stir and repeat."
        )
        flags.append(Flag(id="meter.spread", sentence=words))
    if tenfold(displays):
        words = "The repeats differ about tenfold: look for a x10 mark on the display."
        flags.append(Flag(id="meter.tenfold", sentence=words))
    return flags


def _meter_flags(seen: MeterDisplays) -> tuple[Flag, ...]:
    """Doubts about a reading of a meter: its repeats, and how it was made."""
    flags = _meter_repeats(seen.displays)
    if seen.zero is not None and seen.zero > 3:
        flags.append(
            Flag(
                id="meter.zero",
                sentence=(
                    f"In distilled water it read {seen.zero:g}, 3 is allowed: clean the probe."
                ),
            )
        )
    if seen.temperature_c is not None and not 5 <= seen.temperature_c <= 40:
        flags.append(
            Flag(
                id="meter.temperature",
                sentence=(
                    f"The sample had {seen.temperature_c:g} °C: let it stand until it is between 5"
                    " and 40 °C."
                ),
            )
        )
    if not seen.rinsed:
        flags.append(Flag(id="meter.not_rinsed", sentence="Cup and probe were not rinsed."))
    if not seen.steady:
        flags.append(Flag(id="meter.unsteady", sentence="The display was still moving."))
    return tuple(flags)


def meter(instrument: Instrument, seen: MeterDisplays) -> Value:
    """Repeats on a pocket meter: best = median, ends = extreme repeats ± (error there + half the
    resolution).

    Accuracy unknown or of full scale uses the full scale [instrument's unit]; the x10 mark
    multiplies displays, resolution and full scale by ten.
    """
    if not seen.displays:
        raise _fail("meter.empty", "No display was typed.", "Type what the meter shows.")
    if any(d < 0 or not math.isfinite(d) for d in seen.displays):
        raise _fail("meter.negative", "A display cannot be below 0.", "Type what the meter shows.")
    if seen.multiplier not in (1, 10):
        raise _fail(
            "meter.multiplier",
            f"A range mark of x{seen.multiplier:g} is not known.",
            "Use x1 or x10.",
        )
    m, unit, canonical = seen.multiplier, _unit(instrument), analyte(instrument.analyte).unit
    res = instrument.resolution * m
    low_d, high_d, mid = min(seen.displays) * m, max(seen.displays) * m, median(seen.displays) * m
    below = None
    if high_d == 0:
        r, below = Range.of(0.0, res / 2, res), res
    else:

        def error(v: float) -> float:
            return _meter_error(instrument, v / m) * m

        low = max(0.0, low_d - (error(low_d) + res / 2))
        best = mid if mid > 0 else res / 2
        r = Range.of(low, best, max(best, high_d + (error(high_d) + res / 2)))
    c = convert(1.0, unit, canonical)
    return Value(
        analyte=instrument.analyte,
        unit=canonical,
        range=r.scale(c),
        below=None if below is None else below * c,
        flags=_meter_flags(seen),
    )


def drops(instrument: Instrument, seen: DropCount) -> Value:
    """Drop titration: n drops of value v read best n·v, between (n − 1)·v and n·v; all times the
    dilution.
    """
    if isinstance(seen.drops, bool) or int(seen.drops) != seen.drops or seen.drops < 0:
        raise _fail(
            "drops.negative",
            f"{seen.drops} drops cannot be counted.",
            "Count whole drops from 0 up.",
            "observation.drops",
        )
    if seen.drops > 500:
        raise _fail(
            "drops.many",
            f"{seen.drops} drops are more than any kit holds.",
            "Dilute the sample and count again.",
            "observation.drops",
        )
    d = _dilution(seen.dilution)
    unit, canonical = _unit(instrument), analyte(instrument.analyte).unit
    v = convert(instrument.drop_value or 0.0, unit, canonical) * d
    if seen.drops == 0:
        return Value(
            analyte=instrument.analyte, unit=canonical, range=Range.of(0.0, v / 2, v), below=v
        )
    return Value(
        analyte=instrument.analyte,
        unit=canonical,
        range=Range.of((seen.drops - 1) * v, seen.drops * v, seen.drops * v),
    )


def pad(instrument: Instrument, seen: PadMatch) -> Value:
    """Strip or comparator. At a pad: half-way to its neighbours; between two: the middle; at the
    last: no upper end.
    """
    steps, i = instrument.steps, seen.pad
    d = _dilution(seen.dilution)
    _undiluted(instrument.analyte, d)
    if not 0 <= i < len(steps) or (seen.between and i + 1 >= len(steps)):
        raise _fail(
            "pad.out_of_list",
            f"There is no pad {i + 1} on {instrument.name}.",
            f"It has {len(steps)} pads.",
            "observation.pad",
        )
    unit, name = _unit(instrument), instrument.analyte
    canonical = analyte(name).unit
    half_first = (steps[1] - steps[0]) / 2
    below = None
    if seen.between:
        r = Range.of(steps[i], (steps[i] + steps[i + 1]) / 2, steps[i + 1])
    else:
        low = (
            (steps[i - 1] + steps[i]) / 2 if i else (steps[0] - half_first if name == "ph" else 0.0)
        )
        high = (steps[i] + steps[i + 1]) / 2 if i + 1 < len(steps) else None
        best = steps[i]
        if best == 0 and high is not None:
            best, below = high / 2, high
        r = Range.of(low, best, high)
    c = convert(1.0, unit, canonical) * d
    flags = (
        (Flag(id="pad.last", sentence="At the last pad there is no upper end: dilute and repeat."),)
        if r.high is None
        else ()
    )
    return Value(
        analyte=name,
        unit=canonical,
        range=r.scale(c),
        below=None if below is None else below * c,
        open_ended=r.high is None,
        flags=flags,
    )


def display(instrument: Instrument, seen: OneDisplay) -> Value:
    """One number with its accuracy; under the detection limit DL it is "< DL", 0 to
    DL, best DL/2.
    """
    d = _dilution(seen.dilution)
    name, unit = instrument.analyte, _unit(instrument)
    _undiluted(name, d)
    canonical = analyte(name).unit
    if not math.isfinite(seen.value) or (seen.value < 0 and canonical != "°C"):
        raise _fail(
            "display.negative",
            f"{seen.value:g} cannot be read on {instrument.name}.",
            "Type what it shows.",
            "observation.value",
        )
    if name == "ph" and seen.value > 14:
        raise _fail(
            "display.ph",
            f"pH {seen.value:g} is off the scale.",
            "pH runs from 0 to 14.",
            "observation.value",
        )
    limit = instrument.detection_limit or (
        instrument.resolution if seen.value == 0 and name not in ("ph", "temperature") else 0.0
    )
    below = None
    if seen.value < limit or (seen.value == 0 and limit):
        r, below = Range.of(0.0, limit / 2, limit), limit
    else:
        e = _meter_error(instrument, seen.value) + instrument.resolution / 2 * (name not in ("ph",))
        low = seen.value - e if canonical == "°C" else max(0.0, seen.value - e)
        r = Range.of(low, seen.value, seen.value + e)
    if canonical in ("°C", "pH"):
        r = r.apply(lambda v: convert(v, unit, canonical))
    else:
        c = convert(1.0, unit, canonical) * d
        r, below = r.scale(c), None if below is None else below * c
    flags = (
        ()
        if seen.blanked
        else (
            Flag(
                id="display.blank",
                sentence="No blank was run first: zero it on this water and repeat.",
            ),
        )
    )
    return Value(analyte=name, unit=canonical, range=r, below=below, flags=flags)


FULL_BORE = "full bore"
#: what the mark of a bucket and a stopwatch by hand err by (trade practice, 2024)
BUCKET_SHARE, BUCKET_SECONDS = 0.03, 0.3


def bucket(instrument: Instrument, seen: BucketRuns) -> Value:
    """Flow [gpm]: volume over time; best = median run, ends = slowest and fastest run with what a
    bucket and a thumb err by.
    """
    if seen.volume_gal <= 0 or not seen.seconds or any(not s > 0 for s in seen.seconds):
        raise _fail(
            "bucket.zero", "Volume and time must be above 0.", "Fill the bucket again and time it."
        )
    v, half = seen.volume_gal, BUCKET_SECONDS
    runs = [60.0 * v / s for s in seen.seconds]
    low = min(60.0 * v * (1 - BUCKET_SHARE) / (s + half) for s in seen.seconds)
    high = max(60.0 * v * (1 + BUCKET_SHARE) / max(s - half, s / 2) for s in seen.seconds)
    flags = []
    if len(runs) < 3:
        flags.append(Flag(id="bucket.runs", sentence="Three runs show whether the flow holds."))
    if seen.pump_running is False:
        words = (
            "This is what the pressure tank gives, not the well: run water until the pump has"
            " started, then time it again. It sizes nothing."
        )
        flags.append(Flag(id="bucket.tank", sentence=words))
    sizes = seen.full_bore and seen.pump_running is not False
    return Value(
        analyte=instrument.analyte,
        unit="gpm",
        range=Range.of(low, median(runs), high),
        words=FULL_BORE if sizes else "",
        flags=tuple(flags),
    )


def radon_at_drawing(measured: float, hours: float) -> float:
    """Radon at drawing, from the activity as of counting: measured · 2^(hours / 24 / 3.8235), in
    the unit of ``measured`` [pCi/L or Bq/L].

    Args:
        hours: between drawing and counting [h].

    Source: half-life of radon-222, 3.8235 d (Decay data evaluation project, 2010).

    >>> round(radon_at_drawing(1000.0, 91.764))  # one half-life
    2000
    """
    return measured * math.exp2(hours / 24.0 / RADON_HALF_LIFE_D)


#: mg/L as CaCO3 for each mg/L on a basis (equivalent weights, IUPAC 2021); the first basis is what
#: a report means that names none: metals are given as the ion, alkalinity as CaCO3
AS_CACO3 = {
    "calcium": {"Ca": 50.0435 / 20.039, "CaCO3": 1.0},
    "magnesium": {"Mg": 50.0435 / 12.1525, "CaCO3": 1.0},
    "alkalinity": {"CaCO3": 1.0, "HCO3": 50.0435 / 61.0168},
}
_PLAIN_MASS = ("", "mg/L", "ppm", "µg/L", "ug/L", "ppb")
LATE_RADON = "Counted more than 96 hours after drawing: the laboratory asks for 4 days at most."
LONGEST_RADON_H, FLAGGED_RADON_H = 720.0, 96.0  # [h] drawing to mid-count: refused, flagged


def _ion_basis(name: str, seen: LaboratoryResult) -> float:
    """Factor of a result that may be an ion or its equivalent as CaCO3."""
    known = AS_CACO3[name]
    if seen.unit not in _PLAIN_MASS:  # gpg, degrees and "mg/L as CaCO3" say what they are
        return 0.5 if seen.unit == "mmol/L" and name == "alkalinity" else 1.0
    basis = seen.basis or next(iter(known))
    if basis not in known:
        raise _fail(
            "laboratory.basis",
            f"{analyte(name).name} is reported as {' or as '.join(known)}, not as {basis}.",
            "Read the basis off the report.",
            "observation.basis",
        )
    return known[basis]


def _basis(name: str, seen: LaboratoryResult) -> float:
    """Factor from the reported to the stored basis; what can be given on two bases must state its
    own.
    """
    if name in AS_CACO3:
        return _ion_basis(name, seen)
    if name in ("nitrate_n", "nitrite_n"):
        other = "NO3" if name == "nitrate_n" else "NO2"
        if seen.basis not in ("N", other):
            raise _fail(
                "laboratory.basis",
                f"The result does not say whether it is as N or as {other}.",
                "Read the basis off the report.",
                "observation.basis",
            )
        if seen.basis == "N":
            return 1.0
        return 1 / (NITRATE_NO3_PER_N if name == "nitrate_n" else NITRITE_NO2_PER_N)
    if name == "radon":
        if seen.basis not in ("collection", "counting"):
            raise _fail(
                "laboratory.radon_basis",
                "The report’s activity is as of collection or as of counting: this one does not"
                " say.",
                "Read it off the report.",
                "observation.basis",
            )
        if seen.basis == "counting":
            if seen.hours_to_count is not None and seen.hours_to_count > LONGEST_RADON_H:
                raise _fail(
                    "laboratory.radon_late",
                    f"{seen.hours_to_count:g} hours to mid-count: nothing of the radon is left by"
                    " then.",
                    f"At most {LONGEST_RADON_H:g} hours. Check the two times; else draw again.",
                    "observation.hours_to_count",
                )
            if seen.hours_to_count is None or seen.hours_to_count < 0:
                raise _fail(
                    "laboratory.radon_hours",
                    "As of counting needs the hours from drawing to mid-count.",
                    "Work them out from the two times.",
                    "observation.hours_to_count",
                )
            return radon_at_drawing(1.0, seen.hours_to_count)
    return 1.0


def laboratory(instrument: Instrument, seen: LaboratoryResult) -> Value:
    """A report's result in the canonical unit, with the basis settled and radon brought back to
    drawing.
    """
    name = instrument.analyte
    canonical = analyte(name).unit
    lab = seen.report == "laboratory"
    common: dict[str, Any] = {
        "analyte": name,
        "unit": canonical,
        "laboratory": lab,
        "certified": lab and seen.certified is True,
    }
    if seen.qualifier in ("absent", "present"):
        if canonical != "per 100 mL":
            raise _fail(
                "laboratory.words",
                f"“{seen.qualifier}” is an answer for bacteria, not for {analyte(name).name}.",
                "Type a number, or < and the limit.",
                "observation.qualifier",
            )
        return Value(range=None, words=seen.qualifier, **common)
    if seen.value is None or not math.isfinite(seen.value) or seen.value < 0:
        raise _fail(
            "laboratory.value",
            "The result has no number that can be used.",
            "Type the number on the report.",
            "observation.value",
        )
    unit = seen.unit or canonical
    if name == "temperature":
        c, v = 1.0, convert(seen.value, unit, canonical)
    elif name == "ph":
        c, v = 1.0, seen.value
    else:
        c = convert(1.0, unit, canonical) * _basis(name, seen)
        v = seen.value * c
    if v == 0 and seen.qualifier == "=" and canonical not in ("per 100 mL", "NTU", "%"):
        raise _fail(
            "laboratory.zero",
            "No laboratory measures 0: it is under a detection limit.",
            "Write < and the detection limit of the report.",
            "observation.value",
        )
    if seen.qualifier == "<":
        return Value(range=Range.of(0.0, v / 2, v), below=v, **common)
    u = seen.uncertainty * c
    late = (seen.hours_to_count or 0) > FLAGGED_RADON_H and name == "radon"
    flags = (Flag(id="radon.late", sentence=LATE_RADON),) if late else ()
    r = (
        Range(low=v, best=v, high=None)
        if seen.qualifier == ">"
        else Range.of(max(0.0, v - u), v, v + u)
    )
    return Value(range=r, flags=flags, open_ended=r.high is None, **common)


def noticed(seen: Noticed) -> Value:
    """Eyes and nose: the signs in words. There is no number, so there is no range."""
    for s in seen.signs:
        if s not in SIGNS:
            raise _fail(
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
        raise _fail(
            "reading.instrument",
            f"{inst.name} does not read {analyte(reading.analyte).name}.",
            "Choose the kit that does.",
            "instrument",
        )
    if not isinstance(seen, (*ACCEPTS[inst.kind], CupsSeen)):
        raise _fail(
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
        raise _fail(
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
