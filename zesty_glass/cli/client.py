"""``./zesty client``: the page's typed API client, from the application's own description, and its
table of units and names, from the core.
"""

from __future__ import annotations

import json
import subprocess
import sys
import tempfile
from collections.abc import Iterable
from dataclasses import asdict
from pathlib import Path
from typing import Any

from ..api.app import create_app
from ..core import words
from ..core.aftercare.gauging import GAUGED
from ..core.analytes import ANALYTES
from ..core.demonstrating.demonstrations import FLAVOURS, SMELLS
from ..core.goals import GOALS
from ..core.home import SOURCE_NAMES, WISHED
from ..core.in_place import KINDS as IN_PLACE
from ..core.presenting.appliance import APPLIANCES
from ..core.presenting.metric import UNITS as METRIC
from ..core.testing.by_laboratory import report_bases, report_units
from ..core.testing.procedures import PROCEDURES
from ..core.treating.place import ASKED
from ..core.treating.stages import KIND_NAMES, TECHNOLOGIES
from ..core.units import BQ_L_PER_PCI_L, L_PER_GAL, MG_L_PER_GPG
from .machine import WEB
from .say import guarded

GENERATED = WEB / "src" / "api" / "schema.generated.ts"
FACTS = WEB / "src" / "app" / "facts.generated.ts"
OF_TECHNOLOGIES = WEB / "src" / "app" / "technologies.generated.ts"
REPORTED = WEB / "src" / "app" / "reported.generated.ts"
ASKS = """export interface Asked {
  field: string;
  question: string;
  unit: string;
  most: number;
  choices: string[];
}
"""
ADJUSTABLE = """export interface Adjustable {
  key: string;
  label: string;
  unit: string;
  least: number;
  most: number;
  hint: string;
  where: [field: string, value: string][];
  yes: boolean;
}
"""
HEAD = "/** Written by ./zesty client from the core: change it there. */\n"
PROCEDURE = """export interface Procedure {
  kind: string;
  title: string;
  steps: string[];
  analyte: string;
  caution: string;
  reagent: boolean;
}
"""


def _one_of(names: Iterable[str]) -> str:
    return " | ".join(json.dumps(n) for n in names)


def generate() -> str:
    """The client's types as text."""
    description = create_app("postgresql://nobody@127.0.0.1:1/none", "x" * 32).openapi()
    with tempfile.TemporaryDirectory() as d:
        source, out = Path(d, "openapi.json"), Path(d, "schema.ts")
        source.write_text(json.dumps(description))
        subprocess.run(
            ["npx", "openapi-typescript", str(source), "-o", str(out)],
            cwd=WEB,
            check=True,
            capture_output=True,
        )
        return out.read_text()


