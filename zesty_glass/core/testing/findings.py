"""What the readings mean: bands and limits with their source, the complaints they explain, and what stays unknown."""

from __future__ import annotations

from enum import StrEnum

from .. import words
from ..analytes import ANALYTES, LOOKED_FOR, Kind
from ..home import Home
from ..ranges import Range, Verdict
from ..record import record
from ..rules import Limit, Rules
from ..units import hardness_in_every_unit
from ..working import Working
from .breath import breath_working
from .colour import ColourFinding, find
from .complaints import SIGNS, Complaint
from .reading import Value
from .scale import ScaleTendency, tendency
from .water import Water


class Weight(StrEnum):
    """How much a finding asks for."""

    FINE = "fine"
    NOTICE = "notice"
    ACT = "act"
    HEALTH = "health"


@record
class Finding:
    """One thing the readings say.

    Args:
        kind: health (laboratory only), looks and taste, equipment and pipes.
        shown: value in words; ``span`` its range.
        band: band or bands it lies in; ``source`` and ``year`` of the band or limit that judged it.
        explains: ids of the complaints it explains.
    """

    id: str
    analyte: str
    kind: Kind
    weight: Weight
    sentence: str
    shown: str
    span: str
    band: str = ""
    limit: float | None = None
    source: str = ""
    year: int | None = None
    explains: tuple[str, ...] = ()
    next: str = ""


@record
class Unexplained:
    """A complaint that nothing explains yet, with the next test."""

    complaint: str
    next: str


@record
class Unknown:
    """A thing looked for and not tested."""

    analyte: str
    name: str
    test: str
    why: str


@record
class Meaning:
    """All that the raw water's readings mean."""

    findings: tuple[Finding, ...]
    unexplained: tuple[Unexplained, ...]
    unknown: tuple[Unknown, ...]
    scale: ScaleTendency | None
    colour: ColourFinding | None
    tonight: tuple[str, ...]
    sets: tuple[tuple[str, str], ...]
    breath: Working


#: analyte -> signs its finding explains
EXPLAINS = {
    "hardness": ("white_crust", "dry_skin"),
    "iron": ("orange_streaks", "tea_colour"),
    "manganese": ("black_stains",),
    "chlorine_free": ("bleach_smell", "taste"),
    "chlorine_combined": ("bleach_smell", "taste"),
    "tannin": ("tea_colour",),
    "hydrogen_sulfide": ("egg_smell",),
    "turbidity": ("haze",),
    "tds": ("solids",),
    "copper": ("metal_taste",),
    "chloride": ("taste",),
    "sulfate": ("taste",),
}
_WHY = {
    "tds": "a check before and after treatment",
    "hardness": "it sizes a softener",
    "iron": "it stains, and fouls what is behind it",
    "tannin": "it tells brown from rust",
    "ph": "it decides whether an iron filter can work",
    "chlorine_free": "it harms membrane and resin",
    "chlorine_total": "free and total together show chloramine",
    "coliform": "laboratory only: it decides what may be drunk",
    "nitrate_n": "laboratory only: it matters for infants",
}
_TASTE_BY_ITSELF = frozenset({"hardness", "tds"})


def _verdict(limit: Limit, r: Range) -> Verdict:
    return r.at_most(limit.value) if limit.op == "at_most" else r.at_least(limit.value)


def limit_words(name: str, value: float) -> str:
    """A limit with its unit, with as many digits as it needs."""
    a = ANALYTES[name]
    digits = (
        0 if value >= 20 else 1 if value >= 2 else 2 if value >= 0.1 else 4 if value >= 0.001 else 7
    )
    return words.number(value, digits) + (
        "" if a.unit in ("pH", "") else f" {a.unit.replace(' as CaCO3', '')}"
    )


def _titled(name: str, shown: str) -> str:
    return shown if name == "ph" else f"{ANALYTES[name].name} {shown}"


def _band(rules: Rules, name: str, r: Range) -> tuple[str, str, int | None]:
    bands = rules.band_set(name)
    if bands is None:
        return "", "", None
    hit = bands.of(r.low, r.high)
    return " or ".join(b.name for b in hit), bands.source, bands.year


