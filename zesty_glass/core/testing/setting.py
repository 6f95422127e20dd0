"""What a water sets: hardness in every unit, a dishwasher, a valve, the water heater."""

from __future__ import annotations

from .. import words
from ..units import hardness_in_every_unit
from .scale import ScaleTendency
from .water import Water


def _sets(
    water: Water, scale: ScaleTendency | None, iron_factor: float
) -> tuple[tuple[str, str], ...]:
    """What the hardness sets in the house, and the scale tendency in words."""
    out: list[tuple[str, str]] = []
    h = water.range("hardness")
    if h is not None and h.high is not None:
        gpg, dh = h.best / 17.118061, h.best / 17.848
        every = hardness_in_every_unit(h.best)
        out.append(
            (
                "Hardness in every unit",
                ", ".join(
                    f"{words.number(v, 0 if u == 'mg/L' else 1)} {u}" for u, v in every.items()
                ),
            )
        )
        out.append(
            ("Dishwasher setting", f"{dh:.0f} °dH ({gpg:.0f} gpg): set the nearest step above")
        )
        years = (
            "yearly"
            if h.best >= 180
            else (
                "every two years"
                if h.best >= 120
                else "every three to four years"
                if h.best >= 60
                else "by its manual only"
            )
        )
        out.append(("Descale the water heater", years))
        fe, mn = water.range("iron"), water.range("manganese")
        comp = gpg + iron_factor * (fe.best if fe else 0) + 2 * (mn.best if mn else 0)
        out.append(
            (
                "A softener valve’s hardness setting",
                f"{comp:.0f} gpg" + ("" if fe else ", iron not counted: not tested"),
            )
        )
    if scale is not None:
        hot = (
            "tends to scale"
            if scale.at_heater.low > 0
            else "may scale"
            if (scale.at_heater.high or 0) > 0
            else "does not tend to scale"
        )
        at_most = " at most" if scale.at_most else ""
        out.append(
            (
                f"Scale index at {scale.heater_c:g} °C",
                f"{scale.at_heater.best:+.2f}{at_most}: {hot}",
            )
        )
        out.append((f"Scale index at {scale.tap_c:g} °C", f"{scale.at_tap.best:+.2f}{at_most}"))
    return tuple(out)
