"""What a stage makes of a state: worked out once for all that looks the same to it."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from decimal import Decimal
from typing import NamedTuple

from ..costing.chores import stage_minutes
from ..costing.falling import interval_months, running_years
from ..ranges import Range, Verdict
from ..treating.items import Effect, Item
from ..treating.report import StageReport
from ..treating.site import Disinfected, Site
from ..treating.stages import TECHNOLOGIES
from ..treating.stages.common import StageInput, after, claimed, total_chlorine, windowed
from ..treating.stream import Quantity, Stream
from ..treating.walking import disinfects, run_stage
from .quantities import COMBINED, FREE, TOTAL, Quantities
from .question import Question
from .stage_answers import NAMES, PLACE, Alike, Answer, Looks
from .states import MICRO, PASSES, StageAt, State


class Key(NamedTuple):
    """What an answer hangs on: the values of what is read, the verdict on what is only judged, and
    whether the rest is there.
    """

    values: tuple[int, ...]
    verdicts: tuple[Verdict, ...]
    there: tuple[bool, ...]


#: the keys of one state so far, by the number of what is looked at
Keys = dict[int, Key]


def _micro(amount: Decimal) -> int:
    return int((amount * MICRO).to_integral_value())


def _as_claimed(effect: Effect, inlet: Stream) -> Quantity | None:
    """What an effect's claim alone makes of its analyte."""
    level = claimed(effect, inlet.range("ph") if windowed(effect) else None)
    return after(effect, inlet.get(effect.analyte), level, inlet.arsenic_as5)


