"""What every glass beside the raw one says: what it is drawn behind takes out, held against what is
claimed of it; when its part is to be changed; and what of it is over a limit.
"""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from datetime import date

from .. import words
from ..analytes import ANALYTES
from ..evidence import LEVEL_WORDS, Level
from ..home import Home
from ..in_place import InPlace
from ..own_water import lacking
from ..ranges import Range
from ..ranges import Verdict as Held
from ..record import record
from ..rules import Rules, Settings
from ..testing.finding import Weight
from ..testing.findings import meaning
from ..testing.pairs import Pair, pairs
from ..testing.value import Value
from ..testing.water import LEAST_FLUSH_GAL, Sample, Water
from ..units import MG_L_PER_GPG
from .demand import demand
from .existing_equipment import age_months
from .in_place import age_words, is_past_life, used_of, used_words
from .items import Item, SystemFigures
from .measured import NOT_MATTER
from .stages.pitcher import PitcherFigures

#: what is said of a test, by its verdict
VERDICTS = {
    "as_claimed": "as claimed",
    "below": "below what is claimed",
    "too_old": "below what is claimed: overdue for replacement",
    "past_life": "overdue for replacement: what an old one does",
    "not_flushed": "not flushed yet: not judged",
    "not_told": "this kit cannot tell",
    "no_claim": "nothing is claimed of it here",
    "not_for": "it is not meant to change this",
    "": "",
}
_NO_SHARE = frozenset({Level.NO_CLAIM, Level.DOES_NOT_REMOVE})


@record
class Promise:
    """What is claimed of one test: a share taken out (0 to 1), or at most so much left [canonical
    unit]; ``said``: the claim in words."""

    said: str
    share: float | None = None
    left: float | None = None


@record
class GlassRow:
    """One test of a glass against the raw water.

    Args:
        into, out: both values in words; change: what the difference shows; claim: what is promised;
        verdict: a key of ``VERDICTS``, with its ``words``.
    """

    analyte: str
    name: str
    into: str
    out: str
    change: str
    claim: str
    verdict: str
    words: str


@record
class GlassMeaning:
    """One glass: its tests, what is known of what it is drawn behind, and what is over a limit."""

    sample: str
    name: str
    what: str
    rows: tuple[GlassRow, ...]
    facts: tuple[str, ...]
    over: tuple[str, ...]


def _of_item(item: Item, parts: Mapping[str, Item], units: str) -> dict[str, Promise]:
    """Claims of an item of the catalog; of a system the strongest of its parts."""
    inner = item.figures.parts if isinstance(item.figures, SystemFigures) else ()
    effects = [e for i in (item, *(parts[p] for p in inner if p in parts)) for e in i.effects]
    out: dict[str, Promise] = {}
    for e in sorted(effects, key=lambda e: e.low):
        if e.evidence.level in _NO_SHARE:
            continue
        level = LEVEL_WORDS[e.evidence.level]
        if e.out_at_most is not None:
            most = words.value(e.analyte, Range.exact(e.out_at_most), units=units)
            out[e.analyte] = Promise(said=f"at most {most} left, {level}", left=e.out_at_most)
        elif e.low > 0:
            out[e.analyte] = Promise(said=f"{100 * e.low:.0f} % less, {level}", share=e.low)
    return out


def _of_device(device: InPlace, units: str) -> dict[str, Promise]:
    """What stands on equipment in place; a softener leaves less than 1 gpg, whoever sold it."""
    out = {
        c.analyte: Promise(said=f"{100 * c.share:.0f} % less, its label", share=c.share)
        for c in device.claims
    }
    if "softens" in device.of.does:
        most = words.value("hardness", Range.exact(MG_L_PER_GPG), units=units)
        soft = Promise(said=f"at most {most} left", left=MG_L_PER_GPG)
        out.setdefault("hardness", soft)
    return out


