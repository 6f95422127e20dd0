"""What the rules of ``first.py`` look at, and what several of them ask of it."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import field

from ..analytes import ANALYTES, MICROBES, Kind
from ..home import Home
from ..ranges import Verdict
from ..record import record
from ..rules import Rules
from ..testing.complaints import Complaint
from ..testing.finding import Finding, Weight
from ..testing.findings import Meaning
from ..testing.observations import LaboratoryResult
from ..testing.pairs import pairs
from ..testing.reading import Reading, work_out
from ..testing.water import Sample, Water, water_of
from ..units import MG_L_PER_GPG


@record
class At:
    """What the rules of this module look at: the raw water with what it means, the home, the
    complaints, every glass that was drawn, and what is wanted of what was found [canonical unit].
    """

    water: Water
    meaning: Meaning
    home: Home
    complaints: tuple[Complaint, ...] = ()
    samples: tuple[Sample, ...] = ()
    targets: Mapping[str, tuple[float | None, str]] = field(default_factory=dict)
    rules: Rules = Rules()

    def finding(self, *analytes: str) -> Finding | None:
        """The first finding on one of these that asks for something."""
        asks = (Weight.HEALTH, Weight.ACT, Weight.NOTICE)
        return next(
            (f for f in self.meaning.findings if f.analyte in analytes and f.weight in asks), None
        )

    def health(self, *analytes: str) -> bool:
        """Whether one of these is a health finding."""
        f = self.finding(*analytes)
        return f is not None and f.weight is Weight.HEALTH

    def complained(self, *signs: str) -> bool:
        """Whether one of these signs is complained of."""
        return any(c.sign in signs for c in self.complaints)

    @property
    def static_psi(self) -> float | None:
        """Pressure while nothing runs [psi]: what the home says, else what was measured."""
        if self.home.static_psi is not None:
            return self.home.static_psi
        r = self.water.range("pressure_static")
        return None if r is None else r.best

    @property
    def pressures_known(self) -> bool:
        """Whether pressure with and without a tap open is known."""
        running = self.home.running_psi is not None or self.water.range("pressure_running")
        return bool(running) and self.static_psi is not None

    def surely(self, analyte: str, least: float) -> bool:
        """Whether a value surely reaches ``least`` [canonical unit]."""
        r = self.water.range(analyte)
        return r is not None and r.low >= least

    def over(self, limit: str) -> bool:
        """Whether a value surely reaches a limit, by its id."""
        of = self.rules.limit(limit)
        return self.surely(of.analyte, of.value)

    def surely_under(self, analyte: str, most: float) -> bool:
        """Whether a value surely stays under ``most`` [canonical unit]."""
        r = self.water.range(analyte)
        return r is not None and r.high is not None and r.high < most


def hard_behind(at: At) -> bool:
    """Whether water behind a softener that stands there is surely hard."""
    return any(
        s.treated
        and s.softened
        and not s.device
        and (h := water_of(s).range("hardness")) is not None
        and h.low >= MG_L_PER_GPG
        for s in at.samples
    )


#: what any filter of taste is meant to take out: of the rest no difference is no fault of it
FILTERED = frozenset({"chlorine_free", "chlorine_total", "chlorine_combined"})


def idle_filter(at: At) -> bool:
    """Whether a filter that stands there is overdue for replacement, or takes out no chlorine."""
    raw = next((s for s in at.samples if s.raw), None)
    for s in at.samples:
        if not s.treated or s.device or s.unflushed:
            continue
        if s.past_life:
            return True
        if raw is not None:
            every = pairs(raw, at.water, s, water_of(s))
            held = [p.removal for p in every if p.removal and p.analyte in FILTERED]
            if held and all(r.shown == "no_difference" for r in held):
                return True
    return False


def cold_tap_smells(at: At) -> bool:
    """Whether the cold water surely smells of eggs."""
    return at.over("sulfide.smell")


BED_IRON, BED_SULFIDE = 10.0, 5.0
"""Most iron and hydrogen sulfide that a single filter bed is sold for [mg/L]: trade practice
(2024)."""


def beyond_a_bed(at: At) -> bool:
    """Whether there is surely more iron or sulfide than one bed is sold for."""
    return at.surely("iron", BED_IRON) or at.surely("hydrogen_sulfide", BED_SULFIDE)


def acid(at: At) -> bool:
    """Whether the water is surely acid."""
    f, ph = at.finding("ph"), at.water.range("ph")
    return (
        f is not None
        and f.weight is Weight.ACT
        and ph is not None
        and ph.best < at.rules.at("ph.corrosive")
    )


def certified(at: At, analyte: str) -> bool:
    """Whether a certified laboratory vouches for a value."""
    v = at.water.values.get(analyte)
    return v is not None and v.laboratory and v.certified


def astride(at: At) -> bool:
    """Whether a health finding's range has its limit within."""
    unsettled = (f for f in at.meaning.findings if not f.settled and not f.at_limit)
    return any(certified(at, f.analyte) for f in unsettled) or any(
        f.weight is Weight.HEALTH
        and f.limit is not None
        and (r := at.water.range(f.analyte)) is not None
        and r.low <= f.limit < r.top
        and f.limit > 0
        for f in at.meaning.findings
    )


