"""When a line's stages rinse themselves: in quiet hours, as they are set, never two at once."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import replace

from .adjusting import HOUR, set_to
from .checks import told
from .items import Item
from .option import StageChoice
from .report import Check, StageReport
from .stages import TECHNOLOGIES

FIRST_HOUR = 1  # [h] of the morning, when nobody draws water: trade practice (2024)
HOURS = 24


def hours_told(pairs: Sequence[tuple[Item, StageChoice]]) -> dict[int, int]:
    """Hours that were set on stages, by their place in the line [h].

    Raises:
        RuleError: ``stage.setting``, for an hour that no day has.
    """
    return {
        i: int(set_to(HOUR, choice.overrides, FIRST_HOUR))
        for i, (_, choice) in enumerate(pairs)
        if HOUR.key in choice.overrides
    }


def clock_hours(
    reports: Sequence[StageReport], told: Mapping[int, int] | None = None
) -> dict[int, int]:
    """The hour at which each stage that rinses itself does so [h], by its place in the line: as it
    was set, the others one after the other from the first quiet hour.

    Args:
        told: hours that somebody set, by the stage's place [h].
    """
    set_ = told or {}
    rinse = {t.kind for t in TECHNOLOGIES.values() if t.rinses}
    timed = [i for i, r in enumerate(reports) if r.kind in rinse and r.drains]
    free = (h for h in range(FIRST_HOUR, FIRST_HOUR + HOURS) if h not in set_.values())
    return {i: set_[i] if i in set_ else next(free) for i in timed}


def hour_words(hour: int) -> str:
    """An hour as it is said.

    >>> hour_words(1), hour_words(0), hour_words(14), hour_words(22)
    ('1 in the morning', 'midnight', '2 in the afternoon', '10 in the evening')
    """
    if hour == 0:
        return "midnight"
    if hour < 12:
        return f"{hour} in the morning"
    of_day = "afternoon" if hour < 18 else "evening"
    return f"{(hour - 1) % 12 + 1} in the {of_day}"


def at_hour(r: StageReport, hour: int | None) -> StageReport:
    """A stage with its hour among what is dialled on its valve."""
    if hour is None:
        return r
    return replace(r, settings=(*r.settings, ("Clock", hour_words(hour))))


def hour_checks(reports: Sequence[StageReport], hours: Mapping[int, int]) -> list[Check]:
    """What several stages that rinse themselves want of their clocks."""
    if len(hours) < 2:
        return []
    said = ", ".join(f"{reports[i].name} at {hour_words(hour)}" for i, hour in hours.items())
    if len(set(hours.values())) < len(hours):
        return [told("line.same_hour", "warn", what=said)]
    sentence = f"Never two at once, in a quiet hour: {said}."
    return [Check(id="line.hours", status="say", sentence=sentence)]
