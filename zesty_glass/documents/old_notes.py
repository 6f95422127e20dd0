"""Old notes of a firm from CSV: homes, and what was read at them, a row a visit. Preview first,
errors by row, units in the heads of the columns, nothing half imported.

Columns (names in the first row, any order): ``customer``; optional ``house``, ``place``, ``phone``,
``email``, ``source`` (town main, drilled well, dug well, spring, lake intake, cistern), ``people``,
``bathrooms``, ``date`` (2024-05-31), ``note``; and one a test, with its unit: ``hardness [gpg]``,
``tds [mg/L]``, ``iron [mg/L]``, ``ph``. A result is a number, or ``< 0.05``. How it was measured is
not known: a tenth of the reading is taken as its accuracy.
"""

from __future__ import annotations

import csv
import re
from datetime import UTC, date, datetime, time
from uuid import UUID, uuid5

from ..core.analytes import ANALYTES
from ..core.errors import RuleError
from ..core.home import SOURCE_NAMES, Customer, Home, Source
from ..core.record import record
from ..core.testing.instruments import Instrument, InstrumentKind
from ..core.testing.observations import OneDisplay
from ..core.testing.reading import Reading, work_out
from ..core.testing.water import Sample
from ..core.units import convert
from . import sheets
from .incoming import text_of

LARGEST_BYTES, MOST_ROWS = 4_000_000, 5_000
ACCURACY, ACCURACY_PH = 0.1, 0.3  # share of a reading, and pH: what nobody wrote down (2024)
ABOUT = ("customer", "house", "place", "phone", "email", "source", "people", "bathrooms")
OF_THE_VISIT = ("date", "note")
_HEAD = re.compile(r"^(?P<name>[^\[\]]+?)\s*(\[(?P<unit>[^\[\]]+)\])?$")
_RESULT = re.compile(r"^(?P<less><)?\s*(?P<number>\d+([.,]\d+)?)$")
_SOURCES = {n: s for s, n in SOURCE_NAMES.items()} | {s.value: s for s in Source}
_TESTS = {a.id: a.id for a in ANALYTES.values()} | {a.name.lower(): a.id for a in ANALYTES.values()}


@record
class OldVisit:
    """One row that can be stored: a home, and what was read at it on a day (None: nothing)."""

    row: int
    customer: Customer
    home: Home
    on: date | None
    note: str
    sample: Sample | None


@record
class OldRow:
    """What becomes of one row, or what is wrong with it."""

    row: int
    customer: str
    house: str
    on: date | None
    readings: int
    error: str = ""
    where: str = ""
    remedy: str = ""


@record
class OldNotes:
    """A file looked at: its rows in their order; ``good``: nothing is wrong with any."""

    rows: tuple[OldRow, ...]
    good: bool


@record
class _Test:
    column: str
    analyte: str
    unit: str


def _tests(head: list[str]) -> list[_Test]:
    """Columns that hold a test; RuleError for a column that nobody knows, or without its unit."""
    out = []
    for column in head:
        m = _HEAD.match(column)
        name = "" if m is None else m["name"].strip()
        if name in (*ABOUT, *OF_THE_VISIT):
            continue
        analyte = _TESTS.get(name)
        if m is None or analyte is None:
            raise RuleError(
                "notes.column",
                f"The column “{column[:60]}” is not known.",
                f"column {column[:60]}",
                "Name it after a test, with its unit, as in “hardness [gpg]”, or leave it out.",
            )
        out.append(_Test(column=column, analyte=analyte, unit=_unit(column, analyte, m["unit"])))
    return out


def _unit(column: str, analyte: str, written: str | None) -> str:
    canonical = ANALYTES[analyte].unit
    if canonical == "pH":
        return "pH"
    if written is None:
        raise RuleError(
            "notes.unit",
            f"The column “{column[:60]}” has no unit.",
            f"column {column[:60]}",
            f"Write it into the head, as in “{analyte} [{canonical.split(' as ')[0]}]”.",
        )
    plain = "mg/L as CaCO3" if canonical.endswith("CaCO3") and written == "mg/l" else written
    plain = {"mg/l": "mg/L", "ug/l": "µg/L", "µg/l": "µg/L", "pci/l": "pCi/L"}.get(plain, plain)
    try:
        convert(1.0, plain, canonical)
    except (RuleError, ValueError, KeyError) as e:
        raise RuleError(
            "notes.unit",
            f"“{written}” is no unit of {ANALYTES[analyte].said}.",
            f"column {column[:60]}",
            f"Use {canonical}.",
        ) from e
    return plain


def read(data: bytes, firm: UUID) -> tuple[OldNotes, tuple[OldVisit, ...]]:
    """Look at a file: every row with what becomes of it, and those that can be stored.

    Args:
        firm: ids are made from it and the row, so that the same file again is the same.

    Raises:
        RuleError: no CSV, too large, or a column that is not known or lacks its unit.
    """
    reader = sheets.read(text_of(data, LARGEST_BYTES, "notes"), "notes")
    head = [h for h in reader.fieldnames or [] if h]
    if "customer" not in head:
        raise RuleError(
            "notes.customer",
            "There is no column “customer”.",
            "line 1",
            "Name the columns in the first row; docs/file-formats.md lists them.",
        )
    tests = _tests(head)
    rows: list[OldRow] = []
    good: list[OldVisit] = []
    try:
        for n, cells in enumerate(reader, 2):
            if n - 1 > MOST_ROWS:
                raise RuleError(
                    "notes.many",
                    f"More than {MOST_ROWS:,} rows.",
                    f"line {n}",
                    "Bring it in in parts.",
                )
            row, visit = _row(n, {k: (v or "").strip() for k, v in cells.items() if k}, tests, firm)
            rows.append(row)
            good += [] if visit is None else [visit]
    except csv.Error as e:
        raise sheets.no_csv("notes", e, reader.line_num) from e
    return OldNotes(rows=tuple(rows), good=bool(rows) and len(good) == len(rows)), tuple(good)