def _health(name: str, value: Value, rules: Rules, units: str) -> Finding | None:
    """A finding on a health analyte: only a certified laboratory's result is judged."""
    a = ANALYTES[name]
    shown = words.value(name, value.range, value.below, units, value.words)
    limits = [
        x
        for x in rules.limits
        if x.analyte == name and x.governs and x.about in ("health", "infants")
    ]
    if not value.laboratory:
        return Finding(
            id=f"{name}.not_judged",
            analyte=name,
            kind=Kind.HEALTH,
            weight=Weight.NOTICE,
            shown=shown,
            span=words.span(name, value.range, units),
            sentence=f"{a.name} {shown}: not judged here. Only a certified laboratory may.",
            next=a.test,
        )
    over = value.words == "present"
    worst: Limit | None = limits[0] if over and limits else None
    if value.range is not None and value.below is None:
        for limit in sorted(limits, key=lambda x: -x.value):
            if _verdict(limit, value.range) is not Verdict.MET:
                over, worst = True, limit
                break
    if not over:
        return Finding(
            id=f"{name}.reported",
            analyte=name,
            kind=Kind.HEALTH,
            weight=Weight.FINE,
            shown=shown,
            span=words.span(name, value.range, units),
            sentence=f"{a.name}: {shown} reported by the laboratory.",
            source=limits[0].source if limits else "",
            year=limits[0].year if limits else None,
            limit=limits[0].value if limits else None,
        )
    assert worst is not None
    if a.unit == "per 100 mL":
        sentence = f"{a.name} {shown}: do not drink it untreated. Follow the local health authority’s advice."
    else:
        against = (
            "any detection counts"
            if worst.value == 0
            else f"against {limit_words(name, worst.value)}, {worst.name} ({worst.place})"
        )
        sentence = f"{a.name} {shown}, {against}. The local health authority judges it."
    return Finding(
        id=f"{name}.over",
        analyte=name,
        kind=Kind.HEALTH,
        weight=Weight.HEALTH,
        shown=shown,
        span=words.span(name, value.range, units),
        sentence=sentence,
        limit=worst.value,
        source=worst.source,
        year=worst.year,
        next="the laboratory and the local health authority",
    )


def _plain(name: str, value: Value, rules: Rules, units: str) -> Finding | None:
    """A finding on looks, taste or equipment."""
    a = ANALYTES[name]
    if value.range is None or a.kind is Kind.CONTEXT or name == "colour":
        return None
    r = value.range
    shown, span = words.value(name, r, value.below, units), words.span(name, r, units)
    band, source, year = _band(rules, name, r)
    limits = [x for x in rules.limits if x.analyte == name and x.governs]
    failed = [(x, v) for x in limits if (v := _verdict(x, r)) is not Verdict.MET]
    text, weight, limit = _titled(name, shown), Weight.FINE, None
    if name == "tds":
        text = f"{shown} dissolved: {band} by taste. It says nothing about hardness, and nothing about health."
        weight = Weight.NOTICE if any(x.value <= r.best for x in limits) else Weight.FINE
    elif name == "hardness":
        text = f"Hardness {shown}: {band}."
        weight = (
            Weight.FINE
            if band in ("soft", "slightly hard", "soft or slightly hard")
            else Weight.ACT
        )
    elif failed:
        chosen, verdict = max(
            failed, key=lambda p: (p[1] is Verdict.NOT_MET, p[0].about in ("health", "infants"))
        )
        limit = chosen.value
        source, year = chosen.source, chosen.year
        side = "above" if chosen.op == "at_most" else "below"
        sure = side if verdict is Verdict.NOT_MET else f"possibly {side}"
        text = f"{_titled(name, shown)}: {sure} {limit_words(name, chosen.value)}, {chosen.name} ({chosen.place} {chosen.year})."
        weight = (
            Weight.ACT if verdict is Verdict.NOT_MET and chosen.about != "diet" else Weight.NOTICE
        )  # a diet is for its physician
        if chosen.about in ("health", "infants"):
            text += (
                " A health question: confirm by a certified laboratory."
                if name != "chlorine_total"
                else " Repeat on site, then call the utility."
            )
    elif limits:
        chosen = limits[0]
        limit, source, year = chosen.value, chosen.source, chosen.year
        text = f"{_titled(name, shown)}: " + (
            f"between {limits[0].value:g} and {limits[1].value:g}, {chosen.name}."
            if name == "ph" and len(limits) > 1
            else f"within {limit_words(name, chosen.value)}, {chosen.name}."
        )
    elif name == "chlorine_combined":
        seen = not any(f.id == "chloramine.not_shown" for f in value.flags)
        text = (
            f"Chloramine {shown} (total less free)."
            if seen
            else "Chloramine not shown: free and total overlap."
        )
        weight = Weight.NOTICE if seen and r.best >= 0.2 else Weight.FINE
    else:
        text += "."
    return Finding(
        id=f"{name}.{weight.value}",
        analyte=name,
        kind=a.kind,
        weight=weight,
        sentence=text,
        shown=shown,
        span=span,
        band=band,
        limit=limit,
        source=source,
        year=year,
    )


