"""Items of a catalog from and to JSON and CSV; a preview says of each row whether it can be used,
and nothing is stored by half.

JSON is a list of items as in docs/visit-file.schema.json. In CSV the first row names the columns;
``kind`` names the technology and ``figures`` holds what is special to it as ``name=value;
name=value`` (lists as JSON); ``effects``, ``needs``, ``consumables`` and ``lets`` are JSON lists.
Columns that are left out keep their defaults; an empty cell means not stated.
"""

from __future__ import annotations

import csv
import json
from collections.abc import Iterable, Mapping
from typing import Any, Literal

from ..core.errors import RuleError
from ..core.record import record
from ..core.treating.items import Item, SystemFigures
from ..core.treating.stages import KIND_NAMES
from ..documents import sheets
from ..documents.codec import load, plain
from ..documents.incoming import json_of, text_of

LARGEST_BYTES, MOST_ITEMS = 5_000_000, 5_000
PLAIN = (
    "code",
    "name",
    "maker",
    "kind",
    "scope",
    "price",
    "installation",
    "service_year",
    "drain",
    "socket",
    "plumbed",
    "headroom_in",
    "clearance_in",
    "footprint_in",
    "weight_lb",
    "flow_gpm",
    "drop_psi",
    "drop_gpm",
    "psi_min",
    "kwh_year",
    "warranty",
    "spares_years",
    "parts",
    "priced_on",
    "for_what",
)
NESTED = ("figures", "effects", "needs", "consumables", "lets")
COLUMNS = (*PLAIN, *NESTED)
_YES, _NO = frozenset({"yes", "true", "1"}), frozenset({"no", "false", "0"})
_TRUTH = frozenset({"drain", "socket", "plumbed"})


@record
class ItemRow:
    """One row of a file: what it would do to the catalog, and what is wrong with it."""

    row: int
    code: str
    name: str
    change: Literal["new", "changed", "same", "error"]
    fields: tuple[str, ...] = ()
    error: str = ""
    where: str = ""
    remedy: str = ""


@record
class CataloguePreview:
    """A whole file; ``good`` when every row can be used.

    ``revision``: the state of the catalog that the file was held against; a file that changes
    items is stored on top of that state and of no other.
    """

    rows: tuple[ItemRow, ...]
    good: bool
    revision: str = ""


def write_json(items: Iterable[Item]) -> bytes:
    """Items as JSON, sorted by code; the same items give the same bytes."""
    listed = sorted(items, key=lambda i: i.code)
    return (json.dumps([plain(i) for i in listed], indent=1, ensure_ascii=False) + "\n").encode()


def _figures_cell(data: Mapping[str, Any]) -> str:
    return "; ".join(
        f"{k}={v if isinstance(v, str) else json.dumps(v)}"
        for k, v in data.items()
        if k != "kind" and v is not None
    )


def _cell(name: str, value: Any) -> str:
    if value is None:
        return ""
    if isinstance(value, bool):
        return "yes" if value else "no"
    return str(value)


def write_csv(items: Iterable[Item]) -> bytes:
    """Items as CSV, sorted by code, UTF-8."""
    rows = []
    for i in sorted(items, key=lambda i: i.code):
        data = plain(i)
        row = [data["figures"]["kind"] if c == "kind" else _cell(c, data[c]) for c in PLAIN]
        nested = (json.dumps(data[c], ensure_ascii=False) if data[c] else "" for c in NESTED[1:])
        rows.append([*row, _figures_cell(data["figures"]), *nested])
    return sheets.write(COLUMNS, rows).encode()


def _value(text: str) -> Any:
    try:
        return json_of(text)
    except ValueError:
        return text


def _figures(kind: str, text: str) -> dict[str, Any]:
    out: dict[str, Any] = {"kind": kind}
    for part in text.split(";"):
        if not part.strip():
            continue
        name, eq, value = part.partition("=")
        if not eq:
            raise RuleError(
                "catalogue.figures",
                f"“{part.strip()}” is not name=value.",
                "figures",
                "Write name=value; name=value.",
            )
        out[name.strip()] = _value(value.strip())
    return out


def _from_cells(cells: Mapping[str, str]) -> dict[str, Any]:
    kind = cells.get("kind", "").strip()
    if kind not in KIND_NAMES:
        raise RuleError(
            "catalogue.kind",
            f"There is no stage “{kind}”.",
            "kind",
            f"Use one of {', '.join(sorted(KIND_NAMES))}.",
        )
    out: dict[str, Any] = {"figures": _figures(kind, cells.get("figures", ""))}
    for name, raw in cells.items():
        text = sheets.plain_again(raw.strip())
        if name in ("kind", "figures") or text == "":
            continue
        if name in _TRUTH:
            if text.lower() not in _YES | _NO:
                raise RuleError(
                    "catalogue.yes_no", f"“{text}” is neither yes nor no.", name, "Write yes or no."
                )
            out[name] = text.lower() in _YES
        elif name in NESTED:
            try:
                out[name] = json_of(text)
            except ValueError as e:
                raise RuleError(
                    "catalogue.list",
                    f"The list cannot be read: {e}.",
                    name,
                    "It is a JSON list, as the export writes it.",
                ) from e
        else:
            out[name] = text
    return out


