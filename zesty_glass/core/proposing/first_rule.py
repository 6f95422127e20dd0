"""One thing to do before buying, as a rule."""

from __future__ import annotations

from collections.abc import Callable

from ..record import record
from .looked_at import At

PRACTICE = "trade practice"


@record
class First:
    """One thing to do before buying, with when it holds, its source and year."""

    id: str
    sentence: str
    source: str
    year: int
    holds: Callable[[At], bool]
