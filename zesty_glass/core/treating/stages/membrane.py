"""Reverse osmosis: what it makes here, what it sends to the drain, and what it needs."""

from __future__ import annotations

from ...evidence import Level
from ...ranges import Range, Verdict
from ...record import record
from ...units import MG_L_PER_GPG
from ..checks import Says, check_need, check_needs, judged, merged_needs, met, told
from ..items import Item, Need
from ..place import item_pressure, place_checks
from ..report import Check, Drain, Due, Running, StageReport
from ..site import Disinfected, Site
from ..stream import Quantity, Stream, predicted
from ..technology import Service, Technology, at
from .common import StageInput, dues, effects, not_priced, report, water_cost
from .membrane_flow import (
    Here,
    MembraneFigures,
    at_home,
    for_nothing,
    passage_here,
    rated_ratio,
    waste_ratio,
)
from .membrane_shown import figures_of, rated_waste, settings_of, summary_of

CHECKS = {
    "membrane.feed": Says(
        "Bacteria in its feed are {have}, and an RO membrane is no disinfection.",
        "Disinfect the water before it.",
        asks=(
            "@uv",
            "@chlorinator",
        ),
    ),
    "membrane.never": Says(
        "No net pressure is left: it would make nothing.",
        "Put a booster pump before it, or choose another system.",
        asks=("@booster",),
    ),
    "membrane.drains": Says(
        (
            "No net pressure is left, so its tank never fills and its drain never closes: {have}"
            " gal a day for nothing."
        ),
        "Do not install it here without a booster pump.",
        asks=("@booster",),
    ),
    "membrane.yield": Says(
        "It makes {have} gal a day, and {need} gal are drunk.",
        "Choose the next size up, or add a booster pump.",
    ),
    "membrane.copper": Says(
        "Its water has a low pH: no copper line may follow it.", "Run a plastic line to the tap."
    ),
    "membrane.no_shutoff": Says(
        "It has no shut-off: its drain runs all day.", "Choose one with a shut-off valve."
    ),
    "membrane.sulfate": Says(
        "Sulfate is {have} mg/L. From {need} mg/L, gypsum may form on the membrane.",
        "Choose a lower recovery, an antiscalant or a specialist’s design.",
    ),
    "membrane.silica": Says(
        (
            "Silica is {have} mg/L. From {need} mg/L, it may form on the membrane, and cleaning"
            " does not take it off."
        ),
        "Choose a lower recovery or a specialist’s design.",
    ),
    "membrane.concentrate": Says(
        "Ratio 0: nothing to the drain, so it works as a cartridge.", "Watch its life."
    ),
}


LEAST_PSI = 40.0  # [psi] running, where an item states none: trade practice (2024)
#: how far its rejection may lie under and over what is rated, as shares: trade practice (2024)
REJECTION_UNDER, REJECTION_OVER = 0.03, 0.02
#: harder feed water than this [mg/L as CaCO3] scales a membrane
SCALES = Need(
    analyte="hardness",
    limit=171.18,
    severity="warn",
    why="It scales: soften the water before it, or expect a shorter life.",
)
#: shares of a membrane's life on water harder than so much [mg/L as CaCO3], the harder the shorter:
#: over 10, and from 25 gpg on (trade practice, 2024)
LIFE_ON_HARD = (
    (SCALES, 0.67),
    (Need(analyte="hardness", limit=25 * MG_L_PER_GPG, severity="warn"), 0.4),
)
LIFE_UNTESTED = 0.75  # share of its life where hardness was not tested: trade practice (2024)

NEEDS = (
    Need(
        analyte="chlorine_free", limit=0.1, why="Put carbon before it: chlorine eats the membrane."
    ),
    Need(
        analyte="chlorine_total",
        limit=0.1,
        severity="warn",
        why="Chloramine eats it slowly: put catalytic carbon before it.",
    ),
    SCALES,
    Need(analyte="iron", limit=0.1, severity="warn", why="Iron fouls it."),
    Need(analyte="manganese", limit=0.05, severity="warn", why="Manganese fouls it."),
    Need(analyte="tds", limit=2000.0),
    Need(analyte="temperature", op="at_least", limit=4.0),
    Need(analyte="temperature", limit=38.0),
)


