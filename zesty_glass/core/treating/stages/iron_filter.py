"""Iron, manganese and sulfide filter: pH minima per contaminant, maxima, and a backwash the pump
must deliver.
"""

from __future__ import annotations

from typing import Literal

from ...evidence import Level
from ...ranges import Range, Verdict
from ...record import record
from ..adjusting import BACKWASH, CLOCK_OFF, HOUR
from ..checks import Says, check_need, met, told
from ..figures import Figures
from ..items import Item, Need
from ..place import backwash_checks, drop_at, item_pressure, place_checks
from ..report import Check, StageReport
from ..stream import Quantity, Stream, predicted
from ..technology import Service, Technology, at
from .by_clock import clock_days, cost_of, drain_of, empty_house, every_days, figure_of, rinses
from .common import StageInput, dues, effects, not_known, report, tannin_binds_iron

CHECKS = {
    "iron.ph": Says(
        "The pH here is {have}, and it needs at least {need} for {what}.",
        "Correct the pH before it.",
        asks=("ph",),
    ),
    "iron.tannin_maybe": Says(
        (
            "Tannin may be at the 0.5 mg/L from which it binds iron, and the filter’s claim is not"
            " sure."
        ),
        "Do a finer tannin test, or have a laboratory test it.",
        asks=("tannin",),
    ),
    "iron.tannin": Says(
        "Tannin binds iron and defeats it.",
        (
            "Put a tannin filter before it: move the stage and write why. Have a laboratory test"
            " color and iron."
        ),
        asks=("tannin",),
    ),
}


@record
class IronFilterFigures(Figures):
    """Iron, manganese and sulfide filter; pH minima per contaminant, maxima [mg/L]."""

    kind: Literal["iron_filter"] = "iron_filter"
    oxidant: Literal["air", "chlorine", "none"] = "air"
    dense: bool = False
    iron_max: float
    manganese_max: float | None = None
    sulfide_max: float | None = None
    ph_min_iron: float
    ph_min_manganese: float | None = None
    backwash_gpm: float
    backwash_gal: float
    backwash_days: float

    above_zero = ("backwash_days",)

    @property
    def wants_ph(self) -> float:
        """The least pH it works at for all that it claims."""
        return max(self.ph_min_iron, self.ph_min_manganese or 0.0)


def _needs(f: IronFilterFigures) -> tuple[Need, ...]:
    out = [Need(analyte="iron", limit=f.iron_max)]
    if f.manganese_max is not None:
        out.append(Need(analyte="manganese", limit=f.manganese_max))
    if f.sulfide_max is not None:
        out.append(Need(analyte="hydrogen_sulfide", limit=f.sulfide_max, severity="warn"))
    return tuple(out)


def _judges(item: Item) -> tuple[Need, ...]:
    assert isinstance(item.figures, IronFilterFigures)
    return _needs(item.figures)


def _ph(inp: StageInput, f: IronFilterFigures) -> list[Check]:
    ph = inp.stream.range("ph")
    wants = [("iron", f.ph_min_iron)]
    mn = inp.stream.range("manganese")
    if f.ph_min_manganese is not None and mn is not None and mn.best > 0.05:
        wants.append(("manganese", f.ph_min_manganese))
    if ph is None:
        return [
            Check(
                id="iron.ph",
                status="unknown",
                sentence=(
                    f"{not_known('pH', inp, 'ph')}: at least {max(w for _, w in wants):g} here."
                ),
                test="pH by meter on site",
            )
        ]
    out = []
    for what, least in wants:
        if ph.low >= least:
            out.append(met("iron.ph", f"pH {ph.best:.1f}, at least {least:g} for {what}"))
        else:
            sure = ph.high is not None and ph.high < least
            out.append(
                told(
                    "iron.ph",
                    "stop" if sure else "warn",
                    have=f"{ph.best:.1f}",
                    need=f"{least:g}",
                    what=what,
                )
            )
    return out


