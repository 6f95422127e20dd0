"""One step of the search: from the states ahead of a place to those behind it."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import replace
from decimal import Decimal
from typing import Any

from ..costing.chores import stage_minutes
from ..costing.falling import interval_months, rates_for, running_years
from ..costing.money import added_cost
from ..home import Home
from ..ranges import Range, Verdict
from ..rules import Settings
from ..testing.colour import ColourFinding
from ..testing.water import Water
from ..treating.checks import verdict_on
from ..treating.items import Effect, Item
from ..treating.line import disinfects, run_stage, site_of
from ..treating.measured import Measured
from ..treating.option import Purchase
from ..treating.place import drop_at
from ..treating.report import StageReport
from ..treating.site import Disinfected, Site
from ..treating.stages import TECHNOLOGIES
from ..treating.stages.common import StageInput, after, claimed, total_chlorine, windowed
from ..treating.stream import UNKNOWN, Quantity, Stream, source_stream
from .answers import NAMES, PLACE, Alike, Answer, Looks, looks_at
from .found import places
from .labels import Label, floored, least
from .states import MICRO, PASSES, StageAt, State, forget, is_fine

MOST_STEPS = 4000


_PARTS = ("chlorine_free", "chlorine_combined")
_FREE, _COMBINED, _TOTAL = (PLACE[n] for n in (*_PARTS, "chlorine_total"))


def _as_claimed(effect: Effect, inlet: Stream) -> Quantity | None:
    """What an effect's claim alone makes of its analyte."""
    level = claimed(effect, inlet.range("ph") if windowed(effect) else None)
    return after(effect, inlet.get(effect.analyte), level, inlet.arsenic_as5)


