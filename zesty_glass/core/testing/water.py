"""Samples and the water they show: which reading counts, and what stays unknown."""

from __future__ import annotations

from datetime import datetime
from typing import Literal

from ..analytes import ANALYTES
from ..errors import RuleError
from ..ranges import Range
from ..record import Words, record
from .chlorine import Combined, combined
from .instruments import Flag
from .observations import CupsSeen, LaboratoryResult, Noticed
from .reading import Reading, work_out
from .value import Value

LEAST_FLUSH_GAL = 2.0  # [gal] through a new cartridge before a glass counts: trade practice (2024)


@record
class Sample:
    """One glass of water.

    Args:
        raw: the sample that the treatment is designed from; drawn ahead of any treatment.
        treated: drawn behind a device (named in ``after``); ``device``: the equipment in place by
            its id; softened: behind something that softens; flushed_gal: run through it before
            drawing [gal].
        kind: "tap", "bottled", "pitcher", "own" (the consultant's own water) or "source".
        drinkable: None unknown; False is never offered for tasting.
    """

    id: str
    name: Words
    kind: Literal["tap", "bottled", "pitcher", "own", "source"] = "tap"
    place: Words = "kitchen cold"
    draw: Literal["first", "flushed", "hot", "stood"] = "flushed"
    treated: bool = False
    after: Words = ""
    after_item: str | None = None
    device: Words = ""
    softened: bool = False
    flushed_gal: float | None = None
    just_changed: bool = False
    past_life: bool = False
    raw: bool = False
    drawn_at: datetime
    by: Words = ""
    readings: tuple[Reading, ...] = ()
    note: Words = ""

    @property
    def unflushed(self) -> bool:
        """Whether its filter was just changed and too little has run through it to count."""
        return self.just_changed and (self.flushed_gal or 0.0) < LEAST_FLUSH_GAL


@record
class Water:
    """What is known of a water: a value for every analyte tested, and the cups' observation."""

    sample: str
    values: dict[str, Value]
    cups: CupsSeen | None = None
    chloramine: Combined | None = None

    def range(self, analyte: str) -> Range | None:
        """The range of an analyte, or None when it is not known as a number."""
        v = self.values.get(analyte)
        return None if v is None else v.range


def _rank(reading: Reading, value: Value) -> tuple[int, datetime]:
    if isinstance(reading.observation, LaboratoryResult):
        if not value.laboratory:
            return (0, reading.made_at)  # a utility's yearly report
        weight = 1 if ANALYTES[reading.analyte].on_site else 3
        return (weight, reading.made_at)
    return (2, reading.made_at)


def water_of(sample: Sample, worked: dict[str, Value] | None = None) -> Water:
    """The water a sample shows: for each analyte the reading that counts (laboratory, then on site,
    then utility; the latest of equals; chlorine, pH and the like on site first). Struck readings
    never count. ``worked``: values by reading.
    """
    best: dict[str, tuple[tuple[int, datetime], Value]] = {}
    cups: CupsSeen | None = None
    for reading in sample.readings:
        if reading.struck_at is not None:
            continue
        if isinstance(reading.observation, CupsSeen):
            cups = reading.observation
            continue
        if isinstance(reading.observation, Noticed):
            continue  # no property of the water: see noticing.py
        value = work_out(reading) if worked is None else worked[reading.id]
        rank = _rank(reading, value)
        if reading.analyte not in best or rank >= best[reading.analyte][0]:
            best[reading.analyte] = (rank, value)
    values = {k: v for k, (_, v) in best.items()}
    chloramine = None
    free, total = values.get("chlorine_free"), values.get("chlorine_total")
    if free and total and free.range and total.range:
        chloramine = combined(free.range, total.range)
        if chloramine.range is not None:
            flags = (
                ()
                if chloramine.shown
                else (
                    Flag(
                        id="chloramine.not_shown",
                        sentence="Chloramine not shown: free and total overlap.",
                    ),
                )
            )
            values["chlorine_combined"] = Value(
                analyte="chlorine_combined", unit="mg/L", range=chloramine.range, flags=flags
            )
    return Water(sample=sample.id, values=values, cups=cups, chloramine=chloramine)


def raw_sample(samples: tuple[Sample, ...]) -> Sample | None:
    """The raw sample; RuleError when several are marked raw, or the raw one was drawn behind a
    device.
    """
    raw = [s for s in samples if s.raw]
    if len(raw) > 1:
        raise RuleError(
            "samples.two_raw",
            "Two samples are marked as raw.",
            "samples",
            "Mark the one drawn ahead of all treatment.",
        )
    if raw and raw[0].treated:
        raise RuleError(
            "samples.raw_treated",
            f"“{raw[0].name}” is marked raw but was drawn after {raw[0].after or 'a device'}.",
            "samples",
            "Draw ahead of all treatment.",
        )
    return raw[0] if raw else None


def design_water(
    samples: tuple[Sample, ...], waters: dict[str, Water] | None = None
) -> Water | None:
    """The raw water to design from: the raw sample, filled up from this home's other untreated
    samples (first-draw metals, laboratory bottles) for what it does not hold itself."""
    raw = raw_sample(samples)
    if raw is None:
        return None
    water = water_of(raw) if waters is None else waters[raw.id]
    values, cups = dict(water.values), water.cups
    for other in samples:
        if other.raw or other.treated or other.kind not in ("tap", "source") or other.draw == "hot":
            continue
        more = water_of(other) if waters is None else waters[other.id]
        for name, value in more.values.items():
            values.setdefault(name, value)
        cups = cups or more.cups
    return Water(sample=raw.id, values=values, cups=cups, chloramine=water.chloramine)
