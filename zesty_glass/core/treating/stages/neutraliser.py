"""Acid neutralizer: how far calcite or magnesia goes, what it adds to hardness, and how much of it
is used.

Carbonate equilibrium with pK1 = 3404.71/T + 0.032786·T − 14.8435 (Harned and Davis 1943, T in
kelvin).
"""

from __future__ import annotations

from ...evidence import Level
from ...ranges import Range
from ...units import MG_L_PER_GPG
from ..adjusting import BACKWASH, CLOCK_OFF, HOUR, REFILL
from ..checks import Says, met, told
from ..items import Item
from ..place import drop_at, item_pressure, place_checks
from ..report import Check, Chore, Figure, StageReport
from ..stream import Quantity, Stream, predicted
from ..technology import Company, Service, Technology, judges_nothing
from .by_clock import Backwash, backwash_of
from .calcite import (
    NeutraliserFigures,
    Rise,
    co2_mg_l,
    ph_after,
    pk1,
    rise,
    to_saturation,
    to_target,
)
from .common import StageInput, dues, effects, not_priced, report, working
from .neutraliser_media import USUAL_C, carried, media_due, media_figure, media_of

CHECKS = {
    "neutraliser.range": Says(
        "pH {have} is outside what this media corrects ({need}).", "{remedy}"
    ),
    "neutraliser.iron": Says(
        "Iron at {have} coats the bed, and this one takes at most {need}.",
        "Treat iron and sediment before it, or choose a backwashing bed.",
        asks=("iron",),
    ),
    "neutraliser.ph_meter": Says(
        "pH by drops is too coarse to size this.", "Measure the pH by meter on site."
    ),
    "neutraliser.hardness": Says(
        "It adds hardness: {have}.", "A softener after it is sized on the raised hardness."
    ),
    "neutraliser.sodium": Says(
        "Soda ash adds about {have} mg/L of sodium and no hardness.",
        (
            "Anyone on a diet low in sodium asks their physician. An RO system at the drinking tap"
            " takes it out."
        ),
    ),
    "neutraliser.upflow": Says(
        (
            "An upflow bed has no valve to wear and drains nothing, but water may cut channels"
            " through it."
        ),
        "Check its level at every filter change. A low pH after it tells of a channel.",
    ),
    "neutraliser.backwashing": Says(
        (
            "A backwashing bed is lifted so that no channels form. Its valve wears, and one that"
            " sticks keeps the pump running."
        ),
        "Listen for the end of a rinse, and test the valve yearly.",
    ),
    "neutraliser.overshoot": Says(
        "With magnesia, water that stood may pass pH 9.",
        "Use less magnesia, and check after a vacation.",
    ),
    "neutraliser.corrosion": Says(
        "The pH and hardness change: test lead and copper again.",
        "Take a first-draw sample after some weeks.",
    ),
}


WATER_NEUTRAL = 7.0  # [pH] water that is not acid


def _media_checks(f: NeutraliserFigures, ph: Range, inp: StageInput) -> list[Check]:
    bed = (5.0, 6.0) if f.magnesia_share > 0 else (6.0, 6.9)
    wants = (0.0, 5.0) if f.style == "feed" else bed
    text = f"pH {wants[0]:g} to {wants[1]:g}" if wants[0] else "pH under 5"
    out: list[Check] = []
    bed_first = f.style == "feed" and wants[1] <= ph.best < WATER_NEUTRAL
    if ph.best >= WATER_NEUTRAL:
        out.append(
            told(
                "neutraliser.range",
                "warn",
                have=f"{ph.best:.1f}",
                need=text,
                remedy="This water is not acid, and it may not be needed.",
            )
        )
    elif ph.low < wants[0]:
        sure = ph.best < wants[0]
        out.append(
            told(
                "neutraliser.range",
                "stop" if sure else "warn",
                have=f"{ph.best:.1f}",
                need=text,
                remedy="Up to half magnesia from 5 to 6, soda-ash feed below 5.",
            )
        )
    elif bed_first:
        remedy = "A bed of calcite, with magnesia from 5 to 6, unless no bed can stand here."
        out.append(
            told("neutraliser.range", "warn", have=f"{ph.best:.1f}", need=text, remedy=remedy)
        )
    elif ph.best > wants[1] and f.magnesia_share > 0:
        out.append(
            told(
                "neutraliser.range",
                "warn",
                have=f"{ph.best:.1f}",
                need=text,
                remedy="Plain calcite is enough, and does not overshoot.",
            )
        )
    else:
        out.append(met("neutraliser.range", f"pH {ph.best:.1f}, made for {text}"))
    if f.magnesia_share > 0:
        out.append(told("neutraliser.overshoot", "warn"))
    return out


