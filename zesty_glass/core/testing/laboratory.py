"""Samples for the laboratory: bottles, drawing, holding times, the chain of custody, and panels to
suggest.

Holding times: US EPA methods and 40 CFR 141 for coliform (30 h), nitrate (48 h), lead and copper,
volatile organics (14 d); radon by EPA 913.0 (4 days). Laboratories may ask for less: their word
wins.
"""

from __future__ import annotations

from dataclasses import replace
from datetime import datetime, timedelta
from typing import Literal

from ..analytes import ANALYTES
from ..errors import RuleError
from ..record import Words, record
from ..striking import check_struck


@record
class LabKind:
    """A kind of laboratory sample: bottle, preservation, holding time [h], drawing steps and how
    long the tap runs before it is drawn [min], where that is timed.
    """

    id: str
    name: str
    analytes: tuple[str, ...] = ()
    bottle: str
    preservation: str
    holding_h: float
    steps: tuple[str, ...]
    source: str
    year: int
    note: str = ""
    flush_min: float = 0.0


_AIR, _COLD = (
    "Write date, time and tap on the label before you leave.",
    "Keep it cold, under 10 °C, on the way.",
)
_KINDS: tuple[LabKind, ...] = (
    LabKind(
        id="bacteria",
        name="Coliform and E. coli",
        bottle="sterile, with dechlorinator, not rinsed",
        preservation="below 10 °C",
        holding_h=30,
        source="40 CFR 141.852",
        year=2013,
        steps=(
            "Take the aerator off.",
            "Disinfect the tap: bleach wipe or flame; let it stand.",
            "Flush the cold tap for several minutes.",
            "Open the bottle last; touch neither rim nor inside; do not rinse it.",
            "Fill to the mark, close at once.",
            _COLD,
            _AIR,
        ),
    ),
    LabKind(
        id="nitrate",
        name="Nitrate and nitrite",
        bottle="plastic, clean",
        preservation="cold",
        holding_h=48,
        source="40 CFR 141.23",
        year=1992,
        steps=(
            "Flush the cold tap.",
            "Fill, close.",
            _COLD,
            "Ask the report to say its basis: as N or as NO3.",
            _AIR,
        ),
    ),
    LabKind(
        id="lead_copper",
        name="Lead and copper, first draw",
        bottle="one liter, wide mouth",
        preservation="acidified on receipt within 14 days",
        holding_h=14 * 24,
        source="40 CFR 141.86",
        year=1991,
        steps=(
            "No water used for at least six hours.",
            "Cold kitchen tap, aerator on.",
            "No flushing: the first liter goes into the bottle.",
            "Then flush five minutes and draw the second, flushed sample.",
            _AIR,
        ),
        note="a second, flushed sample belongs to it",
    ),
    LabKind(
        id="copper_flushed",
        name="Lead and copper, flushed",
        bottle="one liter",
        preservation="acidified on receipt within 14 days",
        holding_h=14 * 24,
        source="40 CFR 141.86",
        year=1991,
        steps=("After the first draw, flush five minutes.", "Fill, close.", _AIR),
    ),
    LabKind(
        id="metals",
        name="Metals",
        bottle="plastic, acid-washed",
        preservation="acidified on receipt within 14 days, then 6 months",
        holding_h=14 * 24,
        source="40 CFR 141.23",
        year=2001,
        steps=("Flush the cold tap.", "Fill, close.", "For arsenic ask for its species.", _AIR),
    ),
    LabKind(
        id="radium",
        name="Radium 226 and 228",
        bottle="plastic, a gallon, acid-washed",
        preservation="acidified on receipt within 5 days, then 6 months",
        holding_h=5 * 24,
        source="40 CFR 141.25",
        year=2000,
        steps=("Flush the cold tap.", "Fill, close.", _AIR),
    ),
    LabKind(
        id="fluoride",
        name="Fluoride",
        bottle="plastic",
        preservation="none",
        holding_h=28 * 24,
        source="40 CFR 141.23",
        year=1986,
        steps=("Flush the cold tap.", "Fill, close.", _AIR),
    ),
    LabKind(
        id="anions",
        name="Sulfate, chloride",
        bottle="plastic",
        preservation="cold",
        holding_h=28 * 24,
        source="EPA method 300.1",
        year=1997,
        steps=("Flush the cold tap.", "Fill, close.", _COLD, _AIR),
    ),
    LabKind(
        id="minerals",
        name="Minerals",
        bottle="plastic, filled to the brim",
        preservation="cold; the laboratory acidifies its own part",
        holding_h=14 * 24,
        source="40 CFR 136.3, table II (alkalinity)",
        year=2021,
        steps=(
            "Flush the cold tap, ahead of any softener.",
            "Fill to the brim without a bubble, close.",
            _COLD,
            _AIR,
        ),
    ),
    LabKind(
        id="uvt",
        name="UV transmittance",
        bottle="dark glass",
        preservation="dark and cold, not acidified",
        holding_h=48,
        source="trade practice",
        year=2024,
        steps=(
            "Draw where the lamp will be, behind everything that will stand ahead of it.",
            "Fill without a bubble, close, keep dark.",
            _COLD,
            _AIR,
        ),
    ),
    LabKind(
        id="voc",
        name="Volatile organics",
        bottle="two glass vials, no headspace",
        preservation="dechlorinated, acidified, cold",
        holding_h=14 * 24,
        source="EPA method 524.2",
        year=1995,
        steps=(
            "Take the aerator off, flush gently.",
            "Fill slowly to a dome, no bubble, close.",
            "Turn it over: no bubble may rise.",
            _COLD,
            _AIR,
        ),
    ),
    LabKind(
        id="pfas",
        name="PFAS",
        bottle="the laboratory’s own",
        preservation="cold",
        holding_h=14 * 24,
        source="EPA method 533",
        year=2019,
        steps=(
            "No treated clothing or fresh creams; clean gloves.",
            "Flush the cold tap, fill, close.",
            _COLD,
            _AIR,
        ),
    ),
    LabKind(
        id="radon",
        name="Radon in water",
        bottle="the laboratory’s own vial or a wide-mouth jar",
        preservation="sealed under water, no bubble",
        holding_h=4 * 24,
        source="EPA method 913.0",
        year=1991,
        steps=(
            "Draw ahead of all treatment, at or before the pressure tank.",
            "No aerator on the tap.",
            (
                "Run until the pump has cycled and the temperature is steady, about 20 minutes;"
                " shorter on a low-yield well."
            ),
            "Fill a large vessel slowly, the hose’s end kept under the surface.",
            "Fill and close the vial under water: no bubble, sealed.",
            "Write the exact time, with its offset from UTC.",
            "To the laboratory within four days.",
        ),
        flush_min=20.0,
        note="a high result goes to a licensed radon professional; test the indoor air too",
    ),
)
#: with what each is drawn for, as the analytes say it
KINDS = tuple(
    replace(k, analytes=tuple(a.id for a in ANALYTES.values() if k.id in a.bottles)) for k in _KINDS
)
KIND_BY_ID = {k.id: k for k in KINDS}


