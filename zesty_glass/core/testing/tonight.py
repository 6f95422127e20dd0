"""What is said first: the water to drink until somebody has answered, and what matters because of
who lives there.
"""

from __future__ import annotations

from collections.abc import Callable

from ..analytes import MICROBES, until_then
from ..home import SURFACE, Home, Source
from ..limits import Limit
from ..record import record
from ..rules import Rules
from .water import Water


@record
class Tonight:
    """What is said of the water to drink until somebody has answered: for which analytes, with
    source and year. ``not_boiled``: said instead where something is over that boiling leaves, or
    makes stronger.
    """

    id: str
    analytes: frozenset[str]
    sentence: str
    source: str
    year: int
    not_boiled: str = ""


#: said when one of its analytes is over, or may be
TONIGHT: tuple[Tonight, ...] = (
    Tonight(
        id="microbes",
        analytes=until_then("boil"),
        sentence=(
            "Microbes were found. Bring drinking water to a rolling boil for 1 minute (3"
            " minutes above 2,000 m), or use bottled water."
        ),
        source="US CDC and US EPA, emergency disinfection of drinking water",
        year=2017,
        not_boiled=(
            "Microbes were found. Use bottled water only, to drink and to cook. A rolling boil"
            " kills them, and leaves what else was found here stronger than before."
        ),
    ),
    Tonight(
        id="never_boil",
        analytes=until_then("never_boil"),
        sentence=(
            "Use bottled water because of nitrate, metals or fluoride. Never boil it for these:"
            " boiling makes them stronger."
        ),
        source="US CDC, drinking water from private wells",
        year=2024,
    ),
    Tonight(
        id="pipes",
        analytes=until_then("flush"),
        sentence=(
            "Because of lead or copper, use only cold water, flushed until it runs colder. Use"
            " bottled water for an infant and in pregnancy."
        ),
        source="US EPA, basic information about lead in drinking water",
        year=2024,
    ),
    Tonight(
        id="pfas",
        analytes=until_then("pfas"),
        sentence=(
            "Boiling does not take PFOA and PFOS out. Use bottled water, or a filter certified"
            " for them, to drink and to cook."
        ),
        source="US EPA, PFAS in drinking water",
        year=2024,
    ),
    Tonight(
        id="radon",
        analytes=until_then("ventilate"),
        sentence=(
            "Radon leaves the water into the air. Air the rooms where water is used, and have"
            " the indoor air tested. Then ask a licensed radon professional."
        ),
        source="US EPA, radon in drinking water",
        year=2012,
    ),
)
INFANT = (
    "An infant lives here. Use bottled water for formula until the laboratory and the authority"
    " have answered."
)
BLOOM = (
    "When the lake is in a bloom, neither boiling nor UV helps against its toxins. Use bottled"
    " water then."
)
OTHER = "Use bottled water to drink and to cook until the local health authority has answered."


#: said of waters that carry microbes as they come, whatever a sample of one day said
SURFACE_WATER = Tonight(
    id="surface",
    analytes=frozenset(MICROBES),
    sentence=(
        "Do not drink lake or cistern water untreated. Bring it to a rolling boil for 1"
        " minute (3 minutes above 2,000 m), or use bottled water. One clean sample does not"
        " change that."
    ),
    source="US CDC and US EPA, emergency disinfection of drinking water",
    year=2017,
    not_boiled=(
        "Do not drink lake or cistern water untreated, and boiling leaves what else was"
        " found here. Use bottled water only, to drink and to cook."
    ),
)
#: said where a well or spring was never tested for bacteria
UNTESTED = Tonight(
    id="untested",
    analytes=frozenset(MICROBES),
    sentence=(
        "This spring or dug well was not tested for bacteria. Boil what is drunk for 1"
        " minute, or use bottled water, until a laboratory has found none."
    ),
    source="US CDC, drinking water from private wells",
    year=2024,
    not_boiled=(
        "This spring or dug well was not tested for bacteria, and boiling leaves what else"
        " was found here. Use bottled water until a laboratory has found none."
    ),
)
_SHALLOW = frozenset({Source.SPRING, Source.WELL_DUG})


@record
class ForCare:
    """What is said first because of who lives there, with its source and year; ``not_boiled`` as in
    Tonight.
    """

    id: str
    sentence: str
    source: str
    year: int
    holds: Callable[[Home, Water, Rules], bool]
    not_boiled: str = ""


def _may_hold(water: Water, *names: str) -> bool:
    """Whether one of these was found, or not looked for."""
    return any(
        (v := water.values.get(n)) is None
        or (v.range is None and v.words != "absent")
        or (v.range is not None and v.below is None and v.range.best > 0)
        for n in names
    )


def _above(water: Water, limit: Limit) -> bool:
    """Whether a value is at a limit, or may be above it."""
    r = water.range(limit.analyte)
    return r is not None and (r.high is None or r.high > limit.value or r.best >= limit.value)


