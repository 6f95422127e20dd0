"""What was seen, kept as seen: one shape for every way of reading."""

from __future__ import annotations

from datetime import date
from typing import Annotated, Literal

from ..record import TaggedBy, Words, record


@record
class MeterDisplays:
    """Repeats on a meter, as displayed; ``multiplier`` 10 when the display carries a x10 mark."""

    method: Literal["meter"] = "meter"
    displays: tuple[float, ...]
    multiplier: float = 1
    temperature_c: float | None = None
    zero: float | None = None
    rinsed: bool = True
    steady: bool = True


@record
class DropCount:
    """Drops until the color change; ``dilution`` d: one part sample in d parts."""

    method: Literal["drops"] = "drops"
    drops: int
    dilution: float = 1


@record
class PadMatch:
    """A pad or comparator step, by its place in the list from 0; ``between`` means between it and
    the next.
    """

    method: Literal["pad"] = "pad"
    pad: int
    between: bool = False
    dilution: float = 1


@record
class OneDisplay:
    """One number shown by a meter or colorimeter [instrument's unit]."""

    method: Literal["display"] = "display"
    value: float
    dilution: float = 1
    blanked: bool = True


@record
class BucketRuns:
    """Runs of bucket and stopwatch: ``volume_gal`` [gal] filled in each of ``seconds`` [s].

    ``pump_running``: on a well, whether the pump ran meanwhile; None: not asked.
    """

    method: Literal["bucket"] = "bucket"
    volume_gal: float
    seconds: tuple[float, ...]
    full_bore: bool = False
    pump_running: bool | None = None


@record
class LaboratoryResult:
    """A result on a report.

    Args:
        qualifier: "=" a number, "<" under a limit, ">" over the largest it can count, "absent" or
            "present" for bacteria.
        basis: required for nitrate and nitrite: "N" or "NO3" / "NO2"; for calcium, magnesium and
            alkalinity in mg/L: the ion ("Ca", "Mg", "HCO3") or "CaCO3"; for radon "collection" or
            "counting"; for arsenic its form where it was told apart: "As(V)", all of it, or
            "As(III)", some of it.
        certified: the laboratory is certified for this analyte; None: not known, which is not
            judged as certified.
        report_number, report_date: of the report; method_used: as it names it; detection_limit:
            [unit].
        hours_to_count: radon only, drawing to mid-count [h].
    """

    method: Literal["laboratory"] = "laboratory"
    qualifier: Literal["=", "<", ">", "absent", "present"] = "="
    value: float | None = None
    unit: str = ""
    basis: str | None = None
    uncertainty: float = 0.0
    certified: bool | None = True
    report_number: Words = ""
    report_date: date | None = None
    method_used: Words = ""
    detection_limit: float | None = None
    laboratory: Words = ""
    hours_to_count: float | None = None
    report: Literal["laboratory", "utility"] = "laboratory"


@record
class CupsSeen:
    """The three white cups.

    Args:
        drawn: color as drawn.
        stood: color after standing ``stood_minutes`` [min]; None when not done yet.
        reducer: what the reducing powder did; None when not used.
    """

    method: Literal["cups"] = "cups"
    drawn: Literal["clear", "faint", "coloured", "clears_top_down", "milky_clears_bottom_up"]
    stood: Literal["clear", "coloured", "darkens", "brown_black", "same", "settles"] | None = None
    stood_minutes: float | None = None
    reducer: Literal["wholly", "partly", "no_change"] | None = None


@record
class Noticed:
    """What eyes and nose found at a tap: identifiers of signs (core.testing.complaints); empty
    means looked, and nothing found.
    """

    method: Literal["noticed"] = "noticed"
    signs: tuple[str, ...] = ()


Observation = Annotated[
    MeterDisplays
    | DropCount
    | PadMatch
    | OneDisplay
    | BucketRuns
    | LaboratoryResult
    | CupsSeen
    | Noticed,
    TaggedBy("method"),
]
