"""What to make of equipment in place: how old, how used, how set, what was measured behind it; and
what follows: keep it, service it, set it right, or replace it.
"""

from __future__ import annotations

from collections.abc import Mapping
from datetime import date
from decimal import Decimal

from .. import words
from ..analytes import ANALYTES, MICROBES, Kind
from ..home import Home
from ..in_place import InPlace
from ..record import record
from ..rules import Rules, Settings
from ..testing.finding import Finding, Weight
from ..testing.judged import judge as judge_value
from ..testing.pairs import Pair, pairs
from ..testing.water import Sample, Water
from .demand import demand
from .existing_equipment import (
    DEFAULT_DOSE,
    HOWS,
    How,
    age_months,
    days_that_fit,
    glass_behind,
    load_gpg,
)
from .in_place_rules import (
    NOT_BY_A_GLASS,
    RESIN_IRON,
    Seen,
    Verdict,
    judge_of,
    of_health,
)

VERDICT_WORDS: dict[Verdict, str] = {
    "keep": "Keep it",
    "service": "Service it",
    "set_right": "Set it right",
    "replace": "Replace it",
    "not_judged": "Not judged yet",
}


@record
class Judged:
    """One piece of equipment in place, judged.

    Args:
        verdict, advice: what follows, and the next thing to do in words.
        facts: what it was judged by: age, use, setting, rent, what was measured.
        sample: the glass behind it; pairs: that glass held against the raw water.
        left_gal: what its part still treats at its rating [gal]; None where nobody can say.
        cost_year: what it goes on costing [money a year]; None where its parts are not priced.
        ways: what can be held against buying in the comparison.
    """

    id: str
    name: str
    kind: str
    scope: str
    drawing: str
    verdict: Verdict
    advice: str
    facts: tuple[str, ...]
    sample: str | None
    pairs: tuple[Pair, ...]
    left_gal: float | None
    cost_year: Decimal | None
    ways: tuple[How, ...]


def _months(value: float) -> str:
    return f"{value:.0f}" if value >= 1 else "under 1"


def _for_months(value: float) -> str:
    if value < 1:
        return "less than a month"
    return "1 month" if round(value) == 1 else f"{round(value)} months"


def age_words(device: InPlace, age: float | None) -> str:
    """How old its part is, against what it is rated for."""
    what = f"Its {device.of.part} was changed" if device.changed_on else "It was fitted"
    if age is None:
        return (
            f"When its {device.of.part} was last changed is not known: it counts as due."
            if device.months or device.gallons
            else "When it was fitted or last changed is not known."
        )
    if device.months is None:
        return f"{what} {_months(age)} months ago."
    rated = "1 month" if device.months == 1 else f"{device.months:g} months"
    return f"Its {device.of.part} has been in for {_for_months(age)}. It is rated for {rated}."


def used_words(device: InPlace, used: float | None, units: str) -> str:
    """What has run through its part, against its rating; empty where there is none."""
    if device.gallons is None or used is None:
        return ""
    left = device.gallons - used
    if left <= 0:
        times = used / device.gallons
        over = f", about {times:.1f} times over" if times >= 1.5 else ""
        return f"Its {words.gallons(device.gallons, units)} are used up{over}."
    return f"About {words.gallons(left, units)} left of {words.gallons(device.gallons, units)}."


def used_of(device: InPlace, home: Home, settings: Settings, age: float | None) -> float | None:
    """Gallons that have run through its part [gal]."""
    if age is None:
        return None
    d = demand(home, settings)
    usual = d.house_gal_year if device.of.scope == "house" else d.drinking_gal_year
    year = device.gal_day * d.occupied_days if device.gal_day is not None else usual
    return year / 12 * age


def _over(device: InPlace, age: float | None, used: float | None) -> bool:
    if age is None:
        return device.months is not None or device.gallons is not None
    by_time = device.months is not None and age > device.months
    return by_time or (device.gallons is not None and used is not None and used > device.gallons)


def is_past_life(device: InPlace, home: Home, settings: Settings, on: date) -> bool:
    """Whether its part is known to be past its months or its gallons on a day; of what nobody knows
    the age of that is not said."""
    age = age_months(device, on)
    return age is not None and _over(device, age, used_of(device, home, settings, age))


def _setting_facts(seen: Seen) -> list[str]:
    """How a softener is set against what this water asks."""
    device, load = seen.device, load_gpg(seen.raw, seen.settings.iron_factor)
    out: list[str] = []
    if load is None or "softens" not in device.of.does:
        return out
    if device.setting_gpg is not None:
        out.append(f"Set at {device.setting_gpg:g} gpg; this water asks {load.best:.0f}.")
    fit = days_that_fit(device, seen.raw, seen.home, seen.settings)
    iron = seen.raw.range("iron")
    if iron is not None and iron.best > RESIN_IRON:
        out.append(f"Iron {iron.best:g} mg/L is more than its resin takes ({RESIN_IRON:g}).")
    if fit is not None:
        dose = device.dose_lb_ft3 or DEFAULT_DOSE
        assumed = "" if device.dose_lb_ft3 is not None else " (dose assumed)"
        out.append(
            f"{device.resin_ft3:g} ft³ at {dose:g} lb{assumed} holds {fit[0]:.1f} days of this"
            " water."
        )
        if device.clock_days is not None and device.clock_days > fit[0]:
            share = 1 - fit[0] / device.clock_days
            out.append(
                f"On its clock every {device.clock_days:g} days hard water comes for {share:.0%} of"
                " the use."
            )
    return out


