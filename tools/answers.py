"""``./zesty answers FILE``: all that the core says of the demo's homes and of generated ones, a
line of JSON each. Two states of the code that mean to say the same write the same file.
"""

from __future__ import annotations

import argparse
import json
import random
import sys
from collections.abc import Callable, Iterator
from concurrent.futures import ProcessPoolExecutor
from dataclasses import replace
from datetime import UTC, date, datetime, timedelta
from decimal import Decimal
from functools import partial
from pathlib import Path
from typing import Any

from zesty_glass.catalogue.examples import example_items
from zesty_glass.cli.say import guarded
from zesty_glass.core.aftercare.job import fitting_sheets, job_of, standing
from zesty_glass.core.analytes import ANALYTES, MICROBES
from zesty_glass.core.assess import Assessment, assess
from zesty_glass.core.errors import RuleError
from zesty_glass.core.home import Source
from zesty_glass.core.in_place import KINDS, InPlace
from zesty_glass.core.presenting.comparison import compare
from zesty_glass.core.presenting.offer import Offer, make_offer
from zesty_glass.core.testing.complaints import SIGNS, Complaint
from zesty_glass.core.testing.observations import LaboratoryResult
from zesty_glass.core.testing.reading import Reading
from zesty_glass.core.visit import Visit
from zesty_glass.demo.homes import demo_visits, used_items
from zesty_glass.demo.kits import laboratory
from zesty_glass.documents.codec import plain
from zesty_glass.work.catalogue import Question

DAY = datetime(2026, 11, 20, 9, tzinfo=UTC)
#: where a generated value lies at its median, by analyte [its canonical unit]
USUAL = {
    "tds": 400.0,
    "hardness": 180.0,
    "alkalinity": 150.0,
    "iron": 0.4,
    "manganese": 0.06,
    "tannin": 0.6,
    "chlorine_free": 0.6,
    "chlorine_total": 1.2,
    "hydrogen_sulfide": 0.1,
    "sulfate": 150.0,
    "chloride": 120.0,
    "sodium": 60.0,
    "potassium": 5.0,
    "turbidity": 1.0,
    "copper": 1.0,
    "lead": 0.008,
    "nitrate_n": 7.0,
    "nitrite_n": 0.5,
    "arsenic": 0.008,
    "uranium": 0.02,
    "barium": 1.0,
    "radium": 4.0,
    "silica": 15.0,
    "fluoride": 2.0,
    "radon": 3000.0,
    "uvt": 80.0,
    "pfoa": 4e-6,
    "pfos": 4e-6,
}
BASES = {"nitrate_n": "N", "nitrite_n": "N", "alkalinity": "CaCO3", "radon": "counting"}
LINES = 4


def _result(chance: random.Random, analyte: str) -> LaboratoryResult:
    if analyte in MICROBES:
        said = chance.choice(("absent", "present"))
        return LaboratoryResult(qualifier="absent" if said == "absent" else "present")
    value = USUAL[analyte] * chance.lognormvariate(0.0, 0.9)
    return LaboratoryResult(
        qualifier="<" if chance.random() < 0.1 else "=",
        value=float(f"{min(value, 100.0) if analyte == 'uvt' else value:.3g}"),
        unit=ANALYTES[analyte].unit,
        basis=BASES.get(analyte),
        hours_to_count=0.0 if analyte == "radon" else None,
    )


def _ph(chance: random.Random) -> LaboratoryResult:
    return LaboratoryResult(value=round(chance.uniform(5.4, 8.6), 1), unit="pH")


def _readings(chance: random.Random, n: int) -> tuple[Reading, ...]:
    known = [a for a in (*USUAL, *MICROBES, "ph") if chance.random() < 0.45]
    return tuple(
        Reading(
            id=f"r{n}-{a}",
            analyte=a,
            instrument=laboratory(a),
            observation=_ph(chance) if a == "ph" else _result(chance, a),
            made_at=DAY + timedelta(minutes=i),
            by="",
        )
        for i, a in enumerate(known)
    )


def _devices(chance: random.Random) -> tuple[InPlace, ...]:
    kinds = chance.sample(sorted(KINDS), k=chance.choice((0, 0, 1, 1, 2)))
    return tuple(
        InPlace(
            id=f"d{i}",
            kind=kind,  # type: ignore[arg-type]
            fitted_on=date(chance.randint(2008, 2025), 5, 1),
            part_price=chance.choice((None, Decimal("60"))),
            resin_ft3=chance.choice((None, 1.0)) if kind == "softener" else None,
            setting_gpg=chance.choice((None, 12.0)) if kind == "softener" else None,
        )
        for i, kind in enumerate(kinds)
    )