def facts() -> str:
    """Units, digits and names as the page shows them, as text."""
    shown = {
        a: {
            units: dict(zip(("factor", "unit", "decimals"), _shown(a, units), strict=True))
            for units in ("us", "metric")
        }
        for a in ANALYTES
    }
    told: dict[str, tuple[str, Any]] = {
        "ASKED": (
            "Record<string, Asked>",
            {id: asdict(a) for id, a in ASKED.items()},
        ),
        "SHOWN": (
            "Record<string, Record<string, { factor: number; unit: string; decimals: number }>>",
            shown,
        ),
        "SOURCE_NAMES": ("Record<string, string>", {s.value: n for s, n in SOURCE_NAMES.items()}),
        "KIND_NAMES": ("Record<string, string>", dict(KIND_NAMES)),
        "ANALYTE_NAMES": ("Record<string, string>", {a: x.name for a, x in ANALYTES.items()}),
        "WISHED": ("string[]", WISHED),
        "GOALS": (f"[id: {_one_of(GOALS)}, words: string][]", list(GOALS.items())),
        "IN_PLACE": (
            "Record<string, { name: string; part: string; drawing: string; asks: string[];"
            " works_on: string[] }>",
            {
                k: {
                    "name": x.name,
                    "part": x.part,
                    "drawing": x.drawing,
                    "asks": x.asks,
                    "works_on": x.works_on,
                }
                for k, x in IN_PLACE.items()
            },
        ),
    }
    told["SMELLS"] = ("string[]", SMELLS)
    told["FLAVOURS"] = ("string[]", FLAVOURS)
    told["METRIC"] = (
        "Record<string, [unit: string, factor: number]>",
        {us: (turned.unit, turned.factor) for us, turned in METRIC.items()},
    )
    told["APPLIANCES"] = (
        "Record<string, { name: string; uses: number; litres: number }>",
        {
            kind: {"name": a.name, "uses": a.uses_year, "litres": a.litres}
            for kind, a in APPLIANCES.items()
        },
    )
    told["PROCEDURES"] = ("Procedure[]", [asdict(p) for p in PROCEDURES])
    lines = _constants(told)
    numbers = {
        "MG_L_PER_GPG": MG_L_PER_GPG,
        "L_PER_GAL": L_PER_GAL,
        "GAL_PER_M3": 1000 / L_PER_GAL,
        "BQ_L_PER_PCI_L": BQ_L_PER_PCI_L,
    }
    lines += [f"export const {n} = {v!r};\n" for n, v in numbers.items()]
    return "".join([HEAD, PROCEDURE, ASKS, *lines])


def _constants(told: dict[str, tuple[str, Any]]) -> list[str]:
    """Constants of a page's module: by name its type and value."""
    return [
        f"export const {name}: {kind} = {json.dumps(value, indent=2, ensure_ascii=False)};\n"
        for name, (kind, value) in told.items()
    ]


def technologies() -> str:
    """What the page knows of technologies beside their names: fetched where lines are drawn."""
    told: dict[str, tuple[str, Any]] = {
        "GAUGED": (
            "Record<string, { name: string; unit: string; most: number; at: string[] }>",
            {
                part: {
                    **asdict(g),
                    "at": [t.kind for t in TECHNOLOGIES.values() if part in t.service.gauges],
                }
                for part, g in GAUGED.items()
            },
        ),
        "DRAWINGS": (
            "Record<string, string>",
            {t.kind: t.drawing for t in TECHNOLOGIES.values()},
        ),
        "DOES": (
            "Record<string, string[]>",
            {t.kind: sorted(t.does) for t in TECHNOLOGIES.values()},
        ),
        "SETTINGS": (
            "Record<string, Adjustable[]>",
            {t.kind: [asdict(a) for a in t.settings] for t in TECHNOLOGIES.values() if t.settings},
        ),
    }
    return "".join([HEAD, ADJUSTABLE, *_constants(told)])


def reported() -> str:
    """What a laboratory's report may be typed in: a file of its own, fetched with the bottles."""
    each = {a: {"units": report_units(a), "bases": report_bases(a)} for a in ANALYTES}
    kind = "Record<string, { units: string[]; bases: string[] }>"
    return (
        f"{HEAD}export const REPORTED: {kind} = {json.dumps(each, indent=2, ensure_ascii=False)};\n"
    )


def _shown(analyte: str, units: str) -> tuple[float, str, int]:
    factor, unit, decimals = words.shown_in(analyte, units)
    return factor, "" if unit == "pH" else unit, decimals


def main(arguments: list[str]) -> int:
    """Write it, or with --check say whether it is out of date."""
    made = {
        GENERATED: generate(),
        FACTS: facts(),
        OF_TECHNOLOGIES: technologies(),
        REPORTED: reported(),
    }
    for path, text in made.items():
        if "--check" not in arguments:
            path.write_text(text)
        elif not path.exists() or path.read_text() != text:
            print(f"{path.name} is out of date: run ./zesty client", file=sys.stderr)
            return 1
    return 0


if __name__ == "__main__":
    sys.exit(guarded(main, sys.argv[1:]))
