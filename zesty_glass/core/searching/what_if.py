"""What if: two more people, a lower pH, the next size up. The same line walked again, and what
changes.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import replace
from decimal import Decimal

from ..costing.chores import chores
from ..costing.money import lifetime_total
from ..costing.waste import waste
from ..errors import RuleError
from ..home import Home
from ..record import record
from ..rules import Settings
from ..testing.colour import ColourFinding
from ..testing.value import Value
from ..testing.water import Water
from ..treating.items import Item
from ..treating.line import LineReport, walk
from ..treating.measured import Measured
from ..treating.option import Option
from ..treating.report import Check, Status
from ..treating.stages import TECHNOLOGIES

MORE_PEOPLE, LOWER_PH = 2.0, 0.5
_GRAVE = {"stop": 0, "unknown": 1, "warn": 2, "say": 3, "met": 4}


@record
class Changed:
    """A check that answers otherwise; ``before`` or ``after`` None when it is only there with or
    without the change.
    """

    stage: str
    id: str
    before: Status | None
    after: Status | None
    sentence: str


@record
class WhatIf:
    """A line under one change.

    Args:
        impossible: why it could not be worked out; then there is nothing else.
        status: the gravest status of the line; ``before``: without the change.
        cost, waste_gal_year, own_minutes: more (or less) than without the change [money over the
            horizon, gal/year, min/year].
    """

    id: str
    label: str
    impossible: str = ""
    before: Status = "met"
    status: Status = "met"
    changes: tuple[Changed, ...] = ()
    cost: Decimal = Decimal(0)
    waste_gal_year: float = 0.0
    own_minutes: float = 0.0
    option: Option | None = None


def size_of(item: Item) -> float | None:
    """What makes one of a kind larger than another: resin, bed, permeate or flow; None where
    nothing does.
    """
    size = TECHNOLOGIES[item.kind].size if item.kind in TECHNOLOGIES else None
    return item.flow_gpm if size is None else getattr(item.figures, size)


def _alike(a: Item, b: Item) -> bool:
    """The same technology in the same style, so that only the size differs."""

    def style(i: Item) -> tuple[object, ...]:
        names = TECHNOLOGIES[i.kind].style if i.kind in TECHNOLOGIES else ()
        return i.kind, i.scope, *(getattr(i.figures, n) for n in names)

    return style(a) == style(b)


def next_size(item: Item, catalogue: Mapping[str, Item]) -> Item | None:
    """The next larger item of the same style, the cheapest of equals; None when there is none."""
    own = size_of(item)
    if own is None:
        return None
    larger = [
        (s, i.price, i.code, i)
        for i in catalogue.values()
        if i.code != item.code and _alike(i, item) and (s := size_of(i)) is not None and s > own
    ]
    return min(larger)[3] if larger else None


def more_people(home: Home) -> Home:
    """Two more people; a use from the bill grows with them."""
    people = home.people + MORE_PEOPLE
    bill = (
        home.bill_gal_day * people / home.people
        if home.bill_gal_day is not None and home.people > 0
        else home.bill_gal_day
    )
    return replace(home, people=people, bill_gal_day=bill)


def lower_ph(water: Water) -> Water | None:
    """The water with its pH half a unit lower; None when pH is not known."""
    v = water.values.get("ph")
    if v is None or v.range is None:
        return None
    lower: Value = replace(v, range=v.range.apply(lambda x: max(0.0, x - LOWER_PH)))
    return replace(water, values={**water.values, "ph": lower})


def _checks(line: LineReport) -> dict[tuple[str, str], Check]:
    out: dict[tuple[str, str], Check] = {}
    for name, checks in [
        ("", line.checks),
        *((f"{s.kind}:{s.scope}", s.checks) for s in line.stages),
    ]:
        for c in checks:
            have = out.get((name, c.id))
            if have is None or _GRAVE[c.status] < _GRAVE[have.status]:
                out[name, c.id] = c
    return out


def _differences(before: LineReport, after: LineReport) -> tuple[Changed, ...]:
    a, b = _checks(before), _checks(after)
    names = {f"{s.kind}:{s.scope}": s.name for s in (*before.stages, *after.stages)}
    out = []
    for key in dict.fromkeys((*a, *b)):
        x, y = a.get(key), b.get(key)
        old, new = (None if x is None else x.status), (None if y is None else y.status)
        if old == new or {old, new} <= {None, "met", "say"}:
            continue
        told = y or x
        assert told is not None
        out.append(
            Changed(
                stage=names.get(key[0], "the line"),
                id=key[1],
                before=old,
                after=new,
                sentence=told.sentence if y is not None else f"No longer: {told.sentence}",
            )
        )
    return tuple(sorted(out, key=lambda c: _GRAVE[c.after or "met"]))


class _Walker:
    def __init__(
        self,
        catalogue: Mapping[str, Item],
        colour: ColourFinding | None,
        settings: Settings,
        years: int,
        measured: Measured | None,
    ) -> None:
        self.catalogue, self.colour, self.settings, self.years, self.measured = (
            dict(catalogue),
            colour,
            settings,
            years,
            measured,
        )

    def line(self, option: Option, water: Water, home: Home) -> LineReport:
        return walk(
            option, self.catalogue, water, self.colour, home, self.settings, measured=self.measured
        )

    def cost(self, line: LineReport) -> Decimal:
        s = self.settings
        return lifetime_total(
            line.purchases,
            line.dues,
            line.running,
            self.years,
            s.price_growth,
            s.discount,
        )


def what_ifs(
    option: Option,
    catalogue: Mapping[str, Item],
    water: Water,
    colour: ColourFinding | None,
    home: Home,
    settings: Settings,
    years: int = 10,
    measured: Measured | None = None,
) -> tuple[WhatIf, ...]:
    """A line under each change worth asking for: two more people, pH half a unit lower, each stage
    in its next size.

    Raises:
        RuleError: the line itself cannot be walked.
    """
    w = _Walker(catalogue, colour, settings, years, measured)
    base = w.line(option, water, home)
    cost, drained, work = w.cost(base), waste(base).total_gal_year, chores(base).own_minutes

    def under(id: str, label: str, changed: Option, water_: Water, home_: Home) -> WhatIf:
        try:
            line = w.line(changed, water_, home_)
        except RuleError as e:
            return WhatIf(id=id, label=label, impossible=str(e))
        return WhatIf(
            id=id,
            label=label,
            before=base.status,
            status=line.status,
            changes=_differences(base, line),
            cost=w.cost(line) - cost,
            waste_gal_year=waste(line).total_gal_year - drained,
            own_minutes=chores(line).own_minutes - work,
            option=changed if changed is not option else None,
        )

    out = [under("people", "Two more people", option, water, more_people(home))]
    lower = lower_ph(water)
    out.append(
        WhatIf(id="ph", label="pH half a unit lower", impossible="pH is not tested.")
        if lower is None
        else under("ph", "pH half a unit lower", option, lower, home)
    )
    for choice in option.stages:
        item = catalogue.get(choice.item)
        larger = None if item is None else next_size(item, catalogue)
        if item is not None and larger is not None:
            stages = tuple(
                replace(c, item=larger.code) if c is choice else c for c in option.stages
            )
            out.append(
                under(
                    f"size:{item.code}",
                    f"{larger.name} in place of {item.name}",
                    replace(option, stages=stages),
                    water,
                    home,
                )
            )
    return tuple(out)
