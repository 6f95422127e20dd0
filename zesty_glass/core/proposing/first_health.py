"""What comes before anything is bought where something of health was found."""

from __future__ import annotations

from ..testing.finding import Weight
from ..testing.findings import may_bring_lead
from .first_rule import PRACTICE, First
from .looked_at import acid, astride, kit_says_health

NITRATE_NEAR = 5.0
"""Nitrate from which it is watched [mg/L as N]: half of the limit, 40 CFR 141.23 (1991)."""

HEALTH: tuple[First, ...] = (
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
        id="turbid_well",
        sentence=(
            "A turbid well may be drawing surface water: a certified laboratory’s test for coliform"
            " bacteria before anything clears it, and cap, casing and the ground around them looked"
            " at. Until then bottled water is drunk."
        ),
        source="US CDC, drinking water from private wells",
        year=2024,
        holds=lambda at: (
            at.home.well
            and at.surely("turbidity", 1.0)
            and not {"coliform", "e_coli"} & at.water.values.keys()
        ),
    ),
    First(
        id="utility_microbes",
        sentence=(
            "Bacteria in town water: call the supply and the health authority today, and have a"
            " second sample drawn. The supply answers for it; nothing is sold against it before it"
            " has."
        ),
        source="US EPA, revised total coliform rule",
        year=2013,
        holds=lambda at: not at.home.private and at.health("coliform", "e_coli"),
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
        id="service_line",
        sentence=(
            "The supply’s line to the house is of lead, or was of galvanised steel, which holds"
            " lead: ask the supply about having it replaced, which a filter never makes up for."
        ),
        source="US EPA, lead and copper rule improvements",
        year=2024,
        holds=lambda at: at.health("lead") and may_bring_lead(at.home.service_line),
    ),
    First(
        id="owner",
        sentence=(
            "They rent: the owner answers for well, pipes and what is fitted to them. Tell the"
            " owner in writing what was measured; nothing is plumbed without the owner’s word."
        ),
        source=PRACTICE,
        year=2024,
        holds=lambda at: (
            at.home.tenant
            and (acid(at) or any(f.weight is Weight.HEALTH for f in at.meaning.findings))
        ),
    ),
    First(
        id="astride",
        sentence=(
            "A health value astride its limit: a second sample to a certified laboratory settles"
            " it; until then act as if it were over."
        ),
        source=PRACTICE,
        year=2024,
        holds=astride,
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
        holds=kit_says_health,
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
        id="nitrate_near",
        sentence=(
            "Nitrate at half its limit or more: it moves with rain and season. A sample each"
            " quarter of a year, sooner where an infant or a pregnancy is in the house, says"
            " whether it goes over."
        ),
        source="US EPA, 40 CFR 141.23 (from half the limit: every quarter)",
        year=1991,
        holds=lambda at: (
            at.home.private
            and at.surely("nitrate_n", NITRATE_NEAR)
            and not at.health("nitrate_n", "nitrite_n")
        ),
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
        id="utility_chlorine",
        sentence=(
            "Chlorine above its limit: repeat it on site with another kit, then call the utility;"
            " its limit is a running average."
        ),
        source="US EPA, disinfectants and disinfection by-products rule",
        year=1998,
        holds=lambda at: not at.home.private and at.surely("chlorine_total", 4.0),
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
            or (at.health("copper") and not acid(at))
        ),
    ),
    First(
        id="species",
        sentence="Arsenic: ask the laboratory for its form; claims hold for As(V) only.",
        source="NSF/ANSI 58",
        year=2022,
        holds=lambda at: at.health("arsenic"),
    ),
)
