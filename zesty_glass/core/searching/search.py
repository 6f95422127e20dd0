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
- A stage looks at some analytes and facts only, and of some only whether they meet a need; where
  these are the same, its answer is the same and is not worked out again (``answers``). What it
  claims to take out is put off: that hangs on each analyte alone.
- Evidence and notes of a quantity decide nothing further on, and a pressure only by whether a later
  stage still gets what it wants: what differs in these alone is the same.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Iterable, Iterator, Mapping
from dataclasses import replace
from decimal import Decimal
from functools import lru_cache
from itertools import product
from operator import mul
from typing import Any

from ..costing.chores import stage_minutes
from ..costing.money import added_cost, interval_months, rates_for, running_years
from ..home import Home
from ..ranges import Range, Verdict
from ..rules import Settings
from ..testing.colour import ColourFinding
from ..testing.water import Water
from ..treating.checks import verdict_on
from ..treating.figures import FINE_UM
from ..treating.items import Effect, Item, SystemFigures, alike
from ..treating.line import Purchase, run_stage, site_of
from ..treating.measured import Measured
from ..treating.order import AGAINST_CHLORINE, carbon_first, company, ordered, rank, wants_ph
from ..treating.place import drop_at
from ..treating.report import StageReport
from ..treating.site import Site
from ..treating.stages import TECHNOLOGIES
from ..treating.stages.common import StageInput, after, claimed, windowed
from ..treating.stream import Quantity, Stream, source_stream
from ..treating.technology import Company, chlorine_is_too_much
from .answers import FACTS, NAMES, PLACE, Alike, Answer, Claim, Looked, Reads, looks_at
from .found import Combination, Found, LeftOut, combinations, places
from .labels import Label, beats3, covers, floored, least, unchain
from .play import in_play
from .scores import Score, score

MOST_STEPS = 4000
MICRO = 1_000_000  # figures are compared as whole millionths, so that sums are exact in any order

Progress = Callable[[str, int, int], None]


# a state: (quantities by place, particulate iron, coloured, psi best and high, uvt here, fine
# filter ahead, disinfected ahead, kinds used, figures at the house's taps)
State = tuple[
    tuple[int, ...],
    bool | None,
    bool | None,
    tuple[float, float | None] | None,
    bool,
    bool,
    bool,
    frozenset[str],
    tuple[Score, ...],
]
#: facts and their names in a stream
_PASSES = {
    "@particulate_iron": "particulate_iron",
    "@coloured": "coloured",
    "@uvt_here": "uvt_measured_here",
}


class _Stage:
    """An item at its place."""

    __slots__ = (
        "alike",
        "cost_once",
        "disinfects",
        "drop",
        "fine",
        "index",
        "item",
        "least_psi",
    )

    def __init__(self, item: Item, index: int, cost_once: int, drop: int, group: Alike) -> None:
        self.item, self.index, self.cost_once, self.drop, self.alike = (
            item,
            index,
            cost_once,
            drop,
            group,
        )
        technology = TECHNOLOGIES.get(item.kind)  # a system has none: its parts have
        self.fine, self.disinfects = _fine(item), item.figures.disinfects
        least = technology.psi_min if item.psi_min is None and technology else item.psi_min
        self.least_psi = round((least or 0.0) * MICRO)


def _fine(item: Item) -> bool:
    return (item.figures.holds_um or math.inf) <= FINE_UM


def _has_carbon(items: Iterable[Item]) -> bool:
    return any(i.kind == AGAINST_CHLORINE for i in items)


def _raises_ph(items: Iterable[Item]) -> bool:
    return any("ph" in TECHNOLOGIES[i.kind].changes for i in items)


class _LearnedError(Exception):
    """A stage read an analyte that nobody expected it to: the search begins again, knowing it."""