@record
class Skipped:
    """A step of drawing that was left out, and why."""

    step: str
    because: Words


@record
class Corrected:
    """A time of the chain that was put right: which, what stood there, and why."""

    field: Literal["drawn_at", "handed_at", "received_at", "reported_at"]
    was: datetime | None
    because: Words


WHY_AT_LEAST = 3  # [characters] fewer say nothing


@record
class LabSample:
    """A sample on its way: a dated chain from drawing to report.

    Args:
        skipped: steps of drawing that were left out; corrected: times that were put right, in
            their order.
    """

    id: str
    kind: str
    sample: str
    laboratory: Words = ""
    seal: Words = ""
    drawn_at: datetime
    handed_at: datetime | None = None
    received_at: datetime | None = None
    reported_at: datetime | None = None
    by: Words = ""
    note: Words = ""
    skipped: tuple[Skipped, ...] = ()
    corrected: tuple[Corrected, ...] = ()
    struck_at: datetime | None = None
    struck_because: Words = ""

    def __post_init__(self) -> None:
        check_struck(self.struck_at, self.struck_because)
        reasons = [x.because for x in self.skipped] + [x.because for x in self.corrected]
        if any(len(r.strip()) < WHY_AT_LEAST for r in reasons):
            raise RuleError(
                "lab.because",
                "A step left out, or a time put right, needs its reason.",
                "because",
                "Write why.",
            )
        if self.kind not in KIND_BY_ID:
            raise RuleError(
                "lab.kind",
                f"There is no laboratory sample of kind “{self.kind}”.",
                "kind",
                f"Use one of {', '.join(KIND_BY_ID)}.",
            )
        times = [
            t
            for t in (self.drawn_at, self.handed_at, self.received_at, self.reported_at)
            if t is not None
        ]
        if any(t.tzinfo is None for t in times):
            raise RuleError(
                "lab.zone",
                "A time lacks its offset from UTC.",
                "drawn_at",
                "Write it with its offset.",
            )
        if times != sorted(times):
            raise RuleError(
                "lab.chain",
                "The chain runs backwards: drawn, handed over, received, reported.",
                "chain",
                "Check the times.",
            )


