"""CSV in and out: cells that no spreadsheet takes for a formula, and files that cost no more than
they may.
"""

from __future__ import annotations

import csv
import io
import re
from collections.abc import Iterable

from ..core.errors import RuleError

LONGEST_CELL = 131_072  # [characters], what Python's csv module takes at most
#: what starts a formula, also in the full-width forms that some programs fold into the plain ones
_STARTS = "=+-@\uff1d\uff0b\uff0d\uff20\t|%"
#: blanks that a program may pass over before it looks: all white space, and those of no width
_BLANK = "\\s\u00a0\u180e\u200b-\u200f\u2028\u2029\u202a-\u202e\u2060\ufeff\x00-\x1f"
_FORMULA = re.compile(f"(^|[\r\n\u2028\u2029])([{_BLANK}]*[{re.escape(_STARTS)}])")
_DEFUSED = re.compile(f"(^|[\r\n\u2028\u2029])'([{_BLANK}]*[{re.escape(_STARTS)}])")
_NUMBER = re.compile(r"[-+]?(\d+(\.\d*)?|\.\d+)([eE][-+]?\d+)?")


def safe(cell: object) -> str:
    """Text that no spreadsheet runs, at the head of a cell or of a line in it; numbers stay
    numbers.
    """
    text = "" if cell is None else str(cell)
    if _NUMBER.fullmatch(text):
        return text
    return _FORMULA.sub(r"\1'\2", text)


def plain_again(text: str) -> str:
    """A cell as it was before ``safe``."""
    return _DEFUSED.sub(r"\1\2", text)


#: says that a file is UTF-8; without it spreadsheets take it for what their machine writes
MARK = "\ufeff"


def write(head: Iterable[str], rows: Iterable[Iterable[object]]) -> str:
    """A table as CSV text, every cell defused, marked as UTF-8 for spreadsheets; more rows of one
    that was begun where there is no ``head``.
    """
    out, heads = io.StringIO(), list(head)
    w = csv.writer(out, lineterminator="\r\n")
    if heads:
        out.write(MARK)
        w.writerow(heads)
    w.writerows([safe(c) for c in row] for row in rows)
    return out.getvalue()


def delimiter(text: str) -> str:
    """The sign between cells, by what the first row has more of."""
    first = text.split("\n", 1)[0]
    return ";" if first.count(";") > first.count(",") else ","


def read(text: str, area: str) -> csv.DictReader[str]:
    """Rows of a CSV file by their column names, which are made small; line ends of every kind are
    taken.

    Raises:
        RuleError: ``area.csv`` for a cell that is too long or a file that is no CSV.
    """
    text = text.replace("\r\n", "\n").replace("\r", "\n")
    reader = csv.DictReader(io.StringIO(text), delimiter=delimiter(text))
    try:
        reader.fieldnames = [h.strip().lower() for h in reader.fieldnames or []]
    except csv.Error as e:
        raise no_csv(area, e, 1) from e
    return reader


def no_csv(area: str, error: csv.Error, line: int) -> RuleError:
    """What is said of a file that cannot be read as CSV."""
    return RuleError(
        f"{area}.csv",
        f"The file cannot be read as CSV ({error}).",
        f"line {line}",
        f"Save it anew as CSV in UTF-8, no cell longer than {LONGEST_CELL:,} characters.",
    )
