"""Writes ``golden.json``: one stage report a technology, to be looked over by eye when it changes.

.venv/bin/python -m tests.core.treating.golden
"""

import json
from datetime import UTC, datetime
from pathlib import Path

from zesty_glass.catalogue.examples import example_items
from zesty_glass.core.testing.findings import meaning
from zesty_glass.core.testing.water import design_water
from zesty_glass.core.treating.line import site_of
from zesty_glass.core.treating.stages import TECHNOLOGIES
from zesty_glass.core.treating.stages.common import StageInput
from zesty_glass.core.treating.stream import source_stream
from zesty_glass.core.treating.walking import run_stage
from zesty_glass.demo import homes

FILE = Path(__file__).with_name("golden.json")
#: the demo's home each technology is tried on; all others on the town's chalk water
HOMES = {
    "iron_filter": 3,
    "sediment": 4,
    "ultrafiltration": 4,
    "neutraliser": 2,
    "tannin": 4,
    "mixed_bed": 4,
    "uv": 4,
    "aeration": 5,
    "arsenic": 5,
    "nitrate": 5,
    "cartridge": 5,
    "chlorinator": 4,
}


def reported(kind):
    """The first item of a technology on its home's water, as plain values."""
    item = next(i for i in example_items() if i.kind == kind)
    visit = getattr(homes, f"home_{HOMES.get(kind, 1)}")(datetime(2026, 11, 24, 9, tzinfo=UTC))
    water = design_water(visit.samples)
    site = site_of(visit.home, visit.settings, water)
    colour = meaning(water, visit.home, visit.complaints, visit.rules).colour
    source = source_stream(water, colour, site.running_psi)
    r, outlet = run_stage(StageInput(item=item, stream=source, site=site, overrides={}), source, {})
    changed = {
        n: "not known" if q.range is None else [q.range.low, q.range.best, q.range.high]
        for n, q in outlet.quantities.items()
        if source.get(n) is None or source.quantities[n].range != q.range
    }
    return rounded(
        {
            "item": item.code,
            "home": visit.home.name,
            "status": r.status,
            "checks": [f"{c.status} {c.id}: {c.sentence}" for c in r.checks],
            "figures": [f"{f.label}: {f.value} {f.unit} {f.worst}".strip() for f in r.figures],
            "workings": [
                f"{f.id} {w.label}: {w.value} {w.unit}".strip()
                for f in r.figures
                for w in f.working.rows
            ],
            "settings": [" ".join(s) for s in r.settings],
            "drains": [
                [d.kind, d.gal_year, d.largest_gal, d.times_year, d.per_gallon] for d in r.drains
            ],
            "falls due": [[d.label, str(d.price), d.months, d.life_factor] for d in r.dues],
            "running": [[x.label, float(x.per_year), x.why] for x in r.running],
            "chores": [[c.label, c.times_year, c.minutes, c.bags] for c in r.chores],
            "water": changed,
            "drop psi": r.drop_psi,
            "summary": r.summary,
        }
    )


def rounded(value):
    """Floats to nine digits, so that two machines agree."""
    if isinstance(value, float):
        return float(f"{value:.9g}")
    if isinstance(value, list):
        return [rounded(v) for v in value]
    if isinstance(value, dict):
        return {k: rounded(v) for k, v in value.items()}
    return value


def every():
    return {kind: reported(kind) for kind in TECHNOLOGIES}


if __name__ == "__main__":
    FILE.write_text(json.dumps(every(), indent=1, ensure_ascii=False) + "\n")
