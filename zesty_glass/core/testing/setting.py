"""What a water sets: hardness in every unit, a dishwasher, a valve, the water heater."""

from __future__ import annotations

from .. import words
from ..ranges import Range
from ..units import MG_L_PER_DH, MG_L_PER_GPG, hardness_in_every_unit
from .scale import ScaleTendency
from .water import Water

Setting = tuple[str, str]
#: how often a water heater is descaled, from a hardness on [mg/L as CaCO3]: trade practice (2024)
DESCALED = (
    (180.0, "yearly"),
    (120.0, "every two years"),
    (60.0, "every three to four years"),
    (0.0, "by its manual only"),
)
MANGANESE_GPG = (
    2.0  # [gpg a mg/L] counted on a softener's valve, as for iron: trade practice (2024)
)


def descaled(hardness: float) -> str:
    """How often a water heater is descaled, by hardness [mg/L as CaCO3].

    >>> descaled(119.9), descaled(120.0)
    ('every three to four years', 'every two years')
    """
    return next(how_often for least, how_often in DESCALED if hardness >= least)


def valve_gpg(
    hardness: float, iron: float | None, manganese: float | None, iron_factor: float
) -> float:
    """What a softener's valve is set to [gpg]: hardness, and iron and manganese as grains.

    Args:
        hardness: [mg/L as CaCO3]. iron, manganese: [mg/L]; None: not tested, counted as none.
        iron_factor: grains for each mg/L of iron [gpg a mg/L].

    Source: trade practice (2024), as for a softener's compensated hardness.

    >>> round(valve_gpg(171.18, 1.0, 0.5, 4.0), 1)
    15.0
    """
    counted = iron_factor * (iron or 0.0) + MANGANESE_GPG * (manganese or 0.0)
    return hardness / MG_L_PER_GPG + counted


def _of_hardness(water: Water, h: Range, iron_factor: float) -> tuple[Setting, ...]:
    every = hardness_in_every_unit(h.best).items()
    shown = ", ".join(f"{words.number(v, 0 if u == 'mg/L' else 1)} {u}" for u, v in every)
    gpg, dh = h.top / MG_L_PER_GPG, h.top / MG_L_PER_DH
    fe, mn = water.range("iron"), water.range("manganese")
    iron, manganese = (None if r is None or r.high is None else r.high for r in (fe, mn))
    set_to = valve_gpg(h.top, iron, manganese, iron_factor)
    untested = "" if fe else ", iron not counted: not tested"
    open_iron = untested if fe is None or fe.high else ", iron not counted: dilute and test again"
    return (
        ("Hardness in every unit", shown),
        ("Dishwasher setting", f"{dh:.0f} °dH ({gpg:.0f} gpg): set the nearest step above"),
        ("Descale the water heater", descaled(h.best)),
        ("A softener valve’s hardness setting", f"{set_to:.0f} gpg{open_iron}"),
    )


def _tends(index: Range) -> str:
    """Whether a water scales by its index, surely or perhaps."""
    if index.low > 0:
        return "tends to scale"
    return "may scale" if index.top > 0 else "does not tend to scale"


def _of_scale(scale: ScaleTendency) -> tuple[Setting, ...]:
    at_most = " at most" if scale.at_most else ""
    hot = f"{scale.at_heater.best:+.2f}{at_most}: {_tends(scale.at_heater)}"
    return (
        (f"Scale index at {scale.heater_c:g} °C", hot),
        (f"Scale index at {scale.tap_c:g} °C", f"{scale.at_tap.best:+.2f}{at_most}"),
    )


def sets(water: Water, scale: ScaleTendency | None, iron_factor: float) -> tuple[Setting, ...]:
    """What the hardness sets in the house, and the scale tendency in words.

    Args:
        iron_factor: grains for each mg/L of iron [gpg a mg/L].
    """
    h = water.range("hardness")
    of_hardness = () if h is None or h.high is None else _of_hardness(water, h, iron_factor)
    return of_hardness + (() if scale is None else _of_scale(scale))