def _row(
    n: int, cells: dict[str, str], tests: list[_Test], firm: UUID
) -> tuple[OldRow, OldVisit | None]:
    try:
        visit = _visit(n, cells, tests, firm)
    except RuleError as e:
        told = OldRow(
            row=n,
            customer=cells.get("customer", "")[:80],
            house=cells.get("house", "")[:80],
            on=None,
            readings=0,
            error=e.what,
            where=e.where,
            remedy=e.remedy,
        )
        return told, None
    return (
        OldRow(
            row=n,
            customer=visit.customer.name,
            house=visit.home.name,
            on=visit.on,
            readings=0 if visit.sample is None else len(visit.sample.readings),
        ),
        visit,
    )


def _visit(n: int, cells: dict[str, str], tests: list[_Test], firm: UUID) -> OldVisit:
    name = cells.get("customer", "")
    if not name or len(name) > 200:
        raise RuleError("notes.customer", "A row needs a customer.", "customer", "Write a name.")
    on = _day(cells.get("date", ""))
    found = [(t, cells.get(t.column, "")) for t in tests]
    found = [(t, text) for t, text in found if text]
    if found and on is None:
        raise RuleError("notes.date", "Readings without a day.", "date", "Write it as 2024-05-31.")
    sample = None
    if found and on is not None:
        key = f"notes:{name}:{cells.get('house', '')}:{on}"
        sample = _sample(found, on, uuid5(firm, key))
    return OldVisit(
        row=n,
        customer=Customer(
            name=name, phone=cells.get("phone", "")[:200], email=cells.get("email", "")[:200]
        ),
        home=Home(
            name=(cells.get("house", "") or name)[:200],
            place=cells.get("place", "")[:200],
            source=_source(cells.get("source", "")),
            people=_number(cells.get("people", ""), "people", 2.0),
            bathrooms=_number(cells.get("bathrooms", ""), "bathrooms", 1.0),
        ),
        on=on,
        note=cells.get("note", "")[:4000],
        sample=sample,
    )


def _source(text: str) -> Source:
    if not text:
        return Source.CITY
    if text.lower() not in _SOURCES:
        raise RuleError(
            "notes.source",
            f"“{text[:40]}” is no source.",
            "source",
            f"Use one of {', '.join(SOURCE_NAMES.values())}.",
        )
    return _SOURCES[text.lower()]


def _number(text: str, field: str, instead: float) -> float:
    if not text:
        return instead
    try:
        return float(text.replace(",", "."))
    except ValueError:
        raise RuleError(
            "notes.number", f"“{text[:40]}” is no number.", field, "Write digits only."
        ) from None


def _day(text: str) -> date | None:
    if not text:
        return None
    try:
        day = date.fromisoformat(text)
    except ValueError:
        raise RuleError(
            "notes.date", f"“{text[:40]}” is no day.", "date", "Write it as 2024-05-31."
        ) from None
    if not 1970 <= day.year <= 2199 or day > datetime.now(UTC).date():
        raise RuleError("notes.date", "This day cannot be.", "date", "Check the year.")
    return day


def _sample(found: list[tuple[_Test, str]], on: date, id: UUID) -> Sample:
    at = datetime.combine(on, time(12), UTC)
    readings = tuple(_reading(t, text, at, id) for t, text in found)
    return Sample(
        id=str(id),
        name="From old notes",
        place="not written down",
        raw=True,
        drawn_at=at,
        by="old notes",
        readings=readings,
    )


def _reading(t: _Test, text: str, at: datetime, sample: UUID) -> Reading:
    m = _RESULT.match(text)
    if m is None:
        raise RuleError(
            "notes.result",
            f"“{text[:40]}” is no result.",
            t.column,
            "Write a number, or “< 0.05”.",
        )
    number = float(m["number"].replace(",", "."))
    decimals = len(m["number"].replace(",", ".").partition(".")[2])
    kit = Instrument(
        id=f"old-{t.analyte}",
        name="Old notes, kit not known",
        kind=InstrumentKind.DISPLAY,
        analyte=t.analyte,
        unit="" if t.unit == "pH" else t.unit,
        accuracy_share=None if t.unit == "pH" else ACCURACY,
        accuracy_of=None if t.unit == "pH" else "reading",
        accuracy_plus=ACCURACY_PH if t.unit == "pH" else 0.0,
        resolution=10.0**-decimals,
        detection_limit=number if m["less"] and number > 0 else None,
        note="a tenth of the reading is taken as its accuracy",
    )
    reading = Reading(
        id=str(uuid5(sample, t.analyte)),
        analyte=t.analyte,
        instrument=kit,
        observation=OneDisplay(value=0.0 if m["less"] else number),
        made_at=at,
        by="old notes",
    )
    work_out(reading)  # RuleError for what cannot be
    return reading