def _rent_facts(device: InPlace, settings: Settings) -> list[str]:
    if device.rent_month <= 0:
        return []
    year = 12 * device.rent_month
    c = settings.currency
    return [
        f"Rented at {c}{device.rent_month:,.2f} a month: {c}{year:,.0f} a year,"
        f" {c}{10 * year:,.0f} in ten."
    ]


def cost_year(device: InPlace, gallons_year: float) -> Decimal | None:
    """What equipment in place goes on costing [money/year]: rent, and its part by months or
    gallons; None where its part is not priced and nothing else is known."""
    rent = 12 * device.rent_month
    if device.part_price is None:
        return rent if rent > 0 else None
    times = [12 / device.months] if device.months else []
    if device.gallons and gallons_year > 0:
        times.append(gallons_year / device.gallons)
    if not times:
        return rent if rent > 0 else None
    return rent + device.part_price * Decimal(repr(round(max(times), 6)))


def _ways(device: InPlace) -> tuple[How, ...]:
    return HOWS if "softens" in device.of.does else ("keep", "service")


def _health_behind(
    device: InPlace, raw: Water, behind: Water | None, rules: Rules, units: str
) -> tuple[tuple[Finding, ...], tuple[str, ...], bool]:
    """Findings of health behind it, what of its work was not measured there, and whether bacteria
    were looked for there and are absent."""

    def grave(water: Water, name: str) -> Finding | None:
        v = water.values.get(name)
        f = None if v is None else judge_value(name, v, rules, units)
        return f if f is not None and f.weight is Weight.HEALTH else None

    of_work = [a for a in device.of.works_on if ANALYTES[a].kind is Kind.HEALTH]
    there = {} if behind is None else behind.values
    over = [f for a in of_work if behind is not None and (f := grave(behind, a)) is not None]
    unmeasured = [a for a in of_work if a not in there and grave(raw, a) is not None]
    bacteria = [v for a in MICROBES if (v := there.get(a)) is not None]
    clean = bool(bacteria) and all(v.microbe is False and v.certified for v in bacteria)
    return tuple(over), tuple(unmeasured), clean


def judge(
    device: InPlace,
    home: Home,
    settings: Settings,
    raw_sample: Sample,
    raw: Water,
    samples: tuple[Sample, ...],
    waters: Mapping[str, Water],
    on: date,
    rules: Rules,
) -> Judged:
    """Judge one piece of equipment in place on a day, by what was read on it and measured behind
    it."""
    glass = glass_behind(device.id, samples)
    behind = None if glass is None else waters[glass.id]
    held = () if glass is None or behind is None else pairs(raw_sample, raw, glass, behind)
    age = age_months(device, on)
    used = used_of(device, home, settings, age)
    over_behind, open_behind, clean = _health_behind(device, raw, behind, rules, settings.units)
    seen = Seen(
        over_behind=over_behind,
        open_behind=open_behind,
        clean=clean,
        device=device,
        home=home,
        settings=settings,
        rules=rules,
        raw=raw,
        behind=behind,
        held=held,
        age=age,
        used_gal=used,
        over=_over(device, age, used),
    )
    verdict, advice = judge_of(device)(seen)
    verdict, advice = of_health(seen, verdict) or (verdict, advice)
    facts = [age_words(device, age), used_words(device, used, settings.units)]
    facts += _setting_facts(seen) + _rent_facts(device, settings)
    if any(s.device == device.id and s.unflushed for s in samples):
        facts.append("A glass behind it was drawn before it was flushed: it does not count yet.")
    d = demand(home, settings)
    usual = d.house_gal_year if device.of.scope == "house" else d.drinking_gal_year
    year = usual if device.gal_day is None else device.gal_day * d.occupied_days
    return Judged(
        id=device.id,
        name=device.called,
        kind=device.kind,
        scope=device.of.scope,
        drawing=device.of.drawing,
        verdict=verdict,
        advice=advice,
        facts=tuple(f for f in facts if f),
        sample=None if glass is None else glass.id,
        pairs=tuple(p for p in held if p.removal is not None),
        left_gal=(
            None if device.gallons is None or used is None else max(0.0, device.gallons - used)
        ),
        cost_year=cost_year(device, year),
        ways=_ways(device),
    )


def judge_all(
    home: Home,
    settings: Settings,
    samples: tuple[Sample, ...],
    waters: Mapping[str, Water],
    raw: Water,
    on: date,
    rules: Rules,
) -> tuple[Judged, ...]:
    """Everything that stands in a home, judged; ``raw``: the water it is designed from."""
    raw_sample = next(s for s in samples if s.id == raw.sample)
    return tuple(
        judge(d, home, settings, raw_sample, raw, samples, waters, on, rules) for d in home.in_place
    )


def said_first(judged: tuple[Judged, ...]) -> tuple[str, ...]:
    """What follows from what stands there already, as things to do before anything is bought:
    service and setting, and the glass behind it that would judge it.
    """
    return tuple(
        f"{j.name}: {j.advice}"
        for j in judged
        if j.verdict != "keep" and j.advice != NOT_BY_A_GLASS
    )
