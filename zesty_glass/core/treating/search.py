"""The search that proposes lines of its own: exact over all combinations that the rules let stand (brief chapter 4).

A combination holds at most one item of each kind on each branch; a system for the drinking tap stands alone on its
branch. A line that a rule stops is dropped. Of the rest those are kept that no other beats on what is left of each
thing found, on water to the drain, on lifetime cost and on chores. Figures are ranges: a line is held to be as good
as another in a thing found only when both its best value and its worst end are at least as good, so that no
option is lost to another's lucky best value, and one whose range is merely narrower can stay.

How it stays exact without walking every combination:

- The order of stages is settled by the rules. It depends on few facts (is there a UV chamber, an iron filter that wants
  more pH, a resin that wants carbon ahead); the search runs once for each way these facts can be.
- Two lines that have come to the same water, pressure and prefilter at the same place go on alike, so of these only those
  are carried on that no other beats on cost, drain, chores and pressure left.
- A stage that stops makes every longer line that begins so stop too: the line is cut there.
- A stage reads only some analytes, and of some only whether they meet a need; where these are the same, its answer is the
  same and is not worked out again.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable, Iterator, Mapping
from dataclasses import replace
from decimal import Decimal
from itertools import product
from operator import itemgetter
from typing import Any

from ..analytes import ANALYTES, Kind
from ..costing.chores import stage_minutes
from ..costing.money import Rates, added_cost, falling_due, interval_months, running_years
from ..home import Home
from ..proposing.compare import judged_at
from ..proposing.scores import Score, score
from ..ranges import Range, Verdict
from ..record import record
from ..rules import Settings
from ..testing.colour import ColourFinding
from ..testing.water import Water
from .checks import verdict_on
from .items import Item, Need, SedimentFigures, SystemFigures, alike
from .line import Purchase, run_stage, site_of
from .measured import Measured
from .order import Company, carbon_first, ordered, rank, wants_ph
from .place import drop_at
from .play import in_play
from .site import Site
from .stages.common import StageInput
from .stream import Quantity, Stream, source_stream

NAMES = tuple(ANALYTES)
PLACE = {n: i for i, n in enumerate(NAMES)}
MICRO = 1_000_000  # figures are compared as whole millionths, so that sums are exact in any order
FINE_MICRON = 5.0
MEMBRANE_PSI = 40.0

Progress = Callable[[str, int, int], None]


@record
class Combination:
    """One line that no other beats.

    Args:
        items: codes in their order; left: for each thing found, how good it is (higher is better), best and worst end.
        waste_gal_year [gal/year], cost over the horizon [money], own_minutes of chores [min/year].
    """

    items: tuple[str, ...]
    left: tuple[Score, ...]
    waste_gal_year: float
    cost: float
    own_minutes: float


@record
class LeftOut:
    """An item in none of the proposed lines, with the rule that left it out."""

    code: str
    name: str
    rule: str
    sentence: str


@record
class Found:
    """What the search answers, and how much of the space it had to walk.

    Args:
        combinations: all there are; ended: those walked to their end; stages: stages worked out.
    """

    wanted: tuple[str, ...]
    lines: tuple[Combination, ...]
    left_out: tuple[LeftOut, ...]
    combinations: int
    ended: int
    stages: int


class _Reads(dict[str, Quantity]):
    """Quantities that remember which of them were asked for, and which were only judged against a need."""

    def __init__(self, values: Mapping[str, Quantity]) -> None:
        super().__init__(values)
        self.asked: set[str] = set()
        self.judged: dict[tuple[str, str, float], Need] = {}

    def judge(self, need: Need) -> Verdict:
        """How a quantity stands against a need: all that a check of needs may know of it."""
        self.judged[need.analyte, need.op, need.limit] = need
        return verdict_on(need, dict.get(self, need.analyte))

    def get(self, key: str, default: Any = None) -> Any:
        self.asked.add(key)
        return dict.get(self, key, default)

    def __getitem__(self, key: str) -> Quantity:
        self.asked.add(key)
        return dict.__getitem__(self, key)

    def __contains__(self, key: object) -> bool:
        self.asked.add(str(key))
        return dict.__contains__(self, key)


class _Answer:
    """What a technology does to a state: changes by place, the facts beside them, what falls due, and what it adds otherwise."""

    __slots__ = ("changes", "coloured", "drop", "dues", "ferric", "minutes", "psi", "running", "sets_low", "stop", "uvt_here", "waste")

    def __init__(self) -> None:
        self.stop = ""
        self.changes: tuple[tuple[int, int], ...] = ()
        self.ferric: bool | None = None
        self.coloured: bool | None = None
        self.psi: tuple[float, float | None] | None = None
        self.uvt_here = True
        self.drop = 0.0
        self.sets_low: Callable[[float], float] | None = None
        self.dues: tuple[tuple[int | None, Decimal, float], ...] = ()
        self.running = self.waste = self.minutes = 0


# a state: (quantities by place, ferric, coloured, psi best and high, uvt here, fine prefilter ahead, disinfected ahead, kinds used, figures at the house's taps)
State = tuple[tuple[int, ...], bool | None, bool | None, tuple[float, float | None] | None, bool, bool, bool, frozenset[str], tuple[Score, ...]]
# a label: (cost, waste, minutes, −lowest pressure, chain of items)
Label = tuple[int, int, int, float, Any]


class _Alike:
    """Items that do the same to every water and differ in price alone, with their answers so far by what was read."""

    __slots__ = ("answers", "reads", "sample")

    def __init__(self, sample: Item) -> None:
        self.sample = sample
        self.reads: list[tuple[tuple[int, ...], tuple[tuple[int, Need], ...]]] = []
        self.answers: dict[Any, _Answer] = {}


class _Stage:
    """An item at its place."""

    __slots__ = ("added", "alike", "cost_once", "index", "item", "least_psi")

    def __init__(self, item: Item, index: int, cost_once: int, group: _Alike) -> None:
        self.item, self.index, self.cost_once, self.alike = item, index, cost_once, group
        self.added: dict[int, int] = {}
        self.least_psi = item.psi_min if item.psi_min is not None else MEMBRANE_PSI if item.kind == "membrane" else 0.0


class _LearnedError(Exception):
    """A stage read an analyte that nobody expected it to: the search begins again, knowing it."""


#: what a technology looks at beside its needs and claims; a stage that looks at more teaches the search (see _LearnedError)
READS: dict[str, frozenset[str]] = {
    k: frozenset(v.split()) for k, v in {
        "salt_free": "chlorine_free iron manganese", "carbon": "radon chlorine_free chlorine_total", "softener": "calcium chlorine_free hardness iron manganese", "membrane": "chlorine_free chlorine_total hardness iron manganese ph temperature tds",
        "iron_filter": "hydrogen_sulfide iron iron_ferrous manganese ph tannin", "neutraliser": "alkalinity calcium hardness iron ph tds temperature carbon_dioxide", "mixed_bed": "alkalinity chlorine_free hardness iron nitrate_n ph sulfate tannin manganese",
        "tannin": "alkalinity chlorine_free hardness iron nitrate_n ph sulfate tannin manganese", "arsenic": "ph", "uv": "coliform e_coli hardness hydrogen_sulfide iron manganese tannin turbidity uvt", "cartridge": "ph", "distiller": "tds",
    }.items()
}


class Searcher:
    """One search over one water, home and catalogue."""

    def __init__(self, water: Water, colour: ColourFinding | None, home: Home, settings: Settings, catalogue: Iterable[Item], wanted: tuple[str, ...], years: int = 10, measured: Measured | None = None, targets: Mapping[str, tuple[float | None, str]] | None = None) -> None:
        self.site: Site = replace(site_of(home, settings, water), mute=True)
        self.source: Stream = source_stream(water, colour, self.site.running_psi)
        self.items = tuple(sorted(catalogue, key=lambda i: i.code))
        self.by_code = {i.code: i for i in self.items}
        self.wanted, self.years, self.measured = wanted, years, measured or {}
        self.targets = dict(targets or {})
        self.rates = Rates(settings.price_growth, settings.discount, years)
        self._ids: dict[Quantity, int] = {}
        self._quantities: list[Quantity] = []
        self.low = 0.0 if self.source.psi is None else self.source.psi.low
        self.stages_run = 0
        self.ended = 0
        self.stops: dict[str, tuple[str, _Stage | None, State | None, str]] = {}
        self.passed: set[str] = set()
        self._stages: list[_Stage] = []
        self._verdicts: dict[tuple[int, str, float], Verdict] = {}
        self._falls: dict[tuple[Decimal, float], int] = {}
        self._places = [(n, p) for n in wanted for p in places(n)]
        self.learned: dict[str, set[str]] = {}
        self._fine = next((i for i in self.items if isinstance(i.figures, SedimentFigures) and i.figures.micron <= FINE_MICRON), None)
        self._disinfects = next((i for i in self.items if i.kind in ("uv", "chlorinator")), None)

    # -- states ---------------------------------------------------------------------------------------------------

    def _intern(self, q: Quantity) -> int:
        found = self._ids.get(q)
        if found is None:
            self._quantities.append(q)
            found = self._ids[q] = len(self._quantities)
        return found

    def _start(self) -> State:
        s = self.source
        q = [0] * len(NAMES)
        for name, value in s.quantities.items():
            q[PLACE[name]] = self._intern(value)
        psi = None if s.psi is None else (s.psi.best, s.psi.high)
        return (tuple(q), s.ferric, s.coloured, psi, s.uvt_measured_here, False, False, frozenset(), ())

    def _stream(self, state: State) -> tuple[Stream, _Reads]:
        q, ferric, coloured, psi, uvt, *_ = state
        reads = _Reads({NAMES[i]: self._quantities[v - 1] for i, v in enumerate(q) if v})
        range_ = None if psi is None else Range.of(psi[0], psi[0], psi[1])  # what is really left of it is counted by the labels
        return Stream(quantities=reads, ferric=ferric, coloured=coloured, psi=range_, uvt_measured_here=uvt), reads

    # -- one stage ------------------------------------------------------------------------------------------------

    def answer(self, group: _Alike, state: State) -> _Answer:
        """What items that are alike do to a state; worked out once for everything they read."""
        q, beside = state[0], state[1:7]
        for n, reads in enumerate(group.reads):
            known = group.answers.get((n, self._key(q, reads), beside))
            if known is not None:
                return known
        out, asked = self._work(group, state)
        if asked not in group.reads:
            group.reads.append(asked)
        group.answers[group.reads.index(asked), self._key(q, asked), beside] = out
        return out

    def _key(self, q: tuple[int, ...], reads: tuple[tuple[int, ...], tuple[tuple[int, Need], ...]]) -> tuple[tuple[int, ...], tuple[Verdict, ...]]:
        """What an answer hangs on: the values of what was read, and the verdict on what was only judged."""
        values, judged = reads
        verdicts = self._verdicts
        found = []
        for place, need in judged:
            at = (q[place], need.op, need.limit)
            v = verdicts.get(at)
            if v is None:
                v = verdicts[at] = verdict_on(need, self._quantities[q[place] - 1] if q[place] else None)
            found.append(v)
        return tuple([q[i] for i in values]), tuple(found)

    def _input(self, item: Item, state: State, site: Site) -> tuple[StageInput, _Reads]:
        stream, reads = self._stream(state)
        ahead = tuple(i for i, there in ((self._fine, state[5]), (self._disinfects, state[6])) if there and i is not None)
        return StageInput(item=item, stream=stream, site=site, overrides={}, ahead=ahead, brief=True), reads

    def _work(self, group: _Alike, state: State) -> tuple[_Answer, tuple[tuple[int, ...], tuple[tuple[int, Need], ...]]]:
        self.stages_run += 1
        item = group.sample
        inp, reads = self._input(item, state, self.site)
        r, outlet = run_stage(inp, self.source, self.measured)
        asked = tuple(sorted(PLACE[n] for n in reads.asked if n in PLACE))
        judged = tuple((PLACE[k[0]], reads.judged[k]) for k in sorted(reads.judged) if k[0] not in reads.asked)
        strange = ({NAMES[i] for i in asked} | {k[0] for k in reads.judged}) - self._looks_at(item) - {e.analyte for e in item.effects}
        if strange:
            self.learned.setdefault(item.kind, set()).update(strange)
            raise _LearnedError
        out = _Answer()
        out.stop = next((c.id for c in r.checks if c.status == "stop"), "")
        if out.stop == "":
            out.changes = tuple((PLACE[n], self._intern(v)) for n, v in outlet.quantities.items() if v is not dict.get(reads, n))
            out.ferric, out.coloured, out.uvt_here = outlet.ferric, outlet.coloured, outlet.uvt_measured_here
            after = r.outlet.psi
            out.psi = None if after is None else (after.best, after.high)
            out.drop = (r.drop_psi or 0.0) if item.scope == "house" else 0.0
            sets = getattr(item.figures, "sets_psi", None)
            if sets is not None:
                out.sets_low = (lambda low: sets) if item.kind == "booster" else (lambda low: min(low, sets))
            own = {c.code: n for n, c in enumerate(item.consumables)}
            out.dues = tuple((own.get(d.code), d.price, interval_months(d)) for d in r.dues)
            out.running = sum(self._micro(sum(running_years(x.per_year, self.rates), Decimal(0))) for x in r.running)
            out.waste, out.minutes = sum(round(d.gal_year * MICRO) for d in r.drains), round(stage_minutes(r) * MICRO)
        return out, (asked, judged)

    @staticmethod
    def _micro(amount: Decimal) -> int:
        return int((amount * MICRO).to_integral_value())

    def _looks_at(self, item: Item) -> set[str]:
        """Analytes that decide what an item does, beside those it only passes on changed."""
        windowed = any(e.ph_min is not None or e.ph_max is not None for e in item.effects)
        return {n.analyte for n in item.needs} | READS.get(item.kind, frozenset()) | self.learned.get(item.kind, set()) | ({"ph"} if windowed else set())

    def _cost(self, stage: _Stage, a: _Answer) -> int:
        """What an item adds to the cost by what falls due and runs [millionths]."""
        known = stage.added.get(id(a))
        if known is None:
            known = a.running
            for n, price, step in a.dues:
                paid = price if n is None else stage.item.consumables[n].price
                falls = self._falls.get((paid, step))
                if falls is None:
                    falls = self._falls[paid, step] = self._micro(falling_due(paid, step, self.rates, self.years))
                known += falls
            stage.added[id(a)] = known
        return known

    def _after(self, state: State, stage: _Stage, a: _Answer) -> State:
        q = list(state[0])
        for i, v in a.changes:
            q[i] = v
        item = stage.item
        fine = state[5] or (isinstance(item.figures, SedimentFigures) and item.figures.micron <= FINE_MICRON)
        used = state[7] | {item.kind} if item.kind in ("sediment", "carbon") else state[7]
        return (tuple(q), a.ferric, a.coloured, a.psi, a.uvt_here, fine, state[6] or item.kind in ("uv", "chlorinator"), used, state[8])

    def _narrow(self, front: dict[State, list[Label]], keep: tuple[bool, ...], cap: float) -> dict[State, list[Label]]:
        """Forget quantities that nothing further on looks at and nobody judges, and pressure above what can matter: lines that differ in these alone go on together."""
        out: dict[State, list[Label]] = {}
        most = -cap
        for s, labels in front.items():
            labels = least([x if x[3] >= most else (*x[:3], most, x[4]) for x in labels])
            merge(out, (tuple([v if k else 0 for v, k in zip(s[0], keep, strict=True)]), *s[1:]), labels)
        return out

    def _keeps(self, layers: list[tuple[list[_Stage], str]], then: set[str]) -> list[tuple[bool, ...]]:
        """For the place behind each layer: which quantities still matter."""
        out: list[tuple[bool, ...]] = []
        needed = set(then)
        for layer, _ in reversed(layers):
            out.append(tuple(n in needed for n in NAMES))
            for stage in layer:
                needed |= self._looks_at(stage.item)
        return list(reversed(out))

    # -- layers ---------------------------------------------------------------------------------------------------

    def _once(self, item: Item) -> int:
        bought = Purchase(code=item.code, label=item.name, price=item.price, installation=item.installation, scope=item.scope)
        return round(added_cost((bought,), (), (), self.rates, self.years) * MICRO)

    def _advance(self, front: dict[State, list[Label]], layer: list[_Stage], must: bool, keep: tuple[bool, ...], cap: float) -> dict[State, list[Label]]:
        """All states behind a layer: passed by (unless it must be used), or through each of its items."""
        out: dict[State, list[Label]] = {} if must else {s: list(labels) for s, labels in front.items()}
        groups: dict[_Alike, list[_Stage]] = {}
        for stage in layer:
            groups.setdefault(stage.alike, []).append(stage)
        for state, labels in front.items():
            for group, stages in groups.items():
                if group.sample.kind in state[7]:
                    continue
                a = self.answer(group, state)
                if a.stop:
                    for stage in stages:
                        self.stops.setdefault(stage.item.code, (a.stop, stage, state, ""))
                    continue
                self._use(out, state, labels, stages, a)
        return self._narrow(out, keep, cap)

    def _caps(self, layers: list[tuple[list[_Stage], str]], then: float) -> list[float]:
        """For the place behind each layer: pressure above which no later stage can run short, whatever it and others take."""
        out: list[float] = []
        need, drop = then, 0.0
        for layer, _ in reversed(layers):
            out.append(need + drop)
            need = max(need, *(s.least_psi for s in layer))
            drop += max(self._most_drop(s.item) for s in layer)
        return list(reversed(out))

    def _most_drop(self, item: Item) -> float:
        return (drop_at(item, self.site.demand.peak_gpm) or 0.0) if item.scope == "house" else 0.0

    def _use(self, out: dict[State, list[Label]], state: State, labels: list[Label], stages: list[_Stage], a: _Answer) -> None:
        """Lines that take one of some items that are alike: only the cheapest here can be part of a line that no other beats."""
        costs = [self._cost(stage, a) + stage.cost_once for stage in stages]
        cheapest = min(costs)
        waste, minutes, drop, sets, least_psi = a.waste, a.minutes, a.drop, a.sets_low, stages[0].least_psi
        going = labels if self.source.psi is None else [x for x in labels if -x[3] >= least_psi]
        if not going:
            for stage in stages:
                self.stops.setdefault(stage.item.code, ("pressure.least", None, None, f"Wants at least {least_psi:g} psi running; the stages ahead leave less."))
            return
        after = self._after(state, stages[0], a)
        have = out.get(after)
        grown = list(have) if have else []
        for stage, cost in zip(stages, costs, strict=True):
            self.passed.add(stage.item.code)
            if cost == cheapest:
                index = stage.index
                grown += [(c + cost, w + waste, m + minutes, -max(0.0, (sets(-low) if sets else -low) - drop), (chain, index)) for c, w, m, low, chain in going]
        out[after] = least(grown) if have or len(grown) > len(going) else grown

    def _layers(self, items: Iterable[Item], beside: Company, index: Mapping[str, int]) -> list[tuple[list[_Stage], str]]:
        """Items of one branch by their place; one layer a place and kind."""
        by: dict[tuple[int, str], list[_Stage]] = {}
        for i in items:
            by.setdefault((rank(i, self.source, beside), i.kind), []).append(self._stages[index[i.code]])
        return [(by[k], k[1]) for k in sorted(by)]

    def run(self, progress: Progress | None = None) -> Found:
        """Search. ``progress`` hears of each way the facts can be: what is looked at, how many are done, of how many."""
        play = in_play(self.items, self.by_code, self.source, self.site, self.wanted)
        self.stops.update({code: (c.id, None, None, c.sentence) for code, c in play.stopped.items()})
        playing = tuple(i for i in play.items if i.code not in play.stopped)
        parts = {p for i in playing if isinstance(i.figures, SystemFigures) for p in i.figures.parts}
        every = tuple(dict.fromkeys((*playing, *(self.by_code[p] for p in sorted(parts) if p in self.by_code))))
        index = {i.code: n for n, i in enumerate(every)}
        groups: dict[Any, _Alike] = {}
        self._stages = [_Stage(i, n, self._once(i), groups.setdefault((alike(i), i.code if i.code in self.measured else ""), _Alike(i))) for n, i in enumerate(every)]
        house = [i for i in playing if i.scope == "house" and i.kind != "system"]
        tap = [i for i in playing if i.scope == "tap" and i.kind != "system"]
        systems = [i for i in playing if i.kind == "system" and i.scope == "tap"]
        ends: dict[State, list[Label]] = {}
        tap_looks = {n for n, p in self._places if p == "tap"} | {n for i in (*tap, *(self.by_code[p] for p in parts if p in self.by_code)) for n in self._looks_at(i)}
        tap_psi = tuple(sorted({0.0, *(s.least_psi for s in self._stages if s.item.scope == "tap")}))
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
        return Found(wanted=self.wanted, lines=lines, left_out=self._left_out(lines, play.idle), combinations=combinations(play.items), ended=self.ended, stages=self.stages_run)

    def _ways(self, house: list[Item]) -> Iterator[Company]:
        kinds = {i.kind for i in house}
        wants = any(wants_ph(i, self.source) for i in house) and "neutraliser" in kinds
        for uv, iron in product((False, True) if "uv" in kinds else (False,), (False, True) if wants else (False,)):
            anion, cation = bool(kinds & {"tannin", "mixed_bed"}), "softener" in kinds
            early = carbon_first(Company(anion=anion, softener=cation), self.source) and "carbon" in kinds
            for first in (False, True) if early else (False,):
                yield Company(uv=uv, iron_wants_ph=iron, anion=first and anion, softener=first and cation)

    def _house(self, house: list[Item], way: Company, index: Mapping[str, int], tap_looks: set[str], tap_psi: tuple[float, ...]) -> dict[State, list[Label]]:
        """States behind the whole-house branch, for one way the facts can be, with the figures at the house's taps."""
        early = carbon_first(way, self.source)
        asks = {k for k, c in (("tannin", Company(anion=True)), ("mixed_bed", Company(anion=True)), ("softener", Company(softener=True))) if carbon_first(c, self.source)} if any(i.kind == "carbon" for i in house) else set()
        allowed = [i for i in house if (i.kind != "uv" or way.uv) and (i.kind != "iron_filter" or not self._iron_matters(house) or wants_ph(i, self.source) == way.iron_wants_ph) and (early or i.kind not in asks)]
        front: dict[State, list[Label]] = {self._start(): [(0, 0, 0, -self.low, None)]}
        layers = self._layers(allowed, way, index)
        keeps = self._keeps(layers, tap_looks | {n for n, p in self._places if p == "house"})
        for (layer, kind), keep, cap in zip(layers, keeps, self._caps(layers, max(tap_psi)), strict=True):
            must = (kind == "uv" and way.uv) or (kind == "iron_filter" and way.iron_wants_ph)
            front = self._advance(front, layer, must, keep, cap)
        if early:
            front = {s: labels for s, labels in front.items() if self._asked(labels, asks)}
        out: dict[State, list[Label]] = {}
        judged = tuple(n in tap_looks for n in NAMES)
        for s, labels in front.items():
            q = tuple([v if k else 0 for v, k in zip(s[0], judged, strict=True)])
            enough = [(*x[:3], -max((t for t in tap_psi if t <= -x[3]), default=0.0), x[4]) for x in labels]  # only what the tap's stages ask for matters now
            merge(out, (q, *s[1:7], frozenset(), self._scores(s[0], "house")), least(enough))
        return out

    def _iron_matters(self, house: list[Item]) -> bool:
        return any(wants_ph(i, self.source) for i in house) and any(i.kind == "neutraliser" for i in house)

    def _asked(self, labels: list[Label], asks: set[str]) -> bool:
        labels[:] = [x for x in labels if any(self._stages[i].item.kind in asks for i in unchain(x[4]))]
        return bool(labels)

    def _tap(self, front: dict[State, list[Label]], tap: list[Item], systems: list[Item], index: Mapping[str, int]) -> dict[State, list[Label]]:
        """States at the drinking tap: through single items, or through one system."""
        out: dict[State, list[Label]] = {}
        single = front
        layers = self._layers(tap, Company(), index)
        wanted = {n for n, p in self._places if p == "tap"}
        for (layer, _), keep, cap in zip(layers, self._keeps(layers, wanted), self._caps(layers, 0.0), strict=True):
            single = self._advance(single, layer, False, keep, cap)
        judged = tuple(n in wanted for n in NAMES)
        for state, labels in single.items():
            merge(out, self._end(state, judged), labels)
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
                    merge(out, self._end(s, judged), more)
        return out

    @staticmethod
    def _end(state: State, judged: tuple[bool, ...]) -> State:
        return (tuple([v if k else 0 for v, k in zip(state[0], judged, strict=True)]), None, None, None, False, False, False, frozenset(), state[8])

    def _through(self, sold: list[Item], cheapest: list[Item], chain: tuple[Item, ...], state: State, labels: list[Label], index: Mapping[str, int]) -> Iterator[tuple[State, list[Label]]]:
        """Lines that end in a system; of those with the same parts only the cheapest can be part of a line that no other beats."""
        for part in chain:
            stage = self._stages[index[part.code]]
            a = self.answer(stage.alike, state)
            short = self.source.psi is not None and stage.least_psi > 0
            going = [x for x in labels if -x[3] >= stage.least_psi] if short else labels
            if a.stop or not going:
                for system in sold:
                    self.stops.setdefault(system.code, (a.stop, stage, state, "") if a.stop else ("pressure.least", None, None, "The stages ahead leave too little pressure for it."))
                return
            cost, waste, minutes = self._cost(stage, a), a.waste, a.minutes
            labels = [(c + cost, w + waste, m + minutes, low, ch) for c, w, m, low, ch in going]
            state = self._after(state, stage, a)
        self.passed.update(s.code for s in sold)
        for system in cheapest:
            n = index[system.code]
            once = self._stages[n].cost_once
            yield state, [(c + once, w, m, low, (ch, n)) for c, w, m, low, ch in labels]

    # -- the answer -----------------------------------------------------------------------------------------------

    def _scores(self, q: tuple[int, ...], place: str) -> tuple[Score, ...]:
        """Figures of the things judged at a place."""
        out = []
        for name, where in self._places:
            if where == place:
                target, op = self.targets.get(name, (None, "at_most"))
                n = q[PLACE[name]]
                out.append(score(name, self._quantities[n - 1] if n else None, self.source.get(name), target, op))
        return tuple(out)

    def _best(self, finals: dict[State, list[Label]], every: tuple[Item, ...]) -> tuple[Combination, ...]:
        """Lines that no other beats."""
        groups: dict[tuple[float, ...], list[tuple[Label, tuple[Score, ...]]]] = {}
        for state, labels in finals.items():
            self.ended += len(labels)
            scores = (*state[8], *self._scores(state[0], "tap"))
            key = tuple(x for s in scores for x in (s.best, s.worst))
            groups.setdefault(key, []).extend((label, scores) for label in labels)
        kept: list[tuple[tuple[float, ...], Label, tuple[Score, ...]]] = []
        for key, group in groups.items():
            kept += [(key, label, scores) for label, scores in group if not any(beats3(o, label) for o, _ in group)]
        kept.sort(key=lambda k: (-sum(k[0]), k[1][:3]))
        front: list[tuple[tuple[float, ...], Label, tuple[Score, ...]]] = []
        for key, label, scores in kept:
            if not any(covers(k, key) and x[0] <= label[0] and x[1] <= label[1] and x[2] <= label[2] for k, x, _ in front if k != key):
                front.append((key, label, scores))
        out = [
            Combination(items=tuple(every[i].code for i in unchain(label[4])), left=scores, waste_gal_year=label[1] / MICRO, cost=label[0] / MICRO, own_minutes=label[2] / MICRO)
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

    def _left_out(self, lines: tuple[Combination, ...], idle: Mapping[str, str]) -> tuple[LeftOut, ...]:
        used = {c for line in lines for c in line.items}
        out = []
        for i in self.items:
            if i.code in used:
                continue
            if i.code in idle:
                out.append(LeftOut(code=i.code, name=i.name, rule="not needed", sentence=idle[i.code]))
            elif i.code in self.stops:
                beaten = " Where other stages let it stand, lines without it do as well for less." if i.code in self.passed else ""
                out.append(LeftOut(code=i.code, name=i.name, rule=self.stops[i.code][0], sentence=self._why(i.code) + beaten))
            else:
                out.append(LeftOut(code=i.code, name=i.name, rule="beaten", sentence="Every line with it is beaten: another leaves no more behind and costs, drains and asks for no more."))
        return tuple(out)


def places(analyte: str) -> tuple[str, ...]:
    """Where a thing found is judged: health, TDS and the like at the drinking tap, equipment at the house's taps, looks and taste at both."""
    if judged_at(analyte) == "tap":
        return ("tap",)
    return ("house", "tap") if ANALYTES[analyte].kind is Kind.LOOKS_TASTE else ("house",)


def unchain(chain: Any) -> tuple[int, ...]:
    """Items of a chain, first to last."""
    out = []
    while chain is not None:
        chain, i = chain
        out.append(i)
    return tuple(reversed(out))


_FIGURES = itemgetter(0, 1, 2, 3)


def merge(into: dict[State, list[Label]], state: State, labels: list[Label]) -> None:
    """Add labels to a state, keeping those that no other beats."""
    have = into.get(state)
    into[state] = least([*have, *labels]) if have else list(labels)


def least(labels: list[Label]) -> list[Label]:
    """Labels that no other beats on cost, waste, minutes and pressure left; of equals all are kept."""
    if len(labels) == 1:
        return labels
    labels.sort(key=_FIGURES)
    out: list[Label] = []
    for x in labels:
        c, w, m, p, _ = x
        for oc, ow, om, op, _ in out:
            if ow <= w and om <= m and op <= p and (oc != c or ow != w or om != m or op != p):
                break
        else:
            out.append(x)
    return out


def beats3(a: Label, b: Label) -> bool:
    """Whether ``a`` is nowhere worse and somewhere better than ``b`` in cost, waste and minutes."""
    return a[0] <= b[0] and a[1] <= b[1] and a[2] <= b[2] and a[:3] != b[:3]


def covers(a: tuple[float, ...], b: tuple[float, ...]) -> bool:
    """Whether every figure of ``a`` is at least that of ``b``."""
    return all(x >= y for x, y in zip(a, b, strict=True))


def count(items: Iterable[Item]) -> int:
    """How many ways there are to take at most one of each kind."""
    many: dict[str, int] = {}
    for i in items:
        many[i.kind] = many.get(i.kind, 0) + 1
    total = 1
    for n in many.values():
        total *= 1 + n
    return total


def combinations(items: Iterable[Item]) -> int:
    """All combinations: at most one of each kind on each branch; a system stands alone at the drinking tap."""
    listed = list(items)
    house = [i for i in listed if i.scope == "house" and i.kind != "system"]
    tap = [i for i in listed if i.scope == "tap" and i.kind != "system"]
    return count(house) * (count(tap) + sum(i.kind == "system" and i.scope == "tap" for i in listed))


def search(water: Water, colour: ColourFinding | None, home: Home, settings: Settings, catalogue: Iterable[Item], wanted: tuple[str, ...], years: int = 10, measured: Measured | None = None, targets: Mapping[str, tuple[float | None, str]] | None = None, progress: Progress | None = None) -> Found:
    """All lines that no other beats; see the head of this file.

    Args:
        wanted: analytes that were found; years: horizon of the cost [years]; targets: what is wanted of each, as (limit, "at_most" or "at_least").
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