def _iron(f: NeutraliserFigures, inp: StageInput) -> list[Check]:
    fe = inp.stream.range("iron")
    if f.style != "upflow":
        return []
    if fe is None:
        return [
            Check(
                id="neutraliser.iron",
                status="unknown",
                sentence="An upflow bed wants little iron: not tested.",
                test="iron kit",
            )
        ]
    limit = f.iron_max
    if limit is None:
        return [
            Check(
                id="neutraliser.iron",
                status="unknown",
                sentence="Its iron limit is not stated.",
                test="ask the maker for its iron limit",
            )
        ]
    if fe.low > limit:
        return [
            told("neutraliser.iron", "stop", have=f"{fe.best:.2g} mg/L", need=f"{limit:g} mg/L")
        ]
    if fe.high is None:
        at_least = f"{fe.low:.2g} mg/L or more"
        asked = "iron: dilute the sample and repeat"
        return [
            Check(
                id="neutraliser.iron",
                status="unknown",
                sentence=f"Iron {at_least}: an upflow bed wants at most {limit:g} mg/L.",
                test=asked,
            )
        ]
    if fe.top > limit:
        return [
            told("neutraliser.iron", "warn", have=f"{fe.best:.2g} mg/L", need=f"{limit:g} mg/L")
        ]
    return [met("neutraliser.iron", f"iron {fe.best:.2g} mg/L, at most {limit:g}")]


WIDE_PH = 0.6  # [pH] a range wider than this sizes nothing well


def _load(inp: StageInput, f: NeutraliserFigures, ph: Range) -> Rise:
    """What the bed dissolves into this water."""
    stream, temp = inp.stream, inp.stream.range("temperature") or USUAL_C
    alkalinity, calcium, tds = (stream.range(n) for n in ("alkalinity", "calcium", "tds"))
    return rise(f, ph, alkalinity, temp, calcium, tds)


def _ph_unknown(
    inp: StageInput, checks: list[Check], drop: float | None, f: NeutraliserFigures
) -> StageReport:
    """A bed on water whose pH nobody knows: nothing can be said of what it makes."""
    asked = Check(
        id="neutraliser.ph",
        status="unknown",
        sentence="pH not known: nothing can be sized.",
        test="pH by meter on site",
    )
    changes, _ = effects(inp.item, inp.stream)
    for name in ("ph", "hardness", "alkalinity"):
        changes[name] = Quantity(range=None, state="unknown", evidence=Level.TYPICAL)
    outlet = inp.stream.with_(changes)
    washed = _washed(f, inp)
    return report(
        inp,
        outlet,
        [*checks, asked, *washed.checks],
        drop=drop,
        summary=f.style,
        drains=washed.drains,
        running=(*washed.running, not_priced(inp.item, "what it dissolves", "pH by meter")),
        settings=washed.settings,
    )


def _gpg_span(gpg: Range) -> str:
    """A range of hardness in grains, open where its upper end is."""
    return (
        f"{gpg.low:.1f} gpg or more" if gpg.high is None else f"{gpg.low:.1f} to {gpg.high:.1f} gpg"
    )


def _added_checks(f: NeutraliserFigures, r: Rise) -> list[Check]:
    """What it adds to the water: sodium by a feed, else hardness, with its range."""
    if f.style == "feed":
        sodium = r.added.best * SODIUM_PER_ALKALINITY
        return [told("neutraliser.sodium", "warn", have=f"{sodium:.0f}")]
    gpg = r.added.scale(1 / MG_L_PER_GPG)
    bound = ", upper bound" if r.upper_bound else ""
    thumb = ", rule of thumb: ask for a CO2 test" if r.governs == "rule of thumb" else ""
    span = _gpg_span(gpg)
    return [told("neutraliser.hardness", "say", have=f"{gpg.best:.1f} gpg ({span}{bound}{thumb})")]