def _explained(
    finding: Finding, complaints: tuple[Complaint, ...], values: dict[str, Value]
) -> tuple[str, ...]:
    signs = set(EXPLAINS.get(finding.analyte, ()))
    if finding.weight is Weight.FINE and finding.analyte != "tds":
        return ()
    if finding.analyte == "tds":
        signs = {"solids"}
    if finding.analyte == "ph":
        low_ph = finding.id != "ph.fine"
        copper = (
            "copper" in values
            and values["copper"].range is not None
            and values["copper"].range.best >= 0.3
        )
        signs = {"blue_green", "metal_taste"} if low_ph and copper else set()
    return tuple(c.id for c in complaints if c.sign in signs)


def _tonight(findings: tuple[Finding, ...], home: Home, water: Water) -> tuple[str, ...]:
    """The "tonight" card: what to drink until the laboratory or the authority answers."""
    over = {f.analyte for f in findings if f.weight is Weight.HEALTH}
    card = []
    if over & {"coliform", "e_coli"}:
        card.append(
            "Microbes: bring drinking water to a rolling boil for 1 minute (3 minutes above 2,000 m), or use bottled water."
        )
    if over & {"nitrate_n", "nitrite_n", "arsenic", "uranium", "fluoride"}:
        card.append(
            "Nitrate, metals and fluoride: use bottled water. Never boil it for these: boiling makes them stronger."
        )
    if over & {"lead", "copper"}:
        card.append(
            "Lead and copper: cold tap only, flushed until it runs colder; bottled water for an infant."
        )
    if home.care.infant and home.private and ("nitrate_n" not in water.values or over):
        card.append(
            "An infant lives here: bottled water for formula until the laboratory and the authority have answered."
        )
    if home.source.value == "lake":
        card.append(
            "Lake water in a bloom: neither boiling nor UV helps against its toxins. Use bottled water."
        )
    return tuple(card)