@record
class LabStatus:
    """Where a laboratory sample stands: when its holding time ends, hours left, and words."""

    deadline: datetime
    hours_left: float
    overdue: bool
    stage: Literal["drawn", "handed", "received", "reported"]
    sentence: str


def _stage(sample: LabSample) -> Literal["drawn", "handed", "received", "reported"]:
    """How far a bottle has come."""
    if sample.reported_at:
        return "reported"
    if sample.received_at:
        return "received"
    return "handed" if sample.handed_at else "drawn"


def status(sample: LabSample, now: datetime) -> LabStatus:
    """Status at a time; the clock stops when the laboratory has received it."""
    kind = KIND_BY_ID[sample.kind]
    deadline = sample.drawn_at + timedelta(hours=kind.holding_h)
    end = sample.received_at or now
    left = (deadline - end).total_seconds() / 3600
    stage = _stage(sample)
    late = left < 0
    if late:
        words = f"Held {-left:.0f} h too long: draw a new one; its result does not count."
    elif stage in ("received", "reported"):
        words = f"Received in time, {left:.0f} h to spare."
    else:
        words = (
            f"{left:.0f} h left to reach the laboratory."
            if left < 72
            else f"{left / 24:.0f} days left to reach the laboratory."
        )
    if sample.skipped:
        words += " Left out in drawing: " + "; ".join(
            f"{x.step.rstrip('.')} ({x.because.strip()})" for x in sample.skipped
        )
        words += ". Tell the laboratory."
    return LabStatus(deadline=deadline, hours_left=left, overdue=late, stage=stage, sentence=words)


CHAIN: tuple[Literal["drawn_at", "handed_at", "received_at", "reported_at"], ...] = (
    "drawn_at",
    "handed_at",
    "received_at",
    "reported_at",
)


def unexplained_times(kept: LabSample, new: LabSample) -> tuple[str, ...]:
    """Times of a chain that stood already and are other now, with no reason written for it; and
    reasons that were written before and are gone.
    """
    before, fresh = len(kept.corrected), new.corrected[len(kept.corrected) :]
    if new.corrected[:before] != kept.corrected:
        return ("corrected",)
    told = {(c.field, c.was) for c in fresh}
    return tuple(
        f
        for f in CHAIN
        if (was := getattr(kept, f)) is not None and getattr(new, f) != was and (f, was) not in told
    )
