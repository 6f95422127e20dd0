"""The replacements of a recommended line as a calendar that any calendar program
opens (RFC 5545).
"""

from __future__ import annotations

from collections.abc import Iterable
from datetime import date, datetime, time, timedelta
from typing import NamedTuple

from icalendar import Alarm, Calendar, Event

from ..core.costing.chores import MONTHS
from ..core.errors import RuleError
from ..core.presenting.offer import Offer
from ..core.units import DAYS_PER_MONTH

MOST_EVENTS = 400


def _line(text: str) -> str:
    """A text on one line: what breaks lines or steers a screen becomes a blank."""
    return " ".join("".join(c if c.isprintable() else " " for c in text).split())


def due_dates(start: date, every_months: float, years: int) -> list[date]:
    """Dates at k × interval while below the horizon, rounded to a day for showing only."""
    out, k = [], 1
    while k * every_months < 12 * years - 1e-9:
        out.append(start + timedelta(days=round(k * every_months * DAYS_PER_MONTH)))
        k += 1
    return out


class Entry(NamedTuple):
    """One thing on a calendar of visits, jobs and what falls due: on a day, at an hour of it [UTC
    aside, as the clock at the home shows it], or from a ``start`` that has its zone.
    """

    uid: str
    on: date
    at: time | None
    title: str
    place: str
    words: str
    start: datetime | None = None


def round_calendar(name: str, entries: Iterable[Entry], stamp: datetime) -> bytes:
    """A calendar that refreshes itself, for jobs and what falls due.

    Args:
        name: what it is called. stamp: when it was written.
    """
    calendar = Calendar()
    calendar.add("prodid", "-//Zesty Glass//Round//EN")
    calendar.add("version", "2.0")
    calendar.add("method", "PUBLISH")
    calendar.add("x-wr-calname", _line(name))
    calendar.add("refresh-interval", timedelta(hours=6), parameters={"VALUE": "DURATION"})
    for e in entries:
        event = Event()
        event.add("uid", f"{e.uid}@zesty-glass")
        event.add("dtstamp", stamp)
        if e.start is not None:
            event.add("dtstart", e.start)
            event.add("dtend", e.start + timedelta(hours=1))
        elif e.at is None:
            event.add("dtstart", e.on)
            event.add("dtend", e.on + timedelta(days=1))
        else:
            event.add("dtstart", datetime.combine(e.on, e.at))
            event.add("dtend", datetime.combine(e.on, e.at) + timedelta(hours=2))
        event.add("summary", _line(e.title))
        event.add("location", _line(e.place))
        event.add("description", _line(e.words))
        calendar.add_component(event)
    return bytes(calendar.to_ical())


class _Repeated(NamedTuple):
    """What is done again and again: what, how often [months], and why in words."""

    label: str
    months: float
    words: str


def _repeated(offer: Offer, years: int) -> list[_Repeated]:
    """Parts of the recommended line that are changed, and salt that is filled in."""
    chosen = next((o for o in offer.options if o.id == offer.recommended), None)
    costs = None if chosen is None else next((c for c in chosen.costs if c.years >= years), None)
    if chosen is None or costs is None:
        return []
    parts = [
        _Repeated(
            x.label,
            x.interval_months,
            f"Every {x.interval_months:.1f} months: {x.why}. About"
            f" {offer.currency}{x.price:,.2f} in today’s prices.",
        )
        for x in costs.lines
        if x.interval_months is not None
    ]
    work = () if chosen.chores is None else chosen.chores.chores
    salt = [
        _Repeated(
            c.label,
            MONTHS / c.times_year,
            f"About {c.bags:.0f} bags of salt of 40 lb a year, by the hardness and the use of this"
            " home. Look for a bridge of hard salt.",
        )
        for c in work
        if c.kind == "salt" and c.times_year > 0
    ]
    return parts + salt


def _event(uid: str, what: _Repeated, day: date, stamp: datetime) -> Event:
    event = Event()
    event.add("uid", uid)
    event.add("dtstamp", stamp)
    event.add("dtstart", day)
    event.add("dtend", day + timedelta(days=1))
    event.add("summary", _line(what.label))
    event.add("description", _line(what.words))
    event.add("transp", "TRANSPARENT")
    alarm = Alarm()
    alarm.add("action", "DISPLAY")
    alarm.add("description", _line(what.label))
    alarm.add("trigger", timedelta(days=-7))
    event.add_component(alarm)
    return event


def service_calendar(
    offer: Offer, proposal_id: str, start: date, stamp: datetime, years: int = 5
) -> bytes:
    """What falls due on the recommended line, from the day it is installed.

    Args:
        start: day of installing; stamp: when the calendar was written; years: how far it goes.

    Raises:
        RuleError: nothing recommended falls due, or too much.
    """
    repeated = _repeated(offer, years)
    if not repeated:
        raise RuleError(
            "calendar.empty",
            "Nothing of this proposal falls due.",
            "recommended",
            "A calendar is for a line with filters, lamps, media or salt.",
        )
    calendar = Calendar()
    calendar.add("prodid", "-//Zesty Glass//Service calendar//EN")
    calendar.add("version", "2.0")
    calendar.add("method", "PUBLISH")
    calendar.add("x-wr-calname", _line(f"Water treatment, {offer.home}"))
    days = [(n, x, due_dates(start, x.months, years)) for n, x in enumerate(repeated)]
    if sum(len(d) for _, _, d in days) > MOST_EVENTS:
        raise RuleError(
            "calendar.many",
            f"More than {MOST_EVENTS} dates in {years} years.",
            "years",
            "Ask for fewer years.",
        )
    for n, x, due in days:
        for k, day in enumerate(due, 1):
            calendar.add_component(_event(f"{proposal_id}-{n}-{k}@zesty-glass", x, day, stamp))
    return bytes(calendar.to_ical())
