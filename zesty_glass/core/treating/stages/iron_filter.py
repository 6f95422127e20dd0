"""Iron, manganese and sulfide filter: pH minima per contaminant, maxima, and a backwash the pump
must deliver.
"""

from __future__ import annotations

from typing import Literal

from ... import words
from ...evidence import Level
from ...ranges import Range, Verdict
from ...record import record
from ..checks import Says, check_need, met, told
from ..figures import Figures
from ..items import Need
from ..place import backwash_checks, drop_at, item_pressure, place_checks
from ..report import Check, Drain, Figure, StageReport
from ..stream import predicted
from ..technology import Technology, at
from .common import StageInput, dues, effects, report, tannin_binds_iron, water_cost, working

CHECKS = {
    "iron.ph": Says(
        "pH {have} here: wants at least {need} for {what}.",
        "pH correction ahead of it.",
        asks=("ph",),
    ),
    "iron.tannin_maybe": Says(
        "Tannin may be at the 0.5 mg/L from which it binds iron: the filter’s claim is not sure.",
        "A finer tannin test, or the laboratory.",
        asks=("tannin",),
    ),
    "iron.tannin": Says(
        "Tannin binds iron and defeats it.",
        "A tannin bed ahead of it: move the stage and write why. Colour and iron by laboratory.",
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
                sentence=f"pH not known here: wants at least {max(w for _, w in wants):g}.",
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


def run(inp: StageInput) -> StageReport:
    """Oxidises and holds back iron (and what the item claims); leaves no rusted iron behind it."""
    item, site, f = inp.item, inp.site, inp.item.figures
    assert isinstance(f, IronFilterFigures)
    stream = inp.stream
    checks = place_checks(item, site) + item_pressure(
        item, site, None if stream.psi is None else stream.psi.low
    )
    checks += [
        c
        for n in _needs(f)
        if (c := check_need(n, stream, "iron_filter", site.units)).status != "unknown"
        or n.analyte == "iron"
        or site.home.private
    ] + _ph(inp, f)
    bound = tannin_binds_iron(stream)
    if bound is Verdict.MET:
        checks.append(told("iron.tannin", "stop"))
    elif bound is Verdict.UNCERTAIN:
        checks.append(told("iron.tannin_maybe", "warn"))
    elif bound is Verdict.UNKNOWN:
        checks.append(
            Check(
                id="iron.tannin",
                status="unknown",
                sentence="Tannin binds iron and defeats it: not tested.",
                test="tannin kit",
            )
        )
    changes, more = effects(item, stream)
    checks += more
    if any(
        c.status == "stop" and c.id in ("iron.ph", "iron.tannin", "iron_filter.iron")
        for c in checks
    ):
        changes = {}
    ferrous = stream.get("iron_ferrous")
    if changes and ferrous is not None:
        changes["iron_ferrous"] = predicted(Range.of(0.0, 0.05, 0.1), Level.TYPICAL)
    times = site.demand.occupied_days / f.backwash_days
    checks += backwash_checks(f.backwash_gpm, f.backwash_gal, 7 / f.backwash_days, site)
    drain = Drain(
        kind="backwash",
        gal_year=times * f.backwash_gal,
        largest_gal=f.backwash_gal,
        times_year=times,
    )
    cost = water_cost(drain.gal_year, site, "house")
    figure = Figure(
        id="backwash",
        label="to the drain a year",
        value=words.about(drain.gal_year),
        unit="gal",
        number=drain.gal_year,
        working=working(
            "How much to the drain?",
            "times a year × gallons a backwash",
            "the item’s own figures",
            ("every", f"{f.backwash_days:g}", "days"),
            ("times a year", f"{times:.1f}", ""),
            ("a backwash", f"{f.backwash_gal:g}", "gal"),
            ("a year", f"{drain.gal_year:,.0f}", "gal", True),
        ),
    )
    return report(
        inp,
        stream.with_(changes, particulate_iron=False if changes else stream.particulate_iron),
        checks,
        figures=lambda: (figure,),
        settings=(("Backwash", f"every {f.backwash_days:g} days"),),
        drains=(drain,),
        due=dues(item, site),
        running=(cost,) if cost else (),
        drop=drop_at(item, site.demand.peak_gpm),
        summary="air" if f.oxidant == "air" else f.oxidant,
    )


IRON_FILTER = Technology(
    kind="iron_filter",
    name="Iron filter",
    figures=IronFilterFigures,
    run=run,
    place=at(house=30, tap=125),
    needs=(),
    reads=frozenset({"hydrogen_sulfide", "iron", "iron_ferrous", "manganese", "ph", "tannin"}),
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
    caution="Backwash to a drain with an air gap, to local code.",
    drawing="iron_filter",
    checks=CHECKS,
)
