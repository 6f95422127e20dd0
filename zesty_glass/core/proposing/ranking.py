"""In which order lines are proposed: health first, then the complaint, then what has least to
watch, then cost.

Every line the search found is walked once more, with its checks, and what it does to each thing
found is graded by how much of the way it goes: nine tenths gone is not the same as untouched.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import replace
from decimal import Decimal
from itertools import takewhile
from typing import NamedTuple

from .. import words
from ..analytes import ANALYTES, Kind
from ..costing.falling import keeps_up
from ..costing.money import missing_of
from ..errors import RuleError
from ..home import Home
from ..ranges import Verdict
from ..record import record
from ..rules import Rules, Settings
from ..searching.found import places
from ..testing.complaints import Complaint
from ..testing.finding import Finding
from ..testing.findings import Meaning
from ..testing.judged import limit_words
from ..testing.tonight import brings_water
from ..testing.water import Water
from ..treating.items import Item
from ..treating.line import LineReport, placed, run_stages, site_of
from ..treating.measured import Measured
from ..treating.option import Option
from ..treating.report import Check
from ..treating.stages import does, takes_dissolved_matter
from ..treating.stages.conditioner import ConditionerFigures
from ..treating.stages.softener_size import SoftenerFigures
from ..treating.stream import INACTIVATED, Quantity, source_stream
from ..treating.walking import Walk
from .asking import As, Asks, Targets
from .weighing import burden, by_weight

NOT_ESTABLISHED = 0.5  # what a health claim without a certificate counts, of what it says
NEARLY = 0.95  # the most that counts for what comes near and is not sure to reach


@record
class Grade:
    """How a line answers: shares from 0 to 1 summed over what is of health, of complaints, and the
    rest.

    ``answers``: the share of each thing found; ``leaves``: what it leaves of health and complaints;
    ``watch``, ``open``: its warnings and what is not known, in words; ``against_diet``: how often
    it goes against a diet that somebody of the house keeps; ``burden``: what its warnings weigh,
    but those of wear that its cost counts already; ``missing``: what has to be known to price all
    of it, and ``unpriced_year`` what that counts at in the order [money/year].
    """

    health: float
    complaints: float
    rest: float
    leaves: tuple[str, ...]
    against_diet: int
    watch: tuple[str, ...]
    open: tuple[str, ...]
    answers: dict[str, float]
    burden: float = 0.0
    missing: tuple[str, ...] = ()
    unpriced_year: Decimal = Decimal(0)


def answered(
    analyte: str,
    after: Quantity | None,
    before: Quantity | None,
    target: float | None,
    op: str,
) -> float:
    """How much of the way a line goes in one thing found, 0 (untouched or not known) to 1 (wholly
    met).
    """
    if after is None:
        return 0.0
    share = _share(after, before, target, op)
    weak = not after.established and not after.pending
    if weak and ANALYTES[analyte].kind is Kind.HEALTH:
        return share * NOT_ESTABLISHED
    return share


def _share(after: Quantity, before: Quantity | None, target: float | None, op: str) -> float:
    if after.pending:
        return NEARLY
    if after.range is None:
        return {"absent": 1.0, INACTIVATED: 1.0}.get(after.words, 0.0)
    r = after.range
    if target is not None:
        verdict = r.at_most(target) if op == "at_most" else r.at_least(target)
        if verdict is Verdict.MET:
            return 1.0
    if before is None or before.range is None:
        return 0.0
    wanted = 0.0 if target is None else target
    way = before.range.best - wanted if op == "at_most" else wanted - before.range.best
    gone = before.range.best - r.best if op == "at_most" else r.best - before.range.best
    if way <= 0:  # astride what is wanted: near it, unless the line leaves it as it was
        return NEARLY if r != before.range else 0.0
    return max(0.0, min(NEARLY, gone / way))


def _nearly(after: Quantity | None, target: float | None, op: str) -> bool:
    """Whether what is left meets what is wanted by its best value, and may not by its range."""
    r = None if after is None else after.range
    if r is None or target is None:
        return False
    verdict = r.at_most(target) if op == "at_most" else r.at_least(target)
    best = r.best <= target if op == "at_most" else r.best >= target
    return verdict is Verdict.UNCERTAIN and best


def _may_not(name: str, after: Quantity | None, target: float | None, op: str) -> str:
    """The warning of what is nearly met."""
    r = None if after is None else after.range
    side = "above" if op == "at_most" else "below"
    titled = (
        words.value(name, r) if name == "ph" else f"{ANALYTES[name].name} {words.value(name, r)}"
    )
    return (
        f"{titled} ({words.span(name, r)}) behind it: may stay {side}"
        f" {limit_words(name, target or 0.0)}; the same test behind it says."
    )


FOULED = (
    "Slime and iron: iron bacteria foul resin. An iron filter ahead of it, and the well"
    " disinfected first."
)
FOR_IRON_ALONE = (
    "The water is not hard: it is softened for its iron alone, with salt and brine. An iron filter"
    " takes iron without them."
)
NOTHING = "Do nothing"
WAIT = "Buy nothing yet, bring drinking water"  # where health asks for it, whoever lives there
WAIT_FOR_AIR = "Buy nothing yet, test the indoor air"  # radon is breathed: no bottle answers it
UNSEEN = 0.5  # what acid water counts for while nobody has seen what it does, of a complaint
LEAVES = 0.5  # a line that goes less than half the way leaves a thing found
#: what less scale counts for where white crust is complained of, of a softener's answer: a trade
#: judgement (2024); the minerals stay, and soap lathers no better
SCALE_TESTED, SCALE_STATED = 0.4, 0.2


def _less_scale(line: LineReport, items: Mapping[str, Item]) -> float:
    """What a salt-free conditioner's claim on scale counts for; nothing once a check stops it."""
    shares = [
        SCALE_TESTED if f.protocol else SCALE_STATED
        for s in line.stages
        if s.status != "stop"
        and isinstance(f := items[s.code].figures, ConditionerFigures)
        and "leaves minerals" in does(f.kind)
        and f.covers == "house"
    ]
    return max(shares, default=0.0)


