"""Lines that a search by what is taken out cannot find, made from those it found.

A salt-free conditioner takes nothing out and may still be what is wanted against crust; a drinking
tap behind a softener matters only to who keeps a diet; and the next size up takes out no more, yet
leaves less to watch.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable, Mapping
from dataclasses import replace

from ..costing.chores import chores
from ..costing.money import lifetime_total
from ..costing.waste import waste
from ..errors import RuleError
from ..home import Home
from ..rules import Settings
from ..searching.found import Combination
from ..searching.what_if import next_size
from ..treating.existing_equipment import PREFIX
from ..treating.items import Item, SystemFigures
from ..treating.line import LineReport
from ..treating.option import Option, StageChoice
from ..treating.stages import does, takes_dissolved_matter
from ..treating.stages.conditioner import ConditionerFigures
from ..treating.stages.softener_size import SoftenerFigures

Codes = tuple[str, ...]
MOST_TAPS = 4  # drinking taps tried behind a softener, the cheapest first


def _softener(codes: Codes, items: Mapping[str, Item]) -> str | None:
    return next((c for c in codes if isinstance(items[c].figures, SoftenerFigures)), None)


def _conditioners(items: Iterable[Item]) -> list[Item]:
    return [
        i
        for i in items
        if i.scope == "house"
        and isinstance(i.figures, ConditionerFigures)
        and "leaves minerals" in does(i.kind)
        and i.figures.covers == "house"
    ]


def _taps(items: Mapping[str, Item]) -> list[Item]:
    """Systems at the drinking tap that take salt out again, the cheapest first."""

    def takes_salt(i: Item) -> bool:
        parts = i.figures.parts if isinstance(i.figures, SystemFigures) else (i.code,)
        return any(takes_dissolved_matter(items[p].kind) for p in parts if p in items)

    whole = [i for i in items.values() if i.scope == "tap" and i.price > 0 and takes_salt(i)]
    return sorted(whole, key=lambda i: (i.price, i.code))[:MOST_TAPS]


def _past_it(items: Mapping[str, Item]) -> list[Item]:
    """The cheapest line past what treats the house."""
    every = [i for i in items.values() if "as it comes" in does(i.kind) and i.scope == "tap"]
    return sorted(every, key=lambda i: (i.price + i.installation, i.code))[:1]


def _for_diet(codes: Codes, home: Home, items: Mapping[str, Item]) -> list[Codes]:
    """A softener’s line with a drinking tap behind it, with the kitchen’s cold tap as the water
    comes, or with the other salt.
    """
    own = _softener(codes, items)
    if own is None or any(items[c].scope == "tap" for c in codes):
        return []
    figures = items[own].figures
    assert isinstance(figures, SoftenerFigures)
    out = []
    if (figures.salt == "sodium" and home.care.low_sodium) or (
        figures.salt == "potassium" and home.care.low_potassium
    ):
        out += [(*codes, t.code) for t in (*_past_it(items), *_taps(items))]
        out += [
            tuple(i.code if c == own else c for c in codes)
            for i in items.values()
            if isinstance(i.figures, SoftenerFigures) and i.figures.salt != figures.salt
        ]
    return out


def candidates(
    lines: tuple[Codes, ...], items: Mapping[str, Item], home: Home, wanted: tuple[str, ...]
) -> list[Codes]:
    """Lines to try beside those found (codes of items, in no particular order)."""
    if "hardness" not in wanted or home.tenant:
        return []
    softened = [x for x in lines if _softener(x, items) is not None]
    best = next(
        (x for x in softened if all(items[c].scope == "house" for c in x)),
        softened[0] if softened else (),
    )
    own = _softener(best, items) if best else None
    out = [
        tuple(c.code if x == own else x for x in best) if own else (c.code,)
        for c in _conditioners(items.values())
    ]
    if own:
        out += [x for line in dict.fromkeys((best, (own,))) for x in _for_diet(line, home, items)]
    known = set(lines)
    return [x for x in dict.fromkeys(out) if x not in known]


def larger(codes: Codes, items: Mapping[str, Item], line: LineReport) -> Codes | None:
    """A line with the next size in place of every stage of the house that has something to watch;
    None where there is none. A search by cost keeps the small ones alone.
    """
    short = any(c.status == "warn" for c in line.checks)
    watched = {s.code for s in line.stages if any(c.status == "warn" for c in s.checks)}
    out = tuple(
        bigger.code
        if items[c].scope == "house"
        and (short or c in watched)
        and (bigger := next_size(items[c], items)) is not None
        else c
        for c in codes
    )
    return None if out == codes else out


MOST_ALIKE = 5  # ideas that are tried with the units of the first line


def alike(lines: Iterable[Codes], items: Mapping[str, Item]) -> list[Codes]:
    """The first line of each other idea with the first line's own units for the house: a search
    keeps the cheapest sizes of an idea, which leave more to watch.
    """
    known = list(lines)
    if not known:
        return []
    house = [items[c] for c in known[0] if items[c].scope == "house"]
    own = {i.kind: i.code for i in house}
    if len(own) < len(house):
        return []
    ideas: dict[tuple[str, ...], Codes] = {}
    for codes in known[1:]:
        if any(c.startswith(PREFIX) for c in codes):
            continue
        ideas.setdefault(tuple(items[c].kind for c in codes), codes)
    out = [
        tuple(own.get(items[c].kind, c) if items[c].scope == "house" else c for c in codes)
        for codes in list(ideas.values())[:MOST_ALIKE]
    ]
    return [x for x in dict.fromkeys(out) if x not in known]


def tried(
    codes: Codes,
    walked: Callable[[Option], LineReport],
    settings: Settings,
    years: int,
) -> Combination | None:
    """A line with its cost, drain and work; None where a check stops it or it cannot be walked."""
    option = Option(id="beside", name="", stages=tuple(StageChoice(item=c) for c in codes))
    try:
        line = walked(option)
    except RuleError:
        return None
    if line.status == "stop":
        return None
    running = [replace(r, per_year=r.per_year + r.counted) for r in line.running]
    cost = lifetime_total(
        line.purchases, line.dues, running, years, settings.price_growth, settings.discount
    )
    return Combination(
        items=codes,
        left=(),
        waste_gal_year=waste(line).total_gal_year,
        cost=float(cost),
        own_minutes=chores(line).own_minutes,
    )
