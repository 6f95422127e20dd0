"""How a softener works on a load: compensated hardness, capacity, regenerations, salt and water."""

from __future__ import annotations

from typing import Literal

from ...errors import RuleError
from ...ranges import Range
from ...record import record
from ...units import MG_L_PER_GPG
from ..demand import interpolate
from ..figures import Fault, Figures
from ..site import Site
from ..stream import Stream
from .salt import KCL_PER_NACL


@record
class SoftenerFigures(Figures):
    """Cation softener. ``doses`` overrides the common capacity table (lb/ft³ -> grains/ft³)."""

    kind: Literal["softener"] = "softener"
    resin_ft3: float
    dose_lb_ft3: float = 8.0
    control: Literal["metered", "clock"] = "metered"
    clock_days: float | None = None
    rinse_gal_ft3: float = 60.0
    salt: Literal["sodium", "potassium"] = "sodium"
    iron_max: float = 2.0
    iron_interval_days: float = 4.0
    doses: tuple[tuple[float, float], ...] = ()

    @property
    def salt_per_sodium(self) -> float:
        """Pounds of its salt that do the work of one of sodium chloride [lb/lb]."""
        return KCL_PER_NACL if self.salt == "potassium" else 1.0

    def faults(self, code: str) -> tuple[Fault, ...]:
        """A bed without resin."""
        if self.resin_ft3 > 0:
            return ()
        what = "the resin volume must be above 0 ft³."
        return (("capacity", what, "Read it off the data sheet."),)


#: salt dose [lb/ft³] -> capacity [grains/ft³]; common resin tables, straight lines between (trade
#: practice, 2024)
CAPACITY = ((4.0, 14000.0), (6.0, 20000.0), (8.0, 24000.0), (10.0, 27000.0), (15.0, 30000.0))


LONGEST_DAYS = 14.0


IRON_RULE_MG_L = 0.3


LEAST_DAYS = 2.0 - 1e-9  # [days] between renewals; under it is too small: trade practice (2024)


def compensated_gpg(
    hardness_mg_l: float, iron_mg_l: float, manganese_mg_l: float, iron_factor: float = 4.0
) -> float:
    """Compensated hardness [gpg]: hardness + factor · iron + 2 · manganese.

    Args:
        hardness_mg_l: [mg/L as CaCO3]. iron_mg_l, manganese_mg_l: [mg/L]. iron_factor: [gpg a
            mg/L], 4 or 5 by school.

    Source: trade practice (2024): 4 gpg a mg/L of iron, 2 of manganese.

    >>> round(compensated_gpg(171.18, 1.0, 0.5), 2)  # 10 + 4 + 1
    15.0
    """
    return hardness_mg_l / MG_L_PER_GPG + iron_factor * iron_mg_l + 2 * manganese_mg_l


def capacity_grains(
    resin_ft3: float, dose_lb_ft3: float, table: tuple[tuple[float, float], ...] = ()
) -> float:
    """Capacity [grains] of a bed at a salt dose, straight lines between the rows of its table.

    Args:
        resin_ft3: [ft³]. dose_lb_ft3: salt [lb/ft³]. table: the item's own (dose, grains/ft³);
            without one ``CAPACITY``.

    Raises:
        RuleError: ``softener.dose``, outside the table.

    Source: resin makers' usual figures (2024).

    >>> capacity_grains(1.5, 7.0)  # half-way between 20,000 and 24,000, times 1.5
    33000.0
    """
    doses = table or CAPACITY
    if not doses[0][0] <= dose_lb_ft3 <= doses[-1][0]:
        raise RuleError(
            "softener.dose",
            f"A dose of {dose_lb_ft3:g} lb/ft³ is outside {doses[0][0]:g} to {doses[-1][0]:g}.",
            "overrides.dose_lb_ft3",
            "Use the item’s own table, or a dose within it.",
        )
    return resin_ft3 * interpolate(doses, dose_lb_ft3)


@record
class Sizing:
    """How a softener works on a load.

    ``by_capacity`` [days] with the reserve kept back; ``interval`` [days] after the caps, None when
    there is no demand or when a day's load is more than it holds (``cannot``); ``leakage``:
    share of water that is hard (a clock unit that waits too long).
    """

    load_grains: float
    capacity: float
    days_held: float
    by_capacity: float
    interval: float | None
    regens_year: float
    salt_lb_year: float
    rinse_gal_year: float
    operating_gr_lb: float
    rated_gr_lb: float
    leakage: float

    @property
    def cannot(self) -> bool:
        """Whether a day's load is more than it holds."""
        return self.load_grains > 0 and self.interval is None


KEPT_BACK_DAYS = 1.0  # [days] usual reserve of a metered valve: trade practice (2024)


def _metered(held: float, reserve: float, cap: float) -> float | None:
    """Days between regenerations of a metered valve [days]; None where a day's load is more than it
    holds, or the reserve is all of it.
    """
    return min(held - reserve, cap) if held > max(reserve, KEPT_BACK_DAYS) else None


