"""What a membrane makes and drains at other pressures, temperatures and waters."""

from __future__ import annotations

import math
from typing import Literal

from ...errors import RuleError
from ...record import record
from ..figures import Fault, Figures


@record
class MembraneFigures(Figures):
    """Reverse osmosis, as rated: permeate [gal/day] at [psi], [mg/L] and [°C]; ratio drain to
    permeate.

    ``efficiency`` (0 to 1) is the rating with tank and shut-off in use; ``recovery`` is never used
    for yearly waste. ``permeate_pump``: what the item's own test leaves of the ratio at a home, 0 <
    figure ≤ 1; the ratio is multiplied by it. ``indicator``: what on it tells of a change.
    """

    kind: Literal["membrane"] = "membrane"
    rated_gpd: float
    rated_ratio: float
    rated_psi: float = 60.0
    rated_tds: float = 500.0
    rated_c: float = 25.0
    rejection: float
    efficiency: float | None = None
    shut_off: bool = True
    tank_gal: float | None = None
    precharge_psi: float | None = None
    shutoff_share: float | None = None
    permeate_pump: float | None = None
    psi_max: float | None = None
    ph_min: float = 3.0
    ph_max: float = 11.0
    polished: bool = False
    indicator: str = ""

    above_zero = ("rated_psi",)

    def __post_init__(self) -> None:
        if self.permeate_pump is not None and not 0 < self.permeate_pump <= 1:
            raise RuleError(
                "membrane.permeate_pump",
                f"A permeate pump that leaves {self.permeate_pump:g} of the waste is not possible.",
                "figures.permeate_pump",
                "Give what its own test leaves: above 0, at most 1.",
            )

    def faults(self, code: str) -> tuple[Fault, ...]:
        """Ratings that no membrane has."""
        out: list[Fault] = []
        if not 0 < self.rejection < 1:
            what = f"a rejection of {self.rejection:.0%} is not possible."
            out.append(("rejection", what, "Give a share between 0 and 1."))
        if self.rated_gpd <= 0 or self.rated_ratio < 0:
            what = "rated permeate must be above 0 and the ratio 0 or more."
            out.append(("rated", what, "Read both off the data sheet."))
        if self.efficiency is not None and not 0 < self.efficiency <= 1:
            what = "efficiency is a share between 0 and 1."
            out.append(("efficiency", what, "Write 40 % as 0.4."))
        return tuple(out)


K_COLD, K_WARM = (
    3020.0,
    2640.0,
)  # temperature correction [K], below and from 25 °C (membrane makers' common form)
OSMOTIC_PSI_MG_L = 0.01  # osmotic pressure [psi] a mg/L of TDS


def tcf(temperature_c: float) -> float:
    """Temperature correction factor [-] of a thin-film membrane: exp(K (1/298.15 − 1/(T +
    273.15))), K by ``K_COLD`` and ``K_WARM``, for water of 4 to 38 °C.

    Args:
        temperature_c: feed [°C].

    Source: Arrhenius form of ASTM D4516 (2019); K as membrane makers commonly state it.

    >>> tcf(25.0)
    1.0
    >>> round(tcf(10.0), 3)  # 3020 (1/298.15 − 1/283.15) = −0.5366
    0.585
    """
    k = K_COLD if temperature_c < 25 else K_WARM
    return math.exp(k * (1 / 298.15 - 1 / (temperature_c + 273.15)))


def concentration_factor(ratio: float) -> float:
    """Mean concentration on the feed side over that of the feed [-]: −ln(1 − R)/R with R = 1/(1 +
    ratio); 1 when R < 1e-6.

    Args:
        ratio: gallons to the drain a gallon of permeate [-].

    Source: logarithmic mean of ASTM D4516 (2019).

    >>> round(concentration_factor(3.0), 4)  # R = 1/4: −ln 0.75 / 0.25
    1.1507
    """
    r = 1 / (1 + ratio)
    if r < 1e-6:
        return 1.0
    if r >= 1:
        return math.inf
    return -math.log(1 - r) / r


