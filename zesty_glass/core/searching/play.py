"""Which items of a catalog can have a part in answering what was found: those that change it, and
those that these ask for.
"""

from __future__ import annotations

from collections.abc import Hashable, Mapping

from ..analytes import ANALYTES
from ..record import record
from ..treating.checks import CHECKS
from ..treating.items import Item, SystemFigures, alike
from ..treating.report import Check
from ..treating.site import Site
from ..treating.stages import TECHNOLOGIES
from ..treating.stages.common import StageInput
from ..treating.stream import Stream


@record
class Profile:
    """What an item changes, what it asks for on the raw water, and the stop that the place alone
    decides.
    """

    changes: frozenset[str]
    asks: frozenset[str]
    stop: Check | None


def profile(item: Item, by_code: Mapping[str, Item], source: Stream, site: Site) -> Profile:
    """An item on the raw water, alone; a system is its parts together."""
    if isinstance(item.figures, SystemFigures):
        parts = [
            profile(by_code[p], by_code, source, site)
            for p in item.figures.parts
            if p in by_code and p != item.code
        ]
        return Profile(
            changes=frozenset[str]().union(*(p.changes for p in parts)),
            asks=frozenset[str]().union(*(p.asks for p in parts)),
            stop=next((p.stop for p in parts if p.stop), None),
        )
    technology = TECHNOLOGIES[item.kind]
    r = technology.run(StageInput(item=item, stream=source, site=site, overrides={}, brief=True))
    changed = (
        {n for n, q in r.outlet.quantities.items() if q != source.get(n)}
        | {e.analyte for e in item.effects if e.high > 0 or e.out_at_most is not None}
        | technology.changes
    )
    asks: set[str] = set()
    for c in r.checks:
        if c.status in ("stop", "warn", "unknown"):
            asks |= set(CHECKS[c.id].asks) if c.id in CHECKS else set()
            name = c.id.partition(".")[2]
            if name in ANALYTES:
                asks.add(name)
    return Profile(
        changes=frozenset(changed),
        asks=frozenset(asks),
        stop=next(
            (
                c
                for c in r.checks
                if c.status == "stop" and c.id in CHECKS and CHECKS[c.id].by_place
            ),
            None,
        ),
    )


@record
class Play:
    """Items that have a part, those of them that the place stops, and why the others have none."""

    items: tuple[Item, ...]
    stopped: dict[str, Check]
    idle: dict[str, str]


def in_play(
    items: tuple[Item, ...],
    by_code: Mapping[str, Item],
    source: Stream,
    site: Site,
    wanted: tuple[str, ...],
) -> Play:
    """Items that change a thing found, and, again and again, those that change what
    these ask for.
    """
    # what sells only inside a system is no answer by itself
    inside = {p for i in items if isinstance(i.figures, SystemFigures) for p in i.figures.parts}
    parts = {i.code for i in items if i.price == 0 and i.code in inside}
    same: dict[Hashable, Profile] = {}
    profiles: dict[str, Profile] = {}
    for i in items:
        key = alike(i)
        if key not in same:
            same[key] = profile(i, by_code, source, site)
        profiles[i.code] = same[key]
    asked = set(wanted)
    playing: dict[str, Item] = {}
    grew = True
    while grew:
        grew = False
        for i in items:
            p = profiles[i.code]
            if i.code in parts:
                continue
            if i.code in playing or not _for_this(i, wanted):
                continue
            if p.changes & asked or f"@{i.kind}" in asked:
                playing[i.code] = i
                asked |= p.asks
                grew = True
    names = ", ".join(ANALYTES[a].said for a in wanted)
    why = (
        f"Changes nothing that was found ({names})."
        if wanted
        else "Nothing was found that asks for treatment."
    )
    return Play(
        items=tuple(i for i in items if i.code in playing),
        stopped={c: p.stop for c, p in profiles.items() if p.stop is not None and c in playing},
        idle={i.code: _idle(i, parts, wanted, why) for i in items if i.code not in playing},
    )


def _for_this(item: Item, wanted: tuple[str, ...]) -> bool:
    """Whether what an item is made for was found, where it is made for something of its own."""
    return not item.figures.made_for or bool(item.figures.made_for & set(wanted))


def _idle(item: Item, parts: set[str], wanted: tuple[str, ...], why: str) -> str:
    """Why an item has no part."""
    if item.code in parts:
        return "Sold only as a part of a system."
    if wanted and not _for_this(item, wanted):
        names = ", ".join(ANALYTES[a].said for a in sorted(item.figures.made_for))
        return f"Made for {names}, which was not found."
    return why
