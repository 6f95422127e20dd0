"""Lines that the tool proposes of its own: what is looked for, and the answer with reasons for and
against.
"""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import replace
from decimal import Decimal
from itertools import pairwise

from ..analytes import ANALYTES
from ..errors import RuleError
from ..home import Home, Wish
from ..in_place import KINDS as IN_PLACE
from ..rules import Rules, Settings
from ..searching.found import Combination, places
from ..searching.scores import UNKNOWN
from ..searching.search import Progress, search
from ..testing.complaints import Complaint
from ..testing.finding import Finding, Weight
from ..testing.findings import Meaning
from ..testing.tonight import STRICT_SODIUM
from ..testing.water import Sample, Water
from ..treating.in_place import Judged, said_first
from ..treating.items import Item, SystemFigures
from ..treating.kept import PREFIX, KeptInPlace, code_of
from ..treating.line import Option, StageChoice, site_of
from ..treating.measured import Measured
from ..treating.stages import KIND_NAMES
from ..words import sum_over
from .answered import complaints_left, reaches, unanswered
from .beside import candidates, larger, tried
from .first import At, first_steps
from .ranking import Grade, Grader, order
from .reasons import asks_for_nothing, needs_nothing, still_to_test
from .rows import wanted_of
from .schools import Facts, schools
from .suggested import Suggested, Suggestion

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


def _for_diet(home: Home) -> tuple[Wish, ...]:
    """What a diet of the house asks of the drinking tap, told with consent."""
    if not home.care.low_sodium:
        return ()
    return (Wish(analyte="sodium", target=STRICT_SODIUM),)


def things_found(meaning: Meaning) -> tuple[str, ...]:
    """Analytes that the search answers: what asks for action, is worth knowing, or explains a
    complaint; dissolved matter and sodium alone ask for nothing.
    """
    out: dict[str, None] = {}
    for f in meaning.findings:
        if f.id == "heater.anode" or f.analyte == "colour" or _straddles(f):
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
    """Search a catalogue for lines that answer the findings; when nothing asks for treatment, doing
    nothing stands first.

    Args:
        water, meaning: behind what is kept of the equipment in place, for that goes on working.
        in_place: what stands there already, judged; kept: every way to go on with it, by code.
    """
    items = tuple(catalogue)
    diet = {w.analyte: w for w in _for_diet(home) if _may_fall(water, w)}
    wishes = diet | {w.analyte: w for w in home.wishes if _may_fall(water, w)}
    wanted = tuple(dict.fromkeys((*things_found(meaning), *wishes)))
    targets = {a: (t[0], t[2]) for a in wanted for t in (wanted_of(a, rules, wishes.get(a)),)}
    found = search(
        water, meaning.colour, home, settings, items, wanted, years, measured, targets, progress
    )
    by_code = {i.code: i for i in items} | dict(kept or {})
    nothing, quiet = needs_nothing(meaning), asks_for_nothing(meaning) and not wishes
    had = _softened_here(home, samples)
    grader = Grader(water, meaning, home, settings, by_code, measured, targets, complaints, had)

    def told(n: int, c: Combination, held: _Held | None) -> tuple[tuple[float, ...], Suggested]:
        line, g = _told(n, c, held, grader, by_code, wanted)
        key = order(quiet, grader.of_need, len(c.items), g, c.cost, c.waste_gal_year)
        return key, line

    lines = [told(n, c, _held(c, targets)) for n, c in enumerate(found.lines)]
    lines.sort(key=lambda x: x[0])
    best = tuple(tuple(s.item for s in x.option.stages) for _, x in lines)
    asked = wanted if grader.hardness_asks else ()
    more_sizes = _larger(best, by_code, grader)
    ways = _ways(in_place)
    for codes in dict.fromkeys((*candidates(best, by_code, home, asked), *more_sizes, *ways)):
        more = tried(codes, grader.walked, settings, years)
        if more is not None:
            lines.append(told(len(lines), more, None))
    lines.sort(key=lambda x: x[0])
    unasked = grader.unasked - had
    acted = frozenset(f.analyte for f in meaning.findings if f.weight is Weight.ACT)
    going_on = tuple(KeptInPlace(device=j.id) for j in in_place if j.verdict == "keep")
    reasoned = with_reasons(
        padded_last([x for _, x in lines], by_code, unasked, acted), settings, years
    )
    ranked = tuple(
        _keeping(line, going_on, by_code)
        for line in _service_first(reasoned, in_place, meaning, wanted)
    )
    open_still = unanswered(meaning, ranked, found.left_out) or complaints_left(
        meaning, ranked, complaints
    )
    return Suggestion(
        wanted=wanted,
        nothing_needed=nothing,
        lines=ranked,
        left_out=found.left_out,
        combinations=found.combinations,
        walked=found.ended,
        stages=found.stages,
        never=found.combinations - found.ended,
        why=WHY_SOUND,
        years=years,
        finer=tuple(
            f"{f.sentence} {f.next[:1].upper()}{f.next[1:]}."
            for f in meaning.findings
            if _straddles(f) and f.analyte not in wishes
        ),
        still_to_test=still_to_test(meaning),
        unanswered=open_still,
        wished=tuple(a for a in wishes if a not in diet),
        first=tuple(t for t in meaning.tonight if t not in open_still)
        + said_first(in_place)
        + first_steps(
            At(water=water, meaning=meaning, home=home, complaints=complaints, samples=samples)
        ),
        in_place=in_place,
        schools=schools(
            Facts(
                water=water,
                home=home,
                site=site_of(home, settings, water),
                wanted=frozenset(wanted),
                kinds=_kinds(ranked, by_code),
            )
        ),
    )


