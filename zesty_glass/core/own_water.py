"""The firm's own carried water as one card: when it was filled, when it was last checked, and what
a laboratory reported of it. A tasting takes it only as long as all three hold.
"""

from __future__ import annotations

from datetime import date, timedelta

from .record import record

FRESH = timedelta(days=7)  # carried water is filled anew each week: trade practice (2024)
CHECKED = timedelta(days=31)
REPORTED = timedelta(days=365)
NITRATE_N_MOST = 10.0  # [mg/L as N] maximum, 40 CFR 141.62 (1992)


@record
class OwnWater:
    """The card; empty until somebody fills it in.

    Args:
        filled_on, checked_on, reported_on: days; None: not known.
        check: what was read at the last check, in words.
        laboratory, report_number: whose report, and which.
        bacteria_absent: whether it reports no coliform; nitrate_n: what it reports [mg/L as N].
    """

    filled_on: date | None = None
    checked_on: date | None = None
    check: str = ""
    laboratory: str = ""
    report_number: str = ""
    reported_on: date | None = None
    bacteria_absent: bool | None = None
    nitrate_n: float | None = None


def _old(day: date | None, most: timedelta, today: date) -> bool:
    """Whether a day is not known, lies ahead, or is longer ago than ``most``."""
    return day is None or not timedelta(0) <= today - day <= most


def lacking(card: OwnWater, today: date) -> tuple[str, ...]:
    """All that the card lacks on a day, in words; empty when the water may be tasted.

    >>> lacking(OwnWater(), date(2026, 11, 26))[0]
    'filled within 7 days'
    """
    reported = not _old(card.reported_on, REPORTED, today) and bool(card.report_number.strip())
    nitrate = card.nitrate_n is not None and 0 <= card.nitrate_n <= NITRATE_N_MOST
    wanted = (
        (_old(card.filled_on, FRESH, today), f"filled within {FRESH.days} days"),
        (_old(card.checked_on, CHECKED, today), f"checked within {CHECKED.days} days"),
        (not reported, "a laboratory report of the last year, with its number"),
        (card.bacteria_absent is not True, "bacteria reported absent"),
        (not nitrate, f"nitrate reported, at most {NITRATE_N_MOST:g} mg/L as N"),
    )
    return tuple(words for missing, words in wanted if missing)