def at_limit(at: At) -> bool:
    """Whether a certified laboratory found a health value right at its limit."""
    return any(f.at_limit and certified(at, f.analyte) for f in at.meaning.findings)


#: [mg/L] sodium, chloride and TDS from which the three together are salt, and how much chloride a
#: part of sodium then has: 1.8 in sea water (US Geological Survey, 2007), with room either way
SALT_SODIUM, SALT_CHLORIDE, SALT_TDS, SALT_RATIO = 150.0, 250.0, 900.0, (1.0, 2.8)


def brackish(at: At) -> bool:
    """Whether sodium, chloride and dissolved solids are high together, as salt is."""
    if not at.home.private:
        return False
    sodium, chloride, tds = (at.water.range(n) for n in ("sodium", "chloride", "tds"))
    if sodium is None or chloride is None or tds is None or sodium.best <= 0:
        return False
    enough = sodium.best >= SALT_SODIUM and chloride.best >= SALT_CHLORIDE and tds.best >= SALT_TDS
    return enough and SALT_RATIO[0] <= chloride.best / sodium.best <= SALT_RATIO[1]


def confirmed_microbes(at: At) -> bool:
    """Whether two certified samples of different days found bacteria in the raw water."""
    days = {
        r.made_at.date()
        for s in at.samples
        if not s.treated
        for r in s.readings
        if r.analyte in MICROBES and r.struck_at is None and found_by(r)
    }
    return len(days) > 1


def found_by(reading: Reading) -> bool:
    """Whether a laboratory's reading found a microbe, in a word or by count."""
    return isinstance(reading.observation, LaboratoryResult) and work_out(reading).microbe is True


def kit_says_health(at: At) -> bool:
    """Whether what no certified laboratory vouches for is at, over, or perhaps over a limit of
    health; chlorine has its own way, over the utility."""
    return any(
        f.kind is Kind.HEALTH
        and ANALYTES[f.analyte].kind is not Kind.HEALTH
        and f.analyte != "chlorine_total"
        and not certified(at, f.analyte)
        for f in at.meaning.findings
    )


#: what is complained of at the drinking tap alone
_TASTES = frozenset({"taste", "metal_taste"})


def good_at_the_tap(at: At) -> bool:
    """Whether all that is complained of is a taste, and a glass behind what stands at the drinking
    tap shows that it takes out what explains it. Chloramine is no more than the total chlorine."""
    told = {c.id for c in at.complaints}
    if not told or not all(c.sign in _TASTES for c in at.complaints):
        return False
    found = {f.analyte for f in at.meaning.findings if told & set(f.explains)}
    # a pitcher is one of the ways that are compared, each with what it costs a year
    taps = {d.id for d in at.home.in_place if d.of.scope == "tap" and d.kind != "jug"}
    behind = [water_of(s) for s in at.samples if s.device in taps and not s.unflushed]
    return bool(found) and any(all(_taken_out(at, a, w) for a in found) for w in behind)


def _taken_out(at: At, analyte: str, behind: Water) -> bool:
    target, op = at.targets.get(analyte, (None, ""))
    r = behind.range(analyte)
    if r is None and analyte == "chlorine_combined":
        r = behind.range("chlorine_total")
    met = r is not None and target is not None and r.at_most(target) is Verdict.MET
    return met and op == "at_most"


#: below this [pCi/L] radon in water is judged with the indoor air, which a tap does not show: a
#: line that takes it out is shown, none stands first because of it. US EPA, proposed radon rule
#: (1999): the level where the indoor air is looked after
RADON_WITH_THE_AIR = 4000.0


def radon_with_the_air(water: Water) -> bool:
    """Whether radon was found, and is so little that the indoor air decides on it."""
    radon = water.range("radon")
    return radon is not None and radon.best < RADON_WITH_THE_AIR
