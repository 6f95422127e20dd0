"""The search that proposes lines of its own: exact over all combinations that the rules let stand.

A combination holds at most one item of each kind on each branch; a system for the drinking tap
stands alone on its branch. A line that a rule stops is dropped. Of the rest those are kept that no
other beats on what is left of each thing found, on water to the drain, on lifetime cost and on
chores. Figures are ranges: a line is held to be as good as another in a thing found only when both
its best value and its worst end are at least as good, so that no option is lost to another's lucky
best value, and one whose range is merely narrower can stay.

How it stays exact without walking every combination:

- The order of stages is settled by the rules. It depends on few facts (is there a UV chamber, an
  iron filter that wants more pH, a resin that wants carbon ahead); the search runs once for each
  way these facts can be.
- Two lines that have come to the same water, pressure and prefilter at the same place go on alike,
  so of these only those are carried on that no other beats on cost, drain, chores and pressure
  left.
- A stage that stops makes every longer line that begins so stop too: the line is cut there.
- A stage looks at some analytes and facts only, and of some only whether they meet a need, as its
  technology declares; where these are the same, its answer is the same and is not worked out again
  (``answers``). What it claims to take out hangs on each analyte alone, and is worked out apart.
- Evidence and notes of a quantity decide nothing further on, and a pressure only by whether a later
  stage still gets what it wants: what differs in these alone is the same.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable, Iterator, Mapping
from dataclasses import replace
from itertools import product
from typing import Any

from ..home import Home
from ..rules import Settings
from ..testing.colour import ColourFinding
from ..testing.water import Water
from ..treating.items import Item, SystemFigures, alike
from ..treating.line import run_stage
from ..treating.measured import Measured
from ..treating.order import carbon_first, company, ordered, rank, wants_ph
from ..treating.stages import TECHNOLOGIES, does
from ..treating.technology import Company, chlorine_is_too_much
from .answers import PLACE, Alike, Looks
from .found import Combination, Found, LeftOut, combinations
from .labels import Label, beats3, covers, unchain
from .play import in_play
from .scores import Score, score
from .states import MICRO, StageAt, State, forget, merge
from .stepping import Stepping

Progress = Callable[[str, int, int], None]


def _has_carbon(items: Iterable[Item]) -> bool:
    return any("takes chlorine" in does(i.kind) for i in items)


def _raises_ph(items: Iterable[Item]) -> bool:
    return any("ph" in TECHNOLOGIES[i.kind].changes for i in items)


class Searcher(Stepping):
    """One search over one water, home and catalogue."""

    def _layers(
        self, items: Iterable[Item], beside: Company, index: Mapping[str, int]
    ) -> list[tuple[list[StageAt], str]]:
        """Items of one branch by their place; one layer a place and kind."""
        by: dict[tuple[int, str], list[StageAt]] = {}
        for i in items:
            by.setdefault((rank(i, self.source, beside), i.kind), []).append(
                self._stages[index[i.code]]
            )
        kinds = [kind for _, kind in by]
        self._several = frozenset(k for k in kinds if kinds.count(k) > 1)
        return [(by[k], k[1]) for k in sorted(by)]

    def run(self, progress: Progress | None = None) -> Found:
        """Search. ``progress`` hears of each way the facts can be: what is looked at, how many are
        done, of how many.
        """
        play = in_play(self.items, self.by_code, self.source, self.site, self.wanted)
        self.stops.update(
            {code: (c.id, None, None, c.sentence) for code, c in play.stopped.items()}
        )
        playing = tuple(i for i in play.items if i.code not in play.stopped)
        parts = {
            p for i in playing if isinstance(i.figures, SystemFigures) for p in i.figures.parts
        }
        every = tuple(
            dict.fromkeys(
                (*playing, *(self.by_code[p] for p in sorted(parts) if p in self.by_code))
            )
        )
        index = {i.code: n for n, i in enumerate(every)}
        groups: dict[Any, Alike] = {}
        self._stages = [
            StageAt(
                i,
                n,
                self._once(i),
                self._drop(i),
                groups.setdefault(
                    (alike(i, plumbing=False), i.code if i.code in self.measured else ""),
                    Alike(i, self.measured.get(i.code, ())),
                ),
            )
            for n, i in enumerate(every)
        ]
        numbers: dict[Looks, int] = {}
        for group in groups.values():
            group.number = numbers.setdefault(group.looks, len(numbers))
        house = [i for i in playing if i.scope == "house" and i.kind != "system"]
        tap = [i for i in playing if i.scope == "tap" and i.kind != "system"]
        systems = [i for i in playing if i.kind == "system" and i.scope == "tap"]
        ends: dict[State, list[Label]] = {}
        tap_looks = frozenset(n for n, p in self._places if p == "tap").union(
            *(
                self._looks_at(i)
                for i in (*tap, *(self.by_code[p] for p in parts if p in self.by_code))
            )
        )
        tap_psi = tuple(s.least_psi for s in self._stages if s.item.scope == "tap")
        ways = list(self._ways(house))
        for n, way in enumerate(ways):
            if progress is not None:
                progress("lines of the whole house", n, len(ways))
            for state, labels in self._house(house, way, index, tap_looks, tap_psi).items():
                merge(ends, state, labels)
        if progress is not None:
            progress("the drinking tap", len(ways), len(ways) + 1)
        finals = self._tap(ends, tap, systems, index)
        lines = self._best(finals, every)
        return Found(
            wanted=self.wanted,
            lines=lines,
            left_out=self._left_out(lines, play.idle),
            combinations=combinations(play.items),
            ended=self.ended,
            stages=self.stages_run,
        )

    def _ways(self, house: list[Item]) -> Iterator[Company]:
        every = company(tuple(house), self.source)
        either, no = (False, True), (False,)
        wants = every.iron_wants_ph and _raises_ph(house)
        early = _has_carbon(house) and carbon_first(every, self.source)
        for fine, iron, first in product(
            either if every.fine_ahead else no, either if wants else no, either if early else no
        ):
            yield Company(
                fine_ahead=fine,
                iron_wants_ph=iron,
                chlorine_max=every.chlorine_max if first else None,
            )

    def _house(
        self,
        house: list[Item],
        way: Company,
        index: Mapping[str, int],
        tap_looks: frozenset[str],
        tap_psi: tuple[int, ...],
    ) -> dict[State, list[Label]]:
        """States behind the whole-house branch, for one way the facts can be, with the figures at
        the house's taps.
        """
        early = carbon_first(way, self.source)
        asks = (
            {
                k
                for k, t in TECHNOLOGIES.items()
                if chlorine_is_too_much(t.chlorine_max, self.source)
            }
            if _has_carbon(house)
            else set()
        )
        allowed = [
            i
            for i in house
            if (way.fine_ahead or not TECHNOLOGIES[i.kind].fine_ahead)
            and (
                i.figures.wants_ph is None
                or not self._iron_matters(house)
                or wants_ph(i, self.source) == way.iron_wants_ph
            )
            and (early or i.kind not in asks)
        ]
        front: dict[State, list[Label]] = {self._start(): [(0, 0, 0, -self.low, None)]}
        layers = self._layers(allowed, way, index)
        keeps = self._keeps(layers, tap_looks | {n for n, p in self._places if p == "house"})
        for (layer, kind), keep, steps in zip(
            layers, keeps, self._steps(layers, tap_psi), strict=True
        ):
            must = (TECHNOLOGIES[kind].fine_ahead and way.fine_ahead) or (
                way.iron_wants_ph and layer[0].item.figures.wants_ph is not None
            )
            front = self._advance(front, layer, must, keep, steps)
        if early:
            front = {s: labels for s, labels in front.items() if self._asked(labels, asks)}
        out: dict[State, list[Label]] = {}
        for s, labels in front.items():
            scores = self._scores(s.quantities, "house")
            end = forget(s, tap_looks)._replace(used=frozenset(), scores=scores)
            merge(out, end, labels)
        return out

    def _iron_matters(self, house: list[Item]) -> bool:
        return any(wants_ph(i, self.source) for i in house) and _raises_ph(house)

    def _asked(self, labels: list[Label], asks: set[str]) -> bool:
        labels[:] = [
            x for x in labels if any(self._stages[i].item.kind in asks for i in unchain(x[4]))
        ]
        return bool(labels)

    def _tap(
        self,
        front: dict[State, list[Label]],
        tap: list[Item],
        systems: list[Item],
        index: Mapping[str, int],
    ) -> dict[State, list[Label]]:
        """States at the drinking tap: through single items, or through one system."""
        out: dict[State, list[Label]] = {}
        single = front
        layers = self._layers(tap, Company(), index)
        wanted = frozenset(n for n, p in self._places if p == "tap")
        for (layer, _), keep, steps in zip(
            layers, self._keeps(layers, wanted), self._steps(layers, ()), strict=True
        ):
            single = self._advance(single, layer, False, keep, steps)
        for state, labels in single.items():
            merge(out, self._end(state, wanted), labels)
        chains: dict[tuple[str, ...], list[Item]] = {}
        for system in systems:
            assert isinstance(system.figures, SystemFigures)
            chains.setdefault(system.figures.parts, []).append(system)
        for parts, sold in chains.items():
            chain = ordered(tuple(self.by_code[p] for p in parts if p in self.by_code), self.source)
            once = {s.code: self._stages[index[s.code]].cost_once for s in sold}
            cheapest = [s for s in sold if once[s.code] == min(once.values())]
            for state, labels in front.items():
                for s, more in self._through(sold, cheapest, chain, state, labels, index):
                    merge(out, self._end(s, wanted), more)
        return out

    @staticmethod
    def _end(state: State, wanted: frozenset[str]) -> State:
        return forget(state, wanted)._replace(psi=None, used=frozenset())

    def _through(
        self,
        sold: list[Item],
        cheapest: list[Item],
        chain: tuple[Item, ...],
        state: State,
        labels: list[Label],
        index: Mapping[str, int],
    ) -> Iterator[tuple[State, list[Label]]]:
        """Lines that end in a system; of those with the same parts only the cheapest can be part of
        a line that no other beats.
        """
        for part in chain:
            stage = self._stages[index[part.code]]
            a = self.answer(stage.alike, state, {})
            short = self.source.psi is not None and stage.least_psi > 0
            going = [x for x in labels if -x[3] >= stage.least_psi] if short else labels
            if a.stop or not going:
                for system in sold:
                    self.stops.setdefault(
                        system.code,
                        (
                            (a.stop, stage, state, "")
                            if a.stop
                            else (
                                "pressure.least",
                                None,
                                None,
                                "The stages ahead leave too little pressure for it.",
                            )
                        ),
                    )
                return
            cost, waste, minutes = self._cost(stage, a), a.waste, a.minutes
            labels = [(c + cost, w + waste, m + minutes, low, ch) for c, w, m, low, ch in going]
            state = self._after(state, stage, a)
        self.passed.update(s.code for s in sold)
        for system in cheapest:
            n = index[system.code]
            once = self._stages[n].cost_once
            yield state, [(c + once, w, m, low, (ch, n)) for c, w, m, low, ch in labels]

    # -- the answer
    # ------------------------------------------------------------------------------------------

    def _scores(self, q: tuple[int, ...], place: str) -> tuple[Score, ...]:
        """Figures of the things judged at a place."""
        out = []
        for name, where in self._places:
            if where == place:
                target, op = self.targets.get(name, (None, "at_most"))
                n = q[PLACE[name]]
                out.append(
                    score(
                        name,
                        self._quantities[n - 1] if n else None,
                        self.source.get(name),
                        target,
                        op,
                    )
                )
        return tuple(out)

    def _best(
        self, finals: dict[State, list[Label]], every: tuple[Item, ...]
    ) -> tuple[Combination, ...]:
        """Lines that no other beats."""
        groups: dict[tuple[float, ...], list[tuple[Label, tuple[Score, ...]]]] = {}
        for state, labels in finals.items():
            self.ended += len(labels)
            scores = (*state.scores, *self._scores(state.quantities, "tap"))
            key = tuple(x for s in scores for x in (s.best, s.worst))
            groups.setdefault(key, []).extend((label, scores) for label in labels)
        kept: list[tuple[tuple[float, ...], Label, tuple[Score, ...]]] = []
        for key, group in groups.items():
            kept += [
                (key, label, scores)
                for label, scores in group
                if not any(beats3(o, label) for o, _ in group)
            ]
        kept.sort(key=lambda k: (-sum(k[0]), k[1][:3]))
        front: list[tuple[tuple[float, ...], Label, tuple[Score, ...]]] = []
        for key, label, scores in kept:
            if not any(
                covers(k, key) and x[0] <= label[0] and x[1] <= label[1] and x[2] <= label[2]
                for k, x, _ in front
                if k != key
            ):
                front.append((key, label, scores))
        out = [
            Combination(
                items=tuple(every[i].code for i in unchain(label[4])),
                left=scores,
                waste_gal_year=label[1] / MICRO,
                cost=label[0] / MICRO,
                own_minutes=label[2] / MICRO,
            )
            for _, label, scores in front
        ]
        return tuple(sorted(out, key=lambda c: (c.cost, c.waste_gal_year, c.own_minutes, c.items)))

    def _why(self, code: str) -> str:
        """The sentence of the stop that left an item out, written now that somebody reads it."""
        id, stage, state, sentence = self.stops[code]
        if stage is None or state is None:
            return sentence
        inp = self._input(stage.item, state, replace(self.site, mute=False))
        r, _ = run_stage(inp, self.source, self.measured)
        return next((c.sentence for c in r.checks if c.id == id and c.status == "stop"), "")

    def _left_out(
        self, lines: tuple[Combination, ...], idle: Mapping[str, str]
    ) -> tuple[LeftOut, ...]:
        used = {c for line in lines for c in line.items}
        out = []
        for i in self.items:
            if i.code in used:
                continue
            if i.code in idle:
                out.append(
                    LeftOut(code=i.code, name=i.name, rule="not needed", sentence=idle[i.code])
                )
            elif i.code in self.stops:
                beaten = (
                    " Where other stages let it stand, lines without it do as well for less."
                    if i.code in self.passed
                    else ""
                )
                out.append(
                    LeftOut(
                        code=i.code,
                        name=i.name,
                        rule=self.stops[i.code][0],
                        sentence=self._why(i.code) + beaten,
                    )
                )
            else:
                out.append(
                    LeftOut(
                        code=i.code,
                        name=i.name,
                        rule="beaten",
                        sentence=(
                            "Every line with it is beaten: another leaves no more behind and costs,"
                            " drains and asks for no more."
                        ),
                    )
                )
        return tuple(out)


def search(
    water: Water,
    colour: ColourFinding | None,
    home: Home,
    settings: Settings,
    catalogue: Iterable[Item],
    wanted: tuple[str, ...],
    years: int = 10,
    measured: Measured | None = None,
    targets: Mapping[str, tuple[float | None, str]] | None = None,
    progress: Progress | None = None,
) -> Found:
    """All lines that no other beats; see the head of this file.

    Args:
        wanted: analytes that were found; years: horizon of the cost [years]; targets: what is
            wanted of each, as (limit, "at_most" or "at_least").
    """
    listed = tuple(catalogue)
    return Searcher(water, colour, home, settings, listed, wanted, years, measured, targets).run(
        progress
    )