def _csv_rows(text: str) -> list[tuple[int, dict[str, Any] | RuleError]]:
    reader = sheets.read(text, "catalogue")
    head = list(reader.fieldnames or [])
    for need in ("code", "name", "maker", "kind", "scope", "price"):
        if need not in head:
            raise RuleError(
                "catalogue.column",
                f"There is no column “{need}”.",
                "row 1",
                f"The first row names the columns: {', '.join(COLUMNS)}.",
            )
    strange = [h for h in head if h and h not in COLUMNS]
    if strange:
        raise RuleError(
            "catalogue.column",
            f"The column “{strange[0]}” is not known.",
            "row 1",
            f"Use: {', '.join(COLUMNS)}.",
        )
    try:
        listed = list(enumerate(reader, 2))
    except csv.Error as e:
        raise sheets.no_csv("catalogue", e, reader.line_num) from e
    out: list[tuple[int, dict[str, Any] | RuleError]] = []
    for n, raw in listed:
        cells = {
            k: v or "" for k, v in raw.items() if isinstance(k, str) and not isinstance(v, list)
        }
        if any(c.strip() for c in cells.values()):
            try:
                out.append((n, _from_cells(cells)))
            except RuleError as e:
                out.append((n, e))
    return out


def _json_rows(text: str) -> list[tuple[int, dict[str, Any] | RuleError]]:
    try:
        data = json_of(text)
    except ValueError as e:
        raise RuleError(
            "catalogue.not_json",
            f"The file is not JSON: {e}.",
            "file",
            "Is it cut off, or another file?",
        ) from e
    if not isinstance(data, list):
        raise RuleError(
            "catalogue.list",
            "The file is not a list of items.",
            "file",
            "Export the catalog to see its form.",
        )
    bad = RuleError(
        "catalogue.item",
        "This is not an item.",
        "",
        "An item is an object with code, name and figures.",
    )
    return [(n, x if isinstance(x, dict) else bad) for n, x in enumerate(data, 1)]


def read(data: bytes, known: Mapping[str, Item]) -> tuple[CataloguePreview, tuple[Item, ...]]:
    """What a file would do to a catalog, row by row, and its items when every row can be used.

    Raises:
        RuleError: too large, not UTF-8, neither JSON nor CSV with the columns it needs, too many
            items.
    """
    text = text_of(data, LARGEST_BYTES, "catalogue")
    rows = _json_rows(text) if text.lstrip()[:1] in ("[", "{") else _csv_rows(text)
    if not rows:
        raise RuleError(
            "catalogue.empty", "The file holds no item.", "file", "Add a row for each item."
        )
    if len(rows) > MOST_ITEMS:
        raise RuleError(
            "catalogue.rows", f"More than {MOST_ITEMS} items.", "file", "Split the file."
        )
    seen: dict[str, Item] = {}
    out: list[ItemRow] = []
    for n, raw in rows:
        try:
            if isinstance(raw, RuleError):
                raise raw
            item: Item = load(Item, raw)
            if not item.code.strip() or not item.name.strip():
                raise RuleError(
                    "catalogue.code", "An item needs a code and a name.", "code", "Write both."
                )
            if item.code in seen:
                raise RuleError(
                    "catalogue.twice",
                    f"The code {item.code} stands twice in this file.",
                    "code",
                    "Keep one.",
                )
            seen[item.code] = item
            out.append(_row(n, item, known.get(item.code)))
        except RuleError as e:
            code = raw.get("code", "") if isinstance(raw, dict) else ""
            out.append(
                ItemRow(
                    row=n,
                    code=str(code),
                    name=str(raw.get("name", "")) if isinstance(raw, dict) else "",
                    change="error",
                    error=e.what,
                    where=e.where,
                    remedy=e.remedy,
                )
            )
    out = [_system(r, seen, {**known, **seen}) for r in out]
    good = all(r.change != "error" for r in out)
    return CataloguePreview(rows=tuple(out), good=good), tuple(seen.values()) if good else ()


def _row(n: int, item: Item, before: Item | None) -> ItemRow:
    if before is None:
        return ItemRow(row=n, code=item.code, name=item.name, change="new")
    a, b = plain(before), plain(item)
    fields = tuple(k for k in b if a.get(k) != b[k])
    return ItemRow(
        row=n, code=item.code, name=item.name, change="changed" if fields else "same", fields=fields
    )


def _system(r: ItemRow, seen: Mapping[str, Item], every: Mapping[str, Item]) -> ItemRow:
    """A system's parts must be there, and none may hold the system again."""
    item = seen.get(r.code)
    if r.change == "error" or item is None or not isinstance(item.figures, SystemFigures):
        return r
    problem = _parts(item, every, (item.code,))
    return (
        r
        if problem is None
        else ItemRow(
            row=r.row,
            code=r.code,
            name=r.name,
            change="error",
            error=problem.what,
            where=problem.where,
            remedy=problem.remedy,
        )
    )


def _parts(item: Item, every: Mapping[str, Item], above: tuple[str, ...]) -> RuleError | None:
    assert isinstance(item.figures, SystemFigures)
    for p in item.figures.parts:
        if p in above:
            return RuleError(
                "item.circular",
                f"{item.name} holds {p}, which holds it again.",
                "figures.parts",
                "Name its stages only.",
            )
        part = every.get(p)
        if part is None:
            return RuleError(
                "catalogue.part",
                f"{item.name} names {p}, which is not in the catalog.",
                "figures.parts",
                "Add it to the file.",
            )
        if isinstance(part.figures, SystemFigures):
            found = _parts(part, every, (*above, p))
            if found is not None:
                return found
    return None
