"""The working of a reading: from what was seen to its range."""

from __future__ import annotations

from .. import words
from ..analytes import ANALYTES
from ..working import Triple, Working, working
from .by_meter import meter_error
from .observations import (
    BucketRuns,
    CupsSeen,
    DropCount,
    LaboratoryResult,
    MeterDisplays,
    Noticed,
    OneDisplay,
    PadMatch,
)
from .reading import Reading
from .value import Value

_n = words.number


def _meter(r: Reading, seen: MeterDisplays) -> tuple[str, tuple[Triple, ...]]:
    inst, m, unit = r.instrument, seen.multiplier, r.instrument.unit or ANALYTES[r.analyte].unit
    low, high = min(seen.displays), max(seen.displays)
    share = (
        f"{_n(100 * (inst.accuracy_share or 0), 1)} % of"
        f" {'it' if inst.accuracy_of == 'reading' else 'full scale'}"
    )
    half = inst.resolution * m / 2
    e_low, e_high = meter_error(inst, low) * m, meter_error(inst, high) * m
    rows: tuple[Triple, ...] = (
        ("lowest display", _n(low * m, 1), unit),
        (f"less {share}", _n(e_low, 1), unit),
        ("less half a step", _n(half, 1), unit),
        ("so at least", _n(max(0.0, low * m - e_low - half), 1), unit, True),
        ("highest display", _n(high * m, 1), unit),
        (f"and {share}", _n(e_high, 1), unit),
        ("and half a step", _n(half, 1), unit),
        ("so at most", _n(high * m + e_high + half, 1), unit, True),
    )
    return (
        "median of the repeats; ends: extreme repeats ± (error there + half the resolution)",
        rows,
    )


def _drops(r: Reading, seen: DropCount, value: Value) -> tuple[str, tuple[Triple, ...]]:
    unit = (r.instrument.unit or ANALYTES[r.analyte].unit).replace(" as CaCO3", "")
    v = (r.instrument.drop_value or 0.0) * seen.dilution
    rows: list[Triple] = [
        ("drops counted", str(seen.drops), ""),
        ("one drop", _n(r.instrument.drop_value or 0.0, 2), unit),
    ]
    if seen.dilution != 1:
        rows.append(("diluted, one part in", _n(seen.dilution, 1), ""))
    rows += [
        ("the last drop changed it: at most", _n(max(seen.drops, 1) * v, 2), unit, True),
        ("one drop fewer did not: at least", _n(max(0, seen.drops - 1) * v, 2), unit),
    ]
    if unit == "gpg" and value.range is not None and value.range.high is not None:
        rows.append(
            ("in mg/L as CaCO3", f"{_n(value.range.low, 1)} to {_n(value.range.high, 1)}", "mg/L")
        )
    return "n drops of value v: between (n − 1) · v and n · v, read as n · v", tuple(rows)


def _pad(r: Reading, seen: PadMatch) -> tuple[str, tuple[Triple, ...]]:
    unit = (r.instrument.unit or ANALYTES[r.analyte].unit).replace(" as CaCO3", "")
    at = _n(r.instrument.steps[seen.pad], 2)
    if seen.between:
        return "between two pads: the middle, from one to the other", (
            ("between", f"{at} and {_n(r.instrument.steps[seen.pad + 1], 2)}", unit),
        )
    return "at a pad: half-way to its neighbours", (("at", at, unit),)


def _display(r: Reading, seen: OneDisplay) -> tuple[str, tuple[Triple, ...]]:
    inst, unit = r.instrument, (r.instrument.unit or ANALYTES[r.analyte].unit)
    rows: list[Triple] = [
        ("display", _n(seen.value, 2), unit),
        ("accuracy", "± " + _n(meter_error(inst, seen.value), 3), unit),
        ("step", _n(inst.resolution, 3), unit),
    ]
    if inst.detection_limit:
        rows.append(("cannot read under", _n(inst.detection_limit, 3), unit))
    return "display ± (accuracy + half a step); under the limit: 0 to the limit", tuple(rows)


def working_of(r: Reading, value: Value) -> Working:
    """The slip of a reading."""
    seen = r.observation
    match seen:
        case MeterDisplays():
            formula, rows = _meter(r, seen)
        case DropCount():
            formula, rows = _drops(r, seen, value)
        case PadMatch():
            formula, rows = _pad(r, seen)
        case OneDisplay():
            formula, rows = _display(r, seen)
        case BucketRuns():
            formula, rows = (
                "volume ÷ time; median run, slowest to fastest",
                tuple(
                    (f"run {i + 1}", _n(60 * seen.volume_gal / s, 2), "gpm")
                    for i, s in enumerate(seen.seconds)
                ),
            )
        case LaboratoryResult():
            formula = "as reported, brought to the unit and basis kept here"
            qualifier = "" if seen.qualifier == "=" else seen.qualifier
            number = "" if seen.value is None else _n(seen.value, 4)
            rows = (("reported", f"{qualifier} {number}".strip(), seen.unit),)
        case Noticed():
            formula, rows = "eyes and nose", (("noticed", value.words, ""),)
        case CupsSeen():
            formula, rows = (
                "the three cups",
                (
                    ("as drawn", seen.drawn.replace("_", " "), ""),
                    ("after standing", (seen.stood or "not yet").replace("_", " "), ""),
                    ("powder", (seen.reducer or "not used").replace("_", " "), ""),
                ),
            )
    shown = words.value(r.analyte, value.range, value.below, "metric", value.words)
    stated = (
        "; accuracy not stated, so of full scale"
        if isinstance(seen, MeterDisplays) and r.instrument.accuracy_of is None
        else ""
    )
    return working(
        f"Why {shown}?",
        formula,
        f"accuracy and steps recorded for {r.instrument.name}{stated}",
        *rows,
    )
