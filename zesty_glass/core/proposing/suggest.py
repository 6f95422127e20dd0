"""Lines that the tool proposes of its own: what is looked for, and the answer with reasons for and
against.
"""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import replace
from decimal import Decimal
from typing import NamedTuple

from ..analytes import MICROBES
from ..costing.falling import rates_for, running_years
from ..errors import RuleError
from ..home import SURFACE, Home, Wish
from ..rules import Rules, Settings
from ..searching.found import Combination, Found, places
from ..searching.scores import UNKNOWN
from ..searching.search import Progress, search
from ..testing.complaints import Complaint
from ..testing.finding import Finding, Weight
from ..testing.findings import Meaning
from ..testing.judged import judge
from ..testing.value import Value
from ..testing.water import Sample, Water
from ..treating.existing_equipment import KeptInPlace
from ..treating.in_place import Judged, said_first
from ..treating.items import Item, SystemFigures
from ..treating.line import site_of
from ..treating.measured import Measured
from ..treating.option import Option, StageChoice
from ..treating.stages import does
from .answered import complaints_left, reaches, unanswered
from .badges import badged
from .beside import alike, candidates, larger, tried
from .by_goals import by_goals, said_of_goals
from .first import first_steps
from .looked_at import At
from .ordering import order
from .priorities import Situation, prioritized
from .ranking import Grade, Grader
from .reasons import asks_for_nothing, needs_nothing, still_to_test
from .rows import wanted_of
from .schools import Facts, schools
from .standing import (
    keeping,
    padded_last,
    ways_on,
    ways_within,
    what,
    with_reasons,
)
from .suggested import Suggested, Suggestion
from .weighing import WEIGHTS

WHY_SOUND = (
    "Not every combination is walked: what a rule stops is stopped for every longer line that"
    " begins so; lines that have come to the same water at the same place go on alike, so only"
    " those that no other beats so far go on; and a stage answers once for everything it looks at."
    " The result is that of walking them all."
)


def _straddles(f: Finding) -> bool:
    """A value that may be on either side of what judges it: it is measured finer, and nothing is
    sold for it.
    """
    return not f.sure and f.weight is not Weight.HEALTH


def _may_fall(water: Water, wish: Wish) -> bool:
    """Whether there is something of what is wished less of, and more than is wished."""
    v = water.values.get(wish.analyte)
    if v is None or v.range is None or v.below is not None:
        return False
    return wish.target is None or v.range.high is None or v.range.high > wish.target


def _for_diet(home: Home, rules: Rules) -> tuple[Wish, ...]:
    """What a diet of the house asks of the drinking tap, told with consent."""
    diet = Wish(analyte="sodium", target=rules.at("sodium.diet"))
    return (diet,) if "sodium" in home.diets else ()


def _open_ended(f: Finding, water: Water | None) -> bool:
    """A test that ended above its last step: the sample is diluted and tested again, and nothing
    is sized on it."""
    r = None if water is None else water.range(f.analyte)
    return r is not None and r.high is None and f.weight is not Weight.HEALTH


def things_found(meaning: Meaning, water: Water | None = None) -> tuple[str, ...]:
    """Analytes that the search answers: what asks for action, is worth knowing, or explains a
    complaint; dissolved solids and sodium alone ask for nothing, and what is to be measured finer
    or diluted comes later.
    """
    out: dict[str, None] = {}
    for f in meaning.findings:
        if f.id == "heater.anode" or f.analyte == "colour":
            continue
        if _straddles(f) or _open_ended(f, water):
            continue
        if f.weight in (Weight.ACT, Weight.HEALTH) or (
            f.analyte not in ("tds", "sodium") and (f.weight is Weight.NOTICE or f.explains)
        ):
            out[f.analyte] = None
    return tuple(out)


def suggest(
    water: Water,
    meaning: Meaning,
    home: Home,
    settings: Settings,
    rules: Rules,
    catalogue: Iterable[Item],
    years: int = 10,
    measured: Measured | None = None,
    progress: Progress | None = None,
    complaints: tuple[Complaint, ...] = (),
    samples: tuple[Sample, ...] = (),
    in_place: tuple[Judged, ...] = (),
    kept: Mapping[str, Item] | None = None,
) -> Suggestion:
    """Search a catalog for lines that answer the findings; when nothing asks for treatment, doing
    nothing stands first.

    Args:
        water, meaning: behind what is kept of the equipment in place, for that goes on working.
        in_place: what stands there already, judged; kept: every way to go on with it, by code.
    """
    items = tuple(catalogue)
    by_code = {i.code: i for i in items} | dict(kept or {})
    sought, drawn_on = _as_surface(water, meaning, home, rules, settings)
    looked_for = _look(drawn_on, sought, home, rules)
    wanted, targets = looked_for.wanted, looked_for.targets
    found = search(
        drawn_on, meaning.colour, home, settings, items, wanted, years, measured, targets, progress
    )
    had = _softened_here(home, samples)
    grader = Grader(
        drawn_on, sought, home, settings, by_code, measured, targets, complaints, had, rules
    )
    at = At(
        water=water,
        meaning=meaning,
        home=home,
        complaints=complaints,
        samples=samples,
        targets=targets,
        rules=rules,
    )
    case = _Case(
        sought,
        home,
        settings,
        years,
        by_code,
        looked_for,
        grader,
        in_place,
        had,
        at,
    )
    return _answer(case, found)


