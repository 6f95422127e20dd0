"""The letter that a proposal begins with: what the customer told, what was found, what is
recommended and why, what it will not do, what it costs, and what happens next.

It is the draft of a proposal's reasons: the consultant may change every word of it. Length and
order by house style (2026): 90 to 160 words, what it means before the figure.
"""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from decimal import Decimal

from ..analytes import ANALYTES, MICROBES, Kind, mid_sentence
from ..assess import Assessment, OptionReport
from ..proposing.priorities import OF_COMFORT
from ..proposing.rows import EXPECTED_TO_FALL, TODAY, Cell, Row, met_at_the_tap
from ..ranges import Verdict
from ..record import Words
from ..rules import Settings
from ..testing.complaints import Complaint
from ..testing.finding import Finding, Weight
from ..testing.findings import Meaning
from ..treating.line import LineReport
from ..treating.report import StageReport
from ..treating.stages import KIND_NAMES
from ..visit import Visit
from ..words import beside_name, listed, sum_over
from .first import before_fitting

MOST_NAMED = 3  # things in one sentence: what is more stands in the tables behind the letter


def cover_letter(visit: Visit, a: Assessment, option: str) -> tuple[str, ...]:
    """The letter's paragraphs for an option; none before there is a raw sample, or where the option
    cannot be worked out.
    """
    chosen = next((o for o in a.options if o.id == option), None)
    if a.meaning is None or chosen is None or chosen.line is None:
        return ()
    said = {c.id: c.words for c in (*visit.complaints, *a.noticed)}
    paragraphs = (
        [*_told(visit.complaints), *_found(a, said)],
        [*_recommended(a, chosen), *_effects(a, chosen.line), *_rather(a, chosen, visit.settings)],
        [*_not_done(a, chosen), *_costs(chosen, visit.settings)],
        list(_next(visit, a, chosen)),
    )
    return tuple(" ".join(sentences) for sentences in paragraphs if sentences)


def _named(names: Iterable[str]) -> str:
    return listed(list(dict.fromkeys(names)))


def _quoted(complaints: Iterable[Words]) -> str:
    return _named(f"“{c}”" for c in complaints)


def _told(complaints: tuple[Complaint, ...]) -> Iterator[str]:
    if not complaints:
        yield "You asked us to test your water."
    else:
        yield f"You told us about {_quoted(c.words for c in complaints[:MOST_NAMED])}."


def _measured(f: Finding) -> str:
    """A thing found with its figure, within a sentence."""
    a = ANALYTES[f.analyte]
    if a.unit == "pH":
        return f"a pH of {beside_name(f.shown, a.name)}"
    return f"{a.said} at {f.shown}"


def _found(a: Assessment, said: dict[str, Words]) -> Iterator[str]:
    """What was found: of health, then what explains a complaint, then what else asks to act."""
    assert a.meaning is not None
    meaning = a.meaning
    every = [f for f in meaning.findings if f.analyte in ANALYTES and f.analyte != "colour"]
    health = [f for f in every if f.weight is Weight.HEALTH]
    yield from _of_health(health)
    causes = [f for f in every if f.explains and f.weight is not Weight.FINE]
    found = [f for f in causes if f.id != "heater.anode"]
    yield from _explained(found, said, alone=len(said) == 1 and not health)
    for f in causes:
        if f.id == "heater.anode":
            smell = _quoted(said[c] for c in f.explains if c in said)
            yield f"{smell} comes from the water heater."
    besides = [f for f in every if f.weight is Weight.ACT and not f.explains]
    yield from _besides(besides, first=not health and not causes)
    yield from _unexplained(meaning, every, said)
    if not health and not causes and not any(f.weight is Weight.ACT for f in every):
        yield f"We ran {len(every)} tests and found nothing that needs treatment."


def _of_health(health: list[Finding]) -> Iterator[str]:
    microbes = [ANALYTES[f.analyte].said for f in health if f.analyte in MICROBES]
    if microbes:
        yield f"The laboratory found {_named(microbes)}: do not drink this water untreated."
    others = [f for f in health if f.analyte not in MICROBES]
    over = [_measured(f) for f in others if f.settled and not f.at_limit]
    close = [_measured(f) for f in others if not f.settled or f.at_limit]
    if len(over) == 1:
        yield f"We found {over[0]}, over a health limit."
    elif over:
        yield f"We found {_named(over)}, each over a health limit."
    if len(close) == 1:
        yield f"We found {close[0]}, too close to a health limit to call."
    elif close:
        yield f"We found {_named(close)}, each too close to a health limit to call."


