"""What calcite and magnesia dissolve in an acid water, and the pH that comes of it."""

from __future__ import annotations

import math
from decimal import Decimal
from functools import lru_cache
from typing import Literal

from ...ranges import Range
from ...record import record
from ...testing.scale import saturation_index
from ...units import MG_L_PER_GPG
from ..figures import Fault, Figures

CACO3_G_MOL, CO2_G_MOL, MGO_G_MOL, NA2CO3_G_MOL = 100.0869, 44.0095, 40.3044, 105.9884


@record
class NeutraliserFigures(Figures):
    """Acid neutralizer: media bed [ft³], magnesia share by mass (0 to 0.5)."""

    kind: Literal["neutraliser"] = "neutraliser"
    style: Literal["upflow", "backwashing", "feed"]
    volume_ft3: float
    magnesia_share: float = 0.0
    iron_max: float | None = None
    service_gpm: float | None = None
    backwash_gpm: float | None = None
    backwash_min: float | None = None
    backwash_days: float = 7.0
    media_lb_ft3: float = 90.0
    bag_price: Decimal = Decimal("38")
    refill_months: float | None = None
    target_ph: float = 7.4

    above_zero = ("volume_ft3", "media_lb_ft3", "backwash_days")

    @property
    def dissolves_calcium_alone(self) -> bool:
        """Whether it stops where calcite is saturated: magnesia goes on, soda ash has no
        calcium.
        """
        return self.style != "feed" and self.magnesia_share == 0

    def faults(self, code: str) -> tuple[Fault, ...]:
        """A pH that no bed reaches, or more magnesia than is ever mixed in."""
        out: list[Fault] = []
        if not 6.0 <= self.target_ph <= 9.0:
            what = f"a target of pH {self.target_ph:g} is not possible."
            out.append(("target_ph", what, "Use 6 to 9."))
        if self.magnesia_share > 0.5:
            what = f"{self.magnesia_share:.0%} of magnesia is more than is ever mixed in."
            out.append(("magnesia_share", what, "Give its share by mass, 0 to 0.5."))
        return tuple(out)


def pk1(temperature_c: float) -> float:
    """First dissociation constant of carbonic acid, as −log10 [-], at 0 to 50 °C.

    Args:
        temperature_c: [°C].

    Source: Harned and Davis (1943), as Stumm and Morgan, Aquatic chemistry (1996) print it.

    >>> round(pk1(25.0), 2)
    6.35
    """
    t = temperature_c + 273.15
    return 3404.71 / t + 0.032786 * t - 14.8435


def co2_mg_l(ph: float, alkalinity: float, temperature_c: float) -> float:
    """Carbon dioxide [mg/L] of a water below pH 8.3, where alkalinity is bicarbonate.

    Args:
        ph: [-]. alkalinity: [mg/L as CaCO3]. temperature_c: [°C].

    Source: law of mass action; Stumm and Morgan, Aquatic chemistry (1996).

    >>> round(co2_mg_l(6.35, 50.04345, 25.0))  # at pH = pK1 as much as bicarbonate: 1 mmol/L
    44
    """
    return alkalinity / 50043.45 * 10 ** (pk1(temperature_c) - ph) * CO2_G_MOL * 1000


def to_target(
    ph: float,
    alkalinity: float,
    temperature_c: float,
    target: float = 7.4,
    magnesia_share: float = 0.0,
) -> float:
    """Hardness added [mg/L as CaCO3] until the pH reaches ``target``; 0 when it is there already.

    Calcite: (A0 + 2x)/(C0 − x) = 10^(target − pK1); magnesia: (A0 + 2y)/(C0 − 2y), mixed by the
    share of CO2 each takes.

    >>> to_target(7.4, 50.0, 12.0)  # there already
    0.0
    """
    if ph >= target:
        return 0.0
    k = pk1(temperature_c)
    a0 = alkalinity / 50043.45
    c0 = a0 * 10 ** (k - ph)
    q = 10 ** (target - k)
    x = (q * c0 - a0) / (2 + q)
    if magnesia_share <= 0:
        return max(0.0, x) * CACO3_G_MOL * 1000
    y = (q * c0 - a0) / (2 + 2 * q)
    mixed = (1 - magnesia_share) * x + magnesia_share * y
    return max(0.0, mixed) * CACO3_G_MOL * 1000


def medium_per_added(f: NeutraliserFigures, temperature_c: float) -> float:
    """Medium that goes for what it adds [mg a mg as CaCO3]: calcite 1, magnesia 0.40 (it gives
    2.48 mg a mg), soda ash 1.06; of a mixture each by the share of the acidity it takes.

    Args:
        f: share of magnesia [0 to 0.5] and target pH. temperature_c: [°C].

    Source: by stoichiometry; IUPAC molar masses (2021).

    >>> round(1 / (MGO_G_MOL / CACO3_G_MOL), 2)
    2.48
    """
    if f.style == "feed":
        return NA2CO3_G_MOL / CACO3_G_MOL
    q = 10 ** (f.target_ph - pk1(temperature_c))
    magnesia = f.magnesia_share * (2 + q) / (2 + 2 * q)
    calcite = 1 - f.magnesia_share
    return (calcite + magnesia * MGO_G_MOL / CACO3_G_MOL) / (calcite + magnesia)