def _answer(case: _Case, found: Found) -> Suggestion:
    """All that is proposed, with what is said ahead of it."""
    at, looked_for = case.at, case.looked_for
    by_grade = _by_grade(case, found)
    ranked = _ranked(case, by_grade)
    open_still = unanswered(at.meaning, ranked, found.left_out) or complaints_left(
        at.meaning, ranked, at.complaints
    )
    facts = Facts(
        water=at.water,
        home=at.home,
        site=site_of(at.home, case.settings, at.water),
        wanted=frozenset(looked_for.wanted),
        does=_done(ranked, case.items),
    )
    return Suggestion(
        wanted=looked_for.wanted,
        nothing_needed=needs_nothing(at.meaning),
        lines=ranked,
        left_out=found.left_out,
        combinations=found.combinations,
        walked=found.ended,
        stages=found.stages,
        never=found.combinations - found.ended,
        why=WHY_SOUND,
        years=case.years,
        finer=_finer(at.meaning, at.water, looked_for),
        still_to_test=still_to_test(at.meaning),
        unanswered=open_still,
        wished=tuple(a for a in looked_for.wishes if a not in looked_for.diet),
        first=(*at.meaning.tonight, *said_first(case.in_place), *first_steps(at)),
        tonight=at.meaning.tonight,
        in_place=case.in_place,
        schools=schools(facts),
        goals=said_of_goals(by_grade, at.home.goals, case.items, case.settings, case.years),
    )


def _as_surface(
    water: Water, meaning: Meaning, home: Home, rules: Rules, settings: Settings
) -> tuple[Meaning, Water]:
    """What is looked for, and in which water: surface water carries microbes whatever one clean
    sample said, once the transmittance is known that a lamp is chosen by.

    Source: US EPA, surface water treatment rules (1989).
    """
    found = any(f.analyte in MICROBES for f in meaning.findings if _grave(f))
    if home.source not in SURFACE or found or not {"coliform", "uvt"} <= water.values.keys():
        return meaning, water
    present = Value(
        analyte="coliform", unit="", range=None, words="present", laboratory=True, certified=True
    )
    asks = judge("coliform", present, rules, settings.units)
    findings = (*((asks,) if asks is not None else ()), *meaning.findings)
    return (
        replace(meaning, findings=findings),
        replace(water, values={**water.values, "coliform": present}),
    )


def _grave(f: Finding) -> bool:
    return f.weight is Weight.HEALTH


class _Looked(NamedTuple):
    """What is looked for: analytes with the targets they are held against, what is wished less of,
    of that what a diet asks, and whether something is wished less of that is not tested."""

    wanted: tuple[str, ...]
    targets: dict[str, tuple[float | None, str]]
    wishes: dict[str, Wish]
    diet: dict[str, Wish]
    untested_wish: bool


def _look(water: Water, meaning: Meaning, home: Home, rules: Rules) -> _Looked:
    diet = {w.analyte: w for w in _for_diet(home, rules) if _may_fall(water, w)}
    wishes = diet | {w.analyte: w for w in home.wishes if _may_fall(water, w)}
    wanted = tuple(dict.fromkeys((*things_found(meaning, water), *wishes)))
    targets = {a: (t[0], t[2]) for a in wanted for t in (wanted_of(a, rules, wishes.get(a)),)}
    untested = any(w.analyte not in water.values for w in home.wishes)
    return _Looked(wanted, targets, wishes, diet, untested)