def _feed_checks(inp: StageInput) -> list[Check]:
    site = inp.site
    if inp.disinfected is Disinfected.YES:
        return [met("membrane.feed", "disinfection ahead")]
    if inp.disinfected is Disinfected.OPEN:
        return [
            Check(
                id="membrane.feed",
                status="unknown",
                sentence=(
                    "It needs a feed without bacteria, and the UV system before it has open tests."
                ),
                test="the tests that the lamp ahead asks for",
            )
        ]
    if site.unsafe_likely:
        return [
            told(
                "membrane.feed",
                "stop",
                have="present" if site.bacteria == "present" else "likely (surface water)",
            )
        ]
    if site.home.private and site.bacteria is None:
        return [
            Check(
                id="membrane.feed",
                status="unknown",
                sentence="It needs a feed without bacteria, and that is not tested.",
                test="laboratory: coliform",
            )
        ]
    return [
        met(
            "membrane.feed",
            "bacteria absent by laboratory" if site.home.private else "disinfected town water",
        )
    ]


def _ph_needs(f: MembraneFigures) -> tuple[Need, Need]:
    return (
        Need(analyte="ph", op="at_least", limit=f.ph_min),
        Need(analyte="ph", limit=f.ph_max),
    )


def _judges(item: Item) -> tuple[Need, ...]:
    assert isinstance(item.figures, MembraneFigures)
    return (
        *merged_needs(item, NEEDS),
        *_ph_needs(item.figures),
        *(need for need, _ in LIFE_ON_HARD),
        *FALLS_OUT,
    )


def _ph(inp: StageInput, f: MembraneFigures) -> list[Check]:
    checks = [check_need(n, inp.stream, "membrane", inp.site.units) for n in _ph_needs(f)]
    return checks[:1] if checks[0].status == "unknown" else checks


#: from which gypsum and silica fall out on a membrane [mg/L]: membrane makers' guides (2024)
FALLS_OUT = (
    Need(analyte="sulfate", limit=999.9, severity="warn"),
    Need(analyte="silica", limit=39.9, severity="warn"),
)


def _precipitates(stream: Stream) -> list[Check]:
    """What was measured of sulfate and silica that a membrane concentrates until it falls out."""
    out = []
    for need in FALLS_OUT:
        r, name = stream.range(need.analyte), need.analyte
        if r is not None and judged(need, stream) is not Verdict.MET:
            said = {"have": f"{r.best:.0f}", "need": f"{need.limit:.0f}"}
            out.append(told(f"membrane.{name}", "warn", **said))
    return out


def _least_pressure(inp: StageInput) -> list[Check]:
    """Whether enough pressure reaches it, where the item does not say how much that is."""
    psi = inp.stream.psi
    if inp.item.psi_min is not None:
        return []
    if psi is None:
        return [
            Check(
                id="pressure.least",
                status="unknown",
                sentence=f"Wants at least {LEAST_PSI:g} psi running: not measured.",
                test="pressure gauge, a tap open",
            )
        ]
    if psi.low >= LEAST_PSI:
        return [met("pressure.least", f"{psi.low:.0f} psi running, at least {LEAST_PSI:g}")]
    return [told("pressure.least", "stop", need=f"{LEAST_PSI:g}", have=f"{psi.low:.0f}")]


def _may_stand(inp: StageInput, f: MembraneFigures) -> list[Check]:
    """Place, pressure and everything that the feed has to be."""
    item, site, stream = inp.item, inp.site, inp.stream
    least = None if stream.psi is None else stream.psi.low
    needs = merged_needs(item, NEEDS)
    return [
        *place_checks(item, site),
        *item_pressure(item, site, least, f.psi_max),
        *_least_pressure(inp),
        *check_needs(needs, stream, "membrane", site.units, site.home.private),
        *_ph(inp, f),
        *_precipitates(stream),
        *_feed_checks(inp),
    ]


def _behind(inp: StageInput, f: MembraneFigures) -> tuple[dict[str, Quantity], list[Check]]:
    """What it makes of the water: its claims, dissolved solids by its rejection, a pH that nobody
    can say."""
    item, stream = inp.item, inp.stream
    changes, checks = effects(item, stream)
    if not f.polished:
        changes["ph"] = Quantity(
            range=None, state="unknown", evidence=Level.TYPICAL, note="unknown behind a membrane"
        )
        checks.append(told("membrane.copper", "say"))
    tds = stream.range("tds")
    if tds is not None and "tds" not in changes:
        changes["tds"] = predicted(_by_its_rating(f, stream, tds), Level.MAKER_STATES)
    return changes, checks