def run(inp: StageInput) -> StageReport:
    """Raises pH, alkalinity, calcium, hardness and TDS by what dissolves; what stands behind sees
    the raised water.
    """
    item, site, f, stream = inp.item, inp.site, inp.item.figures, inp.stream
    assert isinstance(f, NeutraliserFigures)
    changes, more = effects(item, stream)
    least = None if stream.psi is None else stream.psi.low
    checks = place_checks(item, site) + item_pressure(item, site, least) + more + _iron(f, inp)
    ph, drop = stream.range("ph"), drop_at(item, site.demand.peak_gpm)
    if ph is None or ph.high is None:
        return _ph_unknown(inp, checks, drop, f)
    checks += _media_checks(f, ph, inp)
    if ph.high - ph.low > WIDE_PH:
        checks.append(told("neutraliser.ph_meter", "warn"))
    r = _load(inp, f, ph)
    changes.update(_raised(stream, r, f.style == "feed"))
    media, washed = media_of(f, inp, r), _washed(f, inp)
    checks += [*_added_checks(f, r), told("neutraliser.corrosion", "say"), *washed.checks]
    checks += _of_its_style(f)
    return report(
        inp,
        stream.with_(changes),
        checks,
        figures=lambda: (
            _figure(f, stream, r, ph, stream.range("temperature") or USUAL_C),
            *carried(f, inp, r, media),
            media_figure(f, inp, r, media),
        ),
        drains=washed.drains,
        due=(*dues(item, site), media_due(f, inp, media)),
        running=washed.running,
        chores=(_top_up(f, media.months),),
        drop=drop,
        summary=f.style,
        settings=washed.settings,
    )


#: sodium [mg] that soda ash adds for each mg of alkalinity as CaCO3: two of sodium for two
#: equivalents
SODIUM_PER_ALKALINITY = 22.990 / 50.044


def _raised(stream: Stream, r: Rise, feed: bool) -> dict[str, Quantity]:
    """What the bed adds; soda ash (a feed) adds sodium and alkalinity, and no calcium."""
    out = {"ph": predicted(r.ph, Level.TYPICAL)}
    if feed:
        sodium = stream.range("sodium")
        added = r.added.scale(SODIUM_PER_ALKALINITY)
        out["sodium"] = (
            predicted(sodium.plus(added), Level.TYPICAL)
            if sodium is not None
            else Quantity(
                range=None,
                state="unknown",
                evidence=Level.TYPICAL,
                note=f"rises by {added.best:.0f} mg/L",
            )
        )
    for name in ("alkalinity", "tds") if feed else ("hardness", "calcium", "alkalinity", "tds"):
        now = stream.range(name)
        out[name] = (
            predicted(now.plus(r.added), Level.TYPICAL)
            if now is not None
            else Quantity(
                range=None,
                state="unknown",
                evidence=Level.TYPICAL,
                note=f"rises by {r.added.best:.0f} mg/L",
            )
        )
    return out