class _Case(NamedTuple):
    """One question: what it hangs on, in one hand. ``had``: what a softener here answers; ``at``:
    what first steps look at.
    """

    meaning: Meaning
    home: Home
    settings: Settings
    years: int
    items: Mapping[str, Item]
    looked_for: _Looked
    grader: Grader
    in_place: tuple[Judged, ...]
    had: frozenset[str]
    at: At

    def told(
        self, n: int, c: Combination, held: _Held | None
    ) -> tuple[tuple[float, ...], Suggested]:
        """A combination as a line, with its key in the order."""
        quiet = asks_for_nothing(self.meaning) and not self.looked_for.wishes
        line, g = _told(n, c, held, self.grader, self.items, self.looked_for.wanted)
        s = self.settings
        rates = rates_for(s.price_growth, s.discount, self.years)
        unpriced = float(sum(running_years(g.unpriced_year, rates)))
        line = replace(line, cost=round(c.cost - unpriced, 2))
        hours = c.own_minutes / 60 * self.years
        key = order(
            quiet, self.grader.asks.of_need, len(c.items), g, c.cost, c.waste_gal_year, hours
        )
        return key, line


def _in_order(case: _Case, found: Found) -> list[Suggested]:
    """Lines of the search and those tried beside them, by their keys."""
    grader, looked_for = case.grader, case.looked_for
    keyed = [case.told(n, c, _held(c, looked_for.targets)) for n, c in enumerate(found.lines)]
    keyed.sort(key=lambda x: x[0])
    best = _codes(keyed)
    asked = looked_for.wanted if grader.asks.hardness else ()
    beside = (
        *candidates(best, case.items, case.home, asked),
        *_larger(best, case.items, grader),
        *ways_on(case.in_place),
        *ways_within(best, case.in_place, case.items),
    )
    _try(case, keyed, beside)
    _try(case, keyed, alike(_codes(keyed), case.items))
    return [line for _, line in keyed]


_Keyed = list[tuple[tuple[float, ...], Suggested]]


def _codes(keyed: _Keyed) -> tuple[tuple[str, ...], ...]:
    return tuple(tuple(s.item for s in x.option.stages) for _, x in keyed)


def _try(case: _Case, keyed: _Keyed, more: Iterable[tuple[str, ...]]) -> None:
    """Walks further lines and puts those that hold into their places."""
    for codes in dict.fromkeys(more):
        line = tried(codes, case.grader.walked, case.settings, case.years)
        if line is not None:
            keyed.append(case.told(len(keyed), line, None))
    keyed.sort(key=lambda x: x[0])


def _by_grade(case: _Case, found: Found) -> tuple[Suggested, ...]:
    """Lines in the order of their grades, padded ones last."""
    acted = frozenset(f.analyte for f in case.meaning.findings if f.weight is Weight.ACT)
    return padded_last(
        _in_order(case, found), case.items, case.grader.asks.unasked - case.had, acted
    )


def _ranked(case: _Case, by_grade: tuple[Suggested, ...]) -> tuple[Suggested, ...]:
    """The answer’s lines in the order of the household's goals, each idea with its reason; what
    stands there first where it only wants service, and what goes on working in all of them."""
    lines = by_goals(by_grade, case.home.goals, case.items)
    reasoned = with_reasons(lines, case.settings, case.years)
    going_on = tuple(KeptInPlace(device=j.id) for j in case.in_place if j.verdict == "keep")
    situation = Situation(
        at=case.at,
        lines=reasoned,
        presses=case.grader.asks.presses,
        of_need=case.grader.asks.of_need,
        untested_wish=case.looked_for.untested_wish,
        wanted=case.looked_for.wanted,
        in_place=case.in_place,
    )
    return badged(keeping(x, going_on, case.items) for x in prioritized(situation))


DILUTE = "The test has no upper end: dilute the sample and repeat. Nothing is sized on it."


def _finer(meaning: Meaning, water: Water, looked_for: _Looked) -> tuple[str, ...]:
    """What is measured finer, or diluted, before anything is sold for it."""
    out = []
    for f in meaning.findings:
        if f.analyte in looked_for.wishes:
            continue
        if _open_ended(f, water) and f.weight is not Weight.FINE:
            out.append(f"{f.sentence} {DILUTE}")
        elif _straddles(f):
            ask = f"{f.next[:1].upper()}{f.next[1:]}"
            out.append(f"{f.sentence} {ask}. Nothing is proposed for it.")
    return tuple(out)


def _done(lines: Iterable[Suggested], items: Mapping[str, Item]) -> frozenset[str]:
    """What the stages of these lines do, those inside systems among them."""
    done: set[str] = set()
    for line in lines:
        for s in line.option.stages:
            f = items[s.item].figures
            parts = f.parts if isinstance(f, SystemFigures) else (s.item,)
            done |= {d for p in parts if p in items for d in does(items[p].kind)}
    return frozenset(done)


