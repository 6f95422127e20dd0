"""Disinfecting a home's plumbing: how much water is in it, and how much bleach that takes."""

from __future__ import annotations

import math
from typing import Literal

from ..errors import RuleError
from ..record import record
from ..units import L_PER_GAL


@record
class Method:
    """A way to disinfect plumbing: chlorine at the farthest tap [mg/L], how long it stands [h], and
    who says so.
    """

    id: str
    name: str
    dose_mg_l: float
    hours: float
    source: str
    year: int


#: the code of the place decides; the standard for storage only where the code takes it
METHODS = {
    m.id: m
    for m in (
        Method(
            id="code_24h",
            name="50 mg/L for 24 hours, by the plumbing code",
            dose_mg_l=50.0,
            hours=24.0,
            source="International Plumbing Code 610.1; Uniform Plumbing Code 609.9",
            year=2021,
        ),
        Method(
            id="code_3h",
            name="200 mg/L for 3 hours, by the plumbing code",
            dose_mg_l=200.0,
            hours=3.0,
            source="International Plumbing Code 610.1; Uniform Plumbing Code 609.9",
            year=2021,
        ),
        Method(
            id="c652_6h",
            name="50 mg/L for 6 hours, where local code takes AWWA C652",
            dose_mg_l=50.0,
            hours=6.0,
            source="AWWA C652, disinfection of water-storage facilities",
            year=2019,
        ),
    )
}
MethodId = Literal["code_24h", "code_3h", "c652_6h"]
IN3_PER_GAL = 231.0  # [in³/gal] exact by definition, NIST Handbook 44 (2023)
WEAKEST, STRONGEST = 1.0, 15.0  # [%] plain bleach as it is sold


_MEASURES = ("pipe_ft", "pipe_in", "well_ft", "casing_in")


@record
class Plumbing:
    """What holds water in a home, as far as it is disinfected together.

    Args:
        heater_gal: water heater [gal]. tank_gal: pressure tank, drawn down [gal].
        pipe_ft: length of pipe [ft]; pipe_in: its inside width [in].
        other_l: housings and the UV chamber [L].
        well_ft: water that stands in the well, from its level to its foot [ft]; casing_in: inside
            width of the well [in].
        method: by which it is disinfected.
        bleach_pct: strength of the bleach [%]. assumed: nobody has measured it yet.
    """

    heater_gal: float = 40.0
    tank_gal: float = 0.0
    pipe_ft: float = 60.0
    pipe_in: float = 0.785
    other_l: float = 4.0
    bleach_pct: float = 8.25
    well_ft: float = 0.0
    casing_in: float = 6.0
    method: MethodId = "code_24h"
    assumed: bool = True

    def __post_init__(self) -> None:
        for name in ("heater_gal", "tank_gal", "other_l", *_MEASURES):
            if getattr(self, name) < 0:
                raise RuleError(
                    f"plumbing.{name}", "Less than nothing is not possible.", name, "Use 0 or more."
                )


USUAL_WELL_FT = 100.0  # [ft] of water that stands in a drilled well: trade practice (2024)


def usual_plumbing(pumped: bool, drilled: bool = False) -> Plumbing:
    """What usually holds water in a home, until it is measured.

    Args:
        pumped: it has a pressure tank. drilled: and a well whose own water is part of the dose.
    """
    return Plumbing(tank_gal=20.0 if pumped else 0.0, well_ft=USUAL_WELL_FT if drilled else 0.0)


def well_litres(p: Plumbing) -> float:
    """Water that stands in the well [L]; a 6 in casing holds 1.47 gal a foot.

    >>> round(well_litres(Plumbing(well_ft=1.0)) / L_PER_GAL, 2)
    1.47
    """
    return pipe_litres(p.well_ft, p.casing_in)


def pipe_litres(length_ft: float, inside_in: float) -> float:
    """Water in a pipe [L].

    Args:
        length_ft: [ft]. inside_in: inside width [in], 0.785 for common ¾ in copper.

    Source: volume of a cylinder.

    >>> round(pipe_litres(60, 0.785), 1)
    5.7
    """
    return math.pi / 4 * inside_in**2 * length_ft * 12 / IN3_PER_GAL * L_PER_GAL


def litres(p: Plumbing) -> tuple[tuple[str, float], ...]:
    """What holds water and how much [L], each with its name; nothing that is empty."""
    parts = (
        (f"the well, {p.well_ft:g} ft of water", well_litres(p)),
        ("pressure tank, drawn down", p.tank_gal * L_PER_GAL),
        ("water heater", p.heater_gal * L_PER_GAL),
        (f"pipes, {p.pipe_ft:g} ft", pipe_litres(p.pipe_ft, p.pipe_in)),
        ("housings and UV chamber", p.other_l),
    )
    return tuple((name, amount) for name, amount in parts if amount > 0)


def bleach_ml(water_l: float, dose_mg_l: float, strength_pct: float) -> float:
    """Plain bleach [mL] = water [L] × dose [mg/L] ÷ (10 × strength [%]).

    Args:
        water_l: [L]. dose_mg_l: as free chlorine [mg/L]. strength_pct: available chlorine of the
            bleach [%], 1 to 15.

    Raises:
        RuleError: ``bleach.strength``, ``bleach.dose`` or ``bleach.water``, for what cannot be.

    Source: balance of mass, 1 % being 10 g/L.

    >>> round(bleach_ml(237, 50, 8.25))
    144
    """
    if not WEAKEST <= strength_pct <= STRONGEST:
        raise RuleError(
            "bleach.strength",
            f"Bleach of {strength_pct:g} % is not sold for this.",
            "bleach_pct",
            f"Read it off the bottle: {WEAKEST:g} to {STRONGEST:g} %, plain, without perfume.",
        )
    if not 0 < dose_mg_l <= 200:
        raise RuleError(
            "bleach.dose", f"A dose of {dose_mg_l:g} mg/L is not used.", "dose", "Usual: 50 mg/L."
        )
    if water_l < 0:
        raise RuleError(
            "bleach.water", "Less than nothing is not possible.", "water_l", "Use 0 or more."
        )
    return water_l * dose_mg_l / (10 * strength_pct)