def _home(chance: random.Random, visit: Visit) -> dict[str, Any]:
    maybe = (None, True, False)
    care = replace(
        visit.home.care,
        consent=True,
        infant=chance.random() < 0.2,
        low_sodium=chance.random() < 0.2,
        aquarium=chance.random() < 0.1,
    )
    return {
        "source": chance.choice(tuple(Source)),
        "people": chance.randint(1, 6),
        "bathrooms": chance.choice((1.0, 2.0, 2.5, 3.0)),
        "flow_gpm": chance.choice((None, 4.0, 7.0, 10.0, 14.0)),
        "running_psi": chance.choice((None, 25.0, 42.0, 60.0)),
        "drain": chance.choice(maybe),
        "socket": chance.choice(maybe),
        "septic": chance.choice(maybe),
        "headroom_in": chance.choice((None, 40.0, 84.0)),
        "tenant": chance.random() < 0.15,
        "brine_forbidden": chance.choice((None, None, False, True)),
        "care": care,
        "in_place": _devices(chance),
    }


def generated(n: int) -> Visit:
    """The ``n``-th generated visit: one of the demo's with another home, water and complaints."""
    chance = random.Random(n)
    base = chance.choice(demo_visits(DAY))
    raw = next(s for s in base.samples if s.raw)
    signs = chance.sample(sorted(SIGNS), k=chance.choice((0, 1, 1, 2)))
    return replace(
        base,
        id=f"00000000-0000-4000-8000-{n:012d}",
        home=replace(base.home, **_home(chance, base)),
        samples=(replace(raw, readings=_readings(chance, n)),),
        complaints=tuple(Complaint(id=f"c{s}", sign=s, words=s) for s in signs),
        demonstrations=(),
        lab_samples=(),
        options=(),
        recommended=None,
    )


def _said(what: Callable[[], object]) -> object:
    """What was worked out, plainly; a refusal by its code."""
    try:
        return plain(what())
    except RuleError as e:
        return {"refused": e.code, "said": str(e)}


def _jobs(visit: Visit, a: Assessment) -> Iterator[object]:
    for option in a.options:
        if option.line is None:
            continue
        more = {"id": "j", "visit": visit.id, "proposal": "p", "units": "us", "made_at": DAY}
        job = job_of(option.line, visit.home, **more)  # type: ignore[arg-type]
        yield plain(job)
        yield plain(fitting_sheets(job))
        yield _said(partial(standing, job, DAY.date() + timedelta(days=400)))


def offer_of(visit: Visit, recommended: str, reasons: str = "") -> Offer:
    """The proposal of a visit, as it is made on a day that never changes."""
    return make_offer(
        visit,
        number="L-1",
        revision=1,
        created_at=DAY,
        valid_until=DAY.date() + timedelta(days=30),
        recommended=recommended,
        reasons=reasons,
    )


def answers(visit: Visit) -> str:
    """All that the core says of a visit, as one line of JSON."""
    items = {i.code: i for i in example_items()}
    found = _said(lambda: Question(visit=visit, items=items).suggest())
    if not visit.options and isinstance(found, dict) and "lines" in found:
        lines = Question(visit=visit, items=items).suggest().lines[:LINES]
        options = tuple(line.option for line in lines)
        visit = replace(visit, options=options, catalogue=used_items(options, items))
    assessment = assess(visit)
    first = visit.options[0].id if visit.options else "today"
    said = {
        "visit": visit.id,
        "suggested": found,
        "assessment": plain(assessment),
        "comparison": _said(lambda: compare(visit, (5, 10), 1.0)),
        "jobs": list(_jobs(visit, assessment)),
        "offer": _said(lambda: offer_of(visit, first, "Because.")),
    }
    return json.dumps(said, ensure_ascii=False, sort_keys=True, default=str)


def _of_generated(n: int) -> str:
    return answers(generated(n))


def main(arguments: list[str]) -> int:
    """Write the file."""
    parser = argparse.ArgumentParser(prog="./zesty answers")
    parser.add_argument("file", type=Path)
    parser.add_argument("--homes", type=int, default=300, help="how many to generate")
    given = parser.parse_args(arguments)
    with ProcessPoolExecutor() as pool, given.file.open("w") as out:
        for line in pool.map(answers, demo_visits(DAY)):
            print(line, file=out)
        for line in pool.map(_of_generated, range(given.homes), chunksize=8):
            print(line, file=out)
    return 0


if __name__ == "__main__":
    sys.exit(guarded(main, sys.argv[1:]))
