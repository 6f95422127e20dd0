"""Adsorptive cartridge: a claim inside its own pH window."""

from __future__ import annotations

from typing import Literal

from ...doing import NOTHING
from ...record import record
from ..checks import Says, met, told
from ..figures import Figures
from ..items import Item
from ..place import place_checks
from ..report import Check, StageReport
from ..stream import Stream
from ..technology import Company, Service, Technology, judges_nothing
from .common import StageInput, effects, lasts_days, not_known, report, weekend_checks

CHECKS = {
    "cartridge.ph": Says(
        "pH {have} is outside its window ({need}): its claim does not hold here.",
        "Correct the pH, or another way.",
        asks=("ph",),
    ),
    "cartridge.no_window": Says(
        "No pH window is stated: that counts as no claim.", "Ask the maker."
    ),
    "cartridge.fluoride": Says(
        "Fluoride on alumina stops above pH 7.5.", "A certified membrane at the tap.", asks=("ph",)
    ),
    "cartridge.days": Says(
        "At this home’s use it lasts {have} days.", "Look at what that costs in a year."
    ),
}


@record
class CartridgeFigures(Figures):
    """Adsorptive cartridge with its own pH window; none stated means no claim."""

    kind: Literal["cartridge"] = "cartridge"
    media: Literal["alumina", "bone_char", "iron_media", "tannin_resin", "other"]
    ph_min: float | None = None
    ph_max: float | None = None

    @property
    def apart(self) -> str:
        """What its media is made for."""
        return _FOR.get(self.media, "other")


def run(inp: StageInput) -> StageReport:
    """Adsorptive media: its claims hold inside its own pH window, and its life is shown in days at
    this use.
    """
    item, site, f = inp.item, inp.site, inp.item.figures
    assert isinstance(f, CartridgeFigures)
    checks = place_checks(item, site)
    ph = inp.stream.range("ph")
    if f.ph_min is None and f.ph_max is None:
        checks.append(told("cartridge.no_window", "stop" if f.media != "tannin_resin" else "warn"))
    elif ph is None or ph.high is None:
        checks.append(_unknown_ph(inp))
    else:
        outside = (f.ph_max is not None and ph.high > f.ph_max) or (
            f.ph_min is not None and ph.low < f.ph_min
        )
        window = f"pH {f.ph_min or 0:g} to {f.ph_max or 14:g}"
        if f.media == "alumina" and ph.best > 7.5:
            checks.append(told("cartridge.fluoride", "stop"))
        if outside:
            checks.append(told("cartridge.ph", "stop", have=f"{ph.best:.1f}", need=window))
        else:
            checks.append(met("cartridge.ph", f"pH {ph.best:.1f}, window {window}"))
    changes, more = effects(item, inp.stream)
    checks += more + weekend_checks(inp)
    figures = lasts_days(inp)
    if figures and figures[0].number is not None and figures[0].number < 60:
        checks.append(told("cartridge.days", "warn", have=f"{figures[0].number:.0f}"))
    return report(
        inp,
        inp.stream.with_(changes),
        checks,
        figures=lambda: figures,
        summary=f.media.replace("_", " "),
        decides=frozenset({"cartridge.ph"}),
    )


def _unknown_ph(inp: StageInput) -> Check:
    return Check(
        id="cartridge.ph",
        status="unknown",
        sentence=f"{not_known('pH', inp, 'ph')}: its claim holds in its pH window only.",
        test="pH by meter on site",
    )


#: places at a drinking tap by what they are told apart by: what fouls the others first
_PLACES = {"tannin": 121, "fluoride": 122, "metals": 123, "other": 124}
_FOR = {
    "tannin_resin": "tannin",
    "alumina": "fluoride",
    "bone_char": "fluoride",
    "iron_media": "metals",
}


def _place(item: Item, beside: Company, stream: Stream) -> int:
    """Its place by what it is filled with: two that are made for different things can stand in one
    line.
    """
    del beside, stream
    return _PLACES[item.figures.apart] if item.scope == "tap" else 66


CARTRIDGE = Technology(
    kind="cartridge",
    name="Adsorptive cartridge",
    figures=CartridgeFigures,
    run=run,
    place=_place,
    needs=(),
    judges=judges_nothing,
    reads=frozenset({"ph"}),
    asks=frozenset(),
    touches=frozenset(),
    changes=frozenset(),
    by_use=True,
    rinses=False,
    repeats=True,
    chlorine_max=None,
    fine_ahead=False,
    psi_min=0.0,
    sets_pressure="caps",
    size=None,
    style=("media",),
    does=NOTHING,
    service=Service(sheets=("housing_start", "cartridge")),
    caution="",
    drawing="cartridge",
    settings=(),
    checks=CHECKS,
)