def _figure(f: NeutraliserFigures, stream: Stream, r: Rise, ph: Range, temp: Range) -> Figure:
    alk = stream.range("alkalinity")
    gpg = r.added.best / MG_L_PER_GPG
    triples: list[tuple[str, str, str] | tuple[str, str, str, bool]] = [
        ("pH", f"{ph.best:.1f}", ""),
        ("temperature", f"{temp.best:g}", "°C"),
    ]
    if alk is not None and r.governs != "rule of thumb":
        triples += [
            ("alkalinity", f"{alk.best:.0f}", "mg/L as CaCO3"),
            ("pK1", f"{pk1(temp.best):.3f}", ""),
            ("carbon dioxide", f"{co2_mg_l(ph.best, alk.best, temp.best):.0f}", "mg/L"),
        ]
    triples += [
        (f"{r.governs} governs", "", ""),
        ("hardness added", f"{r.added.best:.0f}", "mg/L as CaCO3", True),
        ("", f"{gpg:.1f}", "gpg"),
        ("pH behind it", f"{r.ph.best:.2f}", ""),
    ]
    thumb = r.governs == "rule of thumb"
    sure = "Low confidence: rule of thumb. Ask for a CO2 test." if thumb else ""
    note = "Upper bound: calcium or TDS is not known." if r.upper_bound else sure
    return Figure(
        id="hardness_added",
        label="hardness added",
        value=f"{gpg:.1f}",
        unit="gpg",
        number=gpg,
        worst=_gpg_span(r.added.scale(1 / MG_L_PER_GPG)),
        working=working(
            f"Why {gpg:.1f} gpg?",
            "(A0 + 2x)/(C0 − x) = 10^(target − pK1), or x at saturation index 0",
            "Harned and Davis 1943 (pK1); Standard Methods 2330 B (index)",
            *triples,
            note=note,
        ),
    )


_STYLES = {"upflow": "neutraliser.upflow", "backwashing": "neutraliser.backwashing"}


MIX_MIN, TOP_UP_MIN = 20, 45  # [min] a tank of soda ash, a bed: trade practice (2024)


def _top_up(f: NeutraliserFigures, months: float) -> Chore:
    """Who tops it up, and how often."""
    if f.style == "feed":
        return Chore(label="Mix soda ash", times_year=12 / months, minutes=MIX_MIN)
    return Chore(label="Top up media", times_year=12 / months, minutes=TOP_UP_MIN, own=False)


def _of_its_style(f: NeutraliserFigures) -> list[Check]:
    """What its way of flowing means, in two lines."""
    return [told(_STYLES[f.style], "say")] if f.style in _STYLES else []


IRON_LOOSENS = 0.3  # [mg/L] from here a bed is loosened twice as often: trade practice (2024)


def _washed(f: NeutraliserFigures, inp: StageInput) -> Backwash:
    """A backwashing bed's backwash, twice as often on iron; what its maker does not state is
    asked."""
    if f.style != "backwashing":
        return Backwash()
    if f.backwash_gpm is None or f.backwash_min is None:
        asked = Check(
            id="well.backwash",
            status="unknown",
            sentence="Its backwash flow or time is not stated.",
            test="ask the maker for its backwash",
        )
        return Backwash(checks=(asked,))
    iron = inp.stream.best("iron") or 0.0
    days = f.backwash_days / 2 if iron >= IRON_LOOSENS else f.backwash_days
    return backwash_of(f.backwash_gpm, f.backwash_gpm * f.backwash_min, days, inp)


__all__ = ["co2_mg_l", "ph_after", "pk1", "rise", "run", "to_saturation", "to_target"]


def _place(item: Item, beside: Company, stream: Stream) -> int:
    """Ahead of an iron filter that wants more pH than the raw water has."""
    if item.scope == "tap":
        return 125
    return 25 if beside.iron_wants_ph else 40


NEUTRALISER = Technology(
    kind="neutraliser",
    name="Acid neutralizer",
    figures=NeutraliserFigures,
    run=run,
    place=_place,
    needs=(),
    judges=judges_nothing,
    reads=frozenset(
        {"alkalinity", "calcium", "hardness", "iron", "ph", "sodium", "tds", "temperature"}
    ),
    asks=frozenset(),
    touches=frozenset(),
    changes=frozenset({"ph"}),
    by_use=True,
    rinses=True,
    repeats=False,
    chlorine_max=None,
    fine_ahead=False,
    psi_min=0.0,
    sets_pressure="caps",
    size="volume_ft3",
    style=("style",),
    does=frozenset({"raises pH"}),
    service=Service(
        sheets=("valve", "dose_start", "media", "seals"),
        causes=("setting", "channelled"),
        gauges=("media",),
    ),
    caution="The pH and hardness change: test lead and copper again after some weeks.",
    drawing="neutraliser",
    settings=(REFILL, BACKWASH, HOUR, CLOCK_OFF),
    checks=CHECKS,
)
