"""Laboratory results from CSV: preview first, errors by row, nothing half imported.

Columns (names in the first row, any order): ``analyte`` (identifier or name), ``result`` ("0.014",
"< 0.5", "ND", "absent", "present"), ``unit``; optional ``basis`` (N, NO3, NO2; collection,
counting), ``detection_limit`` (for ND), ``uncertainty``, ``hours_to_count`` (radon as of counting),
``certified`` (yes/no; empty: not known), ``laboratory``, ``report`` (its number), ``report_date``,
``method``. A basis is needed for nitrate, nitrite, calcium, magnesium and alkalinity; a unit may
carry it ("mg/L HCO3").
"""

from __future__ import annotations

import csv
import re
from datetime import date
from typing import Any

from ..core.analytes import ANALYTES
from ..core.errors import RuleError
from ..core.record import record
from ..core.testing.by_laboratory import laboratory, report_bases
from ..core.testing.instruments import Instrument, InstrumentKind
from ..core.testing.observations import LaboratoryResult
from ..core.testing.value import Value
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
    "report",
    "report_date",
    "method",
)
#: what a row may call an analyte
_NAMES = {n.lower(): a.id for a in ANALYTES.values() for n in (a.name, a.id, *a.also)}


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


_PLAIN = re.compile(r"\d+(\.\d+)?([eE][-+]?\d+)?|\.\d+")
_THOUSANDS = re.compile(r"\d{1,3}(,\d{3})+(\.\d+)?")
_DECIMAL_COMMA = re.compile(r"\d+,\d+")


def _number(text: str, where: str, comma: bool = False) -> float:
    """A number as laboratories write them.

    A comma is decimal in a file with semicolons between its cells (``comma``), and after a leading
    0; elsewhere "1,234" may be two numbers and is refused.
    """
    cleaned = re.sub(r"[ \u00a0\u202f]", "", text.strip())
    if _DECIMAL_COMMA.fullmatch(cleaned) and (comma or cleaned.startswith("0,")):
        cleaned = cleaned.replace(",", ".")
    elif re.fullmatch(r"\d{1,3},\d{3}", cleaned):
        raise RuleError(
            "csv.comma",
            f"“{text}” may be {cleaned.replace(',', '')} or {cleaned.replace(',', '.')}.",
            where,
            "Write it with a point for decimals and nothing for thousands.",
        )
    elif _THOUSANDS.fullmatch(cleaned):
        cleaned = cleaned.replace(",", "")
    elif _DECIMAL_COMMA.fullmatch(cleaned):
        cleaned = cleaned.replace(",", ".")
    if _PLAIN.fullmatch(cleaned):
        return float(cleaned)
    raise RuleError(
        "csv.number",
        f"“{text}” is not a number.",
        where,
        "Write a number, or < and the limit, ND, absent or present.",
    )


#: units as laboratories write them -> as they are known here, and the basis that some of them carry
_UNITS = {
    "mg/l": "mg/L",
    "ppm": "mg/L",
    "ug/l": "µg/L",
    "ppb": "µg/L",
    "ng/l": "ng/L",
    "ppt": "ng/L",
    "mmol/l": "mmol/L",
    "su": "pH",
    "s.u.": "pH",
    "std units": "pH",
    "ph units": "pH",
    "ph": "pH",
    "ntu": "NTU",
    "gpg": "gpg",
    "pci/l": "pCi/L",
    "bq/l": "Bq/L",
    "per 100 ml": "per 100 mL",
    "/100 ml": "per 100 mL",
    "/100ml": "per 100 mL",
    "mpn/100 ml": "MPN/100 mL",
    "mpn/100ml": "MPN/100 mL",
    "cfu/100 ml": "CFU/100 mL",
    "cfu/100ml": "CFU/100 mL",
}
_BASES = {
    "as n": "N",
    "n": "N",
    "as no3": "NO3",
    "no3": "NO3",
    "as no2": "NO2",
    "no2": "NO2",
    "as hco3": "HCO3",
    "hco3": "HCO3",
    "as caco3": "CaCO3",
    "caco3": "CaCO3",
    "as ca": "Ca",
    "ca": "Ca",
    "as mg": "Mg",
}
_SUBSCRIPTS = str.maketrans("₀₁₂₃₄₅₆₇₈₉μ", "0123456789µ")
_ABSENT = frozenset({"absent", "negative", "not detected", "nd", "n.d.", "none", "<1", "< 1"})
_PRESENT = frozenset({"present", "positive", "detected"})
_UNDER = frozenset({"nd", "n.d.", "not detected", "bdl", "below detection limit"})