def _scale_counts(hardness: Finding | None, complaints: tuple[Complaint, ...]) -> float:
    """How much of what hardness is complained of is crust: 1 where crust alone is, or nothing."""
    told = set() if hardness is None else set(hardness.explains)
    signs = {c.sign for c in complaints if c.id in told}
    if not signs <= {"white_crust", "dry_skin"}:
        return 0.0
    if "dry_skin" not in signs:
        return 1.0
    return 0.5 if "white_crust" in signs else 0.0


def _against_diet(line: LineReport, home: Home, items: Mapping[str, Item]) -> int:
    """How many diets of the house a line goes against: salt of a softener that nothing takes out
    again, or leads past, at the drinking tap.
    """
    salts = {f.salt for s in line.stages if isinstance(f := items[s.code].figures, SoftenerFigures)}
    tap = [s.kind for s in line.stages if s.scope == "tap"]
    if any(takes_dissolved_matter(kind) or "as it comes" in does(kind) for kind in tap):
        return 0
    care = home.care
    return int(care.low_sodium and "sodium" in salts) + int(
        care.low_potassium and "potassium" in salts
    )


def grade(line: LineReport, asks: Asks, less_scale: float = 0.0, against_diet: int = 0) -> Grade:
    """A line's grade over the things found, each at the worst of the places where it is judged.

    Args:
        less_scale: what a conditioner's claim on scale counts for; against_diet: see ``Grade``.
    """
    found = {a: _found(line, a, asks, less_scale if a == "hardness" else 0.0) for a in asks.targets}
    sums = {"health": 0.0, "complaints": 0.0, "rest": 0.0, "aside": 0.0}
    for x in found.values():
        sums[x.kind] += x.share * x.counts
    near = [x.near for x in found.values() if x.near]
    checks = [c for s in line.stages for c in s.checks] + list(line.checks)
    return Grade(
        burden=burden(c for c in checks if c.id not in PRICED) + len(near),
        health=sums["health"],
        complaints=sums["complaints"],
        rest=sums["rest"],
        leaves=tuple(a for a, x in found.items() if x.left),
        against_diet=against_diet,
        watch=(*_said(by_weight(checks), "warn"), *near),
        open=_said(checks, "unknown"),
        answers={a: round(x.share, 3) for a, x in found.items()},
        missing=missing_of(line.running),
        unpriced_year=sum((r.counted for r in line.running), Decimal(0)),
    )


class _Found(NamedTuple):
    """How a line answers one thing found: how it asks, the share it is answered, what that counts
    for, whether it is left, and what is said where it is nearly met.
    """

    kind: As
    share: float
    counts: float
    left: bool
    near: str