def _tannin(stream: Stream) -> list[Check]:
    """What tannin does to its claim on iron."""
    match tannin_binds_iron(stream):
        case Verdict.MET:
            return [told("iron.tannin", "stop")]
        case Verdict.UNCERTAIN:
            return [told("iron.tannin_maybe", "warn")]
        case Verdict.UNKNOWN:
            return [
                Check(
                    id="iron.tannin",
                    status="unknown",
                    sentence="Tannin binds iron and defeats it, and it is not tested.",
                    test="tannin kit",
                )
            ]
        case _:
            return []


def _asked(n: Need, check: Check, private: bool) -> bool:
    """Whether what is not known is asked for: on town water iron alone."""
    return check.status != "unknown" or n.analyte == "iron" or private


def _may_stand(inp: StageInput, f: IronFilterFigures) -> list[Check]:
    item, site, stream = inp.item, inp.site, inp.stream
    held = [(n, check_need(n, stream, "iron_filter", site.units)) for n in _needs(f)]
    return [
        *place_checks(item, site),
        *item_pressure(item, site, None if stream.psi is None else stream.psi.low),
        *(c for n, c in held if _asked(n, c, site.home.private)),
        *_ph(inp, f),
        *_tannin(stream),
    ]


def _behind(inp: StageInput) -> tuple[dict[str, Quantity], list[Check]]:
    """What it takes out."""
    changes, more = effects(inp.item, inp.stream)
    if changes and inp.stream.get("iron_ferrous") is not None:
        changes["iron_ferrous"] = predicted(Range.of(0.0, 0.05, 0.1), Level.TYPICAL)
    return changes, more


def run(inp: StageInput) -> StageReport:
    """Oxidises and holds back iron (and what the item claims); leaves no rusted iron behind it."""
    item, site, f, stream = inp.item, inp.site, inp.item.figures, inp.stream
    assert isinstance(f, IronFilterFigures)
    checks = _may_stand(inp, f)
    changes, more = _behind(inp)
    every = inp.adjusted(BACKWASH, f.backwash_days)
    year = rinses(every, f.backwash_gal, clock_days(inp))
    checks += more + backwash_checks(f.backwash_gpm, f.backwash_gal, 7 / every, site)
    checks += empty_house(inp)
    formula = "times a year × gallons a backwash"
    return report(
        inp,
        stream.with_(changes, particulate_iron=False if changes else stream.particulate_iron),
        checks,
        figures=lambda: (figure_of(year, "backwash", formula, "a backwash"),),
        settings=(("Backwash", every_days(every)),),
        drains=(drain_of(year, "backwash"),),
        due=dues(item, site),
        running=cost_of(year, site),
        drop=drop_at(item, site.demand.peak_gpm),
        summary="air" if f.oxidant == "air" else f.oxidant,
        decides=frozenset({"iron.ph"}),
    )


IRON_FILTER = Technology(
    kind="iron_filter",
    name="Iron filter",
    figures=IronFilterFigures,
    run=run,
    place=at(house=30, tap=125),
    needs=(),
    judges=_judges,
    reads=frozenset({"manganese", "ph", "tannin"}),
    asks=frozenset({"iron_ferrous"}),
    touches=frozenset({"@particulate_iron"}),
    changes=frozenset({"hydrogen_sulfide", "iron", "manganese"}),
    by_use=False,
    rinses=True,
    repeats=False,
    chlorine_max=None,
    fine_ahead=False,
    psi_min=0.0,
    sets_pressure="caps",
    size=None,
    style=("dense", "oxidant"),
    does=frozenset({"takes iron"}),
    service=Service(sheets=("valve", "rebed", "seals"), causes=("setting", "channelled")),
    caution="Backwash to a drain with an air gap, to local code.",
    drawing="iron_filter",
    settings=(BACKWASH, HOUR, CLOCK_OFF),
    checks=CHECKS,
)
