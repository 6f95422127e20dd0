"""Pitcher, refrigerator or counter filter."""

from __future__ import annotations

from dataclasses import replace
from typing import Literal

from ...doing import NOTHING
from ...record import record
from ..checks import Says, met, told
from ..figures import Figures
from ..items import Item
from ..place import place_checks
from ..report import Check, Figure, StageReport
from ..stream import Stream
from ..technology import Service, Technology, at, judges_nothing
from .common import StageInput, effects, lasts_days, report, weekend_checks

CHECKS = {
    "pitcher.resin": Says(
        "Its resin is rated at {need} mg/L TDS; at {have} mg/L here its gallons change in"
        " proportion.",
        "A meter says when it is used up.",
    ),
    "pitcher.days": Says(
        "This water uses up a cartridge in {have}.", "Look at what that costs in a year."
    ),
    "pitcher.too_often": Says(
        "This water uses up a cartridge in {have}: nobody changes one that often for long.",
        "Choose a system that is made for this much.",
    ),
}
#: a cartridge that lasts less is a burden, or no way to live with [days]: trade practice (2024)
BURDEN_DAYS, TOO_OFTEN_DAYS = 14.0, 4.0


@record
class PitcherFigures(Figures):
    """Pitcher, refrigerator or counter filter; ``rated_tds``: of the water that its exchange
    resin's gallons are rated at [mg/L].
    """

    kind: Literal["pitcher"] = "pitcher"
    style: Literal["pitcher", "refrigerator", "counter"]
    change_at_tds: float | None = None
    rated_tds: float | None = None

    above_zero = ("rated_tds",)


def run(inp: StageInput) -> StageReport:
    """Pitcher, refrigerator or counter filter: only its claimed contaminants, changed by capacity
    or reading.
    """
    item, f = inp.item, inp.item.figures
    assert isinstance(f, PitcherFigures)
    changes, more = effects(item, inp.stream)
    item, asked = _on_this_water(item, f, inp.stream)
    inp = replace(inp, item=item)
    figures = lasts_days(inp)
    checks = place_checks(item, inp.site) + more + weekend_checks(inp) + asked + _changes(figures)
    if f.change_at_tds is not None:
        checks.append(
            met("pitcher.change", f"change when its water reads {f.change_at_tds:g} mg/L")
        )
    return report(inp, inp.stream.with_(changes), checks, figures=lambda: figures, summary=f.style)


def _changes(figures: tuple[Figure, ...]) -> list[Check]:
    """What it means that a cartridge lasts only days; nothing where it lasts or no gallons are
    stated.
    """
    lasts = next((f.number for f in figures if f.number is not None), BURDEN_DAYS)
    if lasts >= BURDEN_DAYS:
        return []
    said = "about a day" if lasts < 1.5 else f"about {lasts:.0f} days"
    if lasts < TOO_OFTEN_DAYS:
        return [told("pitcher.too_often", "stop", have=said)]
    return [told("pitcher.days", "warn", have=said)]


def _on_this_water(item: Item, f: PitcherFigures, stream: Stream) -> tuple[Item, list[Check]]:
    """An exchange resin's cartridge with the gallons that it lasts on this water: what it holds is
    so many milligrams, and more dissolved fills it sooner.

    Source: balance of charge; a makers' rating names its TDS.
    """
    if f.rated_tds is None:
        return item, []
    tds = stream.range("tds")
    if tds is None or tds.best <= 0:
        asked = Check(
            id="pitcher.tds",
            status="unknown",
            sentence=f"Its gallons are rated at {f.rated_tds:g} mg/L TDS: not tested here.",
            test="TDS by meter",
        )
        return item, [asked]
    share = f.rated_tds / tds.best
    parts = tuple(
        c if c.capacity_gal is None else replace(c, capacity_gal=c.capacity_gal * share)
        for c in item.consumables
    )
    said = told("pitcher.resin", "say", have=f"{tds.best:.0f}", need=f"{f.rated_tds:g}")
    return replace(item, consumables=parts), [said]


def _rated_at(item: Item) -> frozenset[str]:
    """Its gallons hang on the dissolved solids where they are rated at some."""
    f = item.figures
    rated = isinstance(f, PitcherFigures) and f.rated_tds is not None
    return frozenset({"tds"} if rated else ())


PITCHER = Technology(
    kind="pitcher",
    name="Pitcher or counter filter",
    figures=PitcherFigures,
    run=run,
    place=at(house=170, tap=170),
    needs=(),
    judges=judges_nothing,
    reads=frozenset(),
    asks=frozenset(),
    touches=frozenset(),
    changes=frozenset(),
    by_use=True,
    rinses=False,
    repeats=False,
    chlorine_max=None,
    fine_ahead=False,
    psi_min=0.0,
    sets_pressure="caps",
    size=None,
    style=("style",),
    does=NOTHING,
    service=Service(sheets=("pitcher_start", "pitcher")),
    caution="",
    drawing="pitcher",
    settings=(),
    checks=CHECKS,
    also_reads=_rated_at,
)
