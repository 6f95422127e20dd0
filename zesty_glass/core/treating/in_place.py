"""What to make of equipment in place: how old, how used, how set, what was measured behind it; and
what follows: keep it, service it, set it right, or replace it.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping
from datetime import date
from decimal import Decimal
from typing import Literal

from .. import words
from ..analytes import ANALYTES, Kind
from ..home import Home
from ..in_place import InPlace
from ..ranges import Range
from ..ranges import Verdict as Held
from ..record import record
from ..rules import Rules, Settings
from ..testing.finding import Finding, Weight
from ..testing.judged import judge as judge_value
from ..testing.pairs import Pair, pairs
from ..testing.removal import removal
from ..testing.water import Sample, Water
from ..units import MG_L_PER_GPG
from .demand import demand
from .kept import (
    DEFAULT_DOSE,
    HOWS,
    How,
    age_months,
    days_that_fit,
    glass_behind,
    load_gpg,
)
from .stages.softener_size import LEAST_DAYS

Verdict = Literal["keep", "service", "set_right", "replace", "not_judged"]
VERDICT_WORDS: dict[Verdict, str] = {
    "keep": "Keep it",
    "service": "Service it",
    "set_right": "Set it right",
    "replace": "Replace it",
    "not_judged": "Not judged yet",
}
SET_ROOM_GPG = 1.0  # a valve is set in whole grains: trade practice (2024)
SET_TOO_HIGH = 1.25  # from here a setting wastes salt worth a word: trade practice (2024)
LEAST_REJECTION = 0.75  # of a membrane: the alarm of service work
LAMP_MONTHS = 12.0  # a UV lamp's year of days powered
LEAST_PH_BEHIND = 7.0  # behind a neutraliser
MOST_PH_BEHIND = 8.5  # [pH] US EPA, secondary standards (1991)
#: [mg/L] staining limits of what an iron filter takes out: US EPA, secondary standards (1991)
STAINS = {"iron": 0.3, "manganese": 0.05}
RESIN_IRON = 2.0  # [mg/L] ferrous, that resin takes without a cleaner: trade practice (2024)


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


@record
class Seen:
    """All that a judgement looks at.

    Args:
        over: its part is past its months or gallons.
        over_behind: findings of health on the water behind it; open_behind: what is of health in
            the raw water, of its work, and was not measured behind it.
        clean: whether a certified laboratory found bacteria absent behind it.
    """

    device: InPlace
    home: Home
    settings: Settings
    raw: Water
    behind: Water | None
    held: tuple[Pair, ...]
    age: float | None
    used_gal: float | None
    over: bool
    over_behind: tuple[Finding, ...] = ()
    open_behind: tuple[str, ...] = ()
    clean: bool = False

    def after(self, analyte: str) -> Range | None:
        """What was measured of an analyte behind it."""
        return None if self.behind is None else self.behind.range(analyte)

    @property
    def changes_something(self) -> bool | None:
        """Whether anything measured differs behind it; None where nothing was held against it."""
        shown = [p.removal.shown for p in self.held if p.removal is not None]
        if not shown:
            return None
        return any(s in ("removed", "at_least") for s in shown)


Answer = tuple[Verdict, str]


def _months(value: float) -> str:
    return f"{value:.0f}" if value >= 1 else "under 1"


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
    over = age - device.months
    tail = f", {over:.0f} over" if over >= 1 else ""
    return f"{_months(age)} of its {device.of.part}’s {device.months:g} months{tail}."


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


def _use(device: InPlace, home: Home, settings: Settings, age: float | None) -> float | None:
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


def _setting_facts(seen: Seen) -> list[str]:
    """How a softener is set against what this water asks."""
    device, load = seen.device, load_gpg(seen.raw, seen.settings.iron_factor)
    out: list[str] = []
    if load is None or device.kind != "softener":
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


def _softener(seen: Seen) -> Answer:
    device, hard = seen.device, seen.after("hardness")
    load = load_gpg(seen.raw, seen.settings.iron_factor)
    fit = days_that_fit(device, seen.raw, seen.home, seen.settings)
    if fit is not None and fit[0] <= 1:
        return (
            "replace",
            f"Too small for this home: it holds {fit[0]:.1f} days of this water, however it is"
            " set.",
        )
    leaks = hard is not None and hard.low >= MG_L_PER_GPG
    low = (
        device.setting_gpg is not None
        and load is not None
        and device.setting_gpg < load.best - SET_ROOM_GPG
    )
    late = device.clock_days is not None and fit is not None and device.clock_days > fit[0]
    if low or late:
        to = [] if load is None or not low else [f"hardness {load.best:.0f} gpg"]
        to += [] if fit is None or not late else [f"every {words.days(fit[1])}"]
        small = fit is not None and fit[0] - 1 < LEAST_DAYS
        return (
            "set_right",
            f"Set it to {' and '.join(to)}, see that there is salt without a bridge, renew it once"
            " by hand, and measure again."
            + (" Small for this home even so: it uses much salt and water." if small else ""),
        )
    if leaks:
        return (
            "service",
            "Hard water comes through: salt and its bridge, injector, resin and bypass are looked"
            " at, one renewal by hand, then measured again. Only then a new one.",
        )
    if hard is None:
        return "not_judged", "Draw a glass behind it and test the hardness."
    if hard.high is None or hard.high > MG_L_PER_GPG * (1 + 1e-9):
        return "not_judged", "Hardness behind it is astride 1 gpg: test it finer."
    if device.setting_gpg is not None and load and device.setting_gpg > load.best * SET_TOO_HIGH:
        more = device.setting_gpg / load.best - 1
        return (
            "set_right",
            f"It softens. Set it to {load.best:.0f} gpg: as it is it renews about {more:.0%}"
            " oftener than needed, with its salt and rinse water.",
        )
    return "keep", "It softens as it is set. Salt, and the same test once a year."


def _membrane(seen: Seen) -> Answer:
    out, into = seen.after("tds"), seen.raw.range("tds")
    if out is None or into is None:
        return (
            ("service", seen.device.of.service)
            if seen.over
            else ("not_judged", "Draw a glass behind it and measure TDS.")
        )
    assert seen.behind is not None
    held = removal(seen.raw.values["tds"], seen.behind.values["tds"])
    if held.most is not None and held.most < LEAST_REJECTION:
        return "service", "It holds back too little. " + seen.device.of.service
    return _cartridge(seen)


def _cartridge(seen: Seen) -> Answer:
    device = seen.device
    if seen.over:
        return "service", "Past its life. " + device.of.service + " The same tests again then."
    limit, tds = device.change_at_tds, seen.after("tds")
    if limit is not None and tds is not None and tds.best >= limit:
        return (
            "service",
            f"TDS behind it has reached {limit:g} mg/L, at which its maker wants it changed.",
        )
    match seen.changes_something:
        case None:
            return "not_judged", "Draw a glass behind it, flushed, and test what it is there for."
        case True:
            return "keep", "It does what was measured. Change it by its months or gallons."
        case False:
            return (
                "replace",
                "Nothing that was measured differs behind it though it is within its life: see that"
                " nothing goes around it; else it can go.",
            )


def _neutraliser(seen: Seen) -> Answer:
    ph = seen.after("ph")
    if ph is None:
        return "not_judged", "Measure the pH behind it by meter."
    least, most = ph.at_least(LEAST_PH_BEHIND), ph.at_most(MOST_PH_BEHIND)
    if least is Held.NOT_MET:
        return "service", f"pH {ph.best:.1f} behind it. {seen.device.of.service}"
    if most is Held.NOT_MET:
        return (
            "set_right",
            f"pH {ph.best:.1f} behind it, more than {MOST_PH_BEHIND:g}: a slower medium or less"
            " dose, or more water drawn through it, then measured again.",
        )
    if Held.UNCERTAIN in (least, most):
        edge = LEAST_PH_BEHIND if least is Held.UNCERTAIN else MOST_PH_BEHIND
        return "not_judged", f"The pH behind it is astride {edge:g}: measure it by meter."
    return "keep", "It raises the pH. Look at its bed at every service."


def _iron(seen: Seen) -> Answer:
    iron = seen.after("iron")
    if iron is None:
        return "not_judged", "Draw a glass behind it and test the iron."
    held = {
        name: (r, r.at_most(limit))
        for name, limit in STAINS.items()
        if (r := seen.after(name)) is not None
    }
    for name, (r, verdict) in held.items():
        if verdict is Held.NOT_MET:
            said = ANALYTES[name].name.partition(",")[0]
            return "service", f"{said} {r.best:g} mg/L behind it. {seen.device.of.service}"
    for name, (_, verdict) in held.items():
        if verdict is Held.UNCERTAIN:
            said = ANALYTES[name].said
            return "not_judged", f"The {said} behind it is astride {STAINS[name]:g}: test it finer."
    return "keep", "It takes the iron out. The same test once a year."


def _uv(seen: Seen) -> Answer:
    if seen.age is None or seen.age > (seen.device.months or LAMP_MONTHS):
        return "service", seen.device.of.service + " A laboratory tests the water behind it."
    if seen.clean:
        return "keep", "A laboratory found none behind it. A lamp a year, and the same test then."
    return (
        "not_judged",
        "A lamp is judged by its alarm, its days powered and a laboratory’s test behind it.",
    )


def _of_health(seen: Seen, verdict: Verdict) -> Answer | None:
    """What a health finding makes of a verdict: over a limit behind it comes before all else; what
    it is there for and nobody measured behind it is not known by any other reading."""
    if seen.over_behind:
        names = ", ".join(f"{ANALYTES[f.analyte].name} {f.shown}" for f in seen.over_behind)
        return (
            "service",
            f"{names} behind it: do not drink it. {seen.device.of.service} Then a certified"
            " laboratory tests behind it again.",
        )
    if seen.open_behind and verdict in ("keep", "replace"):
        names = ", ".join(ANALYTES[name].said for name in seen.open_behind)
        return (
            "not_judged",
            f"What it does to {names} is not known: a certified laboratory’s sample behind it"
            " says, no other reading does. Until then do not count on it.",
        )
    return None


def _plain(seen: Seen) -> Answer:
    return ("service", seen.device.of.service) if seen.over else ("not_judged", _NOT_BY_A_GLASS)


_NOT_BY_A_GLASS = "What it does cannot be judged by a glass behind it."
_JUDGES: dict[str, Callable[[Seen], Answer]] = {
    "softener": _softener,
    "membrane": _membrane,
    "neutraliser": _neutraliser,
    "iron_filter": _iron,
    "uv": _uv,
    "conditioner": _plain,
    "other": _plain,
}


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
    return HOWS if device.kind == "softener" else ("keep", "service")


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
    bacteria = [v for a in ("coliform", "e_coli") if (v := there.get(a)) is not None]
    clean = bool(bacteria) and all(v.words == "absent" and v.certified for v in bacteria)
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
    used = _use(device, home, settings, age)
    over_behind, open_behind, clean = _health_behind(device, raw, behind, rules, settings.units)
    seen = Seen(
        over_behind=over_behind,
        open_behind=open_behind,
        clean=clean,
        device=device,
        home=home,
        settings=settings,
        raw=raw,
        behind=behind,
        held=held,
        age=age,
        used_gal=used,
        over=_over(device, age, used),
    )
    verdict, advice = _JUDGES.get(device.kind, _cartridge)(seen)
    verdict, advice = _of_health(seen, verdict) or (verdict, advice)
    facts = [age_words(device, age), used_words(device, used, settings.units)]
    facts += _setting_facts(seen) + _rent_facts(device, settings)
    if any(s.device == device.id and s.just_changed for s in samples):
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
        if j.verdict != "keep" and j.advice != _NOT_BY_A_GLASS
    )