class Answering:
    """The stages of one question, asked of the states that lines come to."""

    def __init__(self, question: Question) -> None:
        self.question = question
        self.quantities = Quantities(question.source.arsenic_as5)
        self.stages_run = 0
        self._falls: dict[tuple[Decimal, float], int] = {}

    def start(self) -> State:
        """The state that every line begins in: the water as it comes."""
        s = self.question.source
        q = [0] * len(NAMES)
        for name, value in s.quantities.items():
            q[PLACE[name]] = self.quantities.number(value)
        return State(
            quantities=tuple(q),
            particulate_iron=s.particulate_iron,
            coloured=s.coloured,
            psi=None if s.psi is None else (s.psi.best, s.psi.high),
            uvt_here=s.uvt_measured_here,
            fine=False,
            disinfected=Disinfected.NO,
            used=frozenset(),
            scores=(),
        )

    def _stream(self, state: State) -> Stream:
        psi = state.psi  # what is really left of it is counted by the labels
        numbered = zip(NAMES, map(self.quantities.of, state.quantities), strict=True)
        return Stream(
            quantities={name: q for name, q in numbered if q is not None},
            particulate_iron=state.particulate_iron,
            coloured=state.coloured,
            psi=None if psi is None else Range.of(psi[0], psi[0], psi[1]),
            uvt_measured_here=state.uvt_here,
            arsenic_as5=self.question.source.arsenic_as5,
        )

    def inlet(self, item: Item, state: State, site: Site) -> StageInput:
        """An item with what reaches it."""
        fine = self.question.fine
        return StageInput(
            item=item,
            stream=self._stream(state),
            site=site,
            overrides={},
            ahead=(fine,) if state.fine and fine is not None else (),
            brief=True,
            disinfected=state.disinfected,
            searching=True,
        )

    def answer(self, group: Alike, state: State, keys: Keys) -> Answer:
        """What items that are alike do to a state; worked out once for everything they look at.
        ``keys``: those of this state so far.
        """
        key = keys.get(group.number)
        if key is None:
            key = keys[group.number] = self._key(state.quantities, group.looks)
        whole = key, tuple([state[i] for i in group.facts])
        known = group.answers.get(whole)
        if known is None:
            known = group.answers[whole] = self._work(group, state)
        return known

    def _key(self, q: tuple[int, ...], looks: Looks) -> Key:
        verdict = self.quantities.verdict
        return Key(
            tuple([q[i] for i in looks.values]),
            tuple([verdict(need, q[place]) for place, need in looks.judged]),
            tuple([q[i] > 0 for i in looks.there]),
        )

    def _work(self, group: Alike, state: State) -> Answer:
        self.stages_run += 1
        item, question = group.sample, self.question
        inp = self.inlet(item, state, question.site)
        report, outlet = run_stage(inp, question.source, question.measured)
        told = Answer()
        told.stop = next((c.id for c in report.checks if c.status == "stop"), "")
        if told.stop == "":
            assert all(
                getattr(outlet, name) == getattr(inp.stream, name)
                for fact, name in PASSES.items()
                if fact not in group.touches
            ), f"{item.kind} changes a fact that it is not known to touch"
            self._tell_water(told, group, inp.stream, outlet)
            told.disinfects = disinfects(item, report)
            self._tell_pressure(told, item, report)
            self._tell_running(told, item, report)
        return told

    def _tell_water(self, told: Answer, group: Alike, inlet: Stream, outlet: Stream) -> None:
        """Of what a stage claims and does not read, the claim; of the rest, what it made of it."""
        changed = {
            PLACE[n]: v for n, v in outlet.quantities.items() if v is not inlet.quantities.get(n)
        }
        claims = _claims(group, changed, inlet)
        by_parts = total_chlorine(inlet, {NAMES[p]: q for p, q in changed.items()})
        told.totals = bool(by_parts) and changed.get(TOTAL) == by_parts["chlorine_total"]
        if told.totals:
            del changed[TOTAL]
        told.claims = tuple(claims.items())
        number = self.quantities.number
        told.changes = tuple((p, number(v)) for p, v in changed.items() if p not in claims)
        told.particulate_iron = outlet.particulate_iron
        told.coloured, told.uvt_here = outlet.coloured, outlet.uvt_measured_here

    def _tell_pressure(self, told: Answer, item: Item, report: StageReport) -> None:
        psi = report.outlet.psi
        told.psi = None if psi is None else (psi.best, psi.high)
        drop = round((report.drop_psi or 0.0) * MICRO) if item.scope == "house" else 0
        assert drop in (0, self.question.drop(item)), (
            "the pressure is counted with the item's own drop"
        )
        told.drops = drop > 0
        told.sets_low = _sets_low(item)

    def _tell_running(self, told: Answer, item: Item, report: StageReport) -> None:
        own = {c.code: n for n, c in enumerate(item.consumables)}
        told.dues = tuple((own.get(d.code), d.price, interval_months(d)) for d in report.dues)
        rates = self.question.rates
        counted = (running_years(x.per_year + x.counted, rates) for x in report.running)
        told.running = sum(_micro(sum(years, Decimal(0))) for years in counted)
        told.waste = sum(round(d.gal_year * MICRO) for d in report.drains)
        told.minutes = round(stage_minutes(report) * MICRO)

    def cost(self, stage: StageAt, answer: Answer) -> int:
        """What an item adds to the cost by what falls due and runs [millionths]."""
        added = answer.running
        for n, price, step in answer.dues:
            paid = price if n is None else stage.item.consumables[n].price
            falls = self._falls.get((paid, step))
            if falls is None:
                total = self.question.rates.falling(paid, step).total
                falls = self._falls[paid, step] = _micro(total)
            added += falls
        return added

    def behind(self, state: State, stage: StageAt, told: Answer, used: frozenset[str]) -> State:
        """The state behind a stage, with the kinds ``used`` so far that can stand elsewhere too."""
        before = state.quantities
        q, ph = list(before), before[PLACE["ph"]]
        for i, effect in told.claims:
            q[i] = self.quantities.claimed(effect, before[i], ph)
        for i, v in told.changes:
            q[i] = v
        if told.totals:
            q[TOTAL] = self.quantities.total_chlorine(q[FREE], q[COMBINED])
        touches = stage.alike.touches
        iron = told if "@particulate_iron" in touches else state
        colour = told if "@coloured" in touches else state
        return State(
            tuple(q),
            iron.particulate_iron,
            colour.coloured,
            told.psi,
            colour.uvt_here,
            state.fine or stage.fine,
            max(state.disinfected, told.disinfects),
            used,
            state.scores,
        )


def _claims(group: Alike, changed: Mapping[int, Quantity], inlet: Stream) -> dict[int, Effect]:
    """Of what changed, what an item's claim alone explains, and nothing of the stage reads."""
    return {
        p: e
        for e in group.sample.effects
        if (p := PLACE[e.analyte]) in changed
        and p not in group.looks.values
        and changed[p] == _as_claimed(e, inlet)
    }


def _sets_low(item: Item) -> Callable[[int], int] | None:
    """What an item that sets the pressure makes of the lowest [millionths of a psi]."""
    sets: float | None = getattr(item.figures, "sets_psi", None)
    if sets is None:
        return None
    to = round(sets * MICRO)
    raises = TECHNOLOGIES[item.kind].sets_pressure == "raises"
    return (lambda low: to) if raises else (lambda low: min(low, to))
