"""A water walked through stages, one after the other: what each does to it, and what then stands
ahead of the next.
"""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import replace

from ..analytes import ANALYTES, MICROBES
from ..evidence import ESTABLISHES_HEALTH
from ..ranges import Range
from ..record import record
from .existing_equipment import technology_of
from .items import Item
from .measured import Measured, with_measured
from .option import StageChoice
from .report import StageReport
from .site import Disinfected, Site
from .stages import TECHNOLOGIES
from .stages.common import StageInput
from .stream import Stream

#: arise in the home's plumbing, after every whole-house stage: only the drinking tap's stages take
#: them out
FROM_PLUMBING = tuple(a.id for a in ANALYTES.values() if a.from_plumbing)


@record
class Ahead:
    """What stands ahead of a place and works, and whether it disinfects."""

    items: tuple[Item, ...] = ()
    disinfected: Disinfected = Disinfected.NO

    def then(self, item: Item, r: StageReport) -> Ahead:
        """With one more stage ahead: one that a check stops does nothing."""
        if any(c.status == "stop" for c in r.checks):
            return self
        if "as it comes" in technology_of(item, TECHNOLOGIES).does:
            return Ahead(items=(item,))
        how = disinfects(item, r)
        return Ahead(items=(*self.items, item), disinfected=max(self.disinfected, how))


def disinfects(item: Item, r: StageReport) -> Disinfected:
    """Whether a stage ends bacteria: a validated disinfection that nothing stops, or what holds a
    certificate for bacteria of its own.
    """
    certified = any(
        e.analyte in MICROBES and e.evidence.level in ESTABLISHES_HEALTH for e in item.effects
    )
    if not (item.figures.disinfects or certified):
        return Disinfected.NO
    return Disinfected.OPEN if r.idle else Disinfected.YES


def run_stage(inp: StageInput, source: Stream, measured: Measured) -> tuple[StageReport, Stream]:
    """One stage, and the water behind it: with what was measured of it here, what only the plumbing
    adds put back, and its pressure drop.
    """
    item = inp.item
    r = technology_of(item, TECHNOLOGIES).run(inp)
    outlet = r.outlet
    if item.code in measured:
        outlet = with_measured(inp.stream, outlet, measured[item.code], not r.idle)
    if item.scope == "house":
        back = {n: source.quantities[n] for n in FROM_PLUMBING if n in source.quantities}
        psi = outlet.psi
        if psi is not None and r.drop_psi:
            psi = Range.of(max(0.0, psi.low - r.drop_psi), max(0.0, psi.best), psi.high)
        outlet = outlet.with_(back, psi=psi)
    return r, outlet


def with_outlet(r: StageReport, outlet: Stream) -> StageReport:
    """A stage's report with another water behind it."""
    return replace(r, outlet=outlet)


class Walk:
    """One water in one home, walked through many lines: stages that lines begin with alike are
    worked out once.

    Args:
        brief: without figures; a muted site: without sentences.
    """

    def __init__(self, source: Stream, site: Site, measured: Measured, brief: bool = False) -> None:
        self.source, self.site, self.brief = source, site, brief
        self._measured = measured
        self._begun: dict[tuple[str, ...], tuple[StageReport, Ahead]] = {}

    def through(self, pairs: Iterable[tuple[Item, StageChoice]]) -> tuple[list[StageReport], Ahead]:
        """The reports of stages in their order, and what then stands ahead."""
        reports: list[StageReport] = []
        codes: tuple[str, ...] | None = ()
        stream, ahead = self.source, Ahead()
        for item, choice in pairs:
            codes = None if codes is None or choice.overrides else (*codes, item.code)
            known = None if codes is None else self._begun.get(codes)
            r, ahead = known or self._stage(item, choice, stream, ahead)
            if codes is not None:
                self._begun[codes] = r, ahead
            reports.append(r)
            stream = r.outlet
        return reports, ahead

    def _stage(
        self, item: Item, choice: StageChoice, stream: Stream, ahead: Ahead
    ) -> tuple[StageReport, Ahead]:
        inp = StageInput(
            item=item,
            stream=stream,
            site=self.site,
            overrides=choice.overrides,
            ahead=ahead.items,
            brief=self.brief,
            raw=self.source,
            disinfected=ahead.disinfected,
        )
        r, outlet = run_stage(inp, self.source, self._measured)
        r = r if outlet is r.outlet else with_outlet(r, outlet)
        return r, ahead.then(item, r)