def ndp(psi: float, tds: float, ratio: float, back_psi: float = 0.0) -> float:
    """Net driving pressure [psi]: at the membrane, less the tank's back pressure, less 0.01 psi a
    mg/L of TDS at its mean concentration.

    Args:
        psi, back_psi: gauge [psi]. tds: feed [mg/L]. ratio: drain to permeate [-].

    Source: ASTM D4516 (2019); 0.01 psi a mg/L is the usual figure for natural waters under about
    2,000 mg/L.

    >>> round(ndp(60.0, 500.0, 3.0), 2)  # 60 − 5 · 1.1507
    54.25
    """
    if ratio <= 0:
        return psi - back_psi - OSMOTIC_PSI_MG_L * tds
    return psi - back_psi - OSMOTIC_PSI_MG_L * tds * concentration_factor(ratio)


def permeate_gpd(
    f: MembraneFigures, psi: float, tds: float, temperature_c: float, back_psi: float = 0.0
) -> float:
    """Permeate here [gal/day]: rated · TCF · NDP / NDP rated; 0 when no net pressure is left.

    Args:
        psi, back_psi: at the membrane and behind it [psi]. tds: feed [mg/L]. temperature_c: [°C].

    Source: ASTM D4516 (2019).
    """
    here = ndp(psi, tds, f.rated_ratio, back_psi)
    rated = ndp(f.rated_psi, f.rated_tds, f.rated_ratio)
    if here <= 0 or rated <= 0:
        return 0.0
    return f.rated_gpd * (tcf(temperature_c) / tcf(f.rated_c)) * here / rated


def drain_gpd(f: MembraneFigures, psi: float) -> float:
    """Water to the drain while it runs [gal/day]: rated · ratio · √(psi / rated psi), for the
    restrictor is an orifice.

    Args:
        psi: at the membrane [psi].

    Source: flow through an orifice goes with the root of the pressure (Torricelli).
    """
    return f.rated_gpd * f.rated_ratio * math.sqrt(psi / f.rated_psi)


def concentrate_mg_l(feed: float, rejection: float, ratio: float) -> float | None:
    """Concentrate TDS [mg/L]: feed (1 − R (1 − rejection)) / (1 − R), R = 1/(1 + ratio); None at
    ratio 0.

    Args:
        feed: [mg/L]. rejection: share [0 to 1]. ratio: drain to permeate here [-].

    Source: balance of mass.

    >>> concentrate_mg_l(400.0, 1.0, 3.0)  # all of it in three quarters of the water
    533.3333333333334
    """
    if ratio <= 0:
        return None
    r = 1 / (1 + ratio)
    return feed * (1 - r * (1 - rejection)) / (1 - r)


ATMOSPHERE_PSI = 14.696  # [psi] standard atmosphere, exact by definition in pascals (1954)
FILL_STEPS = 20  # equal steps of volume of a fill


def tank_pressures(precharge_psi: float, top_psi: float) -> tuple[float, ...]:
    """Pressure in a tank [psi, gauge] at the middle of each of 20 equal steps of volume, from its
    pre-charge to the shut-off: what its air has left of its room.

    Args:
        precharge_psi: of the empty tank; top_psi: where the shut-off closes [psi, gauge].

    Source: Boyle (1662), P V constant, absolute pressures.

    >>> [round(p, 1) for p in tank_pressures(7.0, 40.0)][::19]
    [7.3, 38.0]
    """
    start, top = precharge_psi + ATMOSPHERE_PSI, top_psi + ATMOSPHERE_PSI
    taken = 1 - start / top
    middles = ((i + 0.5) / FILL_STEPS for i in range(FILL_STEPS))
    return tuple(start / (1 - v * taken) - ATMOSPHERE_PSI for v in middles)


