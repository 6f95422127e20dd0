"""Salt-free (crystal-forming) and physical conditioners: the minerals stay."""

from __future__ import annotations

from typing import Literal

from ...doing import NOTHING
from ...evidence import LEVEL_WORDS, Level
from ...record import record
from ..checks import Says, check_needs, met, told
from ..figures import Figures
from ..items import Need
from ..place import drop_at, item_pressure, place_checks
from ..report import Check, StageReport
from ..stream import Quantity
from ..technology import Service, Technology, at, judges_nothing
from .common import StageInput, effects, report

SALT_FREE_NEEDS = (
    Need(analyte="iron", limit=0.3, why="Iron coats the media."),
    Need(analyte="manganese", limit=0.05, severity="warn"),
    Need(analyte="chlorine_free", limit=3.0, why="Carbon ahead of it."),
)


CHECKS = {
    "conditioner.minerals": Says(
        "The minerals stay: hardness out is hardness in. No softened feel, little soap saved.",
        "Say so to the customer.",
    ),
    "conditioner.evidence": Says("Less scale sticking: {have}.", "Ask for the test protocol."),
    "conditioner.phosphate": Says(
        "No phosphate dosing may run ahead of it.", "Ask the utility, or look for a feeder."
    ),
    "conditioner.flow": Says(
        "Made for {need} gpm; the peak here is {have} gpm.", "The size that fits.", by_place=True
    ),
    "physical.disputed": Says(
        "The effect on scale is disputed: maker states.", "Nothing is predicted for it."
    ),
}


@record
class ConditionerFigures(Figures):
    """Salt-free (crystal-forming) or physical conditioner: sized by flow; the minerals remain."""

    kind: Literal["salt_free", "physical"]
    flow_min_gpm: float = 0.0
    flow_max_gpm: float
    protocol: str = ""
    covers: Literal["house", "appliance", "shower"] = "house"


def _fits(f: ConditionerFigures, peak: float) -> list[Check]:
    """Whether the peak flow [gpm] lies within what it is made for."""
    if f.covers != "house":
        return []
    least = f"{f.flow_min_gpm:g} to" if f.flow_min_gpm else "up to"
    wants = f"{least} {f.flow_max_gpm:g}"
    if f.flow_min_gpm <= peak <= f.flow_max_gpm:
        return [met("conditioner.flow", f"peak {peak:g} gpm, made for {wants} gpm")]
    return [told("conditioner.flow", "warn", need=wants, have=f"{peak:g}")]


def _evidence(inp: StageInput, f: ConditionerFigures) -> list[Check]:
    """What is known of it: a protocol or the maker's word; of a physical device nothing agreed."""
    minerals = told("conditioner.minerals", "say")
    if f.kind != "salt_free":
        return [told("physical.disputed", "warn"), minerals]
    site = inp.site
    known = f"tested to {f.protocol}" if f.protocol else LEVEL_WORDS[Level.MAKER_STATES]
    return [
        *check_needs(SALT_FREE_NEEDS, inp.stream, "salt_free", site.units, site.home.private),
        told("conditioner.evidence", "say", have=known),
        told("conditioner.phosphate", "say"),
        minerals,
    ]


def run(inp: StageInput) -> StageReport:
    """Crystal-forming media or a physical device: hardness out is hardness in, with the evidence
    for scale said.
    """
    item, site, f, stream = inp.item, inp.site, inp.item.figures, inp.stream
    assert isinstance(f, ConditionerFigures)
    peak = site.demand.peak_gpm
    changes, more = effects(item, stream)
    checks = [
        *place_checks(item, site),
        *item_pressure(item, site, None if stream.psi is None else stream.psi.low),
        *_fits(f, peak),
        *_evidence(inp, f),
        *more,
    ]
    hard = stream.get("hardness")
    if hard is not None:
        changes["hardness"] = Quantity(
            range=hard.range,
            state="predicted" if hard.range else "unknown",
            evidence=Level.DOES_NOT_REMOVE,
            below=hard.below,
        )
    return report(
        inp,
        stream.with_(changes),
        checks,
        drop=drop_at(item, peak) if f.covers == "house" else 0.0,
        summary="minerals stay",
    )


SALT_FREE = Technology(
    kind="salt_free",
    name="Salt-free conditioner",
    figures=ConditionerFigures,
    run=run,
    place=at(house=50, tap=125),
    needs=SALT_FREE_NEEDS,
    judges=lambda item: SALT_FREE_NEEDS,
    reads=frozenset({"hardness"}),
    asks=frozenset(),
    touches=frozenset(),
    changes=frozenset({"hardness"}),
    by_use=False,
    rinses=False,
    repeats=False,
    chlorine_max=None,
    fine_ahead=False,
    psi_min=0.0,
    sets_pressure="caps",
    size="flow_max_gpm",
    style=("covers",),
    does=frozenset({"leaves minerals", "against hardness"}),
    service=Service(sheets=("bed_start", "housing_start", "cartridge", "rebed")),
    caution="",
    drawing="salt_free",
    settings=(),
    checks=CHECKS,
)

PHYSICAL = Technology(
    kind="physical",
    name="Physical conditioner",
    figures=ConditionerFigures,
    run=run,
    place=at(house=51, tap=125),
    needs=(),
    judges=judges_nothing,
    reads=frozenset({"hardness"}),
    asks=frozenset(),
    touches=frozenset(),
    changes=frozenset({"hardness"}),
    by_use=False,
    rinses=False,
    repeats=False,
    chlorine_max=None,
    fine_ahead=False,
    psi_min=0.0,
    sets_pressure="caps",
    size="flow_max_gpm",
    style=("covers",),
    does=NOTHING,
    service=Service(sheets=("physical_start", "cartridge")),
    caution="",
    drawing="physical",
    settings=(),
    checks={},
)