def _explained(causes: list[Finding], said: dict[str, Words], alone: bool) -> Iterator[str]:
    """What causes a complaint, once for all that the same things cause; ``alone``: it is the one
    that was spoken of just before.
    """
    of: dict[str, list[str]] = {}  # what causes each, by the complaint's id
    for f in causes:
        for c in f.explains:
            if c in said:
                # its figure was said where its limit of health was
                known = f.weight is Weight.HEALTH
                name = ANALYTES[f.analyte].said
                of.setdefault(c, []).append(name if known else _measured(f))
    by: dict[tuple[str, ...], list[Words]] = {}
    for c, names in of.items():
        by.setdefault(tuple(names[:MOST_NAMED]), []).append(said[c])
    for found, complaints in by.items():
        if alone:
            yield f"That comes from {_named(found)}."
        elif len(complaints) == 1:
            yield f"{_quoted(complaints)} comes from {_named(found)}."
        else:
            yield f"{_quoted(complaints)} come from {_named(found)}."


def _besides(found: list[Finding], first: bool) -> Iterator[str]:
    """What asks to act though nobody complained of it; ``first``: nothing was told before it."""
    to_confirm = [_measured(f) for f in found if f.kind is Kind.HEALTH]
    asks = [f for f in found if f.kind is not Kind.HEALTH]
    treated = [_measured(f) for f in asks if f.analyte not in OF_COMFORT][:MOST_NAMED]
    comfort = [_measured(f) for f in asks if f.analyte in OF_COMFORT]
    if treated and first:
        yield f"We found {_named(treated)}, worth treating."
    elif treated:
        yield f"We also found {_named(treated)}, worth treating."
    if comfort:
        yield f"We measured {_named(comfort)}, which is a matter of comfort."
    if to_confirm:
        yield f"Our kit reads {_named(to_confirm)}; a certified laboratory must confirm it."


def _unexplained(meaning: Meaning, every: list[Finding], said: dict[str, Words]) -> Iterator[str]:
    """What was told of and needs nothing, and what is not known yet."""
    fine = [f for f in every if f.explains and f.weight is Weight.FINE]
    for f in fine[:1]:
        yield f"We measured {_measured(f)}. That needs no treatment."
    open_ = [said.get(u.complaint, u.complaint) for u in meaning.unexplained]
    if open_:
        yield f"We do not know yet what causes {_quoted(open_)}."


def _recommended(a: Assessment, chosen: OptionReport) -> Iterator[str]:
    assert chosen.line is not None
    if not _buys_nothing(chosen):
        stages = _named(_kind(s) for s in chosen.line.stages)
        alone, name = stages == mid_sentence(chosen.name), _quoted([chosen.name])
        yield (f"We recommend {name}." if alone else f"We recommend {name}: {stages}.")
    elif a.nothing_needed:
        yield (
            "We recommend that you buy nothing. The readings give no reason to. They say nothing"
            " about what was not tested."
        )
    else:
        yield "We recommend that you buy nothing yet."


def _kind(s: StageReport) -> str:
    """What a stage is within a sentence; what stands there already by its own name."""
    return mid_sentence(KIND_NAMES[s.kind]) if s.kind in KIND_NAMES else s.name


def _cell(r: Row, option: str) -> Cell | None:
    return next((c for c in r.cells if c.option == option), None)


def _asked(rows: Iterable[Row]) -> list[Row]:
    """What asks for something, gravest first."""
    grave = [r for r in rows if r.weight in (Weight.HEALTH, Weight.ACT)]
    told = [r for r in rows if r.weight is Weight.NOTICE and r.complaints]
    return sorted(grave, key=lambda r: r.weight is not Weight.HEALTH) + told


def _name(r: Row) -> str:
    return ANALYTES[r.analyte].said


def _effects(a: Assessment, line: LineReport) -> Iterator[str]:
    """What it does to what was found, as far as it meets what is wanted on evidence."""
    if not _buys(line):
        return
    cells = [(r, c) for r in _asked(a.rows) if (c := _cell(r, line.option)) is not None]
    met = [
        f"{_name(r)} at {beside_name(c.shown, r.name)}"
        for r, c in cells
        if c.meets is Verdict.MET and c.change in ("less", "more") and c.established
    ]
    tap = [
        _name(r)
        for r, c in cells
        if c.meets is not Verdict.MET and met_at_the_tap(line, r) and c.change != "inactivated"
    ]
    lit = [_name(r) for r, c in cells if c.change == "inactivated"]
    if met:
        yield f"It leaves {_named(met[: MOST_NAMED + 1])}."
    if tap:
        yield f"It treats {_named(tap)} at the drinking tap only."
    if lit:
        yield f"It inactivates {_named(lit)}; a laboratory confirms that after it is installed."
    lowered = any(c.change == "less" or c.shown == EXPECTED_TO_FALL for _, c in cells)
    if not cells:
        yield "Nothing that we found needs it."
    elif not (met or tap or lit or lowered):
        yield "No test or certificate shows that it treats what we found."


def _unmet(rows: Iterable[Row], line: LineReport) -> list[Row]:
    """What asks for something and is met neither where it is judged nor where it is drunk."""
    return [
        r
        for r in _asked(rows)
        if (c := _cell(r, line.option)) is not None and c.meets is not Verdict.MET
        if ANALYTES[r.analyte].stains or not met_at_the_tap(line, r)
    ]