def _softened_here(home: Home, samples: tuple[Sample, ...]) -> frozenset[str]:
    """Hardness is asked where a softener stands, whatever anybody complains of."""
    there = any("softens" in d.of.does for d in home.in_place)
    drawn = any(s.treated and s.softened for s in samples)
    return frozenset({"hardness"} if there or drawn else ())


_Held = tuple[frozenset[str], tuple[str, ...], tuple[str, ...]]


def _held(c: Combination, targets: Mapping[str, tuple[float | None, str]]) -> _Held:
    """What a line of the search meets on its whole range, what not, and what is not known."""
    spots = [(a, p) for a in targets for p in places(a) if p == "house"] + [
        (a, p) for a in targets for p in places(a) if p == "tap"
    ]
    met, not_met, unknown = set(targets), [], []
    for (a, place), s in zip(spots, c.left, strict=True):
        target, op = targets[a]
        where = "at the drinking tap" if place == "tap" else "at the house’s taps"
        if s.worst <= UNKNOWN:
            unknown.append(f"{a}: {where}")
            met.discard(a)
        elif target is not None and not reaches(a, s.worst, target, op):
            not_met.append(f"{a}: {where}")
            met.discard(a)
    return frozenset(met), tuple(not_met), tuple(unknown)


#: own work that a household is warned of [min/year], twenty hours: a trade judgement (2024)
MUCH_WORK = 1200.0


def _told(
    n: int,
    c: Combination,
    held: _Held | None,
    grader: Grader,
    by_code: Mapping[str, Item],
    wanted: tuple[str, ...],
) -> tuple[Suggested, Grade]:
    """A line as it is proposed, and its grade; what it meets is read from the grade where the
    search did not say.
    """
    name = " + ".join(dict.fromkeys(what(i, by_code) for i in c.items)) or grader.nothing
    option = Option(id=f"found-{n}", name=name, stages=tuple(StageChoice(item=i) for i in c.items))
    g = grader.of(option)
    if c.own_minutes >= MUCH_WORK:
        hours = f"{c.own_minutes / 60:.0f}"
        work = f"It takes about {hours} hours of your time a year."
        g = replace(g, watch=(*g.watch, work))
    if held is None:
        met = frozenset(a for a, share in g.answers.items() if share >= 1)
        held = met, tuple(f"{a}:" for a in wanted if a not in met), ()
    # what is wished less of without a figure is met by a line that takes a good part of it
    untouched = grader.asks.less_of & set(g.leaves)
    line = Suggested(
        option=option,
        watch=g.watch,
        open=g.open,
        health=round(g.health, 3),
        answers=g.answers,
        leaves=g.leaves,
        against_diet=g.against_diet,
        names=tuple(by_code[i].name for i in c.items),
        meets=0 if set(g.leaves) & set(MICROBES) else len(held[0] - untouched),
        wanted=len(wanted),
        not_met=(*held[1], *(f"{a}: at the drinking tap" for a in wanted if a in untouched)),
        unknown=held[2],
        burden=round(g.burden + WEIGHTS["test"] * len(g.open), 3),
        price=_price(c.items, by_code),
        cost=round(c.cost, 2),
        counted_cost=round(c.cost, 2),
        missing=g.missing,
        waste_gal_year=c.waste_gal_year,
        own_minutes=c.own_minutes,
        tap_only=bool(c.items) and all(by_code[i].scope == "tap" for i in c.items),
    )
    return line, g


def _price(codes: Iterable[str], items: Mapping[str, Item]) -> float:
    """What some items cost to buy and have fitted [money]."""
    return float(sum((items[c].price + items[c].installation for c in codes), Decimal(0)))


MOST_LARGER = 6  # first lines that are tried in larger sizes
SIZES_UP = 2  # how often


def _larger(
    lines: tuple[tuple[str, ...], ...], items: Mapping[str, Item], grader: Grader
) -> list[tuple[str, ...]]:
    """The first lines of different ideas in larger sizes, where they have something to watch."""
    first: dict[frozenset[str], tuple[str, ...]] = {}
    for codes in lines:
        first.setdefault(frozenset(what(c, items) for c in codes), codes)
    out: list[tuple[str, ...]] = []
    for codes in list(first.values())[:MOST_LARGER]:
        now: tuple[str, ...] | None = codes
        for _ in range(SIZES_UP):
            try:
                now = larger(now, items, grader.walked(_option(now))) if now else None
            except RuleError:
                break
            if now is None or now in lines:
                break
            out.append(now)
    return out


def _option(codes: tuple[str, ...]) -> Option:
    return Option(id="larger", name="", stages=tuple(StageChoice(item=c) for c in codes))
