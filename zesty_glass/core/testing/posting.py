"""Whether a bottle drawn now reaches its laboratory in time by post, and the day that is best."""

from __future__ import annotations

import math
from datetime import datetime, time, timedelta

from ..clock import time_of_day
from ..record import record
from .by_laboratory import RADON_HALF_LIFE_D
from .laboratory import LabKind

CUTOFF = time(16, 0)  # when nothing is said: posts are usually cleared by then
ARRIVES = time(12, 0)  # on the next working day
SATURDAY = 5


@record
class Posting:
    """A bottle of one kind, drawn at a time.

    Args:
        posted: when it leaves by post; arrives: when it is at the laboratory.
        in_time: it arrives within its holding time.
        sentence: what to do, in words.
    """

    kind: str
    posted: datetime
    arrives: datetime
    in_time: bool
    sentence: str


def cutoff(text: str) -> time:
    """The hour by which the post is handed in, from "HH:MM"; 16:00 where none is said."""
    return time_of_day(text, "settings.post_cutoff") if text else CUTOFF


def _works(day: datetime) -> bool:
    return day.weekday() < SATURDAY


def _next_working(day: datetime) -> datetime:
    day += timedelta(days=1)
    while not _works(day):
        day += timedelta(days=1)
    return day


def _at(day: datetime, clock: time) -> datetime:
    return day.replace(hour=clock.hour, minute=clock.minute, second=0, microsecond=0)


def travel(drawn: datetime, by: time) -> tuple[datetime, datetime]:
    """When a bottle leaves by post and when it arrives: the next working day at noon. Holidays are
    not known here.
    """
    leaves = _at(drawn, by)
    if not _works(drawn) or drawn > leaves:
        leaves = _at(_next_working(drawn), by)
    return leaves, _at(_next_working(leaves), ARRIVES)


def radon_left(hours: float) -> float:
    """The share of radon left [0 to 1] after so many hours: 2^(−hours / 24 / 3.8235).

    Args:
        hours: since it was drawn [h].

    Source: half-life of radon-222, 3.8235 d (Decay data evaluation project, 2010).

    >>> round(radon_left(48.0), 2)
    0.7
    """
    return math.exp2(-hours / 24.0 / RADON_HALF_LIFE_D)


def _best_day(kind: LabKind, drawn: datetime, by: time) -> datetime | None:
    """The next morning on which a bottle can be drawn and arrives in time."""
    for n in range(1, 8):
        morning = _at(drawn + timedelta(days=n), time(9, 0))
        if travel(morning, by)[1] <= morning + timedelta(hours=kind.holding_h):
            return morning
    return None


def posting(kind: LabKind, drawn: datetime, by: time = CUTOFF) -> Posting:
    """How a bottle drawn at a time fares by post, with the day that is better where it is late."""
    leaves, arrives = travel(drawn, by)
    deadline = drawn + timedelta(hours=kind.holding_h)
    in_time = arrives <= deadline
    if in_time:
        said = [f"By post on {leaves:%A} before {leaves:%H:%M} it arrives in time."]
    else:
        said = [f"By post it is too late: take it there by {deadline:%A %H:%M}."]
        best = _best_day(kind, drawn, by)
        if best is not None:
            said.append(f"Or draw it on {best:%A} morning and post it that day.")
    if kind.id == "radon":
        hours = (arrives - drawn).total_seconds() / 3600
        left = 100 * radon_left(hours)
        said.append(f"When it arrives, after {hours:.0f} h, {left:.0f} % of the radon is left.")
    return Posting(
        kind=kind.id, posted=leaves, arrives=arrives, in_time=in_time, sentence=" ".join(said)
    )
