"""The second test: the same tests again some days after those behind the flush, so that a line is
not judged by its first hours.
"""

from __future__ import annotations

from datetime import date, timedelta

from ..analytes import MICROBES
from ..record import record
from .care import Falling, Part, state_on
from .proof import Promise, Proof

SECOND_AFTER = timedelta(days=7)  # after the fitting: trade practice (2024)
KEY = "second-test"


@record
class SecondTest:
    """From which day the same tests are made again, and of what."""

    on: date
    promises: tuple[Promise, ...]


def second_test(
    promises: tuple[Promise, ...], proofs: tuple[Proof, ...], fitted_on: date | None
) -> SecondTest | None:
    """What was measured behind the flush and not again days later; None where nothing is left.

    Bacteria are a laboratory's: its one result behind the disinfection closes them.
    """
    if fitted_on is None:
        return None

    def measured(phase: str) -> set[tuple[str, str]]:
        live = (p for p in proofs if p.phase == phase and p.reading.struck_at is None)
        return {(p.reading.analyte, p.where) for p in live}

    open_ = measured("flushed") - measured("later")
    left = tuple(p for p in promises if (p.analyte, p.where) in open_ and p.analyte not in MICROBES)
    return SecondTest(on=fitted_on + SECOND_AFTER, promises=left) if left else None


def as_falling(second: SecondTest, today: date) -> Falling:
    """The second test as something that falls due once."""
    part = Part(
        key=KEY,
        stage="",
        label="Second test of the water",
        kind="test",
        months=0.0,
        own=False,
        minutes=20,
        why="some days after the fitting",
    )
    last = second.on - SECOND_AFTER
    return Falling(
        part=part, last=last, next=second.on, state=state_on(second.on, today), changed=0
    )
