"""Carbon, standard or catalytic: contact time decides what it can take out."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from functools import partial
from typing import Literal

from ...home import Source
from ...ranges import Range
from ...record import record
from ..adjusting import BACKWASH, CLOCK_OFF, HOUR
from ..checks import Says, met, told
from ..figures import Figures
from ..items import Item
from ..place import drop_at, item_pressure, place_checks
from ..report import Check, Figure, StageReport
from ..stream import Quantity, Stream, predicted
from ..technology import Company, Service, Technology, chlorine_is_too_much, judges_nothing
from .by_clock import backwash_of
from .common import StageInput, effects, report, total_chlorine, weekend_checks, working

CHECKS = {
    "carbon.ebct": Says(
        "At {flow} gpm the water stays {have} min in the bed; {need} min are needed for {what}.",
        "Choose more carbon, or catalytic carbon.",
    ),
    "carbon.disinfectant": Says(
        "It takes the disinfectant out for everything after it.",
        "Keep what comes after it clean; sanitize as the manual says.",
    ),
    "carbon.radon": Says(
        "Radon is {have}, and a carbon bed would collect its decay products.",
        "Ask a radon specialist first.",
    ),
    "carbon.radon_unknown": Says(
        (
            "Radon in this private water is not known, and a carbon bed would collect its decay"
            " products."
        ),
        "Have a laboratory test radon in water.",
    ),
    "carbon.radon_open": Says(
        (
            "Radon is {have} pCi/L or more. How much more decides, because a bed would collect its"
            " decay products."
        ),
        "Laboratory: radon in water, with a method that reads it.",
    ),
    "carbon.volume": Says(
        "The carbon volume is not stated: contact time unknown.", "Ask the maker."
    ),
}


@record
class CarbonFigures(Figures):
    """Carbon bed or cartridge: volume [ft³]; ``position`` for the tap branch."""

    kind: Literal["carbon"] = "carbon"
    media: Literal["standard", "catalytic"]
    volume_ft3: float | None = None
    position: Literal["pre", "post"] = "pre"
    backwash_gpm: float | None = None
    backwash_gal: float | None = None
    backwash_days: float | None = None


#: minutes of contact [min] (trade practice, 2024; organics 5 or more)
EBCT_FREE_MIN, EBCT_CHLORAMINE_CATALYTIC_MIN, EBCT_CHLORAMINE_STANDARD_MIN, EBCT_ORGANICS_MIN = (
    1.5,
    3.0,
    6.0,
    5.0,
)
RADON_STOP_PCI_L = 5000.0  # [pCi/L] above about this a bed collects radon's daughters
GAL_PER_FT3_ROUNDED = 7.48  # [gal/ft³] as the trade rounds it


def ebct_min(volume_ft3: float, gpm: float) -> float:
    """Empty bed contact time [min]: 7.48 · volume / flow.

    Args:
        volume_ft3: carbon [ft³]. gpm: flow [gpm].

    Source: by definition; 1 ft³ = 7.48052 gal.

    >>> round(ebct_min(1.5, 7.5), 3)
    1.496
    """
    return GAL_PER_FT3_ROUNDED * volume_ft3 / gpm


def _needed(f: CarbonFigures, analyte: str) -> tuple[float, str]:
    if analyte == "chlorine_combined":
        return (
            EBCT_CHLORAMINE_CATALYTIC_MIN
            if f.media == "catalytic"
            else EBCT_CHLORAMINE_STANDARD_MIN
        ), "chloramine"
    return EBCT_FREE_MIN, "free chlorine"


_RADON = "laboratory: radon in water"


def _radon(inp: StageInput) -> list[Check]:
    if not inp.site.home.private or inp.item.scope != "house":
        return []
    r = inp.stream.range("radon")
    if r is None:
        return [told("carbon.radon_unknown", "unknown", test=_RADON)]
    if r.high is None and r.low <= RADON_STOP_PCI_L:
        return [told("carbon.radon_open", "unknown", have=f"{r.low:,.0f}", test=_RADON)]
    if r.top > RADON_STOP_PCI_L:
        return [told("carbon.radon", "stop", have=f"{r.best:,.0f} pCi/L")]
    return [met("carbon.radon", f"radon {r.best:,.0f} pCi/L, under {RADON_STOP_PCI_L:,.0f}")]


def contact_figure(bed: str, volume_ft3: float, flow_gpm: float) -> Figure:
    """How long the water stays in a bed at a flow, with its working.

    Args:
        bed: what it is of, e.g. "carbon". volume_ft3: [ft³]. flow_gpm: [gpm].
    """
    have = ebct_min(volume_ft3, flow_gpm)
    return Figure(
        id="ebct",
        label="contact time at peak",
        value=f"{have:.1f}",
        unit="min",
        number=have,
        working=working(
            "Why this contact time?",
            "EBCT = 7.48 · ft³ ÷ gpm",
            "definition of empty bed contact time; 1 ft³ = 7.48052 gal",
            (bed, f"{volume_ft3:g}", "ft³"),
            ("peak flow", f"{flow_gpm:g}", "gpm"),
            ("contact time", f"{have:.1f}", "min", True),
            ("at 3 gpm, one shower and a tap", f"{ebct_min(volume_ft3, 3):.1f}", "min"),
        ),
    )


def _contact(volume_ft3: float, flow_gpm: float) -> tuple[Figure, ...]:
    return (contact_figure("carbon", volume_ft3, flow_gpm),)


SHOWN_MG_L = 0.05  # [mg/L] chlorine under this asks no contact time: what kits can show


def _contact_checks(
    f: CarbonFigures, have: float, flow: float, present: Sequence[str]
) -> tuple[list[Check], dict[str, float]]:
    """Whether the water stays long enough for what is in it, and of what is held too short how
    long it stays of what is needed [1]."""
    checks, short = [], {}
    for name in present:
        need, what = _needed(f, name)
        if have >= need:
            checks.append(met("carbon.ebct", f"{have:.1f} min in the bed, {need:g} for {what}"))
            continue
        short[name] = have / need
        facts = {"flow": f"{flow:g}", "have": f"{have:.1f}", "need": f"{need:g}", "what": what}
        checks.append(told("carbon.ebct", "warn", **facts))
    return checks, short


def _weakened(q: Quantity, now: Quantity, share: float) -> Quantity | None:
    """A claim in a bed that holds the water for a share of what is needed: its upper end comes
    nearer to the water that enters, in proportion (a trade judgement, 2024)."""
    if q.range is None or now.range is None or now.range.high is None or q.range.high is None:
        return None
    weak = now.range.high - (now.range.high - q.range.high) * share
    left = Range.of(q.range.low, q.range.best, max(q.range.best, weak))
    return predicted(left, q.evidence, note="contact time short at peak")


def _may_stand(inp: StageInput, f: CarbonFigures) -> list[Check]:
    item, site, psi = inp.item, inp.site, inp.stream.psi
    checks = [
        *place_checks(item, site),
        *item_pressure(item, site, None if psi is None else psi.low),
        *_radon(inp),
    ]
    if item.scope == "house" and f.volume_ft3 is None:
        checks.append(told("carbon.volume", "unknown", test="ask the maker for the carbon volume"))
    return checks


def _held(
    inp: StageInput, f: CarbonFigures, volume_ft3: float, changes: dict[str, Quantity]
) -> tuple[list[Check], dict[str, Quantity]]:
    """A house's bed at peak flow: its checks, and the claims that it weakens."""
    stream, flow = inp.stream, inp.site.demand.peak_gpm
    have = ebct_min(volume_ft3, flow)
    present = [
        n
        for n in ("chlorine_free", "chlorine_combined")
        if n in changes
        and (r := stream.range(n)) is not None
        and r.best >= SHOWN_MG_L
        # free and total that overlap show no chloramine
        and (n != "chlorine_combined" or r.low > 0)
    ]
    checks, short = _contact_checks(f, have, flow, present)
    weak = {
        n: q
        for n, share in short.items()
        if (now := stream.get(n)) is not None
        and (q := _weakened(changes[n], now, share)) is not None
    }
    return checks, weak


