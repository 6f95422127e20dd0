"""The example catalog that the demo and every new firm begin with: about seventy invented items
from invented makers, good and poor ones.

They stand in ``examples.json``, in the form that a firm brings its own in by, and are read in that
way.
"""

from __future__ import annotations

from functools import cache
from pathlib import Path

from ..core.treating.items import Item
from .files import read

FILE = Path(__file__).with_name("examples.json")


@cache
def example_items() -> tuple[Item, ...]:
    """Every item of the example catalog.

    Raises:
        ValueError: the file holds what is no item; rows and reasons are named.
    """
    preview, items = read(FILE.read_bytes(), {})
    if not preview.good:
        wrong = [f"{r.row} {r.code}: {r.error}" for r in preview.rows if r.error]
        raise ValueError(f"{FILE.name}: {'; '.join(wrong)}")
    return items