def size(
    f: SoftenerFigures,
    gpg: float,
    gal_day: float,
    iron: float,
    dose: float,
    regenerating_days: float,
    clock_days: float | None = None,
    reserve_days: float = KEPT_BACK_DAYS,
) -> Sizing:
    """Regeneration, salt and water of a softener.

    Args:
        gpg: compensated hardness [gpg]; gal_day: use when occupied [gal/day]; iron: at its inlet
            [mg/L].
        dose: salt dose, as sodium chloride [lb/ft³]. regenerating_days: on which its valve works
            [days/year]; a full year counts 365.
        reserve_days: of capacity kept back so that water is soft until the hour of regeneration
            [days].
    """
    capacity = capacity_grains(f.resin_ft3, dose, f.doses)
    load = gpg * gal_day
    salt = dose * f.resin_ft3 * f.salt_per_sodium
    if load <= 0:
        return Sizing(
            load_grains=0,
            capacity=capacity,
            days_held=0,
            by_capacity=0,
            interval=None,
            regens_year=0,
            salt_lb_year=0,
            rinse_gal_year=0,
            operating_gr_lb=0,
            rated_gr_lb=capacity / (dose * f.resin_ft3),
            leakage=0,
        )
    held = capacity / load
    interval: float | None
    days_year = 365.0 if regenerating_days >= 365 else regenerating_days
    if f.control == "clock":
        every = clock_days or f.clock_days or 7.0
        hard = max(0.0, 1 - capacity / (load * every))
        interval = every
    else:
        cap = min(LONGEST_DAYS, f.iron_interval_days if iron >= IRON_RULE_MG_L else LONGEST_DAYS)
        interval, hard = _metered(held, reserve_days, cap), 0.0
    regens = days_year / interval if interval else 0.0
    salt_year = regens * salt
    return Sizing(
        load_grains=load,
        capacity=capacity,
        days_held=held,
        by_capacity=held - reserve_days,
        interval=interval,
        regens_year=regens,
        salt_lb_year=salt_year,
        rinse_gal_year=regens * f.rinse_gal_ft3 * f.resin_ft3,
        operating_gr_lb=load * days_year / salt_year if salt_year else 0.0,
        rated_gr_lb=capacity / (dose * f.resin_ft3),
        leakage=hard,
    )


def lower_dose(
    f: SoftenerFigures, load: float, interval: float, used: float, reserve: float = KEPT_BACK_DAYS
) -> float | None:
    """The lowest dose of the table [lb/ft³] that still fits the interval a rule has set, below the
    one in use.
    """
    for dose, _ in f.doses or CAPACITY:
        if dose >= used:
            return None
        if capacity_grains(f.resin_ft3, dose, f.doses) / load - reserve >= interval:
            return dose
    return None


@record
class Load:
    """What a softener has to do: hardness [mg/L as CaCO3] with an upper end, iron and manganese
    [mg/L] where they were tested, use [gal/day], and the school’s iron factor [gpg a mg/L].
    """

    hardness: Range
    iron: Range | None
    manganese: Range | None
    use: Range
    iron_factor: float

    @property
    def iron_best(self) -> float:
        """Iron [mg/L]; 0 where it was not tested."""
        return self.iron.best if self.iron else 0.0

    @property
    def iron_worst(self) -> float:
        """Iron at its upper end [mg/L]."""
        return self.iron.top if self.iron else 0.0

    @property
    def manganese_best(self) -> float:
        """Manganese [mg/L]; 0 where it was not tested."""
        return self.manganese.best if self.manganese else 0.0

    @property
    def gpg(self) -> float:
        """Compensated hardness [gpg]."""
        return compensated_gpg(
            self.hardness.best, self.iron_best, self.manganese_best, self.iron_factor
        )

    @property
    def worst_gpg(self) -> float:
        """Compensated hardness at the upper ends [gpg]."""
        mn = self.manganese.top if self.manganese else 0.0
        return compensated_gpg(self.hardness.top, self.iron_worst, mn, self.iron_factor)


def load_of(stream: Stream, site: Site) -> Load | None:
    """The load of a water at a home; None where its hardness is not known, or has no upper end."""
    hard = stream.range("hardness")
    if hard is None or hard.high is None:
        return None
    return Load(
        hardness=hard,
        iron=stream.range("iron"),
        manganese=stream.range("manganese"),
        use=site.demand.house_gal_day,
        iron_factor=site.settings.iron_factor,
    )


def softened(hard: Range, leakage: float) -> Range:
    """Hardness behind the resin [mg/L as CaCO3]: under 1 gpg. Where a clock waits too long it is
    the raw water at times: that is its upper end, by which all behind it is judged.

    Args:
        hard: at the inlet, with an upper end. leakage: share of the water that is hard [0 to 1].

    Source: trade practice (2024), under 1 gpg.

    >>> round(softened(Range.exact(200.0), 0.0).high, 4)  # 1 gpg
    17.1181
    """
    top = hard.top
    half = MG_L_PER_GPG / 2
    if leakage == 0:
        return Range.of(0.0, min(half, hard.best), min(MG_L_PER_GPG, top))
    best = min(hard.best, half + leakage * hard.best)
    return Range.of(0.0, best, hard.high)


def taken_out(hard: Range, left: Range) -> Range:
    """Hardness that the resin exchanges [mg/L as CaCO3]; the careful side counts all of it.

    Source: charge balance.

    >>> taken_out(Range.of(180.0, 200.0, 210.0), Range.of(0.0, 8.0, 17.0)).low
    163.0
    """
    return Range.of(max(0.0, hard.low - (left.top)), hard.best, hard.high)