def _rather(a: Assessment, chosen: OptionReport, settings: Settings) -> Iterator[str]:
    """Why it and not the next best of what was compared."""
    others = [
        o
        for o in a.options
        if o.id != TODAY and o.name != chosen.name
        if o.line is not None and o.line.status != "stop"
        if o.cost is not None and not o.cost.missing
    ]
    if not others or chosen.line is None or chosen.cost is None or chosen.cost.missing:
        return
    other = min(others, key=lambda o: (len(_unmet(a.rows, _line(o))), _total(o)))
    name, years = _quoted([other.name]), chosen.cost.years
    if _buys_nothing(chosen):
        if a.nothing_needed:
            total = _money(_total(other), years, settings)
            yield f"{name} would cost {total} over {years} years for no need we found."
        return
    mine = [_name(r) for r in _unmet(a.rows, chosen.line)]
    theirs = [_name(r) for r in _unmet(a.rows, _line(other))]
    apart = _total(other) - _total(chosen)
    money = _money(abs(apart), years, settings)
    over = f"{money} more over {years} years" if apart > 0 else f"{money} less over {years} years"
    if more := [n for n in theirs if n not in mine]:
        yield f"{name} costs {over} but does not treat {_named(more)}."
    elif also := [n for n in mine if n not in theirs]:
        yield f"{name} would also treat {_named(also)}. It costs {over}."
    else:
        yield f"{name} does as much for what we found. It costs {over}."


def _line(o: OptionReport) -> LineReport:
    assert o.line is not None
    return o.line


def _buys_nothing(o: OptionReport) -> bool:
    """Whether nothing is bought: as it is today, or with what stands there alone."""
    return not _buys(_line(o))


def _buys(line: LineReport) -> bool:
    return any(p.price or p.installation or p.let for p in line.purchases)


def _total(o: OptionReport) -> Decimal:
    assert o.cost is not None
    return o.cost.total


def _money(amount: Decimal, years: int, settings: Settings) -> str:
    return f"{settings.currency}{sum_over(amount, years):,.0f}"


def _not_done(a: Assessment, chosen: OptionReport) -> Iterator[str]:
    """What it leaves, lowers without meeting what is wanted, and raises."""
    cells = [
        (r, c) for r in _unmet(a.rows, _line(chosen)) if (c := _cell(r, chosen.id)) is not None
    ]
    falls = [_name(r) for r, c in cells if c.shown == EXPECTED_TO_FALL]
    less = [_name(r) for r, c in cells if c.change == "less" and c.established]
    unproven = [_name(r) for r, c in cells if c.change == "less" and not c.established]
    named = {*falls, *less, *unproven}
    stays = [n for r, c in cells if c.change != "inactivated" and (n := _name(r)) not in named]
    today = _buys_nothing(chosen)
    if stays and today:
        yield f"Buying nothing does not treat {_named(stays)}."
    elif stays:
        yield f"It does not treat {_named(stays)}."
    if less and today:
        yield f"What you have now lowers {_named(less)}, perhaps not far enough."
    elif less:
        yield f"It lowers {_named(less)}, perhaps not far enough."
    if unproven:
        yield f"It is not proven for {_named(unproven)}."
    if falls:
        yield f"We expect {_named(falls)} to fall; a new first-draw test will show it."
    assert a.meaning is not None
    if any(f.id == "heater.anode" for f in a.meaning.findings):
        yield "No filter changes a smell from the water heater’s anode."


def _costs(chosen: OptionReport, settings: Settings) -> Iterator[str]:
    """What it costs to begin with and over the years."""
    cost = chosen.cost
    if cost is None or not (cost.total or cost.missing):
        return
    total = _money(cost.total, cost.years, settings)
    about = f"at least {total}" if cost.missing else f"about {total}"
    if _buys_nothing(chosen):
        yield f"What you have now costs {about} over {cost.years} years."
        return
    buys = f"{settings.currency}{cost.purchase:,.0f}"
    yield f"It costs {buys} to buy and install, and {about} in total over {cost.years} years."
    if rent := _line(chosen).rent_month:
        yield f"The rent is {settings.currency}{rent:,.2f} a month."


def _next(visit: Visit, a: Assessment, chosen: OptionReport) -> Iterator[str]:
    """What happens next: what costs nothing first, then signing, or calling again."""
    assert a.meaning is not None and chosen.line is not None
    if before_fitting(visit, a, chosen.line):
        yield "Please begin with the first steps on this page."
    if a.meaning.tonight:
        yield "Until that is settled, follow the health advice on this page."
    if _buys_nothing(chosen):
        if a.nothing_needed:
            yield "If the taste, color or smell changes, call us and we will test again."
        else:
            yield "We then test again, and treat only what is left."
        return
    yield "If this suits you, sign this proposal."
    if any(p.installation for p in chosen.line.purchases):
        yield "We then set a day to install it, and we test again afterward."
    else:
        yield "We then bring it, and we test again afterward."