#: said only where the customer told it with consent
CARES: tuple[ForCare, ...] = (
    ForCare(
        id="lead_line",
        sentence=(
            "The supply’s line here holds lead, and a child or a pregnancy is in the house. Use"
            " bottled water, or water from a filter certified for lead, to drink, to cook and"
            " for formula. Boiling does not take lead out."
        ),
        source="US EPA, basic information about lead in drinking water",
        year=2024,
        holds=lambda home, water, rules: (
            home.lead_line is True and (home.care.infant or home.care.pregnancy)
        ),
    ),
    ForCare(
        id="dialysis",
        sentence=(
            "Somebody here has dialysis at home, where chlorine, chloramine and whatever"
            " treatment adds matter. The clinic decides; change nothing on this water before it"
            " has answered."
        ),
        source="ANSI/AAMI/ISO 23500-3, water for haemodialysis",
        year=2019,
        holds=lambda home, water, rules: home.care.dialysis,
    ),
    ForCare(
        id="weak_immunity",
        sentence=(
            "Somebody here has a weak defense against infection: their physician says what they"
            " may drink. Until bacteria are known to be absent, boil it for 1 minute or use"
            " bottled water."
        ),
        source="US CDC, guide to water filters for people with weakened immunity",
        year=2022,
        holds=lambda home, water, rules: (
            home.care.weak_immunity and home.private and _may_hold(water, "coliform")
        ),
        not_boiled=(
            "Somebody here has a weak defense against infection: their physician says what they"
            " may drink. Until then, use bottled water only: boiling leaves what else was found"
            " here."
        ),
    ),
    ForCare(
        id="weak_immunity_town",
        sentence=(
            "Somebody here has a weak defense against infection: their physician says whether"
            " this water is boiled or filtered for them, whatever the supply reports."
        ),
        source="US CDC, guide to water filters for people with weakened immunity",
        year=2022,
        holds=lambda home, water, rules: home.care.weak_immunity and not home.private,
    ),
    ForCare(
        id="low_sodium",
        sentence=(
            "Somebody here is on a diet low in sodium. Above 20 mg/L, water counts in a strict"
            " one. Tell whoever set the diet how much sodium this water holds."
        ),
        source="US EPA, drinking water advisory for sodium",
        year=2003,
        holds=lambda home, water, rules: (
            home.care.low_sodium and _above(water, rules.limit("sodium.diet"))
        ),
    ),
    ForCare(
        id="infant_manganese",
        sentence=(
            "An infant lives here, and this water has manganese. Use bottled water for formula"
            " until a certified laboratory and the physician have answered. Boiling makes it"
            " stronger."
        ),
        source="WHO, manganese in drinking-water (provisional guideline 0.08 mg/L)",
        year=2021,
        holds=lambda home, water, rules: (
            home.care.infant and _above(water, rules.limit("manganese.who"))
        ),
    ),
    ForCare(
        id="infant_sulfate",
        sentence=(
            "From 500 mg/L, sulfate may loosen an infant’s bowels. Use bottled water for"
            " formula until the physician has answered. Boiling makes it stronger."
        ),
        source="US EPA, drinking water advisory for sulfate",
        year=2003,
        holds=lambda home, water, rules: (
            home.care.infant and _above(water, rules.limit("sulfate.infants"))
        ),
    ),
    ForCare(
        id="pregnancy",
        sentence=(
            "Use bottled water in a pregnancy, to drink and to cook, until nitrate and lead are"
            " known. Tell the midwife or physician what the laboratory finds."
        ),
        source="US CDC, drinking water from private wells",
        year=2024,
        holds=lambda home, water, rules: (
            home.care.pregnancy and home.private and _may_hold(water, "nitrate_n", "lead")
        ),
    ),
)


#: said to whoever asks a clinic, a physician or an air test first: nobody is told to bring water
_NOT_BROUGHT = frozenset({"radon", "dialysis", "low_sodium", "weak_immunity_town"})
_EVERY: tuple[Tonight | ForCare, ...] = (*TONIGHT, SURFACE_WATER, UNTESTED, *CARES)
_BROUGHT = frozenset(
    said for t in _EVERY if t.id not in _NOT_BROUGHT for said in (t.sentence, t.not_boiled) if said
) | {INFANT, BLOOM, OTHER}


def brings_water(tonight: tuple[str, ...]) -> bool:
    """Whether what is said of tonight's water asks to bring or to boil what is drunk."""
    return any(t in _BROUGHT for t in tonight)


#: what boiling does not take out: water for microbes is not boiled where one of these is over
STAYS_BOILED = frozenset[str]().union(
    *(t.analytes for t in TONIGHT if t.id in ("never_boil", "pipes", "pfas"))
)


def _said(t: Tonight | ForCare, kept: bool) -> str:
    """Its sentence; ``kept``: something is over that boiling does not take out."""
    return t.not_boiled if kept and t.not_boiled else t.sentence


def _by_source(home: Home, water: Water) -> tuple[Tonight, ...]:
    """What the source alone asks of the water to drink."""
    if home.source in SURFACE:
        return (SURFACE_WATER,)
    untested = not UNTESTED.analytes & water.values.keys()
    return (UNTESTED,) if home.source in _SHALLOW and untested else ()


def tonight(over: frozenset[str], home: Home, water: Water, rules: Rules) -> tuple[str, ...]:
    """The "tonight" card: what to drink until the laboratory or the authority answers, and what is
    said first because of who lives there. No health finding goes without.

    Args:
        over: analytes with a health finding.
    """
    kept = bool(over & STAYS_BOILED)
    card = [_said(t, kept) for t in TONIGHT if t.analytes & over]
    said = frozenset[str]().union(*(t.analytes for t in TONIGHT))
    if over - said:
        card.append(OTHER)
    if home.care.infant and home.private and ("nitrate_n" not in water.values or over):
        card.append(INFANT)
    if not over & SURFACE_WATER.analytes:
        card += [_said(t, kept) for t in _by_source(home, water)]
    if home.source is Source.LAKE:
        card.append(BLOOM)
    return tuple(card) + tuple(_said(c, kept) for c in CARES if c.holds(home, water, rules))
