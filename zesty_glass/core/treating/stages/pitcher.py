"""Pitcher, refrigerator or counter filter."""

from __future__ import annotations

from typing import Literal

from ...record import record
from ..checks import met
from ..figures import Figures
from ..place import place_checks
from ..report import StageReport
from ..technology import Technology, at, judges_nothing
from .common import StageInput, effects, lasts_days, report, weekend_checks


@record
class PitcherFigures(Figures):
    """Pitcher, refrigerator or counter filter."""

    kind: Literal["pitcher"] = "pitcher"
    style: Literal["pitcher", "refrigerator", "counter"]
    change_at_tds: float | None = None


def run(inp: StageInput) -> StageReport:
    """Pitcher, refrigerator or counter filter: only its claimed contaminants, changed by capacity
    or reading.
    """
    item, f = inp.item, inp.item.figures
    assert isinstance(f, PitcherFigures)
    changes, more = effects(item, inp.stream)
    checks = place_checks(item, inp.site) + more + weekend_checks(inp)
    if f.change_at_tds is not None:
        checks.append(
            met("pitcher.change", f"change when its water reads {f.change_at_tds:g} mg/L")
        )
    return report(
        inp, inp.stream.with_(changes), checks, figures=lambda: lasts_days(inp), summary=f.style
    )


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
    by_use=False,
    rinses=False,
    repeats=False,
    chlorine_max=None,
    fine_ahead=False,
    psi_min=0.0,
    sets_pressure="caps",
    size=None,
    style=("style",),
    caution="",
    drawing="pitcher",
    settings=(),
    checks={},
)