def verdict_of(claim: Promise | None, a: Value, b: Value, past_life: bool) -> str:
    """Whether what was measured is what is claimed, by the ends that both ranges allow.

    Below: the most that the ranges allow is less than the claim. As claimed: the least is no less.
    Otherwise nobody can tell. A feed of 0 says nothing.
    """
    if claim is None:
        return "past_life" if past_life else "no_claim"
    into, out = a.range, b.range
    if into is None or out is None or into.low <= 0:
        return ""
    if claim.left is not None:
        held = out.at_most(claim.left)
        as_said, below = held is Held.MET, held is Held.NOT_MET
    else:
        share = claim.share or 0.0
        most = 1.0 if into.high is None else 1 - out.low / into.high
        least = 0.0 if out.high is None else 1 - out.high / into.low
        as_said, below = least >= share - 1e-9, most < share - 1e-9
    if below:
        return "too_old" if past_life else "below"
    return "as_claimed" if as_said else "not_told"


class _Case:
    """One glass with all that it is held against."""

    def __init__(
        self,
        sample: Sample,
        home: Home,
        settings: Settings,
        items: Mapping[str, Item],
        on: date,
    ) -> None:
        self.sample, self.home, self.settings, self.on = sample, home, settings, on
        self.device = next((d for d in home.in_place if d.id == sample.device), None)
        self.item = items.get(sample.after_item or "")
        self.claims = _of_item(self.item, items, settings.units) if self.item is not None else {}
        if self.device is not None:
            self.claims |= _of_device(self.device, settings.units)
        self.past_life = sample.past_life or (
            self.device is not None and is_past_life(self.device, home, settings, on)
        )

    @property
    def what(self) -> str:
        """What the glass is, in words."""
        s = self.sample
        behind = self.device.called if self.device is not None else s.after
        behind = self.item.name if self.item is not None else behind
        if s.kind == "bottled":
            return "bottled"
        if s.kind == "own":
            return "our own carried water"
        return f"behind {behind}" if s.treated and behind else s.place

    def facts(self, water: Water) -> tuple[str, ...]:
        """Its filter's age and use, when it is to be changed, and how the glass was drawn."""
        s, out = self.sample, []
        if s.unflushed:
            little = words.gallons(LEAST_FLUSH_GAL, self.settings.units)
            out.append(
                "Its filter was just changed, and less than"
                f" {little} ran through it: nothing of it counts yet."
            )
        elif s.past_life:
            out.append("Its filter is overdue for replacement: this is what an old one does.")
        if s.flushed_gal:
            flushed = words.gallons(s.flushed_gal, self.settings.units, 1)
            out.append(f"{flushed} ran through it before the glass was drawn.")
        if self.device is not None:
            out += self._of_device(self.device)
        limit = self._change_at()
        if limit is not None:
            out.append(_changed_at(limit, water.range("tds")))
        if s.kind == "own":
            short = lacking(self.settings.own_water, self.on)
            out.append(f"Its card lacks: {', '.join(short)}." if short else "Its card is complete.")
        return tuple(x for x in out if x)

    def _of_device(self, device: InPlace) -> list[str]:
        units, home = self.settings.units, self.home
        age = age_months(device, self.on)
        used = used_of(device, home, self.settings, age)
        out = [age_words(device, age), used_words(device, used, units)]
        d = demand(home, self.settings)
        usual = d.house_gal_day.best if device.of.scope == "house" else d.drinking_gal_day
        a_day = usual if device.gal_day is None else device.gal_day
        if device.gallons is not None and a_day > 0:
            last = words.days(device.gallons / a_day)
            out.append(f"Its {words.gallons(device.gallons, units)} last {last} at this use.")
        return out

    def _change_at(self) -> float | None:
        if self.device is not None and self.device.change_at_tds is not None:
            return self.device.change_at_tds
        f = None if self.item is None else self.item.figures
        return f.change_at_tds if isinstance(f, PitcherFigures) else None

    def _not_for(self, analyte: str) -> bool:
        """Whether what stands there is made for other things, as one that leaves minerals is."""
        known = self.device is not None and self.device.kind != "other"
        return known and analyte not in self.claims and not self._works_on(analyte)

    def _works_on(self, analyte: str) -> bool:
        return self.device is not None and analyte in self.device.of.works_on

    def row(self, p: Pair, raw: Water, water: Water) -> GlassRow:
        """One test held against the raw water."""
        units, a, b = self.settings.units, raw.values.get(p.analyte), water.values.get(p.analyte)
        claim = self.claims.get(p.analyte)
        verdict = ""
        if self.sample.treated and a is not None and b is not None:
            if self.sample.unflushed:
                verdict = "" if p.analyte in NOT_MATTER else "not_flushed"
            elif p.removal is not None and self._not_for(p.analyte):
                verdict = "not_for"
            elif p.removal is not None:
                verdict = verdict_of(claim, a, b, self.past_life)
        return GlassRow(
            analyte=p.analyte,
            name=p.name,
            into=_value(p.analyte, a, units),
            out=_value(p.analyte, b, units),
            change=p.sentence,
            claim="" if claim is None else claim.said,
            verdict=verdict,
            words=VERDICTS[verdict],
        )