class Stepping:
    """States and what an item makes of them: each worked out once, costs and drops with it."""

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
        self._ids: dict[tuple[Range | None, float | None, str, bool, bool], int] = {}
        self._quantities: list[Quantity] = []
        self.low = 0 if self.source.psi is None else round(self.source.psi.low * MICRO)
        self.stages_run = 0
        self.ended = 0
        self.stops: dict[str, tuple[str, StageAt | None, State | None, str]] = {}
        self.passed: set[str] = set()
        self._stages: list[StageAt] = []
        self._verdicts: dict[tuple[int, str, float], Verdict] = {}
        self._falls: dict[tuple[Decimal, float], int] = {}
        self._looks: dict[str, frozenset[str]] = {}
        self._several: frozenset[str] = frozenset()  # kinds that can stand at several places
        self._totals: dict[tuple[int, int], int] = {}
        self._claims: dict[tuple[int, int, int], int] = {}
        self._places = [(n, p) for n in wanted for p in places(n)]
        self._fine = next(
            (i for i in self.items if is_fine(i)),
            None,
        )

    # -- states
    # ------------------------------------------------------------------------------------------

    def _intern(self, q: Quantity) -> int:
        """The number of a quantity. Its evidence and note decide nothing behind it: what is
        otherwise the same goes on together.
        """
        key = (q.range, q.below, q.words, q.established, q.pending)
        found = self._ids.get(key)
        if found is None:
            self._quantities.append(
                Quantity(
                    range=q.range,
                    state="unknown" if q.range is None else "predicted",
                    below=q.below,
                    words=q.words,
                    established=q.established,
                    pending=q.pending,
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
        return State(
            quantities=tuple(q),
            particulate_iron=s.particulate_iron,
            coloured=s.coloured,
            psi=psi,
            uvt_here=s.uvt_measured_here,
            fine=False,
            disinfected=Disinfected.NO,
            used=frozenset(),
            scores=(),
        )

    def _stream(self, state: State) -> Stream:
        have = self._quantities
        psi = state.psi  # what is really left of it is counted by the labels
        return Stream(
            quantities={NAMES[i]: have[v - 1] for i, v in enumerate(state.quantities) if v},
            particulate_iron=state.particulate_iron,
            coloured=state.coloured,
            psi=None if psi is None else Range.of(psi[0], psi[0], psi[1]),
            uvt_measured_here=state.uvt_here,
            arsenic_as5=self.source.arsenic_as5,
        )

    # -- one stage
    # ------------------------------------------------------------------------------------------

    def answer(self, group: Alike, state: State, keys: dict[int, Any]) -> Answer:
        """What items that are alike do to a state; worked out once for everything they look at.
        ``keys``: those of this state so far, by what is looked at.
        """
        key = keys.get(group.number)
        if key is None:
            key = keys[group.number] = self._key(state.quantities, group.looks)
        whole = key, tuple([state[i] for i in group.facts])
        known = group.answers.get(whole)
        if known is None:
            known = group.answers[whole] = self._work(group, state)
        return known

    def _key(self, q: tuple[int, ...], looks: Looks) -> Any:
        """What an answer hangs on: the values of what is read, the verdict on what is only judged,
        and whether the rest is there.
        """
        values, judged, there = looks
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

    def _input(self, item: Item, state: State, site: Site) -> StageInput:
        return StageInput(
            item=item,
            stream=self._stream(state),
            site=site,
            overrides={},
            ahead=(self._fine,) if state.fine and self._fine is not None else (),
            brief=True,
            disinfected=state.disinfected,
            searching=True,
        )

    def _work(self, group: Alike, state: State) -> Answer:
        self.stages_run += 1
        item = group.sample
        inp = self._input(item, state, self.site)
        r, outlet = run_stage(inp, self.source, self.measured)
        out = Answer()
        out.stop = next((c.id for c in r.checks if c.status == "stop"), "")
        if out.stop == "":
            assert all(
                getattr(outlet, name) == getattr(inp.stream, name)
                for fact, name in PASSES.items()
                if fact not in group.touches
            ), f"{item.kind} changes a fact that it is not known to touch"
            self._tell(out, group, r, inp.stream, outlet)
        return out

    def _tell(
        self, out: Answer, group: Alike, r: StageReport, inlet: Stream, outlet: Stream
    ) -> None:
        """Write down what a stage that does not stop does: of what it claims and does not read,
        the claim; of the rest, what it made of it.
        """
        item = group.sample
        changed = {
            PLACE[n]: v for n, v in outlet.quantities.items() if v is not inlet.quantities.get(n)
        }
        claims = {
            p: e
            for e in item.effects
            if (p := PLACE[e.analyte]) in changed
            and p not in group.looks.values
            and changed[p] == _as_claimed(e, inlet)
        }
        out.disinfects = disinfects(item, r)
        by_parts = total_chlorine(inlet, {NAMES[p]: q for p, q in changed.items()})
        out.totals = bool(by_parts) and changed.get(_TOTAL) == by_parts["chlorine_total"]
        if out.totals:
            del changed[_TOTAL]
        out.claims = tuple(claims.items())
        out.changes = tuple((p, self._intern(v)) for p, v in changed.items() if p not in claims)
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
        counted = (running_years(x.per_year + x.counted, self.rates) for x in r.running)
        out.running = sum(self._micro(sum(years, Decimal(0))) for years in counted)
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
            measured = self.measured.get(item.code, {})
            known = self._looks[item.code] = looks_at(item).union(measured)
        return known

    def _cost(self, stage: StageAt, a: Answer) -> int:
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
            q = after(effect, self._quantities[before - 1], level, self.source.arsenic_as5)
            known = self._claims[key] = 0 if q is None else self._intern(q)
        return known

    def _total(self, free: int, combined: int) -> int:
        """Total chlorine of what is left of free and combined, each by its number."""
        found = self._totals.get((free, combined))
        if found is None:
            both = zip(_PARTS, (free, combined), strict=True)
            parts = {n: self._quantities[i - 1] for n, i in both}
            whole = Stream(quantities={**parts, "chlorine_total": UNKNOWN})
            found = self._intern(total_chlorine(whole, parts)["chlorine_total"])
            self._totals[free, combined] = found
        return found

    def _after(self, state: State, stage: StageAt, a: Answer) -> State:
        before = state.quantities
        q, ph = list(before), before[PLACE["ph"]]
        for i, effect in a.claims:
            q[i] = self._claimed(effect, before[i], ph)
        for i, v in a.changes:
            q[i] = v
        if a.totals:
            q[_TOTAL] = self._total(q[_FREE], q[_COMBINED])
        item, touches = stage.item, stage.alike.touches
        iron = a if "@particulate_iron" in touches else state
        colour = a if "@coloured" in touches else state
        fine = state.fine or stage.fine
        used = state.used | {item.kind} if item.kind in self._several else state.used
        return State(
            tuple(q),
            iron.particulate_iron,
            colour.coloured,
            a.psi,
            colour.uvt_here,
            fine,
            max(state.disinfected, a.disinfects),
            used,
            state.scores,
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
        self, layers: list[tuple[list[StageAt], str]], then: frozenset[str]
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
        layer: list[StageAt],
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
        groups: dict[Alike, list[StageAt]] = {}
        for stage in layer:
            groups.setdefault(stage.alike, []).append(stage)
        for state, labels in front.items():
            keys: dict[int, Any] = {}
            for group, stages in groups.items():
                if group.sample.kind in state.used:
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
        self, layers: list[tuple[list[StageAt], str]], then: tuple[int, ...]
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

    def _options(self, stages: list[StageAt], a: Answer) -> list[tuple[int, int, int]]:
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
        stages: list[StageAt],
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