def _sets(water: Water, scale: ScaleTendency | None) -> tuple[tuple[str, str], ...]:
    """What the hardness sets in the house, and the scale tendency in words."""
    out: list[tuple[str, str]] = []
    h = water.range("hardness")
    if h is not None and h.high is not None:
        gpg, dh = h.best / 17.118061, h.best / 17.848
        every = hardness_in_every_unit(h.best)
        out.append(
            (
                "Hardness in every unit",
                ", ".join(
                    f"{words.number(v, 0 if u == 'mg/L' else 1)} {u}" for u, v in every.items()
                ),
            )
        )
        out.append(
            ("Dishwasher setting", f"{dh:.0f} °dH ({gpg:.0f} gpg): set the nearest step above")
        )
        years = (
            "yearly"
            if h.best >= 180
            else "every two years"
            if h.best >= 120
            else "every three to four years"
            if h.best >= 60
            else "by its manual only"
        )
        out.append(("Descale the water heater", years))
        fe, mn = water.range("iron"), water.range("manganese")
        comp = gpg + 4 * (fe.best if fe else 0) + 2 * (mn.best if mn else 0)
        out.append(
            (
                "A softener valve’s hardness setting",
                f"{comp:.0f} gpg" + ("" if fe else ", iron not counted: not tested"),
            )
        )
    if scale is not None:
        hot = (
            "tends to scale"
            if scale.at_heater.low > 0
            else "may scale"
            if (scale.at_heater.high or 0) > 0
            else "does not tend to scale"
        )
        at_most = " at most" if scale.at_most else ""
        out.append(
            (
                f"Scale index at {scale.heater_c:g} °C",
                f"{scale.at_heater.best:+.2f}{at_most}: {hot}",
            )
        )
        out.append((f"Scale index at {scale.tap_c:g} °C", f"{scale.at_tap.best:+.2f}{at_most}"))
    return tuple(out)


def meaning(
    water: Water,
    home: Home,
    complaints: tuple[Complaint, ...],
    rules: Rules,
    units: str = "us",
    heater_c: float = 60.0,
    treated: bool = False,
) -> Meaning:
    """Everything the readings of a water mean for this home and these complaints."""
    found: list[Finding] = []
    for name, value in water.values.items():
        f = (
            _health(name, value, rules, units)
            if ANALYTES[name].kind is Kind.HEALTH
            else _plain(name, value, rules, units)
        )
        if f is not None:
            why = _explained(f, complaints, water.values)
            found.append(f if not why else _with(f, why))
    r = water.range
    scale = tendency(
        r("ph"), r("tds"), r("temperature"), r("calcium"), r("alkalinity"), r("hardness"), heater_c
    )
    ph = r("ph")
    colour = (
        None if water.cups is None else find(water.cups, None if ph is None else ph.low, home.well)
    )
    heater = next((c for c in complaints if c.sign == "egg_smell_hot"), None)
    if heater is not None and "hydrogen_sulfide" not in water.values:
        found.append(
            Finding(
                id="heater.anode",
                analyte="hydrogen_sulfide",
                kind=Kind.EQUIPMENT,
                weight=Weight.NOTICE,
                shown="hot tap only",
                span="",
                sentence="Only the hot tap smells: look at the water heater’s anode before anything is sold for it.",
                explains=(heater.id,),
                source="trade practice",
                year=2024,
                next="compare hot and cold side by side",
            )
        )
    explained = {c for f in found for c in f.explains}
    unexplained = tuple(
        Unexplained(
            complaint=c.id, next=SIGNS[c.sign].next if c.sign in SIGNS else SIGNS["other"].next
        )
        for c in complaints
        if c.id not in explained
    )
    wanted = [n for n in (*LOOKED_FOR, "chlorine_total") if n not in water.values]
    unknown = tuple(
        Unknown(analyte=n, name=ANALYTES[n].name, test=ANALYTES[n].test, why=_WHY.get(n, ""))
        for n in wanted
        if home.private or n not in ("coliform", "nitrate_n")
    )
    order = {Weight.HEALTH: 0, Weight.ACT: 1, Weight.NOTICE: 2, Weight.FINE: 3}
    ranked = tuple(sorted(found, key=lambda f: (not f.explains, order[f.weight])))
    return Meaning(
        findings=ranked,
        unexplained=unexplained,
        unknown=unknown,
        scale=scale,
        colour=colour,
        tonight=_tonight(ranked, home, water),
        sets=_sets(water, scale),
        breath=breath_working(None if (alk := r("alkalinity")) is None else alk.best),
    )


def _with(f: Finding, explains: tuple[str, ...]) -> Finding:
    return Finding(
        id=f.id,
        analyte=f.analyte,
        kind=f.kind,
        weight=f.weight,
        sentence=f.sentence,
        shown=f.shown,
        span=f.span,
        band=f.band,
        limit=f.limit,
        source=f.source,
        year=f.year,
        explains=explains,
        next=f.next,
    )