def ph_after(ph: float, alkalinity: float, temperature_c: float, x_mg_l: float) -> float:
    """pH behind a bed that dissolved ``x_mg_l`` [mg/L as CaCO3] of calcite, from the
    same equation.

    >>> round(ph_after(6.2, 30.0, 12.0, 0.0), 6)  # nothing dissolved
    6.2
    """
    k = pk1(temperature_c)
    a0 = alkalinity / 50043.45
    c0 = a0 * 10 ** (k - ph)
    x = x_mg_l / CACO3_G_MOL / 1000
    return k + math.log10((a0 + 2 * x) / max(c0 - x, 1e-12))


@lru_cache(2048)
def to_saturation(
    ph: float, alkalinity: float, temperature_c: float, calcium: float, tds: float
) -> float:
    """Hardness added [mg/L as CaCO3] until the saturation index reaches 0 (bisection; calcium, TDS
    and alkalinity rise by it).
    """

    def index(x: float) -> float:
        return saturation_index(
            ph_after(ph, alkalinity, temperature_c, x),
            tds + x,
            temperature_c,
            calcium + x,
            alkalinity + x,
        )

    k = pk1(temperature_c)
    top = alkalinity / 50043.45 * 10 ** (k - ph) * CACO3_G_MOL * 1000 * 0.999999
    low, high = 0.0, top
    if index(0.0) >= 0:
        return 0.0
    for _ in range(80):
        mid = (low + high) / 2
        if index(mid) >= 0:
            high = mid
        else:
            low = mid
    return (low + high) / 2


@record
class Rise:
    """Hardness added [mg/L as CaCO3] with its range, and the pH behind; ``governs``: target,
    saturation or rule of thumb.
    """

    added: Range
    ph: Range
    governs: str
    upper_bound: bool = False


def _dissolved(
    ph: float, alk: float, t: float, ca: float | None, tds: float | None, f: NeutraliserFigures
) -> tuple[float, float, str]:
    x = to_target(ph, alk, t, f.target_ph, f.magnesia_share)
    if not f.dissolves_calcium_alone:
        return x, max(ph, f.target_ph), "target"
    if ca is not None and tds is not None and ca > 0 and tds > 0:
        s = to_saturation(ph, alk, t, ca, tds)
        if s < x:
            return s, ph_after(ph, alk, t, s), "saturation"
    return x, max(ph, f.target_ph), "target"


def _ends(r: Range | None) -> tuple[float | None, ...]:
    """The ends of a range that are known, or None for one that is not known at all."""
    return (None,) if r is None else tuple(e for e in (r.low, r.high) if e is not None)


LEAST_ALKALINITY = 10.0
"""Alkalinity [mg/L as CaCO3] under which the equation hangs on a figure too small to trust: trade
practice (2024)."""
#: hardness added [gpg] from a pH on, where the chemistry is not known: trade practice (2024)
RULE_OF_THUMB = ((6.5, 4.0), (6.0, 6.0), (-math.inf, 8.0))


def _at_least(ph: Range, behind: Range) -> Range:
    """The pH behind a bed: none of its ends lies under what came in."""
    return Range.of(
        max(behind.low, ph.low), max(behind.best, ph.best), max(behind.top, ph.seen_top)
    )


def rise(
    f: NeutraliserFigures,
    ph: Range,
    alkalinity: Range | None,
    temperature_c: Range,
    calcium: Range | None,
    tds: Range | None,
) -> Rise:
    """What the bed adds: from the corners of the readings, or by rule of thumb when the chemistry
    is not known well enough.
    """
    if alkalinity is None or alkalinity.best < LEAST_ALKALINITY:
        gpg = next(added for least, added in RULE_OF_THUMB if ph.best >= least)
        if ph.best >= f.target_ph:
            return Rise(added=Range.exact(0.0), ph=ph, governs="target")
        r = Range.of(gpg - 2, gpg, gpg + 2).scale(MG_L_PER_GPG)
        return Rise(added=r, ph=_at_least(ph, Range.of(7.0, 7.2, 7.8)), governs="rule of thumb")
    ca = None if calcium is None else calcium.best
    td = None if tds is None else tds.best
    best, ph_out, governs = _dissolved(ph.best, alkalinity.best, temperature_c.best, ca, td, f)
    a_top, t_top = alkalinity.seen_top, temperature_c.seen_top
    corners = [
        _dissolved(p, max(a, 0.1), t, c, s, f)[0]
        for p, a, t in (
            (ph.low, a_top, temperature_c.low),
            (ph.seen_top, alkalinity.low, t_top),
        )
        for c in _ends(calcium)
        for s in _ends(tds)
    ]
    low, high = min(best, *corners), max(best, *corners)
    thinned = any(r is not None and r.high is None for r in (calcium, tds))
    half = 0.2  # [pH] either way, as a bed holds it: trade practice (2024)
    return Rise(
        # a mineral without an upper end may be at saturation; alkalinity without one adds the more
        added=Range.of(0.0 if thinned else low, best, None if alkalinity.high is None else high),
        ph=_at_least(ph, Range.of(ph_out - half, ph_out, ph_out + half)),
        governs=governs,
        upper_bound=f.dissolves_calcium_alone and (calcium is None or tds is None),
    )
