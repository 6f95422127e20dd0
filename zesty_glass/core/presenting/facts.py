"""What else tells options apart, in words: figures of their stages, upkeep, space, warranty, and
what they are certified for of what was found.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable, Mapping
from dataclasses import dataclass

from ..analytes import ANALYTES
from ..costing.falling import interval_months
from ..record import record
from ..treating.items import Item
from ..treating.line import LineReport
from ..treating.report import Due
from ..treating.stages import does
from ..treating.stages.common import certified_on


@record
class FactRow:
    """One thing by which options are told apart; ``values`` by the option's id, in words."""

    id: str
    name: str
    note: str
    values: dict[str, str]


@dataclass(frozen=True)
class _Of:
    """An option as facts are drawn from it."""

    line: LineReport
    ends: tuple[LineReport, ...]
    bought: tuple[Item, ...]
    items: tuple[Item, ...]
    found: tuple[str, ...]


def _each(names: Iterable[str]) -> str:
    return "; ".join(dict.fromkeys(n for n in names if n))


def _makes(o: _Of) -> str:
    return _each(s.summary for s in o.line.stages if "makes slowly" in does(s.kind))


def _dues(o: _Of) -> list[Due]:
    return [d for s in o.line.stages for d in s.dues if interval_months(d) < float("inf")]


def _months(low: float, high: float) -> str:
    if round(low) == round(high):
        return "month" if round(low) == 1 else f"{low:.0f} months"
    return f"{low:.0f}–{high:.0f} months"


def _between(o: _Of, due: Due) -> tuple[float, float]:
    """A part's interval at much use and at little [months]."""
    same = (
        d
        for line in (o.line, *o.ends)
        for s in line.stages
        for d in s.dues
        if (d.code, d.label) == (due.code, due.label)
    )
    each = [interval_months(d) for d in same]
    return min(each), max(each)


def _soonest(o: _Of) -> str:
    """The part that falls due most often, and the one that does least often, from much use to
    little.
    """
    dues = sorted(_dues(o), key=interval_months)
    if not dues:
        return "nothing falls due"
    ends = [dues[0]] if len(dues) == 1 else [dues[0], dues[-1]]
    return _each(f"{d.label} every {_months(*_between(o, d))}" for d in ends)


def _supplies(o: _Of) -> str:
    """Parts whose makers tell a household's own supply from a town's."""
    return _each(
        f"{c.name} every {_months(c.months_private, c.months_private)} on a well, every"
        f" {_months(c.months, c.months)} on a town supply"
        for i in o.items
        for c in i.consumables
        if c.months is not None and c.months_private is not None
    )


def _served(o: _Of) -> str:
    dues = _dues(o)
    own = {d.label for d in dues if d.own}
    firms = {d.label for d in dues if not d.own}
    if not dues:
        return ""
    if not firms:
        return "you, all of it"
    if not own:
        return "the firm, all of it"
    return _each((*(f"the firm: {x}" for x in sorted(firms)), "you: the rest"))


def _space(o: _Of) -> str:
    """The tallest of what is bought, and what each wants to stand on."""
    heights = [i.headroom_in for i in o.bought if i.headroom_in]
    floors = (f"{i.name}: {i.footprint_in} in" if i.footprint_in else "" for i in o.bought)
    return _each((f"{max(heights):g} in of height" if heights else "", *floors))


def _warranty(o: _Of) -> str:
    return _each(f"{i.name}: {i.warranty}" if i.warranty else "" for i in o.bought)


def _spares(o: _Of) -> str:
    """How long each maker promises spare parts; what nobody promises is said where others are."""
    if not any(i.spares_years for i in o.bought):
        return ""
    return _each(
        f"{i.name}: {i.spares_years:g} years" if i.spares_years else f"{i.name}: not promised"
        for i in o.bought
    )


def _certified(o: _Of) -> str:
    """Of what was found, that for which an item holds a certificate of its own, where its claim
    holds on the water that reaches it.
    """
    by_code = {i.code: i for i in o.items}
    held: set[str] = set()
    inlet = o.line.source
    for s in o.line.stages:
        if s.code in by_code and not s.idle:
            held |= certified_on(by_code[s.code], inlet)
        inlet = s.outlet
    names = [ANALYTES[a].name for a in o.found if a in held]
    return ", ".join(names) if names else "none of what was found"


@dataclass(frozen=True)
class _Asked:
    id: str
    name: str
    note: str
    of: Callable[[_Of], str]


_ROWS = (
    _Asked("makes", "Makes", "at this pressure, water and temperature", _makes),
    _Asked("interval", "Upkeep", "most often and least often, at much use and at little", _soonest),
    _Asked("supplies", "Well against town", "as the maker says; counted is this supply", _supplies),
    _Asked("served", "Who looks after it", "", _served),
    _Asked("certified", "Certified for", "of what was found; each for its own", _certified),
    _Asked("space", "Space", "as the maker says", _space),
    _Asked("warranty", "Warranty", "as the maker says", _warranty),
    _Asked("spares", "Spare parts", "how long the maker promises them, from the sale", _spares),
)


#: what holds of an option whether it works here or not
_OF_THE_THING = frozenset({"space", "warranty", "spares"})
CANNOT = "cannot work as it stands"


def _said(asked: _Asked, o: _Of) -> str:
    """What is said of an option; what cannot work here promises nothing."""
    said = asked.of(o)
    return CANNOT if said and o.line.status == "stop" and asked.id not in _OF_THE_THING else said


def facts(
    lines: Iterable[LineReport],
    catalogue: Mapping[str, Item],
    found: tuple[str, ...],
    ends: Mapping[str, tuple[LineReport, ...]],
) -> tuple[FactRow, ...]:
    """Rows on which at least one option that buys something has a word to say.

    Args:
        ends: the same lines at little and at much use, by the option's id, where they are known.
        found: analytes that have a row of the comparison.
    """
    every = {
        line.option: _Of(
            line=line,
            ends=ends.get(line.option, ()),
            bought=tuple(catalogue[p.code] for p in line.purchases if p.code in catalogue),
            items=tuple(catalogue[s.code] for s in line.stages if s.code in catalogue),
            found=found,
        )
        for line in lines
    }
    rows = []
    for asked in _ROWS:
        values = {id: _said(asked, o) for id, o in every.items() if o.bought}
        if any(values.values()):
            rows.append(FactRow(id=asked.id, name=asked.name, note=asked.note, values=values))
    return tuple(rows)
