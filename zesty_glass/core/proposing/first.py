"""What costs nothing, or little, and comes before anything is bought: settings, cleaning, another
test, one jug.
"""

from __future__ import annotations

from collections.abc import Callable

from ..analytes import ANALYTES, Kind
from ..home import SURFACE, Home
from ..record import record
from ..testing.complaints import Complaint
from ..testing.finding import Finding, Weight
from ..testing.findings import Meaning
from ..testing.pairs import pairs
from ..testing.water import Sample, Water, water_of
from ..units import MG_L_PER_GPG


@record
class At:
    """What the rules of this module look at: the raw water with what it means, the home, the
    complaints, and every glass that was drawn.
    """

    water: Water
    meaning: Meaning
    home: Home
    complaints: tuple[Complaint, ...] = ()
    samples: tuple[Sample, ...] = ()

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

    def surely(self, analyte: str, least: float) -> bool:
        """Whether a value surely reaches ``least`` [canonical unit]."""
        r = self.water.range(analyte)
        return r is not None and r.low >= least


@record
class First:
    """One thing to do before buying, with when it holds, its source and year."""

    id: str
    sentence: str
    source: str
    year: int
    holds: Callable[[At], bool]


def _hard_behind(at: At) -> bool:
    """Whether water behind a softener that stands there is surely hard."""
    return any(
        s.treated
        and not s.device
        and "soften" in s.after.lower()
        and (h := water_of(s).range("hardness")) is not None
        and h.low >= MG_L_PER_GPG
        for s in at.samples
    )


def _idle_filter(at: At) -> bool:
    """Whether a filter that stands there is past its life, or shows no difference in anything."""
    raw = next((s for s in at.samples if s.raw), None)
    for s in at.samples:
        if not s.treated or s.device or "soften" in s.after.lower() or s.just_changed:
            continue
        if s.past_life:
            return True
        if raw is not None:
            held = [p.removal for p in pairs(raw, at.water, s, water_of(s)) if p.removal]
            if held and all(r.shown == "no_difference" for r in held):
                return True
    return False


def _cold_tap_smells(at: At) -> bool:
    return at.surely("hydrogen_sulfide", 0.05)


def _acid(at: At) -> bool:
    """Whether the water is surely acid."""
    f, ph = at.finding("ph"), at.water.range("ph")
    return f is not None and f.weight is Weight.ACT and ph is not None and ph.best < 7.0


def _certified(at: At, analyte: str) -> bool:
    v = at.water.values.get(analyte)
    return v is not None and v.laboratory and v.certified


def _astride(at: At) -> bool:
    """Whether a health finding's range has its limit within, or stands right at it."""
    return any(not f.settled and _certified(at, f.analyte) for f in at.meaning.findings) or any(
        f.weight is Weight.HEALTH
        and f.limit is not None
        and (r := at.water.range(f.analyte)) is not None
        and r.low <= f.limit < (f.limit + 1 if r.high is None else r.high)
        and f.limit > 0
        for f in at.meaning.findings
    )


def _kit_says_health(at: At) -> bool:
    """Whether what no certified laboratory vouches for is at, over, or perhaps over a limit of
    health; chlorine has its own way, over the utility."""
    return any(
        f.kind is Kind.HEALTH
        and ANALYTES[f.analyte].kind is not Kind.HEALTH
        and f.analyte != "chlorine_total"
        and not _certified(at, f.analyte)
        for f in at.meaning.findings
    )


_PRACTICE = "trade practice"
MOST_STATIC_PSI = 80.0
"""What a building's pipe may stand under while nothing runs [psi]: IPC 604.8, UPC 608.2 (2021)."""