class Searcher:
    """One search over one water, home and catalogue."""

    def __init__(
        self,
        water: Water,
        colour: ColourFinding | None,
        home: Home,
        settings: Settings,
        catalogue: Iterable[Item],
        wanted: tuple[str, ...],
        years: int = 10,
        measured: Measured | None = None,
        targets: Mapping[str, tuple[float | None, str]] | None = None,
    ) -> None:
        self.site: Site = replace(site_of(home, settings, water), mute=True)
        self.source: Stream = source_stream(water, colour, self.site.running_psi)
        self.items = tuple(sorted(catalogue, key=lambda i: i.code))
        self.by_code = {i.code: i for i in self.items}
        self.wanted, self.years, self.measured = wanted, years, measured or {}
        self.targets = dict(targets or {})
        self.rates = rates_for(settings.price_growth, settings.discount, years)
        self._ids: dict[tuple[Range | None, float | None, str, bool], int] = {}
        self._quantities: list[Quantity] = []
        self.low = 0 if self.source.psi is None else round(self.source.psi.low * MICRO)
        self.stages_run = 0
        self.ended = 0
        self.stops: dict[str, tuple[str, _Stage | None, State | None, str]] = {}
        self.passed: set[str] = set()
        self._stages: list[_Stage] = []
        self._verdicts: dict[tuple[int, str, float], Verdict] = {}
        self._falls: dict[tuple[Decimal, float], int] = {}
        self._looks: dict[str, frozenset[str]] = {}
        self._several: frozenset[str] = frozenset()  # kinds that can stand at several places
        self._claims: dict[tuple[int, int, int], int] = {}
        self._looked: list[Looked] = []
        self._places = [(n, p) for n in wanted for p in places(n)]
        self.learned: dict[str, set[str]] = {}
        self._fine = next(
            (i for i in self.items if _fine(i)),
            None,
        )
        self._disinfects = next((i for i in self.items if i.figures.disinfects), None)

    # -- states
    # ------------------------------------------------------------------------------------------

    def _intern(self, q: Quantity) -> int:
        """The number of a quantity. Its evidence and note decide nothing behind it: what is
        otherwise the same goes on together.
        """
        key = (q.range, q.below, q.words, q.established)
        found = self._ids.get(key)
        if found is None:
            self._quantities.append(
                Quantity(
                    range=q.range,
                    state="unknown" if q.range is None else "predicted",
                    below=q.below,
                    words=q.words,
                    established=q.established,
                )
            )
            found = self._ids[key] = len(self._quantities)
        return found

    def _start(self) -> State:
        s = self.source
        q = [0] * len(NAMES)
        for name, value in s.quantities.items():
            q[PLACE[name]] = self._intern(value)
        psi = None if s.psi is None else (s.psi.best, s.psi.high)
        return (
            tuple(q),
            s.particulate_iron,
            s.coloured,
            psi,
            s.uvt_measured_here,
            False,
            False,
            frozenset(),
            (),
        )

    def _stream(self, state: State) -> tuple[Stream, Reads]:
        q, particulate_iron, coloured, psi, uvt, *_ = state
        reads = Reads({NAMES[i]: self._quantities[v - 1] for i, v in enumerate(q) if v})
        range_ = (
            None if psi is None else Range.of(psi[0], psi[0], psi[1])
        )  # what is really left of it is counted by the labels
        return (
            Stream(
                quantities=reads,
                particulate_iron=particulate_iron,
                coloured=coloured,
                psi=range_,
                uvt_measured_here=uvt,
            ),
            reads,
        )

    # -- one stage
    # ------------------------------------------------------------------------------------------

    def answer(self, group: Alike, state: State, keys: dict[int, Any]) -> Answer:
        """What items that are alike do to a state; worked out once for everything they look at.
        ``keys``: those of this state so far, by what was looked at.
        """
        q, beside = state[0], tuple([state[i] for i in group.facts])
        for n in group.looked:
            key = keys.get(n)
            if key is None:
                key = keys[n] = self._key(q, self._looked[n])
            known = group.answers.get((n, key, beside))
            if known is not None:
                return known
        out, looked = self._work(group, state)
        if looked not in self._looked:
            self._looked.append(looked)
        n = self._looked.index(looked)
        if n not in group.looked:
            group.looked.append(n)
        group.answers[n, self._key(q, looked), beside] = out
        return out

    def _key(self, q: tuple[int, ...], looked: Looked) -> Any:
        """What an answer hangs on: the values of what was asked for, the verdict on what was only
        judged, and whether the rest is there.
        """
        values, judged, there = looked
        verdicts = self._verdicts
        found = []
        for place, need in judged:
            at = (q[place], need.op, need.limit)
            v = verdicts.get(at)
            if v is None:
                v = verdicts[at] = verdict_on(
                    need, self._quantities[q[place] - 1] if q[place] else None
                )
            found.append(v)
        return tuple([q[i] for i in values]), tuple(found), tuple([q[i] > 0 for i in there])

    def _input(self, item: Item, state: State, site: Site) -> tuple[StageInput, Reads]:
        stream, reads = self._stream(state)
        ahead = tuple(
            i
            for i, there in ((self._fine, state[5]), (self._disinfects, state[6]))
            if there and i is not None
        )
        return (
            StageInput(item=item, stream=stream, site=site, overrides={}, ahead=ahead, brief=True),
            reads,
        )

    def _work(self, group: Alike, state: State) -> tuple[Answer, Looked]:
        self.stages_run += 1
        item = group.sample
        inp, reads = self._input(item, state, self.site)
        r, outlet = run_stage(inp, self.source, self.measured)
        looked = reads.looked()
        strange = {NAMES[i] for i in looked[0] + looked[2]} | {k[0] for k in reads.judged}
        strange -= self._looks_at(item) | {e.analyte for e in item.effects}
        if strange:
            self.learned.setdefault(item.kind, set()).update(strange)
            raise _LearnedError
        out = Answer()
        out.stop = next((c.id for c in r.checks if c.status == "stop"), "")
        if out.stop == "":
            assert all(
                getattr(outlet, name) == getattr(inp.stream, name)
                for fact, name in _PASSES.items()
                if fact not in group.touches
            ), f"{item.kind} changes a fact that it is not known to touch"
            self._tell(out, item, r, outlet, reads)
        return out, looked

    def _tell(self, out: Answer, item: Item, r: StageReport, outlet: Stream, reads: Reads) -> None:
        """Write down what a stage that does not stop does."""
        changed = [
            (PLACE[n], v) for n, v in outlet.quantities.items() if v is not dict.get(reads, n)
        ]
        out.claims = tuple((n, v.effect) for n, v in changed if isinstance(v, Claim))
        out.changes = tuple((n, self._intern(v)) for n, v in changed if not isinstance(v, Claim))
        out.particulate_iron, out.coloured, out.uvt_here = (
            outlet.particulate_iron,
            outlet.coloured,
            outlet.uvt_measured_here,
        )
        psi = r.outlet.psi
        out.psi = None if psi is None else (psi.best, psi.high)
        drop = round((r.drop_psi or 0.0) * MICRO) if item.scope == "house" else 0
        assert drop in (0, self._drop(item)), "the pressure is counted with the item's own drop"
        out.drops = drop > 0
        sets = getattr(item.figures, "sets_psi", None)
        if sets is not None:
            to = round(sets * MICRO)
            out.sets_low = (
                (lambda low: to)
                if TECHNOLOGIES[item.kind].sets_pressure == "raises"
                else (lambda low: min(low, to))
            )
        own = {c.code: n for n, c in enumerate(item.consumables)}
        out.dues = tuple((own.get(d.code), d.price, interval_months(d)) for d in r.dues)
        out.running = sum(
            self._micro(sum(running_years(x.per_year, self.rates), Decimal(0))) for x in r.running
        )
        out.waste, out.minutes = (
            sum(round(d.gal_year * MICRO) for d in r.drains),
            round(stage_minutes(r) * MICRO),
        )

    @staticmethod
    def _micro(amount: Decimal) -> int:
        return int((amount * MICRO).to_integral_value())

    def _looks_at(self, item: Item) -> frozenset[str]:
        """Analytes and facts that decide what an item does, beside those it only
        passes on changed.
        """
        known = self._looks.get(item.code)
        if known is None:
            known = self._looks[item.code] = looks_at(item) | frozenset(
                self.learned.get(item.kind, ())
            )
        return known

    def _cost(self, stage: _Stage, a: Answer) -> int:
        """What an item adds to the cost by what falls due and runs [millionths]."""
        added = a.running
        for n, price, step in a.dues:
            paid = price if n is None else stage.item.consumables[n].price
            falls = self._falls.get((paid, step))
            if falls is None:
                falls = self._falls[paid, step] = self._micro(self.rates.falling(paid, step).total)
            added += falls
        return added

    def _claimed(self, effect: Effect, before: int, ph: int) -> int:
        """What a claim makes of a quantity; of the rest of the water it knows the pH at most."""
        key = (id(effect), before, ph if windowed(effect) else 0)
        known = self._claims.get(key)
        if known is None:
            level = claimed(effect, self._quantities[ph - 1].range if key[2] else None)
            q = after(effect, self._quantities[before - 1], level)
            known = self._claims[key] = 0 if q is None else self._intern(q)
        return known

    def _after(self, state: State, stage: _Stage, a: Answer) -> State:
        before = state[0]
        q, ph = list(before), before[PLACE["ph"]]
        for i, effect in a.claims:
            q[i] = self._claimed(effect, before[i], ph)
        for i, v in a.changes:
            q[i] = v
        item, touches = stage.item, stage.alike.touches
        particulate_iron = a.particulate_iron if "@particulate_iron" in touches else state[1]
        coloured, uvt_here = (
            (a.coloured, a.uvt_here) if "@coloured" in touches else (state[2], state[4])
        )
        fine = state[5] or stage.fine
        used = state[7] | {item.kind} if item.kind in self._several else state[7]
        return (
            tuple(q),
            particulate_iron,
            coloured,
            a.psi,
            uvt_here,
            fine,
            state[6] or stage.disinfects,
            used,
            state[8],
        )

    def _narrow(
        self, front: dict[State, list[Label]], keep: frozenset[str], steps: tuple[int, ...] | None
    ) -> dict[State, list[Label]]:
        """Forget quantities and facts that nothing further on looks at and nobody judges, and
        pressure between two steps that decide: lines that differ in these alone go on together.
        """
        together: dict[State, list[Label]] = {}
        for s, labels in front.items():
            together.setdefault(forget(s, keep), []).extend(floored(labels, steps))
        return {s: least(labels) for s, labels in together.items()}

    def _keeps(
        self, layers: list[tuple[list[_Stage], str]], then: frozenset[str]
    ) -> list[frozenset[str]]:
        """For the place behind each layer: which quantities and facts still matter."""
        out: list[frozenset[str]] = []
        needed = then
        for layer, _ in reversed(layers):
            out.append(needed)
            needed = needed.union(*(self._looks_at(stage.item) for stage in layer))
        return list(reversed(out))

    # -- layers
    # ------------------------------------------------------------------------------------------

    def _once(self, item: Item) -> int:
        bought = Purchase(
            code=item.code,
            label=item.name,
            price=item.price,
            installation=item.installation,
            scope=item.scope,
        )
        return round(added_cost((bought,), (), (), self.rates, self.years) * MICRO)

    def _advance(
        self,
        front: dict[State, list[Label]],
        layer: list[_Stage],
        must: bool,
        keep: frozenset[str],
        steps: tuple[int, ...] | None,
    ) -> dict[State, list[Label]]:
        """All states behind a layer: passed by (unless it must be used), or through each of its
        items.
        """
        out: dict[State, list[Label]] = (
            {} if must else {s: list(labels) for s, labels in front.items()}
        )
        groups: dict[Alike, list[_Stage]] = {}
        for stage in layer:
            groups.setdefault(stage.alike, []).append(stage)
        for state, labels in front.items():
            keys: dict[int, Any] = {}
            for group, stages in groups.items():
                if group.sample.kind in state[7]:
                    continue
                a = self.answer(group, state, keys)
                if a.stop:
                    if not group.stopped:
                        group.stopped = True
                        for stage in stages:
                            self.stops.setdefault(stage.item.code, (a.stop, stage, state, ""))
                    continue
                self._use(out, state, labels, stages, a)
        return self._narrow(out, keep, steps)

    def _steps(
        self, layers: list[tuple[list[_Stage], str]], then: tuple[int, ...]
    ) -> list[tuple[int, ...] | None]:
        """For the place behind each layer: pressures that part what a later stage accepts from what
        it does not, whatever is in between; None when they are too many to be worth it.
        """
        out: list[tuple[int, ...] | None] = []
        top = max(
            self.low,
            *(
                round(s * MICRO)
                for i in self.items
                if (s := getattr(i.figures, "sets_psi", None)) is not None
            ),
            0,
        )
        steps = {0, *then}
        for layer, _ in reversed(layers):
            out.append(tuple(sorted(steps)) if len(steps) <= MOST_STEPS else None)
            if out[-1] is not None:
                drops = {s.drop for s in layer}
                steps |= {s.least_psi for s in layer} | {
                    c + d for c in steps if c for d in drops if c + d <= top
                }
        return list(reversed(out))

    def _drop(self, item: Item) -> int:
        """The pressure that an item takes at peak flow [millionths of a psi]."""
        return (
            round((drop_at(item, self.site.demand.peak_gpm) or 0.0) * MICRO)
            if item.scope == "house"
            else 0
        )

    def _options(self, stages: list[_Stage], a: Answer) -> list[tuple[int, int, int]]:
        """Of items that are alike, those that can be part of a line that no other beats here, as
        (cost, pressure taken, index): none that costs more and takes no less.
        """
        if a.options is None:
            all_ = [
                (self._cost(s, a) + s.cost_once, s.drop if a.drops else 0, s.index) for s in stages
            ]
            a.options = [o for o in all_ if not any(c < o[0] and d <= o[1] for c, d, _ in all_)]
        return a.options

    def _use(
        self,
        out: dict[State, list[Label]],
        state: State,
        labels: list[Label],
        stages: list[_Stage],
        a: Answer,
    ) -> None:
        """Lines that take one of some items that are alike."""
        least_psi = stages[0].least_psi
        going = (
            labels
            if self.source.psi is None or not least_psi
            else [x for x in labels if -x[3] >= least_psi]
        )
        if not going:
            for stage in stages:
                self.stops.setdefault(
                    stage.item.code,
                    (
                        "pressure.least",
                        None,
                        None,
                        (
                            f"Wants at least {least_psi / MICRO:g} psi running; the stages ahead"
                            " leave less."
                        ),
                    ),
                )
            return
        if not stages[0].alike.passed:
            stages[0].alike.passed = True
            self.passed.update(s.item.code for s in stages)
        grown = out.setdefault(self._after(state, stages[0], a), [])
        waste, minutes, sets = a.waste, a.minutes, a.sets_low
        for cost, drop, index in self._options(stages, a):
            grown += [
                (
                    c + cost,
                    w + waste,
                    m + minutes,
                    -max(0, (sets(-low) if sets else -low) - drop),
                    (chain, index),
                )
                for c, w, m, low, chain in going
            ]

    def _layers(
        self, items: Iterable[Item], beside: Company, index: Mapping[str, int]
    ) -> list[tuple[list[_Stage], str]]:
        """Items of one branch by their place; one layer a place and kind."""
        by: dict[tuple[int, str], list[_Stage]] = {}
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
            _Stage(
                i,
                n,
                self._once(i),
                self._drop(i),
                groups.setdefault(
                    (alike(i, plumbing=False), i.code if i.code in self.measured else ""), Alike(i)
                ),
            )
            for n, i in enumerate(every)
        ]
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
            merge(
                out, (*forget(s, tap_looks)[:7], frozenset(), self._scores(s[0], "house")), labels
            )
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
        q, particulate_iron, coloured, _, *facts = forget(state, wanted)
        return (q, particulate_iron, coloured, None, *facts[:3], frozenset(), state[8])  # type: ignore[return-value]

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
            scores = (*state[8], *self._scores(state[0], "tap"))
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
        inp, _ = self._input(stage.item, state, replace(self.site, mute=False))
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


@lru_cache(64)
def _masks(keep: frozenset[str]) -> tuple[tuple[int, ...], tuple[bool, ...]]:
    return tuple(int(n in keep) for n in NAMES), tuple(f in keep for f in FACTS)


def forget(state: State, keep: frozenset[str]) -> State:
    """A state without the quantities and facts that no longer matter."""
    quantities, (particulate_iron, coloured, uvt_here, fine, disinfected) = _masks(keep)
    return (
        tuple(map(mul, state[0], quantities)),
        state[1] if particulate_iron else None,
        state[2] if coloured else None,
        state[3],
        state[4] if uvt_here else True,
        state[5] if fine else False,
        state[6] if disinfected else False,
        state[7],
        state[8],
    )


def merge(into: dict[State, list[Label]], state: State, labels: list[Label]) -> None:
    """Add labels to a state, keeping those that no other beats."""
    have = into.get(state)
    into[state] = least([*have, *labels]) if have else list(labels)


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
    learned: dict[str, set[str]] = {}
    while True:
        s = Searcher(water, colour, home, settings, listed, wanted, years, measured, targets)
        s.learned = learned
        try:
            return s.run(progress)
        except _LearnedError:
            learned = s.learned