def fill_minutes(
    f: MembraneFigures, psi: float, tds: float, temperature_c: float, gallons: float | None = None
) -> float | None:
    """Minutes to fill its tank from its pre-charge to shut-off in 20 equal steps; None
    means never. A permeate pump never fills faster than the membrane without back pressure.

    Args:
        gallons: what goes in [gal]; the tank's own where it is left out.
    """
    gallons = f.tank_gal or 3.0 if gallons is None else gallons
    if f.precharge_psi is None or f.shutoff_share is None:
        return None
    top = f.shutoff_share * psi
    if f.precharge_psi >= top:
        return None
    # permeate falls in a straight line with the back pressure: its slope is worked out once
    free, rated = ndp(psi, tds, f.rated_ratio), ndp(f.rated_psi, f.rated_tds, f.rated_ratio)
    a_psi = f.rated_gpd * (tcf(temperature_c) / tcf(f.rated_c)) / rated if rated > 0 else 0.0
    total, step = 0.0, gallons / FILL_STEPS
    for back in tank_pressures(f.precharge_psi, top):
        rate = a_psi * (free - back)
        if rate <= 0:
            return None
        total += step / rate * 1440
    freely = gallons / (a_psi * free) * 1440
    return max(total * (f.permeate_pump or 1.0), freely)


@record
class Here:
    """A membrane at this home: permeate and drain [gal/day], ratio drain to permeate, concentrate
    [mg/L].
    """

    gpd: float
    drain: float
    ratio: float | None
    back_psi: float
    psi: float
    tds: float
    temperature_c: float


def at_home(f: MembraneFigures, psi: float, tds: float, temperature_c: float) -> Here:
    """Yield with the mean tank back pressure while it fills (none without a tank); 0 when the tank
    is full from the start.
    """
    back, full = 0.0, False
    if f.tank_gal and f.precharge_psi is not None and f.shutoff_share is not None:
        full = f.precharge_psi >= f.shutoff_share * psi
        top = f.shutoff_share * psi
        back = 0.0 if full else sum(tank_pressures(f.precharge_psi, top)) / FILL_STEPS
    gpd = 0.0 if full else permeate_gpd(f, psi, tds, temperature_c, back)
    drain = drain_gpd(f, psi)
    return Here(
        gpd=gpd,
        drain=drain,
        ratio=drain / gpd if gpd > 0 else None,
        back_psi=back,
        psi=psi,
        tds=tds,
        temperature_c=temperature_c,
    )


def passage_here(f: MembraneFigures, psi: float, tds: float, back_psi: float) -> float:
    """How much more of what is dissolved a bare membrane lets pass here than as rated [-]: rated
    net driving pressure / that here, for salt passes alike while water passes less; infinite where
    no pressure is left.

    Args:
        psi, back_psi: at the membrane and behind it [psi]. tds: feed [mg/L].

    Source: ASTM D4516 (2019).
    """
    here = ndp(psi, tds, f.rated_ratio, back_psi)
    return math.inf if here <= 0 else ndp(f.rated_psi, f.rated_tds, f.rated_ratio) / here


def waste_ratio(f: MembraneFigures, here: Here, drinking: float) -> float | None:
    """Gallons to the drain a gallon at the tap over a year [-]: the efficiency rating first;
    without a shut-off the whole day's; else as it runs here.

    Args:
        drinking: gallons drunk a day [gal/day].

    Source: an efficiency rating is permeate over feed with tank and shut-off in use (NSF/ANSI 58,
    2023).
    """
    if not f.shut_off:
        return here.drain / drinking if drinking > 0 else None
    if f.efficiency is not None:
        return (1 - f.efficiency) / f.efficiency
    if here.ratio is None:
        return None
    return here.ratio * (f.permeate_pump or 1.0)


def rated_ratio(f: MembraneFigures, drinking: float) -> float | None:
    """Gallons to the drain a gallon at the tap [-] as far as the ratings alone tell: without a
    shut-off the rated drain of the whole day, else by the efficiency rating; None without one.

    Args:
        drinking: gallons drunk a day [gal/day].

    >>> f = MembraneFigures(rated_gpd=50.0, rated_ratio=3.0, rejection=0.9, shut_off=False)
    >>> rated_ratio(f, 3.0)  # 150 gal a day for 3 that are drunk
    50.0
    """
    if not f.shut_off:
        return f.rated_gpd * f.rated_ratio / drinking if drinking > 0 else None
    return None if f.efficiency is None else (1 - f.efficiency) / f.efficiency


def for_nothing(f: MembraneFigures, here: Here) -> float:
    """Water [gal/day] to the drain of a membrane that makes nothing: its tank never fills, so its
    valve never closes.
    """
    return here.drain if here.gpd <= 0 and f.rated_ratio > 0 else 0.0
