"""The demo firm's catalogue: about sixty invented items from invented makers, good and poor ones.

They stand in ``catalogue.json``, in the form that a firm brings its own in by, and are read in that
way.
"""

from __future__ import annotations

from functools import cache
from pathlib import Path

from ..catalogue.files import read
from ..core.treating.items import Item

FILE = Path(__file__).with_name("catalogue.json")


@cache
def demo_items() -> tuple[Item, ...]:
    """Every item of the demo catalogue.

    Raises:
        ValueError: the file holds what is no item; rows and reasons are named.
    """
    preview, items = read(FILE.read_bytes(), {})
    if not preview.good:
        wrong = [f"{r.row} {r.code}: {r.error}" for r in preview.rows if r.error]
        raise ValueError(f"{FILE.name}: {'; '.join(wrong)}")
    return items