def _value(analyte: str, v: Value | None, units: str) -> str:
    if v is None:
        return "not tested"
    text = words.value(analyte, v.range, v.below, units, v.words)
    return words.beside_name(text, ANALYTES[analyte].name)


def _changed_at(limit: float, tds: Range | None) -> str:
    """The reading at which a maker wants the part changed, and whether it is reached.

    >>> _changed_at(30, Range.of(110, 118, 126))
    'To be changed at 30 mg/L TDS: reached (110 to 126 mg/L).'
    >>> _changed_at(30, None)
    'To be changed at 30 mg/L TDS: TDS is not measured behind it.'
    """
    if tds is None:
        return f"To be changed at {limit:g} mg/L TDS: TDS is not measured behind it."
    held = tds.at_least(limit)
    said = {Held.MET: "reached", Held.NOT_MET: "not reached"}.get(held, "may be reached")
    return f"To be changed at {limit:g} mg/L TDS: {said} ({words.span('tds', tds)})."


def _over(water: Water, home: Home, rules: Rules, settings: Settings) -> tuple[str, ...]:
    """What of a water that is drunk as it stands is over a limit, health first."""
    found = meaning(water, home, (), rules, settings.units, treated=True).findings
    return tuple(
        f.sentence
        for f in found
        if f.limit is not None and f.weight in (Weight.HEALTH, Weight.ACT, Weight.NOTICE)
    )


def glasses(
    samples: Iterable[Sample],
    waters: Mapping[str, Water],
    raw: Water,
    home: Home,
    settings: Settings,
    items: Mapping[str, Item],
    on: date,
    rules: Rules,
) -> tuple[GlassMeaning, ...]:
    """Every glass beside the raw one that something was read of, as they were drawn.

    Args:
        waters: by sample; raw: the water that is designed from; items: of the visit, by code;
        on: the day of the visit.
    """
    drawn = tuple(samples)
    first = next(s for s in drawn if s.id == raw.sample)
    out = []
    for s in drawn:
        water = waters[s.id]
        if s.id == first.id or not water.values:
            continue
        case = _Case(s, home, settings, items, on)
        held = pairs(first, waters[first.id], s, water)
        own_taste = s.kind in ("bottled", "own")
        out.append(
            GlassMeaning(
                sample=s.id,
                name=s.name,
                what=case.what,
                rows=tuple(
                    case.row(p, waters[first.id], water) for p in held if p.analyte in water.values
                ),
                facts=case.facts(water),
                over=_over(water, home, rules, settings) if own_taste or s.treated else (),
            )
        )
    return tuple(out)