def _by_its_rating(f: MembraneFigures, stream: Stream, tds: Range) -> Range:
    """TDS behind a membrane of a bare rating, at the pressure that is here; a system certified to
    NSF/ANSI 58 claims its own, and is taken as certified.
    """
    low, high = max(0.0, f.rejection - REJECTION_UNDER), min(1.0, f.rejection + REJECTION_OVER)
    psi = stream.psi
    if psi is None:
        return tds.removed(low, f.rejection, high)

    def passes(rejection: float, at_psi: float, feed: float) -> float:
        back = at_home(f, at_psi, feed, f.rated_c).back_psi
        return min(1.0, (1 - rejection) * passage_here(f, at_psi, feed, back))

    best = tds.best * passes(f.rejection, psi.best, tds.best)
    least = tds.low * passes(high, psi.seen_top, tds.low)
    most = None if tds.high is None else tds.high * passes(low, psi.low, tds.high)
    return Range.of(min(least, best), best, None if most is None else max(most, best))


def _not_measured(stream: Stream) -> list[str]:
    """What its yield hangs on and nobody measured."""
    asked = {
        "running pressure": stream.psi,
        "TDS": stream.range("tds"),
        "temperature": stream.range("temperature"),
    }
    return [name for name, r in asked.items() if r is None]


@record
class _Size:
    """A membrane at this home: at the best values, at the worst end, what runs to the drain for a
    gallon drunk, and what runs there for nothing [gal/year]."""

    here: Here
    low: Here
    ratio: float | None
    lost: float


def _sized(stream: Stream, f: MembraneFigures, site: Site) -> _Size:
    """What it makes here, from pressure, dissolved solids and temperature of the feed."""
    psi, tds, temp = stream.psi, stream.range("tds"), stream.range("temperature")
    assert psi is not None and tds is not None and temp is not None
    here = at_home(f, psi.best, tds.best, temp.best)
    low = at_home(f, psi.low, tds.top, temp.low)
    makes = here.gpd > 0
    ratio = waste_ratio(f, here, site.demand.drinking_gal_day) if makes else None
    lost = for_nothing(f, here) * site.demand.occupied_days
    return _Size(here=here, low=low, ratio=ratio, lost=lost)


def run(inp: StageInput) -> StageReport:
    """A membrane on the water that reaches it; unknown pressure, temperature or TDS leave its yield
    unknown.
    """
    f, stream = inp.item.figures, inp.stream
    assert isinstance(f, MembraneFigures)
    checks = _may_stand(inp, f)
    if inp.searching and any(c.status == "stop" for c in checks):
        return report(inp, stream, checks)  # a search asks no further of what is stopped
    changes, more = _behind(inp, f)
    checks += more
    if not f.shut_off:
        checks.append(told("membrane.no_shutoff", "warn"))
    if f.rated_ratio == 0:
        checks.append(told("membrane.concentrate", "say"))
    missing = _not_measured(stream)
    if missing:
        return _as_rated(inp, f, stream.with_(changes), checks, missing)
    size = _sized(stream, f, inp.site)
    drunk = inp.site.demand.drinking_gal_year
    checks += _yield_checks(f, size.here, size.low, inp.site.demand.drinking_gal_day)
    return report(
        inp,
        stream.with_(changes),
        checks,
        figures=lambda: figures_of(f, size.here, size.low, size.ratio, drunk),
        settings=() if inp.brief else settings_of(f),
        drains=_drains(f, size.ratio, drunk) + _lost(size.lost),
        due=_dues(inp),
        running=_water(f, size.ratio, inp, size.lost),
        summary=summary_of(f, size.here),
        drain_unknown=size.ratio is None and size.lost <= 0,
    )


