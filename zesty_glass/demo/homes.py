"""The demo firm's seven homes, in ``homes.json``: visit files whose readings name their instrument,
and whose options name items of the demo's catalog.

They are written as of one day and moved to the day that is asked for, so that a demo is never old.
"""

from __future__ import annotations

import json
import uuid
from collections.abc import Callable
from dataclasses import fields, is_dataclass, replace
from datetime import UTC, date, datetime, timedelta
from functools import cache, partial
from pathlib import Path
from typing import Any

from ..catalogue.examples import example_items
from ..core.treating.items import Item, SystemFigures
from ..core.treating.option import Option
from ..core.visit import Visit
from ..documents.codec import load, plain
from .kits import demo_instruments

FILE = Path(__file__).with_name("homes.json")
WRITTEN = datetime(2026, 11, 20, 9, tzinfo=UTC)
FIRM = "Larkspout"
CONSULTANT = "Perrin Oakhalse"
_SPACE = uuid.UUID("6f4f2b7e-5d0a-4c55-9a3d-1c0e6d1f7a10")


def uid(name: str) -> str:
    """A fixed identifier for a named thing of the demo."""
    return str(uuid.uuid5(_SPACE, name))


def used_items(options: tuple[Option, ...], items: dict[str, Item]) -> tuple[Item, ...]:
    """The catalog items that options use, systems with their stages, in order of code."""
    codes: set[str] = set()

    def add(code: str) -> None:
        if code in codes or code not in items:
            return
        codes.add(code)
        f = items[code].figures
        if isinstance(f, SystemFigures):
            for part in f.parts:
                add(part)

    for o in options:
        for c in o.stages:
            add(c.item)
    return tuple(items[c] for c in sorted(codes))


@cache
def _written() -> tuple[Visit, ...]:
    """The homes as they stand in the file."""
    kits = {i.id: plain(i) for i in demo_instruments(WRITTEN.date())}
    items = {i.code: i for i in example_items()}
    out = []
    for n, data in enumerate(json.loads(FILE.read_bytes())):
        for sample in data.get("samples", ()):
            for reading in sample.get("readings", ()):
                reading["instrument"] = kits[reading["instrument"]]
        visit: Visit = load(Visit, data, f"{FILE.name}[{n}]")
        out.append(replace(visit, catalogue=used_items(visit.options, items)))
    return tuple(out)


def _moved(value: Any, by: timedelta, days: timedelta) -> Any:
    """A value with all its times moved, and its dates by whole days."""
    if isinstance(value, datetime):
        return value + by
    if isinstance(value, date):
        return value + days
    if isinstance(value, tuple):
        return tuple(_moved(v, by, days) for v in value)
    if is_dataclass(value) and not isinstance(value, type | Item):
        now = {f.name: getattr(value, f.name) for f in fields(value)}
        new = {n: _moved(v, by, days) for n, v in now.items()}
        changed = {n: v for n, v in new.items() if v is not now[n]}
        return replace(value, **changed) if changed else value
    return value


def _home(n: int, at: datetime) -> Visit:
    """A home as if the visit began at ``at``."""
    visit = _written()[n - 1]
    days = timedelta(days=(at.date() - visit.started_at.date()).days)
    moved: Visit = _moved(replace(visit, catalogue=()), at - visit.started_at, days)
    return replace(moved, catalogue=visit.catalogue)


Home = Callable[[datetime], Visit]
home_1: Home = partial(_home, 1)  # terrace, Marl End: chalk-fed main with chloramine
home_2: Home = partial(_home, 2)  # farmhouse, Cinderlow: an acid well
home_3: Home = partial(
    _home, 3
)  # bungalow, Cinderlow: iron, manganese, another seller's clock softener
home_4: Home = partial(_home, 4)  # old schoolhouse, Hask Moor: a spring out of peat
home_5: Home = partial(_home, 5)  # new house on granite: fluoride, arsenic, radon, and an infant
home_6: Home = partial(_home, 6)  # flat above the bakery, Marl End: a tenant who asks about taste
home_7: Home = partial(_home, 7)  # house 22, the new estate: nothing needed


def demo_visits(now: datetime) -> tuple[Visit, ...]:
    """All visits of the demo, around ``now``."""
    day = now.replace(hour=9, minute=0, second=0, microsecond=0)
    return (
        home_1(day),
        home_2(day + timedelta(hours=2)),
        home_7(day + timedelta(hours=5)),
        home_3(day - timedelta(days=1)),
        home_4(day - timedelta(days=2)),
        home_5(day - timedelta(days=3)),
        home_6(day - timedelta(days=3, hours=-4)),
    )


__all__ = ["CONSULTANT", "FIRM", "demo_visits", "uid", "used_items"]
