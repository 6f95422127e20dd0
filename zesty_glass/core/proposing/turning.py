"""What would put another system first: a test that was not made, a reading whose range ends on
either side of what judges it, or a small change of the place.

Value of information is worked out, not ruled of thumb: what is proposed is searched again with the
water, or the place, as it could be, and said where another system would stand first. For speed
these searches have a smaller catalog: what the first ideas are made of, and of every kind that
they have none of the cheapest and one of the middle.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable
from dataclasses import replace
from decimal import Decimal

from ..analytes import ANALYTES
from ..home import Home
from ..ranges import Range
from ..record import record
from ..rules import Settings
from ..testing.findings import Meaning
from ..testing.value import Value
from ..testing.water import Water
from ..treating.items import Item, SystemFigures
from ..words import sum_over, value
from .suggested import Suggestion, TurningPoint

#: searches again, for one answer
MOST_TESTS, MOST_RANGES, MOST_DOORS = 4, 2, 3
MOST_IDEAS = 3  # those that the smaller catalogue is made of
HALVINGS = 2  # how often the figure at which a kit's test turns it is narrowed down
WORTH_SAYING = 100.0  # [money] a change of the place that saves less opens no door

Searched = Callable[[Water, Home, tuple[Item, ...]], Suggestion]


@record
class Plausible:
    """What a test that was not made could still find.

    Args:
        at: a figure that is found often enough to plan for [canonical unit], or words; clean: what
            would ask for nothing [canonical unit]; private: whether it concerns private water
            alone; how: how it is tested, how long it takes.
    """

    analyte: str
    at: float | str
    clean: float
    private: bool
    how: str
    source: str
    year: int


_KIT = "Test it here: it takes a few minutes with a kit."
_LAB = "A certified laboratory tests it: about a week."
_WELLS = "USGS, quality of water from domestic wells, about the highest tenth"
_TRADE = "trade practice"
#: in the order in which they are tried
PLAUSIBLE = (
    Plausible(
        analyte="coliform",
        at="present",
        clean=0.0,
        private=True,
        how=_LAB,
        source=_WELLS,
        year=2009,
    ),
    Plausible(analyte="iron", at=3.0, clean=0.05, private=True, how=_KIT, source=_WELLS, year=2009),
    Plausible(
        analyte="tannin",
        at=1.5,
        clean=0.1,
        private=True,
        how=_KIT,
        source=_TRADE,
        year=2024,
    ),
    Plausible(
        analyte="hardness", at=300.0, clean=30.0, private=False, how=_KIT, source=_WELLS, year=2009
    ),
    Plausible(analyte="ph", at=6.2, clean=7.2, private=True, how=_KIT, source=_WELLS, year=2009),
    Plausible(
        analyte="manganese", at=0.3, clean=0.02, private=True, how=_KIT, source=_WELLS, year=2009
    ),
    Plausible(
        analyte="hydrogen_sulfide",
        at=1.0,
        clean=0.02,
        private=True,
        how=_KIT,
        source=_TRADE,
        year=2024,
    ),
    Plausible(
        analyte="nitrate_n", at=15.0, clean=1.0, private=True, how=_LAB, source=_WELLS, year=2009
    ),
    Plausible(
        analyte="arsenic", at=0.02, clean=0.001, private=True, how=_LAB, source=_WELLS, year=2009
    ),
)


@record
class Door:
    """What a place could be given, so that more systems can stand in it.

    Args:
        opens: ids of the checks that stop without it; together: it is asked for where all of them
            stop, and not where one does; says: what it is, and who does it.
    """

    id: str
    opens: frozenset[str]
    says: str
    together: bool = False

    def shut(self, stopped: frozenset[str]) -> bool:
        """Whether something that stops would let go, by the ids of the checks that stop."""
        return self.opens <= stopped if self.together else bool(self.opens & stopped)


DOORS = (
    Door(
        id="drain",
        opens=frozenset({"space.drain"}),
        says="With a drain within reach (a plumber adds one with an air gap, to local code)",
    ),
    Door(
        id="socket",
        opens=frozenset({"space.socket"}),
        says="With an outlet within reach (a licensed electrician adds one)",
    ),
    Door(
        id="drain_socket",
        opens=frozenset({"space.drain", "space.socket"}),
        says="With a drain and an outlet within reach (a plumber and a licensed electrician add"
        " them)",
        together=True,
    ),
    Door(
        id="headroom",
        opens=frozenset({"space.headroom", "uv.lamp_space"}),
        says="With more height, or another place for it",
    ),
    Door(
        id="pressure",
        opens=frozenset({"pressure.least", "membrane.feed"}),
        says="With more pressure (the pump’s switch set higher by a pump installer, or a booster)",
    ),
    Door(
        id="pump",
        opens=frozenset({"well.backwash"}),
        says="With a pump that gives more for backwashing (a pump installer, if the well gives it)",
    ),
    Door(
        id="owner",
        opens=frozenset({"space.tenant"}),
        says="With the owner’s written consent to plumbing",
    ),
)
HEIGHT_IN, RUNNING_PSI, PUMP_GPM = 84.0, 60.0, 15.0  # what a door gives: trade practice (2024)


def turning_points(
    now: Suggestion,
    water: Water,
    home: Home,
    items: Iterable[Item],
    meant: Callable[[Water], Meaning],
    searched: Searched,
    settings: Settings,
) -> tuple[TurningPoint, ...]:
    """What would put another system first, tests before changes of the place.

    Args:
        now: what is proposed; meant: what a water means in this home; searched: what is proposed
            for a water and a home, of these items.
    """
    catalogue = tuple(items)
    if not now.lines or not catalogue:
        return ()
    asked = _Asked(now, home, water, thinned(catalogue, now), meant, searched, settings)
    return (*asked.tests(), *asked.finer(), *asked.doors())


def thinned(items: tuple[Item, ...], now: Suggestion) -> tuple[Item, ...]:
    """The items that the best of the first ideas are made of; of every kind and branch that they
    have none of, the cheapest and one of the middle; and the parts of systems.
    """
    ideas = {x.option.name: x for x in reversed(now.lines)}
    best = sorted(ideas.values(), key=now.lines.index)[:MOST_IDEAS]
    used = {s.item for x in best for s in x.option.stages}
    kept = {i.code for i in items if i.code in used}
    had = {(i.kind, i.scope) for i in items if i.code in used}
    by: dict[tuple[str, str], list[Item]] = {}
    for i in items:
        if (i.kind, i.scope) not in had:
            by.setdefault((i.kind, i.scope), []).append(i)
    for alike in by.values():
        alike.sort(key=lambda i: (i.price, i.code))
        kept |= {alike[n].code for n in (0, len(alike) // 2)}
    return _with_their_parts(items, kept)


def _with_their_parts(items: tuple[Item, ...], kept: set[str]) -> tuple[Item, ...]:
    """Items that are kept, with the parts of systems among them, and no part of another: by itself
    it is not sold.
    """
    systems = [(i.code, i.figures.parts) for i in items if isinstance(i.figures, SystemFigures)]
    inside = {p for code, parts in systems if code in kept for p in parts}
    loose = {p for _, parts in systems for p in parts} - inside
    return tuple(
        i
        for i in items
        if i.code in inside or (i.code in kept and (i.price or i.code not in loose))
    )


class _Asked:
    """One answer, searched again as things could be."""

    def __init__(
        self,
        now: Suggestion,
        home: Home,
        water: Water,
        items: tuple[Item, ...],
        meant: Callable[[Water], Meaning],
        searched: Searched,
        settings: Settings,
    ) -> None:
        self._now, self._home, self._water, self._items = now, home, water, items
        self._meant, self._searched, self._settings = meant, searched, settings
        self._meaning = meant(water)

    # -- tests

    def tests(self) -> tuple[TurningPoint, ...]:
        """Tests that could put another system first."""
        told = (self._test(p) for p in self._open_tests()[:MOST_TESTS])
        return tuple(t for t in told if t is not None)

    def _open_tests(self) -> list[Plausible]:
        """Tests not made whose finding would ask for something, those first that this home's
        source and complaints ask for.
        """
        missing = {u.analyte for u in self._meaning.missing}
        untested = [
            p
            for p in PLAUSIBLE
            if p.analyte not in self._water.values
            and (self._home.private or not p.private)
            and self._asks_for(self._with(p.analyte, p.at), p.analyte)
        ]
        return sorted(untested, key=lambda p: p.analyte not in missing)

    def _asks_for(self, water: Water, analyte: str) -> bool:
        return any(f.analyte == analyte for f in self._meant(water).findings)

    def _with(self, analyte: str, at: float | str) -> Water:
        said = Value(
            analyte=analyte,
            unit=ANALYTES[analyte].unit,
            range=None if isinstance(at, str) else Range.exact(at),
            words=at if isinstance(at, str) else "",
            laboratory=True,
            certified=True,
        )
        return replace(self._water, values={**self._water.values, analyte: said})

    def _search(self, water: Water, home: Home) -> Suggestion:
        return self._searched(water, home, self._items)

    def _test(self, p: Plausible) -> TurningPoint | None:
        then = self._search(self._with(p.analyte, p.at), self._home)
        if not _turns(self._now, then):
            return None
        name = ANALYTES[p.analyte].said
        found = f"If {p.at}" if isinstance(p.at, str) else f"At {self._figure(p.analyte, p.at)}"
        turns = "" if isinstance(p.at, str) else self._turns_at(p, p.at)
        return self._told(
            f"test.{p.analyte}",
            f"Not tested: {name}. {found}, {_first(then)} would stand first{self._beside(then)}."
            f"{turns} {p.how}",
            then,
        )

    def _figure(self, analyte: str, at: float) -> str:
        return value(analyte, Range.exact(at), None, self._settings.units)

    def _turns_at(self, p: Plausible, high: float) -> str:
        """The figure from which another system stands first, narrowed down."""
        low = p.clean
        if self._turned(p.analyte, low):
            return ""
        for _ in range(HALVINGS):
            middle = (low + high) / 2
            low, high = (low, middle) if self._turned(p.analyte, middle) else (middle, high)
        between = (self._figure(p.analyte, at) for at in sorted((low, high)))
        return " It turns between {} and {}.".format(*between)

    def _turned(self, analyte: str, at: float) -> bool:
        return _turns(self._now, self._search(self._with(analyte, at), self._home))

    # -- readings that are coarse

    def finer(self) -> tuple[TurningPoint, ...]:
        """Readings whose range ends where another system stands first."""
        told = (self._finer(a) for a in self._coarse()[:MOST_RANGES])
        return tuple(t for t in told if t is not None)

    def _coarse(self) -> list[str]:
        """Readings that mean something else at the ends of their range; the widest first."""
        wide = {}
        for analyte, v in self._water.values.items():
            r = v.range
            if r is not None and r.high is not None and r.high > r.low:
                low, high = self._says(analyte, r.low), self._says(analyte, r.high)
                if low != high:
                    wide[analyte] = (r.high - r.low) / (r.best or 1.0)
        return sorted(wide, key=lambda a: (-wide[a], a))

    def _says(self, analyte: str, at: float) -> frozenset[str]:
        return frozenset(f.id for f in self._meant(self._read(analyte, at)).findings)

    def _read(self, analyte: str, at: float) -> Water:
        """The water with a reading at one figure of its range [canonical unit]."""
        there = replace(self._water.values[analyte], range=Range.exact(at))
        return replace(self._water, values={**self._water.values, analyte: there})

    def _finer(self, analyte: str) -> TurningPoint | None:
        r = self._water.values[analyte].range
        assert r is not None and r.high is not None
        for at in (r.low, r.high):
            then = self._search(self._read(analyte, at), self._home)
            if _turns(self._now, then):
                name = ANALYTES[analyte].said
                read = value(analyte, r, None, self._settings.units)
                return self._told(
                    f"finer.{analyte}",
                    f"{name[:1].upper()}{name[1:]} was read as {read}. At"
                    f" {self._figure(analyte, at)}, {_first(then)} would stand"
                    f" first{self._beside(then)}. A second reading, or a finer test, tells which.",
                    then,
                )
        return None

    # -- doors

    def doors(self) -> tuple[TurningPoint, ...]:
        """Changes of the place that let a better system stand."""
        stopped = frozenset(x.rule for x in self._now.left_out)
        shut = [d for d in DOORS if d.shut(stopped)]
        told = (self._door(d) for d in shut[:MOST_DOORS])
        return tuple(t for t in told if t is not None)

    def _door(self, door: Door) -> TurningPoint | None:
        water, home = _opened(door, self._water, self._home)
        then = self._search(water, home)
        if not _turns(self._now, then):
            return None
        priced = _price_of(door, self._settings)
        gain = self._gain(then, priced or Decimal(0))
        if not gain:
            return None
        about = "" if priced is None else f" for about {self._settings.currency}{priced:,.0f}"
        opens = sum(x.rule in door.opens for x in self._now.left_out)
        many = "1 item" if opens == 1 else f"{opens} items"
        return self._told(
            f"place.{door.id}",
            f"{door.says}{about}, {many} of the catalog could stand here, and {_first(then)}"
            f" would stand first: {gain}.",
            then,
        )

    def _gain(self, then: Suggestion, price: Decimal) -> str:
        """What the first system gains on today's first, once the place was changed for ``price``
        [money]; empty where it is no gain.
        """
        a, b = then.lines[0], self._now.lines[0]
        more = [n for n in b.leaves if n not in a.leaves]
        if more:
            return "it also treats " + ", ".join(ANALYTES[n].said for n in more)
        saved = b.cost - a.cost - float(price)
        if a.missing or len(a.leaves) > len(b.leaves) or saved < WORTH_SAYING:
            return ""
        return f"about {self._sum(saved)} less over {self._now.years} years"

    # -- words

    def _sum(self, amount: float) -> str:
        said = sum_over(Decimal(str(round(amount, 2))), self._now.years)
        return f"{self._settings.currency}{said:,.0f}"

    def _beside(self, then: Suggestion) -> str:
        """What it costs beside what stands first now."""
        a, b = then.lines[0], self._now.lines[0]
        more = a.cost - b.cost
        if not (a.option.stages and b.option.stages) or a.missing or b.missing or abs(more) < 1:
            return ""
        than = "more" if more > 0 else "less"
        return f", for about {self._sum(abs(more))} {than} over {then.years} years"

    @staticmethod
    def _told(id: str, sentence: str, then: Suggestion) -> TurningPoint:
        first = then.lines[0]
        return TurningPoint(id=id, sentence=sentence, first=first.option.name, price=first.price)


def _idea(s: Suggestion) -> str:
    return s.lines[0].option.name if s.lines else ""


def _turns(now: Suggestion, then: Suggestion) -> bool:
    """Whether another idea stands first."""
    return bool(then.lines) and _idea(now) != _idea(then)


def _first(s: Suggestion) -> str:
    """The first idea as it stands within a sentence."""
    return f"“{_idea(s)}”"


def _price_of(door: Door, settings: Settings) -> Decimal | None:
    """What a door costs by the firm's own prices [money]; None where it has none."""
    asked = {
        "drain": (settings.drain_price,),
        "socket": (settings.outlet_price,),
        "drain_socket": (settings.drain_price, settings.outlet_price),
    }.get(door.id, ())
    known = [p for p in asked if p is not None]
    return sum(known, Decimal(0)) if known and len(known) == len(asked) else None


def _opened(door: Door, water: Water, home: Home) -> tuple[Water, Home]:
    """A place with what a door gives; pressure that was read gives way to it."""
    if door.id == "pressure":
        read = ("pressure_running", "pressure_static")
        values = {n: v for n, v in water.values.items() if n not in read}
        more = replace(home, running_psi=RUNNING_PSI, static_psi=RUNNING_PSI)
        return replace(water, values=values), more
    given: dict[str, object] = {}
    if "space.drain" in door.opens:
        given["drain"] = True
    if "space.socket" in door.opens:
        given["socket"] = True
    if door.id == "owner":
        given["tenant"] = False
    if door.id == "headroom":
        given["headroom_in"] = HEIGHT_IN
    if door.id == "pump":
        given["pump_gpm"] = PUMP_GPM
    return water, replace(home, **given)  # type: ignore[arg-type]