def _found(line: LineReport, name: str, asks: Asks, at_least: float) -> _Found:
    target, op = asks.targets[name]
    before = line.source.get(name)
    spots = ("tap",) if name in asks.at_the_tap else places(name)
    at = [(line.house if p == "house" else line.tap).get(name) for p in spots]
    share, last = min(((answered(name, q, before, target, op), q) for q in at), key=lambda p: p[0])
    share = max(share, at_least)
    kind, near = asks.counts_as(name), ""
    if kind != "health" and share == NEARLY and _nearly(last, target, op):
        near, share = _may_not(name, last, target, op), 1.0
    f = asks.findings.get(name)
    unseen = f is not None and not f.explains and name == "ph" and kind == "complaints"
    asked = kind in ("health", "complaints") or name in asks.elsewhere
    return _Found(kind, share, UNSEEN if unseen else 1.0, asked and share < LEAVES, near)


#: warnings of wear that the cost counts: a membrane’s life on hard water is counted shorter
PRICED = frozenset({"membrane.hardness"})


def _said(checks: list[Check], status: str) -> tuple[str, ...]:
    return tuple(dict.fromkeys(c.sentence for c in checks if c.status == status))


class Grader:
    """Walks lines on one water, in one home."""

    def __init__(
        self,
        water: Water,
        meaning: Meaning,
        home: Home,
        settings: Settings,
        items: Mapping[str, Item],
        measured: Measured | None,
        targets: Targets,
        complaints: tuple[Complaint, ...] = (),
        had: frozenset[str] = frozenset(),
        rules: Rules = Rules(),
    ) -> None:
        """``had``: what equipment that stands there was bought against, whoever complains now."""
        self.asks = Asks(water, meaning, home, targets, complaints, had, rules)
        self._site = site_of(home, settings, water)
        self._source = source_stream(water, meaning.colour, self._site.running_psi)
        self._items, self._home = dict(items), home
        self._walk = Walk(self._source, self._site, measured or {}, brief=True)
        self._scale_counts = _scale_counts(self.asks.findings.get("hardness"), complaints)
        iron = water.range("iron")
        slime = any(c.sign == "slime" for c in complaints)
        self._slime = slime and iron is not None and iron.best >= rules.at("iron.stains")
        self.nothing = self._without_buying(brings_water(meaning.tonight))

    def _without_buying(self, brings: bool) -> str:
        """The name of the line that buys nothing."""
        if not ("health" in self.asks.kinds or self.asks.health_elsewhere or brings):
            return NOTHING
        return WAIT_FOR_AIR if self.asks.health_is_only("radon") and not brings else WAIT

    def walked(self, option: Option) -> LineReport:
        """The line worked out on this water; RuleError where it cannot be."""
        stages = placed(option, self._items, self._source)
        line = run_stages(stages, self._walk)
        keeps_up(d for s in line.stages for d in s.dues)
        return line

    def of(self, option: Option) -> Grade:
        """A line's grade; one that cannot be walked answers nothing."""
        try:
            line = self.walked(option)
        except RuleError as e:
            return Grade(
                health=0,
                complaints=0,
                rest=0,
                leaves=tuple(self.asks.targets),
                against_diet=0,
                watch=(str(e),),
                open=(),
                answers={},
            )
        g = grade(
            line,
            self.asks,
            self._scale_counts * _less_scale(line, self._items),
            _against_diet(line, self._home, self._items),
        )
        g = (
            replace(g, watch=(*g.watch, FOR_IRON_ALONE), burden=g.burden + 1)
            if self._for_iron_alone(line)
            else g
        )
        return self._without_fouled_iron(g) if self._fouled(line) else g

    def _without_fouled_iron(self, g: Grade) -> Grade:
        """A grade to which iron counts for nothing: fouled resin takes none out for long."""
        share = g.answers.get("iron", 0.0)
        kind = self.asks.of(self.asks.findings.get("iron"))
        return replace(
            g,
            watch=(*g.watch, FOULED),
            burden=g.burden + 1,
            answers={**g.answers, "iron": 0.0} if "iron" in g.answers else g.answers,
            complaints=g.complaints - (share if kind == "complaints" else 0.0),
            rest=g.rest - (share if kind == "rest" else 0.0),
        )

    def _for_iron_alone(self, line: LineReport) -> bool:
        """Whether a softener stands on soft water for its iron, and nothing else takes it out."""
        done = {d for s in line.stages for d in does(s.kind)}
        targets = self.asks.targets
        asks = "iron" in targets and "hardness" not in targets
        return asks and "softens" in done and "takes iron" not in done

    def _fouled(self, line: LineReport) -> bool:
        """Whether a softener meets iron and slime with nothing ahead that takes the iron out."""
        ahead = takewhile(lambda done: "softens" not in done, (does(s.kind) for s in line.stages))
        softened = any("softens" in does(s.kind) for s in line.stages)
        return self._slime and softened and all("takes iron" not in done for done in ahead)
