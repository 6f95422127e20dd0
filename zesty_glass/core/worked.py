"""A visit walked once: its waters, what they mean, its options as lines, and what each does to what
was found. Every view of it (assessment, comparison, proposal, search) is made from this.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import replace

from .costing.falling import keeps_up
from .errors import RuleError
from .home import Home
from .proposing.rows import TODAY, Row, not_addressed, rows
from .record import record
from .spending import Assumption, assumptions
from .testing.complaints import Complaint
from .testing.findings import Meaning, meaning
from .testing.noticing import noticed
from .testing.water import Water, design_water, water_of
from .treating.existing_equipment import KeptInPlace
from .treating.glasses import GlassMeaning, glasses
from .treating.in_place import Judged, judge_all
from .treating.line import LineReport, at_other_use, placed, run_stages, site_of
from .treating.measured import Measured, measured_here
from .treating.option import Option
from .treating.stream import source_stream
from .treating.walking import Walk
from .visit import Visit, kept_of

LOW_USE, HIGH_USE = 50 / 60, 75 / 60


@record
class Drawn:
    """A visit's waters: every sample's by its id, the raw one that is designed from (None before
    there is one), and complaints with what eyes and nose found beside them.
    """

    visit: Visit
    waters: dict[str, Water]
    raw: Water | None
    seen: tuple[Complaint, ...]

    @property
    def told(self) -> tuple[Complaint, ...]:
        """What was complained of, and what eyes and nose found beside it."""
        return (*self.visit.complaints, *self.seen)

    def meaning(self, water: Water) -> Meaning:
        """What a water of this visit means in its home."""
        v = self.visit
        return meaning(
            water,
            v.home,
            self.told,
            v.rules,
            v.settings.units,
            v.settings.heater_c,
            iron_factor=v.settings.iron_factor,
        )

    def judged(self, raw: Water) -> tuple[Judged, ...]:
        """What stands in the home already, judged on the day of the visit."""
        v, day = self.visit, self.visit.started_at.date()
        return judge_all(v.home, v.settings, v.samples, self.waters, raw, day, v.rules)

    def glasses(self, raw: Water) -> tuple[GlassMeaning, ...]:
        """What every glass beside the raw one says, on the day of the visit."""
        v, items = self.visit, {i.code: i for i in self.visit.catalogue}
        day = v.started_at.date()
        return glasses(v.samples, self.waters, raw, v.home, v.settings, items, day, v.rules)

    def measured(self) -> Measured:
        """What units were measured to do in this home."""
        return measured_here(self.visit.samples, self.waters)


def drawn(visit: Visit, waters: dict[str, Water] | None = None) -> Drawn:
    """A visit's waters; ``waters``: by sample, where they were worked out already."""
    have = {s.id: water_of(s) for s in visit.samples} if waters is None else waters
    raw = design_water(visit.samples, have)
    seen = noticed(visit.samples, visit.complaints)
    return Drawn(visit=visit, waters=have, raw=raw, seen=seen)


@record
class Way:
    """An option as a line; ``line`` None where it cannot be worked out, and the error why."""

    option: Option
    line: LineReport | None
    error: str = ""


@record
class Worked:
    """What of a visit does not depend on the horizon.

    Args:
        ways: today and every option; ends: each at low and at high use, by the option's id.
        table: rows of the comparison; listed: what is assumed.
    """

    drawn: Drawn
    raw: Water
    found: Meaning
    listed: tuple[Assumption, ...]
    ways: tuple[Way, ...]
    ends: Mapping[str, tuple[LineReport, ...]]
    table: tuple[Row, ...]

    @property
    def good(self) -> dict[str, LineReport]:
        """Lines that could be worked out, by the option's id."""
        return {w.option.id: w.line for w in self.ways if w.line is not None}

    def left(self, line: LineReport) -> tuple[str, ...]:
        """What of the things found a line does not address."""
        return not_addressed(line, self.found, self.table)


def today_of(home: Home) -> Option:
    """Today as a line: what stands in a home, kept as it is."""
    return Option(
        id=TODAY, name="Today", keeps=tuple(KeptInPlace(device=d.id) for d in home.in_place)
    )


def worked(drawn: Drawn, raw: Water, bands: bool, use: float, brief: bool = False) -> Worked:
    """Walk today and every option of a visit on its raw water.

    Args:
        bands: also at low and at high use, without figures and sentences.
        use: times the expected use of water [1]. brief: all without figures.
    """
    visit = drawn.visit
    found = drawn.meaning(raw)
    catalogue = {i.code: i for i in visit.catalogue} | kept_of(visit, raw, drawn.waters)
    measured = drawn.measured()
    site = site_of(visit.home, visit.settings, raw, use)
    edges = [
        replace(site_of(visit.home, visit.settings, raw, end), mute=True)
        for end in ((LOW_USE, HIGH_USE) if bands else ())
    ]
    source = source_stream(raw, found.colour, site.running_psi)
    walk = Walk(source, site, measured, brief)
    ways: list[Way] = []
    ends: dict[str, tuple[LineReport, ...]] = {}
    for option in (today_of(visit.home), *visit.options):
        try:
            stages = placed(option, catalogue, source)
            line = run_stages(stages, walk)
            keeps_up(d for s in line.stages for d in s.dues)
        except RuleError as e:
            ways.append(Way(option=option, line=None, error=str(e)))
            continue
        ways.append(Way(option=option, line=line))
        if line.stages:
            ends[option.id] = tuple(at_other_use(line, stages, edge, measured) for edge in edges)
    good = tuple(w.line for w in ways if w.line is not None)
    units, wishes = visit.settings.units, visit.home.wishes
    return Worked(
        drawn=drawn,
        raw=raw,
        found=found,
        listed=assumptions(visit),
        ways=tuple(ways),
        ends=ends,
        table=rows(good, found, visit.complaints, visit.rules, units, wishes, visit.home.diets),
    )
