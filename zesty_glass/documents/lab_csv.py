"""Laboratory results from CSV: preview first, errors by row, nothing half imported.

Columns (names in the first row, any order): ``analyte`` (identifier or name), ``result`` ("0.014", "< 0.5", "ND", "absent",
"present"), ``unit``; optional ``basis`` (N, NO3, NO2; collection, counting), ``detection_limit`` (for ND), ``uncertainty``,
``hours_to_count`` (radon as of counting), ``certified`` (yes/no), ``laboratory``.
"""

from __future__ import annotations

import csv
import re
from typing import Any

from ..core.analytes import ANALYTES
from ..core.errors import RuleError
from ..core.record import record
from ..core.testing.instruments import Instrument, InstrumentKind
from ..core.testing.observations import LaboratoryResult
from ..core.testing.reading import Value, laboratory
from . import sheets
from .incoming import text_of

LARGEST_BYTES, MOST_ROWS = 1_000_000, 500
COLUMNS = (
    "analyte",
    "result",
    "unit",
    "basis",
    "detection_limit",
    "uncertainty",
    "hours_to_count",
    "certified",
    "laboratory",
)
_NAMES = (
    {a.name.lower(): a.id for a in ANALYTES.values()}
    | {a.id: a.id for a in ANALYTES.values()}
    | {
        "nitrate": "nitrate_n",
        "nitrate as n": "nitrate_n",
        "nitrate as no3": "nitrate_n",
        "nitrite": "nitrite_n",
        "total coliform": "coliform",
        "e. coli": "e_coli",
        "hardness": "hardness",
        "iron": "iron",
        "ph": "ph",
        "tds": "tds",
        "uv transmittance": "uvt",
        "radon": "radon",
    }
)


@record
class LabRow:
    """One row of the file: its number, what it says, and what is wrong with it."""

    row: int
    analyte: str
    name: str
    result: LaboratoryResult | None
    value: Value | None
    error: str = ""
    where: str = ""
    remedy: str = ""


@record
class LabPreview:
    """The whole file; ``good`` when every row can be used."""

    rows: tuple[LabRow, ...]
    good: bool


def instrument_for(analyte: str) -> Instrument:
    """The laboratory as the instrument of an analyte."""
    return Instrument(
        id=f"lab-{analyte}",
        name="Certified laboratory",
        kind=InstrumentKind.LABORATORY,
        analyte=analyte,
    )


def _number(text: str, where: str) -> float:
    cleaned = text.strip().replace(" ", "")
    if re.fullmatch(r"\d{1,3}(,\d{3})+(\.\d+)?", cleaned):
        cleaned = cleaned.replace(",", "")
    elif re.fullmatch(r"\d+,\d+", cleaned):
        cleaned = cleaned.replace(",", ".")
    try:
        return float(cleaned)
    except ValueError:
        raise RuleError(
            "csv.number",
            f"“{text}” is not a number.",
            where,
            "Write a number, or < and the limit, ND, absent or present.",
        ) from None


def _result(cells: dict[str, str]) -> LaboratoryResult:
    text = cells["result"].strip()
    common: dict[str, Any] = {
        "unit": cells.get("unit", "").strip(),
        "basis": cells.get("basis", "").strip() or None,
        "laboratory": cells.get("laboratory", "").strip(),
        "certified": cells.get("certified", "yes").strip().lower() not in ("no", "false", "0"),
    }
    hours, uncertainty = (
        cells.get("hours_to_count", "").strip(),
        cells.get("uncertainty", "").strip(),
    )
    more: dict[str, Any] = {
        "hours_to_count": _number(hours, "hours_to_count") if hours else None,
        "uncertainty": _number(uncertainty, "uncertainty") if uncertainty else 0.0,
    }
    low = text.lower()
    if not text:
        raise RuleError(
            "csv.empty", "The result is empty.", "result", "Write what the report says."
        )
    if low in ("absent", "present"):
        return LaboratoryResult(
            qualifier="absent" if low == "absent" else "present", **common, **more
        )
    if low in ("nd", "n.d.", "not detected"):
        limit = cells.get("detection_limit", "").strip()
        if not limit:
            raise RuleError(
                "csv.limit",
                "ND needs the detection limit.",
                "detection_limit",
                "Add a column detection_limit, or write < and the limit.",
            )
        return LaboratoryResult(
            qualifier="<", value=_number(limit, "detection_limit"), **common, **more
        )
    if text.startswith("<"):
        return LaboratoryResult(qualifier="<", value=_number(text[1:], "result"), **common, **more)
    return LaboratoryResult(qualifier="=", value=_number(text, "result"), **common, **more)


def read(data: bytes) -> LabPreview:
    """The rows of a file, each worked out or with its error.

    Raises:
        RuleError: too large, not UTF-8, no header, a column missing or unknown, too many rows.
    """
    text = text_of(data, LARGEST_BYTES, "csv", remedy="Save it as CSV UTF-8.")
    reader = sheets.read(text, "csv")
    head = list(reader.fieldnames or [])
    for need in ("analyte", "result"):
        if need not in head:
            raise RuleError(
                "csv.column",
                f"There is no column “{need}”.",
                "row 1",
                f"The first row names the columns: {', '.join(COLUMNS)}.",
            )
    unknown = [h for h in head if h and h not in COLUMNS]
    if unknown:
        raise RuleError(
            "csv.column",
            f"The column “{unknown[0]}” is not known.",
            "row 1",
            f"Use: {', '.join(COLUMNS)}.",
        )
    rows: list[LabRow] = []
    for n, raw in _listed(reader):
        cells = {
            k: (v or "") for k, v in raw.items() if isinstance(k, str) and not isinstance(v, list)
        }
        if not any(c.strip() for c in cells.values()):
            continue
        rows.append(_row(n, cells))
    if not rows:
        raise RuleError(
            "csv.empty", "The file holds no result.", "row 2", "Add a row for each result."
        )
    return LabPreview(rows=tuple(rows), good=all(not r.error for r in rows))


def _listed(reader: csv.DictReader[str]) -> list[tuple[int, dict[Any, Any]]]:
    """Rows with their numbers, as many as are taken at once."""
    out: list[tuple[int, dict[Any, Any]]] = []
    try:
        for n, raw in enumerate(reader, 2):
            if len(out) >= MOST_ROWS:
                raise RuleError(
                    "csv.rows", f"More than {MOST_ROWS} rows.", f"row {n}", "Split the file."
                )
            out.append((n, raw))
    except csv.Error as e:
        raise sheets.no_csv("csv", e, reader.line_num) from e
    return out


def _row(n: int, cells: dict[str, str]) -> LabRow:
    name = cells["analyte"].strip()
    id = _NAMES.get(name.lower(), "")
    try:
        if not id:
            raise RuleError(
                "csv.analyte",
                f"“{name}” is not a known analyte.",
                "analyte",
                "See the list in docs/rules.md.",
            )
        result = _result(cells)
        return LabRow(
            row=n,
            analyte=id,
            name=ANALYTES[id].name,
            result=result,
            value=laboratory(instrument_for(id), result),
        )
    except RuleError as e:
        return LabRow(
            row=n,
            analyte=id,
            name=name,
            result=None,
            value=None,
            error=e.what,
            where=e.where.removeprefix("observation."),
            remedy=e.remedy,
        )
