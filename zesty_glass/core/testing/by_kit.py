"""Values by kits: drops, pads and comparators, one display, bucket and stopwatch."""

from __future__ import annotations

import math
from statistics import median

from ..analytes import analyte
from ..ranges import Range
from ..units import convert
from .by_meter import meter_error
from .instruments import Flag, Instrument
from .observations import (
    BucketRuns,
    DropCount,
    OneDisplay,
    PadMatch,
)
from .value import Value, diluted, of_diluted, refused, undiluted, unit_of

#: what the mark of a bucket and a stopwatch by hand err by (trade practice, 2024)
BUCKET_SHARE, BUCKET_SECONDS = 0.03, 0.3


def drops(instrument: Instrument, seen: DropCount) -> Value:
    """Drop titration: n drops of value v read best n·v, between (n − 1)·v and n·v; all times the
    dilution.
    """
    if isinstance(seen.drops, bool) or int(seen.drops) != seen.drops or seen.drops < 0:
        raise refused(
            "drops.negative",
            f"{seen.drops} drops cannot be counted.",
            "Count whole drops from 0 up.",
            "observation.drops",
        )
    if seen.drops > 500:
        raise refused(
            "drops.many",
            f"{seen.drops} drops are more than any kit holds.",
            "Dilute the sample and count again.",
            "observation.drops",
        )
    d = diluted(seen.dilution)
    unit, canonical = unit_of(instrument), analyte(instrument.analyte).unit
    v = convert(instrument.drop_value or 0.0, unit, canonical) * d
    if seen.drops == 0:
        none = of_diluted(Range.of(0.0, v / 2, v), d)
        return Value(analyte=instrument.analyte, unit=canonical, range=none, below=none.high)
    return Value(
        analyte=instrument.analyte,
        unit=canonical,
        range=of_diluted(Range.of((seen.drops - 1) * v, seen.drops * v, seen.drops * v), d),
    )


def pad(instrument: Instrument, seen: PadMatch) -> Value:
    """Strip or comparator. At a pad: half-way to its neighbours; between two: the middle; at the
    last: no upper end.
    """
    steps, i = instrument.steps, seen.pad
    d = diluted(seen.dilution)
    undiluted(instrument.analyte, d)
    if not 0 <= i < len(steps) or (seen.between and i + 1 >= len(steps)):
        raise refused(
            "pad.out_of_list",
            f"There is no pad {i + 1} on {instrument.name}.",
            f"It has {len(steps)} pads.",
            "observation.pad",
        )
    unit, name = unit_of(instrument), instrument.analyte
    canonical = analyte(name).unit
    half_first = (steps[1] - steps[0]) / 2
    below = None
    if seen.between:
        r = Range.of(steps[i], (steps[i] + steps[i + 1]) / 2, steps[i + 1])
    else:
        first = steps[0] - half_first if name == "ph" else 0.0
        low = (steps[i - 1] + steps[i]) / 2 if i else first
        high = (steps[i] + steps[i + 1]) / 2 if i + 1 < len(steps) else None
        best = steps[i]
        if best == 0 and high is not None:
            best, below = high / 2, high
        r = Range.of(low, best, high)
    c = convert(1.0, unit, canonical) * d
    shown = of_diluted(r.scale(c), d)
    flags = (
        (Flag(id="pad.last", sentence="At the last pad there is no upper end: dilute and repeat."),)
        if r.high is None
        else ()
    )
    return Value(
        analyte=name,
        unit=canonical,
        range=shown,
        below=None if below is None else shown.high,
        open_ended=r.high is None,
        flags=flags,
    )


def display(instrument: Instrument, seen: OneDisplay) -> Value:
    """One number with its accuracy; under the detection limit DL it is "< DL", 0 to
    DL, best DL/2.
    """
    d = diluted(seen.dilution)
    name, unit = instrument.analyte, unit_of(instrument)
    undiluted(name, d)
    canonical = analyte(name).unit
    if not math.isfinite(seen.value) or (seen.value < 0 and canonical != "°C"):
        raise refused(
            "display.negative",
            f"{seen.value:g} cannot be read on {instrument.name}.",
            "Type what it shows.",
            "observation.value",
        )
    if name == "ph" and seen.value > 14:
        raise refused(
            "display.ph",
            f"pH {seen.value:g} is off the scale.",
            "pH runs from 0 to 14.",
            "observation.value",
        )
    limit = instrument.detection_limit or (
        instrument.resolution if seen.value == 0 and name not in ("ph", "temperature") else 0.0
    )
    below = None
    if limit and seen.value < limit:
        r, below = Range.of(0.0, limit / 2, limit), limit
    else:
        e = meter_error(instrument, seen.value) + instrument.resolution / 2 * (name not in ("ph",))
        low = seen.value - e if canonical == "°C" else max(0.0, seen.value - e)
        r = Range.of(low, seen.value, seen.value + e)
    if canonical in ("°C", "pH"):
        r = r.apply(lambda v: convert(v, unit, canonical))
    else:
        c = convert(1.0, unit, canonical) * d
        r = of_diluted(r.scale(c), d)
        below = None if below is None else r.high
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


def bucket(instrument: Instrument, seen: BucketRuns) -> Value:
    """Flow [gpm]: volume over time; best = median run, ends = slowest and fastest run with what a
    bucket and a thumb err by.
    """
    if seen.volume_gal <= 0 or not seen.seconds or any(not s > 0 for s in seen.seconds):
        raise refused(
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
