"""Readings and cost schedules as CSV, for a spreadsheet. Cells that a spreadsheet would run as a
formula are defused.
"""

from __future__ import annotations

from collections.abc import Iterable

from ..core.analytes import ANALYTES
from ..core.assess import Assessment
from ..core.presenting.offer import Offer
from ..core.visit import Visit
from . import sheets

READING_COLUMNS = (
    "sample",
    "place",
    "drawn_at",
    "analyte",
    "name",
    "best",
    "low",
    "high",
    "unit",
    "under",
    "words",
    "method",
    "instrument",
    "made_at",
    "by",
    "struck",
    "flags",
)
COST_COLUMNS = (
    "option",
    "name",
    "recommended",
    "years",
    "what",
    "kind",
    "branch",
    "price",
    "every_months",
    "times",
    "total",
    "why",
)


def _write(head: tuple[str, ...], rows: Iterable[Iterable[object]]) -> bytes:
    return sheets.write(head, rows).encode()


def rows_csv(head: tuple[str, ...], rows: Iterable[Iterable[object]]) -> bytes:
    """Rows under their heads; what is not known is empty."""
    return _write(head, (["" if x is None else x for x in row] for row in rows))


def readings_csv(visit: Visit, assessed: Assessment) -> bytes:
    """Every reading of a visit with its range, in canonical units; struck ones too, marked."""
    rows = []
    for s, report in zip(visit.samples, assessed.samples, strict=True):
        for r, worked in zip(s.readings, report.readings, strict=True):
            v = worked.value
            best, low, high = (
                (None, None, None) if v.range is None else (v.range.best, v.range.low, v.range.high)
            )
            rows.append(
                (
                    s.name,
                    s.place,
                    s.drawn_at.isoformat(),
                    r.analyte,
                    ANALYTES[r.analyte].name,
                    *(None if x is None else repr(float(f"{x:.10g}")) for x in (best, low, high)),
                    v.unit,
                    v.below,
                    v.words,
                    r.observation.method,
                    r.instrument.name,
                    r.made_at.isoformat(),
                    r.by,
                    "yes" if worked.struck else "no",
                    " ".join(f.sentence for f in v.flags),
                )
            )
    return _write(READING_COLUMNS, rows)


def costs_csv(offer: Offer) -> bytes:
    """Every line of every option's cost schedule over every horizon, as the proposal froze it."""
    rows = [
        (
            o.letter or "today",
            o.name,
            "yes" if o.id == offer.recommended else "no",
            c.years,
            x.label,
            x.kind,
            x.scope,
            x.price,
            "" if x.interval_months is None else f"{x.interval_months:.4g}",
            x.times,
            x.total,
            x.why,
        )
        for o in offer.options
        for c in o.costs
        for x in c.lines
    ]
    return _write(COST_COLUMNS, rows)
