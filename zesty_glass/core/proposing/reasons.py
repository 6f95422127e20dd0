"""A first draft of the reasons, in plain sentences, from the rules that fired."""

from __future__ import annotations

from decimal import Decimal

from ..analytes import Kind, mid_sentence
from ..costing.chores import Chores
from ..costing.money import Lifetime
from ..costing.waste import Waste
from ..ranges import Verdict
from ..record import record
from ..rules import Settings
from ..testing.finding import Weight
from ..testing.findings import Meaning
from ..treating.line import LineReport
from .rows import Row


@record
class Reasons:
    """Sentences for and against an option, and what stays unknown."""

    gains: tuple[str, ...]
    costs: tuple[str, ...]
    unknown: tuple[str, ...]
    summary: str


def amount(value: Decimal, settings: Settings) -> str:
    """Money in whole units for sentences."""
    return f"{settings.currency}{value:,.0f}"


#: dissolved matter by itself asks for nothing, also where somebody was told that the water is full
#: of it
_ASKS_NOTHING = frozenset({"tds", "sodium"})


def found_nothing(meaning: Meaning) -> bool:
    """Of what was tested nothing asks to act or explains a complaint, and no complaint stays
    unexplained.
    """
    return not meaning.unexplained and asks_for_nothing(meaning)


def asks_for_nothing(meaning: Meaning) -> bool:
    """Of what was tested nothing asks to act or explains a complaint."""
    return not any(
        f.weight in (Weight.ACT, Weight.HEALTH)
        or (f.weight is Weight.NOTICE and f.explains and f.analyte not in _ASKS_NOTHING)
        for f in meaning.findings
    )


def open_health(meaning: Meaning) -> bool:
    """A health result that is not judged, or that a method was too coarse for."""
    return any(
        f.kind is Kind.HEALTH and f.weight in (Weight.NOT_JUDGED, Weight.NOTICE)
        for f in meaning.findings
    )


def needs_nothing(meaning: Meaning) -> bool:
    """Nothing was found, every test that the source and the complaints ask for was done, and there
    is nothing to be said of what is drunk.
    """
    return (
        found_nothing(meaning)
        and not meaning.missing
        and not open_health(meaning)
        and not meaning.tonight
    )


def still_to_test(meaning: Meaning) -> str:
    """What is said while nothing was found and tests are missing; empty otherwise."""
    if not found_nothing(meaning) or not meaning.missing:
        return ""
    done = meaning.asked - len(meaning.missing)
    names = ", ".join(u.test for u in meaning.missing)
    return f"Nothing found in {done} of {meaning.asked} tests; still to test: {names}."


def _lead(r: Row) -> str:
    """A thing found with the complaints that it explains."""
    if not r.complaints:
        return r.name
    return " and ".join(f"“{c}”" for c in r.complaints) + f": {mid_sentence(r.name)}"


def _gain(r: Row, option: str) -> str | None:
    c = next((c for c in r.cells if c.option == option), None)
    today = r.cells[0] if r.cells else None
    if c is None or today is None or (c.range is not None and c.range == today.range):
        return None
    target = " It meets what was wanted." if c.meets is Verdict.MET else ""
    if c.change == "less":
        held = target if c.established else " Not proven: no certificate covers it."
        return f"{_lead(r)} goes from {today.shown} to {c.shown} ({c.evidence}).{held}"
    if c.change == "inactivated":
        return f"{_lead(r)}: inactivated at the lamp, once the laboratory confirms it."
    if c.change == "more" and r.analyte == "ph":
        return f"{_lead(r)} rises from {today.shown} to {c.shown}.{target}"
    return None


def _warned(line: LineReport) -> list[str]:
    """What its checks stop or warn of."""
    of_stages = [
        f"{stage.name}: {c.sentence}"
        for stage in line.stages
        for c in stage.checks
        if c.status in ("stop", "warn")
    ]
    return of_stages + [c.sentence for c in line.checks if c.status in ("stop", "warn")]


def _risen(line: LineReport, rows: tuple[Row, ...]) -> list[str]:
    """What an option adds to the water."""
    cells = ((r, next((c for c in r.cells if c.option == line.option), None)) for r in rows)
    return [
        f"{r.name} rises to {c.shown}." if c.range is not None else f"{r.name} {c.note or 'rises'}."
        for r, c in cells
        if c is not None and c.change == "more" and r.analyte != "ph"
    ]


def _spent(cost: Lifetime, waste: Waste, work: Chores, settings: Settings) -> list[str]:
    """What it costs, drains and asks to be carried."""
    at_least = "at least " if cost.missing else ""
    unpriced = f" Not priced yet: {', '.join(cost.missing)}." if cost.missing else ""
    out = [
        f"Over {cost.years} years it costs {at_least}{amount(cost.total, settings)} in total,"
        f" {amount(cost.purchase, settings)} of it to buy and install.{unpriced}"
    ]
    if waste.total_gal_year > 0:
        out.append(
            f"It sends {waste.total_gal_year:,.0f} gal a year to the drain,"
            f" {waste.bathtubs:,.0f} bathtubs."
        )
    if work.bags >= 1:
        out.append(f"{work.bags:.0f} bags of salt of 40 lb are carried a year.")
    return out


def reasons(
    line: LineReport,
    cost: Lifetime,
    waste: Waste,
    work: Chores,
    rows: tuple[Row, ...],
    left: tuple[str, ...],
    meaning: Meaning,
    settings: Settings,
) -> Reasons:
    """The draft for one option; for "do nothing" it says so plainly."""
    gains = tuple(s for r in rows if (s := _gain(r, line.option)))
    against = [*_warned(line), *_risen(line, rows)]
    if left:
        against.append("It does not address: " + "; ".join(left) + ".")
    if line.stages:
        against += _spent(cost, waste, work, settings)
    unknown = [
        f"{s.name}: {c.sentence}" for s in line.stages for c in s.checks if c.status == "unknown"
    ]
    unknown += [f"{u.name} not tested: {u.test}." for u in meaning.unknown]
    return Reasons(
        gains=gains,
        costs=tuple(against),
        unknown=tuple(unknown),
        summary=_summary(line, gains, meaning),
    )


def _summary(line: LineReport, gains: tuple[str, ...], meaning: Meaning) -> str:
    if not line.stages:
        if said := still_to_test(meaning):
            return said
        if needs_nothing(meaning):
            return (
                "Nothing needed. The readings give no reason to buy anything; they say nothing"
                " about what was not tested."
            )
        return "Doing nothing leaves the water as it is."
    if line.status == "stop":
        return "Cannot work on this water or in this place as it stands: see the stages that stop."
    if not gains:
        return "It changes nothing that was found in this water."
    return " ".join(gains[:3])