def _kinds(lines: Iterable[Suggested], items: Mapping[str, Item]) -> frozenset[str]:
    """Kinds of stage that stand in these lines, those inside systems among them."""
    kinds: set[str] = set()
    for line in lines:
        for s in line.option.stages:
            f = items[s.item].figures
            parts = f.parts if isinstance(f, SystemFigures) else (s.item,)
            kinds |= {items[p].figures.kind for p in parts if p in items}
    return frozenset(kinds)


def _softened_here(home: Home, samples: tuple[Sample, ...]) -> frozenset[str]:
    """Hardness is asked where a softener stands, whatever anybody complains of."""
    there = any(d.kind == "softener" for d in home.in_place)
    drawn = any(s.treated and "soften" in s.after.lower() for s in samples)
    return frozenset({"hardness"} if there or drawn else ())


def _ways(in_place: tuple[Judged, ...]) -> tuple[tuple[str, ...], ...]:
    """What follows from what stands there, as lines of their own: service, or the right setting."""
    return tuple(
        (code_of(j.id, j.verdict),) for j in in_place if j.verdict in ("service", "set_right")
    )


SERVICE_FIRST = "Service and the same tests again come before anything new for this."


def _service_first(
    lines: tuple[Suggested, ...],
    in_place: tuple[Judged, ...],
    meaning: Meaning,
    wanted: tuple[str, ...],
) -> tuple[Suggested, ...]:
    """What stands there and fails at all that is asked for is serviced, or set right, before
    anything new; a health finding is not made to wait for it.
    """
    if any(f.weight is Weight.HEALTH for f in meaning.findings):
        return lines
    asked = {f.analyte for f in meaning.findings if f.explains} or set(wanted)
    ways = {
        code_of(j.id, j.verdict)
        for j in in_place
        if j.verdict in ("service", "set_right")
        and asked
        and asked <= set(IN_PLACE[j.kind].works_on)
        and (j.scope == "house" or not meaning.unexplained)
    }
    first = [x for x in lines if [s.item for s in x.option.stages] in [[w] for w in ways]]
    rest = [x for x in lines if x not in first]
    return (*(replace(x, ahead=SERVICE_FIRST) for x in first), *rest)


def _keeping(
    line: Suggested, going_on: tuple[KeptInPlace, ...], items: Mapping[str, Item]
) -> Suggested:
    """A line with the equipment in place that goes on in it: what does its work is kept, unless the
    line brings another of its branch and kind of work."""
    own = tuple(s.item for s in line.option.stages if s.item.startswith(PREFIX))
    done = tuple(_kept_of(code) for code in own)
    at_tap = any(items[s.item].scope == "tap" for s in line.option.stages)
    held = {k.device for k in done}
    more = tuple(
        k
        for k in going_on
        if k.device not in held and not (at_tap and items[code_of(k.device, k.how)].scope == "tap")
    )
    stages = tuple(s for s in line.option.stages if s.item not in own)
    return replace(line, option=replace(line.option, stages=stages, keeps=(*done, *more)))


def _kept_of(code: str) -> KeptInPlace:
    device, _, how = code.removeprefix(PREFIX).rpartition(":")
    return KeptInPlace(device=device, how=how)  # type: ignore[arg-type]


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
    if held is None:
        met = frozenset(a for a, share in g.answers.items() if share >= 1)
        held = met, tuple(f"{a}:" for a in wanted if a not in met), ()
    line = Suggested(
        option=option,
        watch=g.watch,
        open=g.open,
        health=round(g.health, 3),
        answers=g.answers,
        leaves=g.leaves,
        against_diet=g.against_diet,
        names=tuple(by_code[i].name for i in c.items),
        meets=len(held[0]),
        wanted=len(wanted),
        not_met=held[1],
        unknown=held[2],
        cost=round(c.cost, 2),
        waste_gal_year=c.waste_gal_year,
        own_minutes=c.own_minutes,
        tap_only=bool(c.items) and all(by_code[i].scope == "tap" for i in c.items),
    )
    return line, g