def run(inp: StageInput) -> StageReport:
    """Checks contact time for what is in this water at peak flow; a claim is weakened where it is
    too short.
    """
    item, site, f = inp.item, inp.site, inp.item.figures
    assert isinstance(f, CarbonFigures)
    house = item.scope == "house"
    checks = _may_stand(inp, f)
    changes, more = effects(item, inp.stream)
    checks += more
    figures: Callable[[], tuple[Figure, ...]] = tuple
    if house and f.volume_ft3 is not None:
        held, weak = _held(inp, f, f.volume_ft3, changes)
        checks, changes = checks + held, changes | weak
        figures = partial(_contact, f.volume_ft3, site.demand.peak_gpm)
    if house and site.home.source is Source.CITY:
        checks.append(told("carbon.disinfectant", "say"))
    washed = backwash_of(f.backwash_gpm, f.backwash_gal, f.backwash_days, inp)
    return report(
        inp,
        inp.stream.with_(changes | total_chlorine(inp.stream, changes)),
        [*checks, *washed.checks, *weekend_checks(inp)],
        figures=figures,
        drains=washed.drains,
        running=washed.running,
        settings=washed.settings,
        drop=drop_at(item, site.demand.peak_gpm) if house else 0.0,
        summary=f"{f.volume_ft3:g} ft³ {f.media}" if f.volume_ft3 and house else f.media,
    )


def _place(item: Item, beside: Company, stream: Stream) -> int:
    """Behind the resins, unless there is more chlorine than they take; at the tap ahead of a
    membrane or behind it.
    """
    f = item.figures
    assert isinstance(f, CarbonFigures)
    if item.scope == "tap":
        return 120 if f.position == "pre" else 140
    return 45 if chlorine_is_too_much(beside.chlorine_max, stream) else 70


CARBON = Technology(
    kind="carbon",
    name="Carbon filter",
    figures=CarbonFigures,
    run=run,
    place=_place,
    needs=(),
    judges=judges_nothing,
    reads=frozenset({"chlorine_combined", "chlorine_free", "chlorine_total", "radon"}),
    asks=frozenset(),
    touches=frozenset(),
    changes=frozenset(),
    by_use=False,
    rinses=False,
    repeats=True,
    chlorine_max=None,
    fine_ahead=False,
    psi_min=0.0,
    sets_pressure="caps",
    size="volume_ft3",
    style=("media", "position"),
    does=frozenset({"takes chlorine"}),
    service=Service(
        sheets=("carbon_start", "housing_start", "cartridge", "rebed"),
        causes=("channelled",),
        drift="chlorine",
    ),
    caution="Behind carbon there is no disinfectant left: keep what is behind it clean.",
    drawing="carbon",
    settings=(BACKWASH, HOUR, CLOCK_OFF),
    checks=CHECKS,
)
