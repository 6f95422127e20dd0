"""Two glasses held against each other: what the difference shows, test by test."""

from __future__ import annotations

from ..analytes import ANALYTES
from ..record import record
from .removal import Removal, removal, removal_sentence
from .value import Value
from .water import Sample, Water


@record
class Pair:
    """One test in both glasses; ``removal`` from the first to the second where it can be worked
    out.
    """

    analyte: str
    name: str
    sentence: str
    removal: Removal | None


def factor_of(sample: Sample) -> float | None:
    """Conductivity to TDS factor of the meter that a sample was read with, None when not read or
    not known.
    """
    return next(
        (
            r.instrument.factor
            for r in reversed(sample.readings)
            if r.analyte == "tds" and r.struck_at is None and r.instrument.factor
        ),
        None,
    )


#: flags of a reading that no removal is worked out from
_NOT_YET = frozenset({"meter.temperature"})


def _not_yet(sample: Sample, name: str, value: Value) -> str:
    """Why a reading of a glass is not held against another's yet; empty when it may be."""
    if sample.unflushed and name not in ("ph", "temperature"):
        return (
            f"the filter behind “{sample.name}” was just changed and not flushed: not compared yet"
        )
    flag = next((f for f in value.flags if f.id in _NOT_YET), None)
    return "" if flag is None else f"“{sample.name}” was too warm or too cold: not compared yet"


def pairs(first: Sample, a: Water, second: Sample, b: Water) -> tuple[Pair, ...]:
    """Every test of either glass, a treated one held against the raw one whichever was picked
    first.

    Two TDS meters with different factors are not compared, nor what was not flushed or was too
    warm.
    """
    if second.raw and not first.raw:
        first, a, second, b = second, b, first, a
    names = dict.fromkeys((*a.values, *b.values))
    return tuple(_pair(n, first, a.values.get(n), second, b.values.get(n)) for n in names)


def _pair(name: str, first: Sample, x: Value | None, second: Sample, y: Value | None) -> Pair:
    """One test of two glasses; a removal only where both have a number that may be compared."""
    r: Removal | None = None
    if x is None or y is None:
        said = "tested in one only"
    elif why := _not_yet(first, name, x) or _not_yet(second, name, y):
        said = why
    elif name == "tds" and factor_of(first) != factor_of(second):
        said = "two meters with different factors: not compared"
    elif (x.range is None) != (y.range is None):
        said = "a number in one only: not compared"
    elif x.range is None or y.range is None:
        said = "the same" if x.words == y.words else "not the same"
    elif name in ("ph", "temperature"):
        side = "higher" if y.range.best > x.range.best else "lower"
        same = x.range.overlaps(y.range)
        said = "no difference shown" if same else f"{side} in the second"
    else:
        r = removal(x, y)
        said = removal_sentence(r)
    return Pair(analyte=name, name=ANALYTES[name].name, sentence=said, removal=r)