def with_reasons(
    lines: tuple[Suggested, ...], settings: Settings, years: int
) -> tuple[Suggested, ...]:
    """Lines with the reason why the first of each idea stands before the next idea."""
    firsts = list({x.option.name: x for x in reversed(lines)}.values())
    firsts.sort(key=lines.index)
    reason = {a.option.id: _ahead(a, b, settings, years) for a, b in pairwise(firsts)}
    return tuple(replace(x, ahead=reason.get(x.option.id, "")) for x in lines)


def _answers_more(a: Suggested, more: list[str]) -> str:
    """What a line answers that the next does not; said apart where it goes most of the way only."""
    partly = {x.partition(": ")[0] for x in a.not_met}
    names = ", ".join(ANALYTES[n].said for n in more)
    if partly & set(more):
        return f"Goes most of the way for {names}, which the next does not."
    return f"Answers {names}, which the next does not."


def _ahead(a: Suggested, b: Suggested, settings: Settings, years: int) -> str:
    if not a.option.stages:
        return ""
    more = [n for n in b.leaves if n not in a.leaves]
    if more:
        return _answers_more(a, more)
    if len(a.leaves) > len(b.leaves):
        return ""
    fewer = len(b.watch) - len(a.watch)
    if fewer > 0:
        return f"{fewer} fewer to watch than the next."
    less = b.cost - a.cost
    if less >= 1:
        said = sum_over(Decimal(str(less)), years)
        return f"Costs {settings.currency}{said:,.0f} less over {years} years than the next."
    return ""


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


SAME = 0.02  # shares of an answer that are alike


def what(code: str, items: Mapping[str, Item]) -> str:
    """The idea a stage stands for, in words: its kind; a system by its membrane,
    where it has one.
    """
    item = items[code]
    if code.startswith(PREFIX):
        return item.name
    if not isinstance(item.figures, SystemFigures):
        return KIND_NAMES[item.kind]
    parts = {items[p].kind for p in item.figures.parts if p in items}
    if "membrane" in parts and item.scope == "tap":
        return f"{KIND_NAMES['membrane']} at the drinking tap"
    return item.name


def padded_last(
    lines: list[Suggested],
    items: Mapping[str, Item],
    unasked: frozenset[str] = frozenset(),
    acted: frozenset[str] = frozenset(),
) -> tuple[Suggested, ...]:
    """Lines in their order, but those after all others that only add stages to another, or have two
    stages for one thing.

    Such a line answers nothing more that was asked, is not cheaper, and has no less to watch, or
    one thing less for half as much money again: it is a wish, not an idea of its own.

    Args:
        unasked: things found that neither health, a complaint nor a wish asks for; acted: of them
            those that ask to act by themselves, which is no reason for the whole house where one
            tap is enough.
    """
    alike: dict[frozenset[str], list[Suggested]] = {}
    for line in lines:
        alike.setdefault(_ideas(line, items), []).append(line)
    shorter = {own: [e for had, es in alike.items() if had < own for e in es] for own in alike}
    padded = {
        line.option.id
        for own, ls in alike.items()
        for line in ls
        if any(
            _adds_nothing(line, e, unasked if e.tap_only else unasked - acted) for e in shorter[own]
        )
    }
    padded |= {x.option.id for x in lines if _twice(x, items)}
    return tuple(sorted(lines, key=lambda x: x.option.id in padded))


#: kinds that do the same on one branch
_SAME_WORK = (
    frozenset({"softener", "mixed_bed"}),
    frozenset({"tannin", "mixed_bed"}),
    frozenset({"softener", "salt_free"}),
    frozenset({"membrane", "distiller"}),
)


def _twice(line: Suggested, items: Mapping[str, Item]) -> bool:
    """Whether two stages of one branch are there for one thing."""
    house = {items[s.item].kind for s in line.option.stages if items[s.item].scope == "house"}
    tap = {items[s.item].kind for s in line.option.stages if items[s.item].scope == "tap"}
    return any(pair <= house or pair <= tap for pair in _SAME_WORK)


def _ideas(line: Suggested, items: Mapping[str, Item]) -> frozenset[str]:
    return frozenset(what(s.item, items) for s in line.option.stages)


DEARER = 1.5  # times the cost, from which one thing less to watch is no reason of its own


def _adds_nothing(line: Suggested, shorter: Suggested, unasked: frozenset[str]) -> bool:
    more = any(
        v > shorter.answers.get(a, 0.0) + SAME for a, v in line.answers.items() if a not in unasked
    )
    fewer = len(shorter.watch) + len(shorter.open) - len(line.watch) - len(line.open)
    room = 1 if line.cost >= DEARER * shorter.cost > 0 else 0
    return (
        not more
        and line.cost >= shorter.cost
        and line.against_diet >= shorter.against_diet
        and fewer <= room
    )
