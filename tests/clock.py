"""The server's clock, moved."""

from datetime import UTC, datetime, timedelta
from unittest import mock


def moved(days):
    """It goes on from so many days ahead, or behind."""
    by = timedelta(days=days)
    return mock.patch("zesty_glass.work.person.clock", lambda: datetime.now(UTC) + by)


def stopped(at):
    """It stands still at a moment."""
    return mock.patch("zesty_glass.work.person.clock", lambda: at)