def _unit_and_basis(unit: str, basis: str) -> tuple[str, str | None]:
    """A unit and a basis as they are known here; "mg/L HCO3" carries both."""
    unit, basis = unit.translate(_SUBSCRIPTS).strip(), basis.translate(_SUBSCRIPTS).strip()
    head, _, tail = unit.replace("µ", "u").partition(" ")
    known = _UNITS.get(unit.replace("µ", "u").lower())
    if known is None and tail.lower() in _BASES and head.lower() in _UNITS:
        return _UNITS[head.lower()], basis or _BASES[tail.lower()]
    return known or unit, (_BASES.get(basis.lower(), basis) or None)


_SURE, _UNSURE = frozenset({"yes", "true", "1"}), frozenset({"no", "false", "0"})


def _certified(text: str) -> bool | None:
    """Yes, no, or not known: an empty cell says nothing."""
    said = text.strip().lower()
    if said in _SURE:
        return True
    return False if said in _UNSURE else None


def _day(text: str) -> date | None:
    try:
        return date.fromisoformat(text.strip()) if text.strip() else None
    except ValueError:
        raise RuleError(
            "csv.date", f"“{text}” is not a date.", "report_date", "Write it as 2026-11-20."
        ) from None


def _result(analyte: str, cells: dict[str, str], comma: bool) -> LaboratoryResult:
    text = cells["result"].strip()
    if not text:
        raise RuleError(
            "csv.empty", "The result is empty.", "result", "Write what the report says."
        )
    unit, basis = _unit_and_basis(cells.get("unit", ""), cells.get("basis", ""))
    about, mass = ANALYTES[analyte], unit in ("", "mg/L", "µg/L")
    if about.bases and not about.states_basis and basis is None and mass:
        raise RuleError(
            "csv.basis",
            f"{ANALYTES[analyte].name}: the row does not say as what.",
            "basis",
            f"Write {' or '.join(report_bases(analyte))} into the column basis.",
        )

    def number(name: str) -> float | None:
        cell = cells.get(name, "").strip()
        return _number(cell, name, comma) if cell else None

    more: dict[str, Any] = {
        "unit": unit,
        "basis": basis,
        "laboratory": cells.get("laboratory", "").strip(),
        "certified": _certified(cells.get("certified", "")),
        "report_number": cells.get("report", "").strip(),
        "report_date": _day(cells.get("report_date", "")),
        "method_used": cells.get("method", "").strip(),
        "detection_limit": number("detection_limit"),
        "hours_to_count": number("hours_to_count"),
        "uncertainty": number("uncertainty") or 0.0,
    }
    return _qualified(text, ANALYTES[analyte].unit == "per 100 mL", more, comma)


def _qualified(text: str, bacteria: bool, more: dict[str, Any], comma: bool) -> LaboratoryResult:
    """The result by what stands in its cell: a word, a limit it is under or over, or a number."""
    low = text.lower()
    if bacteria and low in _ABSENT:
        return LaboratoryResult(qualifier="absent", **more)
    if low in _PRESENT or low == "absent":
        return LaboratoryResult(qualifier="absent" if low == "absent" else "present", **more)
    if low in _UNDER:
        if more["detection_limit"] is None:
            raise RuleError(
                "csv.limit",
                f"{text} needs the detection limit.",
                "detection_limit",
                "Add a column detection_limit, or write < and the limit.",
            )
        return LaboratoryResult(qualifier="<", value=more["detection_limit"], **more)
    if text[0] in "<>":
        value = _number(text[1:], "result", comma)
        return LaboratoryResult(qualifier="<" if text[0] == "<" else ">", value=value, **more)
    return LaboratoryResult(qualifier="=", value=_number(text, "result", comma), **more)


def read(data: bytes, without: frozenset[int] = frozenset()) -> LabPreview:
    """The rows of a file, each worked out or with its error; rows ``without`` are left out by
    choice.

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
            k: v or "" for k, v in raw.items() if isinstance(k, str) and not isinstance(v, list)
        }
        if not any(c.strip() for c in cells.values()):
            continue
        if n not in without:
            rows.append(_row(n, cells, sheets.delimiter(text) == ";"))
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


def _row(n: int, cells: dict[str, str], comma: bool) -> LabRow:
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
        result = _result(id, cells, comma)
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
