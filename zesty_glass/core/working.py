"""How a figure came about: what a slip shows when a number is opened."""

from __future__ import annotations

from .record import record


@record
class WorkingRow:
    """One line of a working: label, value as text, unit."""

    label: str
    value: str
    unit: str = ""
    total: bool = False


@record
class Working:
    """Formula, rows of inputs and results, source of the constants, and a note."""

    title: str
    formula: str
    rows: tuple[WorkingRow, ...]
    source: str
    note: str = ""


Triple = tuple[str, str, str] | tuple[str, str, str, bool]


def working(title: str, formula: str, source: str, *triples: Triple, note: str = "") -> Working:
    """A working from (label, value, unit) or (label, value, unit, total)."""
    rows = tuple(
        WorkingRow(label=t[0], value=t[1], unit=t[2], total=len(t) > 3 and bool(t[3]))
        for t in triples
    )
    return Working(title=title, formula=formula, rows=rows, source=source, note=note)