def _as_rated(
    inp: StageInput, f: MembraneFigures, outlet: Stream, checks: list[Check], missing: list[str]
) -> StageReport:
    """A membrane whose yield here is not known: its waste as rated, and the test that tells."""
    unknown = Check(
        id="membrane.yield",
        status="unknown",
        sentence=f"What it makes here is not known: {', '.join(missing)} not measured.",
        test=missing[0],
    )
    ratio = rated_ratio(f, inp.site.demand.drinking_gal_day)
    drunk = inp.site.demand.drinking_gal_year
    priced = ratio is not None or inp.site.home.drain_price == 0
    unpriced = () if priced else (not_priced(inp.item, "water to the drain", missing[0]),)
    return report(
        inp,
        outlet,
        [*checks, unknown],
        figures=lambda: rated_waste(f, ratio, drunk),
        drains=_drains(f, ratio, drunk),
        due=_dues(inp),
        running=(*_water(f, ratio, inp), *unpriced),
        summary=f"{f.rated_gpd:g} gal/day",
        drain_unknown=ratio is None,
    )


def _yield_checks(f: MembraneFigures, here: Here, low: Here, need: float) -> list[Check]:
    if here.gpd <= 0 and for_nothing(f, here):
        return [told("membrane.drains", "stop", have=f"{here.drain:.0f}")]
    if here.gpd <= 0:
        return [told("membrane.never", "stop")]
    if here.gpd < need:
        return [told("membrane.yield", "stop", have=f"{here.gpd:.0f}", need=f"{need:.1f}")]
    if low.gpd < need:
        return [told("membrane.yield", "warn", have=f"{low.gpd:.0f}", need=f"{need:.1f}")]
    return [met("membrane.yield", f"makes {here.gpd:.0f} gal a day; {need:.1f} gal are drunk")]


def _dues(inp: StageInput) -> tuple[Due, ...]:
    scale = judged(SCALES, inp.stream)
    factor, why = 1.0, ""
    if scale is Verdict.UNKNOWN:
        factor, why = LIFE_UNTESTED, "hardness not known: a membrane’s life is counted shorter"
    elif scale is not Verdict.MET:
        short = [life for need, life in LIFE_ON_HARD if judged(need, inp.stream) is not Verdict.MET]
        factor, why = short[-1], "hard water ahead of the membrane shortens its life"
    return dues(inp.item, inp.site, factor, why, ("membrane",))


def _drains(f: MembraneFigures, ratio: float | None, gallons: float) -> tuple[Drain, ...]:
    if ratio is None or f.rated_ratio == 0:
        return ()
    tank = (f.tank_gal or 0.0) * ratio
    return (
        Drain(
            kind="membrane",
            gal_year=ratio * gallons,
            largest_gal=tank,
            times_year=0.0,
            per_gallon=ratio,
            scope="tap",
        ),
    )


def _lost(gallons: float) -> tuple[Drain, ...]:
    """Water that runs to the drain the whole year, while nothing is made."""
    if gallons <= 0:
        return ()
    return (Drain(kind="membrane", gal_year=gallons, largest_gal=0.0, times_year=0.0, scope="tap"),)


def _water(
    f: MembraneFigures, ratio: float | None, inp: StageInput, lost: float = 0.0
) -> tuple[Running, ...]:
    gallons = inp.site.demand.drinking_gal_year
    out = [
        water_cost(gallons, inp.site, "tap", "Water drunk"),
        water_cost(lost, inp.site, "tap"),
    ]
    if ratio is not None and f.rated_ratio > 0:
        out.append(water_cost(gallons * ratio, inp.site, "tap"))
    return tuple(c for c in out if c is not None)


MEMBRANE = Technology(
    kind="membrane",
    name="RO system",
    figures=MembraneFigures,
    run=run,
    place=at(house=75, tap=130),
    needs=NEEDS,
    judges=_judges,
    reads=frozenset({"@disinfected", "tds", "temperature"}),
    asks=frozenset(),
    touches=frozenset(),
    changes=frozenset({"tds"}),
    by_use=True,
    rinses=False,
    repeats=False,
    chlorine_max=None,
    fine_ahead=False,
    psi_min=LEAST_PSI,
    sets_pressure="caps",
    size="rated_gpd",
    style=(),
    does=frozenset({"holds back", "makes slowly"}),
    service=Service(sheets=("membrane_start", "tap_set"), causes=("seal",), drift="rejection"),
    caution=(
        "Turn the water off and relieve the pressure before you open a housing. Run no copper"
        " line after the membrane. Sanitize as its manual says."
    ),
    drawing="membrane",
    settings=(),
    checks=CHECKS,
)
