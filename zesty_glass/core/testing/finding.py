"""One thing that the readings say, and how much it weighs."""

from __future__ import annotations

from enum import StrEnum

from ..analytes import Kind
from ..record import Words, record


class Weight(StrEnum):
    """How much a finding asks for."""

    FINE = "fine"
    NOT_JUDGED = "not_judged"
    NOTICE = "notice"
    ACT = "act"
    HEALTH = "health"


@record
class Finding:
    """One thing the readings say.

    Args:
        kind: health (the analyte's own, or over a limit of health), looks and taste,
            equipment and pipes.
        shown: value in words; ``span`` its range.
        band: band or bands it lies in; ``source`` and ``year`` of the band or limit that judged it.
        explains: ids of the complaints it explains.
        sure: False where the value's range straddles what judges it: measure finer before anything
            is sold for it.
        settled: False where a limit of health lies within its range, or right at it; at_limit: it
            is right at it, and complies.
    """

    id: str
    analyte: str
    kind: Kind
    weight: Weight
    sentence: str
    shown: str
    span: str
    band: str = ""
    limit: float | None = None
    source: str = ""
    year: int | None = None
    explains: tuple[Words, ...] = ()
    next: str = ""
    sure: bool = True
    settled: bool = True
    at_limit: bool = False
