"""Stages that need a laboratory result and a licensed specialist."""

from __future__ import annotations

from dataclasses import replace
from typing import Literal

from ...doing import NOTHING, Does
from ...record import record
from ..checks import Says, told
from ..figures import Figures
from ..place import drop_at, place_checks
from ..report import StageReport
from ..technology import Place, Service, Technology, at, judges_nothing
from .common import StageInput, dues, effects, report

CHECKS = {
    "specialist": Says(
        "It needs a laboratory result and a licensed specialist.",
        "Have a laboratory test first, then name the specialist.",
    ),
}


@record
class SpecialistFigures(Figures):
    "Aeration, nitrate and arsenic units, chlorinators: nothing beside the item's claims is used."

    kind: Literal["aeration", "nitrate", "arsenic", "chlorinator"]
    sets_psi: None = None

    @property
    def disinfects(self) -> bool:
        """A chlorinator does."""
        return self.kind == "chlorinator"


def run(inp: StageInput) -> StageReport:
    """Only what the item claims, and that a specialist is wanted."""
    item = inp.item
    checks = [*place_checks(item, inp.site), told("specialist", "warn")]
    changes, more = effects(item, inp.stream)
    drop = 0.0 if item.scope == "tap" else drop_at(item, inp.site.demand.peak_gpm)
    return report(
        inp,
        inp.stream.with_(changes),
        checks + more,
        drop=drop,
        due=dues(item, inp.site),
    )


def _specialists(
    kind: str,
    name: str,
    place: Place,
    service: Service,
    reads: frozenset[str] = frozenset(),
    does: frozenset[Does] = NOTHING,
) -> Technology:
    """A technology whose items do what they claim, and nothing is known of beside that."""
    return Technology(
        kind=kind,
        name=name,
        figures=SpecialistFigures,
        run=run,
        place=place,
        needs=(),
        judges=judges_nothing,
        reads=reads,
        asks=frozenset(),
        touches=frozenset(),
        changes=frozenset(),
        by_use=False,
        rinses=False,
        repeats=False,
        chlorine_max=None,
        fine_ahead=False,
        psi_min=0.0,
        sets_pressure="caps",
        size=None,
        style=(),
        does=does,
        service=replace(service, specialist=True),
        caution="",
        drawing=kind,
        settings=(),
        checks=CHECKS if kind == "aeration" else {},
    )


AERATION = _specialists(
    "aeration", "Aeration", at(house=20, tap=125), Service(sheets=("air_start",), after_bleach=True)
)
CHLORINATOR = _specialists(
    "chlorinator",
    "Chlorinator",
    at(house=22, tap=125),
    Service(sheets=("feed_start",), after_bleach=True),
)
NITRATE = _specialists(
    "nitrate",
    "Nitrate unit",
    at(house=62, tap=125),
    Service(sheets=("valve", "rebed", "resin", "seals")),
    does=frozenset({"exchanges"}),
)
ARSENIC = _specialists(
    "arsenic",
    "Arsenic unit",
    at(house=64, tap=125),
    Service(sheets=("bed_start", "rebed")),
    reads=frozenset({"ph"}),
)
