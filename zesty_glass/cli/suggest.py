"""``./zesty suggest visit.json``: lines that no other beats for a visit file, as JSON. No database,
no server.
"""

from __future__ import annotations

import argparse
import json
import sys
from dataclasses import replace
from pathlib import Path

from ..catalogue import files
from ..catalogue.examples import example_items
from ..core.errors import RuleError
from ..core.proposing.suggested import Suggestion
from ..core.treating.items import Item
from ..documents.codec import plain
from ..documents.visit_file import read
from ..work.catalogue import Question
from .assess import contents
from .say import guarded, refused


def report(data: bytes, items: dict[str, Item], years: int | None = None) -> str:
    """The search's answer for a visit file as JSON text."""
    visit = read(data)
    if years is not None:
        visit = replace(visit, horizon=years)
    return json.dumps(
        plain(Question(visit=visit, items=items).suggest(), Suggestion),
        indent=2,
        ensure_ascii=False,
    )


def catalogue_of(path: Path | None) -> dict[str, Item]:
    """Items of a catalog file, or the demo firm's."""
    if path is None:
        return {i.code: i for i in example_items()}
    preview, items = files.read(contents(path), {})
    if not preview.good:
        first = next(r for r in preview.rows if r.change == "error")
        raise RuleError(
            "catalogue.row",
            f"Row {first.row}: {first.error}",
            f"{path.name}, row {first.row}, {first.where}",
            first.remedy,
        )
    return {i.code: i for i in items}


def main(arguments: list[str]) -> int:
    """Print the answer; a clear error and status 2 when a file cannot be used."""
    parser = argparse.ArgumentParser(
        prog="./zesty suggest",
        description=(
            "Search a catalog for lines that answer a visit file's findings, and print JSON."
        ),
    )
    parser.add_argument("file", type=Path)
    parser.add_argument(
        "--catalogue", type=Path, help="JSON or CSV; the demo firm's catalog unless given"
    )
    parser.add_argument(
        "--years",
        type=int,
        choices=(5, 10, 15, 20),
        help="horizon of the costs; the visit's own unless given",
    )
    given = parser.parse_args(arguments)
    try:
        print(report(contents(given.file), catalogue_of(given.catalogue), given.years))
    except RuleError as e:
        refused(e)
        return 2
    return 0


if __name__ == "__main__":
    sys.exit(guarded(main, sys.argv[1:]))
