"""A value with its range, carried through every calculation.

``high`` is ``None`` where an instrument has no upper end ("at least"). A range against a limit is
met only when the whole range meets it, not met only when the whole range fails, unknown where it
has no upper end against an upper limit, and uncertain otherwise.
"""

from __future__ import annotations

import math
from collections.abc import Callable
from enum import StrEnum

from .errors import RuleError
from .record import record


class Verdict(StrEnum):
    """How a value with its range stands against a need."""

    MET = "met"
    NOT_MET = "not_met"
    UNCERTAIN = "uncertain"
    UNKNOWN = "unknown"


@record
class Range:
    """Best value with its low and high end, all in one unit; ``high`` None means no upper end."""

    best: float
    low: float
    high: float | None

    def __post_init__(self) -> None:
        finite = math.isfinite
        if not (
            finite(self.best) and finite(self.low) and (self.high is None or finite(self.high))
        ):
            raise RuleError(
                "range.not_finite", "A range holds a number that is not finite.", "range"
            )
        if self.low > self.best + 1e-9 or (self.high is not None and self.best > self.high + 1e-9):
            raise RuleError(
                "range.order",
                f"The range {self.low} to {self.high} does not hold {self.best}.",
                "range",
            )

    @property
    def top(self) -> float:
        """The upper end; infinity where there is none, so that no open range is under anything."""
        return math.inf if self.high is None else self.high

    @property
    def seen_top(self) -> float:
        """The largest value that was seen: for a drawing’s scale and for corners of a formula,
        never against a limit.
        """
        return self.best if self.high is None else self.high

    @staticmethod
    def exact(value: float) -> Range:
        """A range of no width."""
        return Range(best=value, low=value, high=value)

    @staticmethod
    def of(low: float, best: float, high: float | None) -> Range:
        """Shorthand in reading order."""
        return Range(best=best, low=low, high=high)

    def scale(self, factor: float) -> Range:
        """All three ends times ``factor`` (≥ 0)."""
        high = None if self.high is None else self.high * factor
        return Range(best=self.best * factor, low=self.low * factor, high=high)

    def plus(self, other: Range) -> Range:
        """Sum, low with low and high with high."""
        high = None if self.high is None or other.high is None else self.high + other.high
        return Range(best=self.best + other.best, low=self.low + other.low, high=high)

    def minus(self, other: Range, floor: float | None = 0.0) -> Range:
        """Difference: low − other.high to high − other.low, not below ``floor`` when
        one is given.
        """

        def held(value: float) -> float:
            return value if floor is None else max(floor, value)

        low = held(-math.inf if other.high is None else self.low - other.high)
        high = None if self.high is None else held(self.high - other.low)
        if not math.isfinite(low):
            raise RuleError(
                "range.open", "A range without an upper end cannot be subtracted here.", "range"
            )
        return Range(best=held(self.best - other.best), low=low, high=high)

    def removed(self, low: float, best: float, high: float) -> Range:
        """What is left when a share (0 to 1) from ``low`` to ``high`` is taken out."""
        end = None if self.high is None else self.high * (1 - low)
        return Range(best=self.best * (1 - best), low=self.low * (1 - high), high=end)

    def overlaps(self, other: Range) -> bool:
        """Whether the two ranges share a value; touching ranges do."""
        return (self.high is None or other.low <= self.high) and (
            other.high is None or self.low <= other.high
        )

    def apply(self, function: Callable[[float], float]) -> Range:
        """Ends under a monotonic function; order is restored when it falls."""
        if self.high is None:
            return Range(best=function(self.best), low=function(self.low), high=None)
        low, high = sorted((function(self.low), function(self.high)))
        return Range(best=min(max(function(self.best), low), high), low=low, high=high)

    def at_most(self, limit: float) -> Verdict:
        """Against an upper limit; unknown where the upper end is open and may be anywhere."""
        if self.top <= limit:
            return Verdict.MET
        if self.low > limit:
            return Verdict.NOT_MET
        return Verdict.UNKNOWN if self.high is None else Verdict.UNCERTAIN

    def at_least(self, limit: float) -> Verdict:
        """Against a lower limit."""
        if self.low >= limit:
            return Verdict.MET
        return Verdict.NOT_MET if self.high is not None and self.high < limit else Verdict.UNCERTAIN