FIRST: tuple[First, ...] = (
    First(
        id="way_in",
        sentence=(
            "Bacteria: look for the way in first (cap, casing, seal, a dead end of pipe), have well"
            " and plumbing disinfected by a licensed person, and test again some days after the"
            " chlorine is gone. Treatment is for what comes back."
        ),
        source="US CDC, private ground water wells",
        year=2024,
        holds=lambda at: at.home.well and at.health("coliform", "e_coli"),
    ),
    First(
        id="surface",
        sentence=(
            "Surface water carries microbes always: nothing untreated is drunk, all plumbing is"
            " disinfected by a licensed person before treatment is started, and the laboratory"
            " tests again behind it."
        ),
        source="US EPA, surface water treatment rules",
        year=1989,
        holds=lambda at: at.home.private and not at.home.well and at.health("coliform", "e_coli"),
    ),
    First(
        id="indoor_air",
        sentence=(
            "Radon: test the indoor air before anything is bought; most radon in air comes from"
            " the ground, and the water’s share is judged with it."
        ),
        source="US EPA, a citizen’s guide to radon",
        year=2016,
        holds=lambda at: at.health("radon"),
    ),
    First(
        id="flush",
        sentence=(
            "Lead and copper: they come from pipe and tap. Flush until the water runs colder, take"
            " the first litre and a flushed one to the laboratory, and look at tap and pipe."
        ),
        source="US EPA, basic information about lead in drinking water",
        year=2024,
        holds=lambda at: at.health("lead", "copper"),
    ),
    First(
        id="astride",
        sentence=(
            "A health value astride its limit: a second sample to a certified laboratory settles"
            " it; until then act as if it were over."
        ),
        source=_PRACTICE,
        year=2024,
        holds=_astride,
    ),
    First(
        id="confirm_kit",
        sentence=(
            "A field kit’s figure at or over a limit of health: a certified laboratory’s sample"
            " settles it before anything is bought for it; until then act as if it were over, and"
            " make no infant’s formula with it."
        ),
        source="WHO, manganese in drinking-water",
        year=2021,
        holds=_kit_says_health,
    ),
    First(
        id="confirm_nitrate",
        sentence=(
            "Nitrate: have a second sample confirm it, and look for what feeds it (septic field,"
            " manure, a shallow or open well)."
        ),
        source="US CDC, nitrate and drinking water from private wells",
        year=2024,
        holds=lambda at: at.home.private and at.health("nitrate_n", "nitrite_n"),
    ),
    First(
        id="pfas_source",
        sentence=(
            "PFAS: ask the supply for its own results, or on a well the health department what is"
            " known nearby; a second sample by a certified laboratory, for its amounts are tiny."
        ),
        source="US EPA, PFAS national primary drinking water regulation",
        year=2024,
        holds=lambda at: at.health("pfoa", "pfos"),
    ),
    First(
        id="one_tap",
        sentence=(
            "What matters here is what is drunk and cooked with: one tap is enough, the whole"
            " house is not needed for it."
        ),
        source="US CDC, drinking water from private wells",
        year=2024,
        holds=lambda at: (
            at.health(
                "nitrate_n", "arsenic", "fluoride", "uranium", "barium", "lead", "pfoa", "pfos"
            )
            or (at.health("copper") and not _acid(at))
        ),
    ),
    First(
        id="species",
        sentence="Arsenic: ask the laboratory for its form; claims hold for As(V) only.",
        source="NSF/ANSI 58",
        year=2022,
        holds=lambda at: at.health("arsenic"),
    ),
    First(
        id="anode",
        sentence=(
            "Only the hot tap smells: have the water heater’s anode looked at, and the heater"
            " flushed and run hot, before anything is bought for it."
        ),
        source=_PRACTICE,
        year=2024,
        holds=lambda at: at.complained("egg_smell_hot") and not _cold_tap_smells(at),
    ),
    First(
        id="disinfect_sulfide",
        sentence=(
            "Smell of eggs in a well: have the well disinfected and measure again on the spot;"
            " bacteria make much of it, and then it may be gone for a long time."
        ),
        source=_PRACTICE,
        year=2024,
        holds=lambda at: at.home.well and _cold_tap_smells(at),
    ),
    First(
        id="aquarium",
        sentence=(
            "An aquarium: chlorine and chloramine harm fish, and a softener changes what they live"
            " in. The tank’s own conditioner costs little; say so before anything changes."
        ),
        source=_PRACTICE,
        year=2024,
        holds=lambda at: at.home.care.aquarium,
    ),
    First(
        id="set_softener",
        sentence=(
            "The softener that stands here lets hard water through: its hardness setting and"
            " clock, salt without a bridge, a cleaned resin and injector, then measure again."
            " Only then a new one."
        ),
        source=_PRACTICE,
        year=2024,
        holds=_hard_behind,
    ),
    First(
        id="change_filter",
        sentence=(
            "The filter that stands here is past its life, or changes nothing that was measured:"
            " a fresh cartridge, flushed, and the same tests again show what it is good for."
        ),
        source=_PRACTICE,
        year=2024,
        holds=_idle_filter,
    ),
    First(
        id="jug",
        sentence=(
            "Taste or smell of chlorine: a jug left open in the refrigerator overnight costs"
            " nothing; free chlorine goes, chloramine mostly stays."
        ),
        source=_PRACTICE,
        year=2024,
        holds=lambda at: (
            at.complained("bleach_smell", "taste")
            and at.finding("chlorine_free", "chlorine_combined", "chlorine_total") is not None
        ),
    ),
    First(
        id="panel",
        sentence=(
            "So much dissolved matter is tasted: a laboratory’s panel of minerals says which,"
            " before anything is chosen for it."
        ),
        source="WHO, guidelines for drinking-water quality",
        year=2017,
        holds=lambda at: any(f.id == "tds.taste" for f in at.meaning.findings),
    ),
    First(
        id="heater",
        sentence=(
            "Crust: the water heater no hotter than 60 °C, flushed as its hardness asks, and"
            " vinegar in the kettle cost nothing; scale forms mostly where water is heated."
        ),
        source=_PRACTICE,
        year=2024,
        holds=lambda at: at.complained("white_crust") and at.finding("hardness") is not None,
    ),
    First(
        id="standing",
        sentence=(
            "Haze: let a glass stand. Air clears from below within minutes, and asks for nothing;"
            " what settles or stays is measured."
        ),
        source=_PRACTICE,
        year=2024,
        holds=lambda at: at.complained("haze"),
    ),
    First(
        id="rusted_haze",
        sentence=(
            "Haze with iron: the three cups say whether it is rusted iron, before a filter is"
            " chosen for either; an iron filter takes rusted iron out, and a sediment filter soon"
            " plugs with it."
        ),
        source=_PRACTICE,
        year=2024,
        holds=lambda at: (
            (at.complained("haze") or at.finding("turbidity") is not None)
            and at.surely("iron", 0.3)
            and at.water.cups is None
        ),
    ),
    First(
        id="screens",
        sentence=(
            "A weak shower: clean aerators and shower heads, look at the pressure regulator and"
            " any filter that stands there, and measure static and running pressure."
        ),
        source=_PRACTICE,
        year=2024,
        holds=lambda at: at.complained("low_pressure"),
    ),
    First(
        id="transmittance",
        sentence=(
            "A lamp is chosen by UV transmittance: a sample to the laboratory, drawn where the"
            " lamp will be, before one is sold."
        ),
        source="NSF/ANSI 55",
        year=2022,
        holds=lambda at: at.health("coliform", "e_coli") and "uvt" not in at.water.values,
    ),
    First(
        id="regulator",
        sentence=(
            f"More than {MOST_STATIC_PSI:g} psi while nothing runs: a pressure regulator ahead of"
            " everything, and room for the heater’s water to expand behind it, before anything is"
            " fitted. A licensed plumber, to local code."
        ),
        source="International Plumbing Code 604.8, UPC 608.2",
        year=2021,
        holds=lambda at: at.static_psi is not None and at.static_psi > MOST_STATIC_PSI,
    ),
    First(
        id="surface",
        sentence=(
            "Lake or cistern water: bacteria and UV transmittance to a laboratory before a line is"
            " chosen. Every line here wants disinfection at its end, and what clears the water"
            " ahead of it."
        ),
        source="US EPA, private drinking water wells and surface sources; NSF/ANSI 55",
        year=2022,
        holds=lambda at: (
            at.home.source in SURFACE
            and not at.health("coliform", "e_coli")
            and not {"coliform", "uvt"} <= at.water.values.keys()
        ),
    ),
    First(
        id="manganese",
        sentence="Iron brings manganese: test it before a filter is chosen; it wants another pH.",
        source=_PRACTICE,
        year=2024,
        holds=lambda at: (
            at.home.private and at.surely("iron", 0.3) and "manganese" not in at.water.values
        ),
    ),
    First(
        id="copper",
        sentence=(
            "Acid water: a first draw for copper and lead now, and again some weeks after the pH"
            " was corrected, shows what the correction did."
        ),
        source="US EPA, lead and copper rule",
        year=1991,
        holds=lambda at: _acid(at) and "copper" not in at.water.values,
    ),
    First(
        id="utility_ph",
        sentence=(
            "Acid water from a town main: the supply answers for its pH; ask for its report, and"
            " tell it what was measured, before anything is bought."
        ),
        source="US EPA, lead and copper rule",
        year=1991,
        holds=lambda at: _acid(at) and not at.home.private,
    ),
    First(
        id="utility_chlorine",
        sentence=(
            "Chlorine above its limit: repeat it on site with another kit, then call the utility;"
            " its limit is a running average."
        ),
        source="US EPA, disinfectants and disinfection by-products rule",
        year=1998,
        holds=lambda at: not at.home.private and at.surely("chlorine_total", 4.0),
    ),
)


def first_steps(at: At) -> tuple[str, ...]:
    """What to do before anything is bought: health first, and what looks for the cause of a
    complaint that nothing explains yet.
    """
    words = {c.id: c.words for c in at.complaints}
    open_ones = tuple(
        f"“{words.get(u.complaint, u.complaint)}” is not explained yet: next, {u.next}."
        for u in at.meaning.unexplained
    )
    untested = tuple(
        f"They wish less {ANALYTES[w.analyte].said}: it is not tested; {ANALYTES[w.analyte].test}."
        for w in at.home.wishes
        if w.analyte not in at.water.values
    )
    return tuple(f.sentence for f in FIRST if f.holds(at)) + open_ones + untested
