"""One appliance's own card: what this water sets on it, and what hardness is worth there in salt,
scale and detergent a year, as it comes and behind each line.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Mapping
from datetime import datetime
from decimal import Decimal
from typing import Literal, NamedTuple

from .. import words
from ..assess import Assessment
from ..demonstrating.kettle import scale_mg_l
from ..errors import RuleError
from ..ranges import Range
from ..record import record
from ..testing.setting import descaled
from ..treating.stream import Stream
from ..units import DAYS_PER_YEAR, MG_L_PER_DH, MG_L_PER_FH, MG_L_PER_GPG, MG_L_PER_MMOL
from ..visit import Visit

Kind = Literal["dishwasher", "washing_machine", "coffee_machine", "water_heater"]


class Appliance(NamedTuple):
    """An appliance: its name, how often it runs a year and what it takes each time [L]."""

    name: str
    uses_year: float
    litres: float
    source: str


APPLIANCES: Mapping[Kind, Appliance] = {
    "dishwasher": Appliance(
        "Dishwasher", 280, 11.0, "280 cycles a year: Regulation (EU) 2019/2022; 11 L: practice 2024"
    ),
    "washing_machine": Appliance(
        "Washing machine",
        220,
        50.0,
        "220 cycles a year: Regulation (EU) 2019/2023; 50 L: practice 2024",
    ),
    "coffee_machine": Appliance(
        "Coffee machine or kettle", DAYS_PER_YEAR, 2.0, "2 L heated a day: practice 2024"
    ),
    "water_heater": Appliance(
        "Water heater", DAYS_PER_YEAR, 100.0, "100 L heated a day: practice 2024"
    ),
}
SALT_G_PER_G = 2 * 58.443 / MG_L_PER_MMOL
"""Salt that regenerates resin for each gram of hardness, at the least [g NaCl a g CaCO3]: two
moles for one; molar masses, IUPAC 2021."""

SOFT_MG_L = 60.0  # [mg/L as CaCO3] under this a water is called soft: USGS (2018)
#: up to which hardness a package's dose is "soft" and "medium" [mmol/L]: WRMG § 9, Germany (2007)
SOFT_MMOL, MEDIUM_MMOL = 1.5, 2.5
HONEST = (
    "By this day’s reading. The appliance’s own manual decides where it says otherwise, and by the"
    " appliance alone nobody need buy anything."
)


@record
class Told:
    """What the household says of an appliance; None: not asked.

    Args:
        uses_year: how often it runs; litres: what it takes each time [L].
        dose_here, dose_soft: detergent by its package for this water and for soft water [mL or g];
            dose_price: of a liter or kilogram [money].
        salt_kg: salt it takes a year [kg]; salt_price: of a kilogram [money].
    """

    uses_year: float | None = None
    litres: float | None = None
    dose_here: float | None = None
    dose_soft: float | None = None
    dose_price: Decimal | None = None
    salt_kg: float | None = None
    salt_price: Decimal | None = None

    def __post_init__(self) -> None:
        if (self.dose_soft or 0.0) > (math.inf if self.dose_here is None else self.dose_here):
            raise RuleError(
                "appliance.dose",
                "The dose for soft water is larger than the one for this water.",
                "dose_soft",
                "Read both on the package: soft water asks for less.",
            )


Line = tuple[str, str]


@record
class ApplianceWater:
    """An appliance on one water: what is set, and what hardness is worth there a year."""

    name: str
    hardness: str
    sets: tuple[Line, ...]
    worth: tuple[Line, ...]


@record
class ApplianceCard:
    """The card of one appliance."""

    kind: Kind
    name: str
    home: str
    place: str
    made_at: datetime
    firm: str
    by: str
    waters: tuple[ApplianceWater, ...]
    source: str
    honest: str = HONEST


class _At(NamedTuple):
    """What a card is made from: one water's hardness [mg/L as CaCO3], how the appliance runs, what
    was told, and the currency.
    """

    hardness: Range
    water: Stream
    uses: float
    litres: float
    told: Told
    currency: str
    raw: bool

    @property
    def soft(self) -> bool:
        """Whether it is soft water up to the upper end of its range."""
        return self.hardness.high is not None and self.hardness.high < SOFT_MG_L


def appliance_card(visit: Visit, a: Assessment, kind: Kind, told: Told) -> ApplianceCard:
    """The card of an appliance at a visit.

    Raises:
        RuleError: ``appliance.no_hardness``, hardness was not read of the raw water.
    """
    raw = a.options[0].line.source if a.options and a.options[0].line is not None else None
    if raw is None or raw.range("hardness") is None:
        raise RuleError(
            "appliance.no_hardness",
            "Hardness was not read yet: nothing can be set by it.",
            "samples",
            "Count drops in a glass of the water as it comes.",
        )
    appliance, units = APPLIANCES[kind], visit.settings.units
    out = []
    for name, water in _waters(a, raw):
        hard = water.range("hardness")
        if hard is None:
            continue
        at = _At(
            hardness=hard,
            water=water,
            uses=appliance.uses_year if told.uses_year is None else told.uses_year,
            litres=appliance.litres if told.litres is None else told.litres,
            told=told,
            currency=visit.settings.currency,
            raw=water is raw,
        )
        sets, worth = _CARDS[kind](at)
        span = words.span("hardness", hard, units)
        out.append(ApplianceWater(name=name, hardness=span, sets=sets, worth=worth))
    return ApplianceCard(
        kind=kind,
        name=appliance.name,
        home=visit.home.name,
        place=visit.home.place,
        made_at=visit.started_at,
        firm=visit.firm,
        by=visit.consultant,
        waters=tuple(out),
        source=appliance.source,
    )


def _waters(a: Assessment, raw: Stream) -> list[tuple[str, Stream]]:
    """The water as it comes, and behind each line that changes its hardness in the house."""
    out = [("As it comes", raw)]
    for o in a.options:
        if o.line is not None and o.line.house.range("hardness") != raw.range("hardness"):
            out.append((f"Behind {o.name}", o.line.house))
    return out


def _step(hard: Range) -> Line:
    """What a hardness step is set to: by the upper end, for a step too low leaves scale."""
    if hard.high is None:
        return "Hardness step", "its highest, until the test is repeated with the sample diluted"
    top = hard.high
    return (
        "Hardness step",
        f"the nearest at or above {top / MG_L_PER_DH:.0f} °dH ({top / MG_L_PER_FH:.0f} °fH,"
        f" {top / MG_L_PER_MMOL:.1f} mmol/L, {top / MG_L_PER_GPG:.0f} gpg)",
    )


def salt_least(hard: Range, uses: float, litres: float) -> Range:
    """Salt that an appliance's own softener takes a year [kg], from the least that chemistry asks;
    no upper end, for a small bed wastes several times that.

    Args:
        hard: [mg/L as CaCO3]; uses: a year; litres: softened each time [L].

    Source: two moles of NaCl for one of CaCO3, ``SALT_G_PER_G``.

    >>> round(salt_least(Range.exact(300.0), 280, 11.0).low, 2)  # 924 g of CaCO3 × 1.168
    1.08
    """
    each = uses * litres * SALT_G_PER_G / 1e6
    return Range.of(hard.low * each, hard.best * each, None)


def dose_class(hard: Range) -> str:
    """Which of a package's doses this water asks for: "soft", "medium", "hard", or two of them
    where the range lies astride.

    Source: WRMG § 9, Germany (2007), which packages in its market follow.

    >>> dose_class(Range.exact(300.0)), dose_class(Range.of(140.0, 150.0, 160.0))
    ('hard', 'soft or medium')
    """

    def of(mg_l: float | None) -> str:
        if mg_l is None or mg_l / MG_L_PER_MMOL > MEDIUM_MMOL:
            return "hard"
        return "soft" if mg_l / MG_L_PER_MMOL < SOFT_MMOL else "medium"

    low, high = of(hard.low), of(hard.high)
    return low if low == high else f"{low} or {high}"


def _detergent(at: _At) -> tuple[Line, ...]:
    """What the dose for this water takes beyond that for soft water, where both were told."""
    t = at.told
    if not at.raw:
        return ()
    if t.dose_here is None or t.dose_soft is None:
        return (("Detergent", "type the two doses that its package names, to see it"),)
    more = (t.dose_here - t.dose_soft) * at.uses / 1000
    said = f"{words.number(more, 1)} L or kg a year{_costs(more, t.dose_price, at.currency)}"
    return (("Detergent beyond soft water", said),)


def _costs(amount: float, price: Decimal | None, currency: str) -> str:
    """What an amount costs, behind a comma; nothing where no price was told."""
    return "" if price is None else f", {currency}{float(price) * amount:,.2f}"


def _salt(at: _At) -> tuple[Line, ...]:
    t = at.told
    if at.soft:
        return (("Its own salt", "little or none: set as its manual says for this hardness"),)
    least = salt_least(at.hardness, at.uses, at.litres)
    said = f"at least {words.number(least.low, 1)} kg a year; often several times that"
    out = [("Its own salt", said)]
    if at.raw and t.salt_kg is not None:
        cost = _costs(t.salt_kg, t.salt_price, at.currency)
        said = f"{words.number(t.salt_kg, 1)} kg a year{cost}"
        out.append(("Salt as you told us", said))
    return tuple(out)


def _scale(at: _At) -> tuple[Line, ...]:
    found = scale_mg_l(at.water)
    if found is None:
        return ()
    most = found[0].scale(at.uses * at.litres / 1000).high
    if most is None:
        return (("Scale", "not known: the hardness has no upper end yet"),)
    why = "; alkalinity or calcium not read" if found[1] else ""
    return (("Scale, at most", f"{words.about(most)} g a year{why}"),)


_Card = tuple[tuple[Line, ...], tuple[Line, ...]]


def _dishwasher(at: _At) -> _Card:
    sets = [_step(at.hardness)]
    if at.soft:
        less = "less than the package says: much of it in soft water etches glass"
        sets.append(("Detergent", less))
    else:
        sets.append(("Salt and rinse aid", "filled whenever their lamps ask, salt before a cycle"))
    return tuple(sets), (*_salt(at), *_detergent(at))


def _washing_machine(at: _At) -> _Card:
    dose = ("Dose on the package", f"the one for {dose_class(at.hardness)} water")
    return (dose,), _detergent(at)


def _coffee_machine(at: _At) -> _Card:
    return (_step(at.hardness), ("Descale", "when it asks; with what its manual names")), _scale(at)


def _water_heater(at: _At) -> _Card:
    how_often = descaled(at.hardness.low if at.hardness.high is None else at.hardness.best)
    sets = (
        ("Descale", how_often),
        ("Temperature", "as code and its maker ask; it is not turned down to save scale"),
        ("Anode", "looked at with the descaling, by a licensed person"),
    )
    return sets, _scale(at)


_CARDS: Mapping[Kind, Callable[[_At], _Card]] = {
    "dishwasher": _dishwasher,
    "washing_machine": _washing_machine,
    "coffee_machine": _coffee_machine,
    "water_heater": _water_heater,
}
