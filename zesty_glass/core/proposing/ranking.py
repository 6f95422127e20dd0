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
from ..testing.colour import ColourFinding
from ..testing.complaints import Complaint
from ..testing.finding import Finding, Weight
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
from .looked_at import radon_with_the_air
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
NEUTRAL_PH = 7.5  # a limit under it is one that acid water fails
UNSEEN = 0.5  # what acid water counts for while nobody has seen what it does, of a complaint
ACID_BELOW = (
    0.5  # below neutral by so much [pH] water is corrosive to copper: trade practice (2024)
)
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
    again at the drinking tap.
    """
    salts = {f.salt for s in line.stages if isinstance(f := items[s.code].figures, SoftenerFigures)}
    if any(s.scope == "tap" and takes_dissolved_matter(s.kind) for s in line.stages):
        return 0
    care = home.care
    return int(care.low_sodium and "sodium" in salts) + int(
        care.low_potassium and "potassium" in salts
    )


def grade(
    line: LineReport,
    findings: Mapping[str, Finding],
    targets: Mapping[str, tuple[float | None, str]],
    at_the_tap: frozenset[str] = frozenset(),
    less_scale: float = 0.0,
    against_diet: int = 0,
    wished: frozenset[str] = frozenset(),
    elsewhere: frozenset[str] = frozenset(),
    pressing: frozenset[str] = frozenset(),
    aside: frozenset[str] = frozenset(),
) -> Grade:
    """A line's grade over the things found, each at the worst of the places where it is judged.

    Args:
        wished: what somebody wishes less of, which counts like a complaint; elsewhere: what is
            judged with something else than the tap’s water; pressing: what asks like a complaint
            whoever has one; aside: what is only worth knowing beside something that asks to act;
        less_scale: what a conditioner's claim on scale counts for; against_diet: see ``Grade``.
        at_the_tap: things that are complained of at the drinking tap alone, and are judged there
            alone.
    """
    shares: dict[str, float] = {}
    sums = {"health": 0.0, "complaints": 0.0, "rest": 0.0, "aside": 0.0}
    leaves: list[str] = []
    near: list[str] = []
    for name, (target, op) in targets.items():
        before = line.source.get(name)
        spots = ("tap",) if name in at_the_tap else places(name)
        at = [(line.house if p == "house" else line.tap).get(name) for p in spots]
        share, last = min(
            ((answered(name, q, before, target, op), q) for q in at), key=lambda p: p[0]
        )
        if name == "hardness":
            share = max(share, less_scale)
        f = findings.get(name)
        kind = _asks_as(f, elsewhere, pressing)
        if kind == "rest" and name in wished:
            kind = "complaints"
        if name in aside:
            kind = "aside"
        if kind != "health" and share == NEARLY and _nearly(last, target, op):
            near.append(_may_not(name, last, target, op))
            share = 1.0
        unseen = f is not None and not f.explains and name == "ph"
        sums[kind] += share * (UNSEEN if unseen and kind == "complaints" else 1.0)
        if (kind in ("health", "complaints") or name in elsewhere) and share < LEAVES:
            leaves.append(name)
        shares[name] = round(share, 3)
    checks = [c for s in line.stages for c in s.checks] + list(line.checks)
    watch, unknown = _said(by_weight(checks), "warn"), _said(checks, "unknown")
    return Grade(
        burden=burden(c for c in checks if c.id not in PRICED) + len(near),
        health=sums["health"],
        complaints=sums["complaints"],
        rest=sums["rest"],
        leaves=tuple(leaves),
        against_diet=against_diet,
        watch=(*watch, *near),
        open=unknown,
        answers=shares,
        missing=missing_of(line.running),
        unpriced_year=sum((r.counted for r in line.running), Decimal(0)),
    )


def _decided_elsewhere(water: Water, rules: Rules) -> frozenset[str]:
    """What is judged with something else than what is measured at the tap: a little radon with the
    indoor air; copper that acid water takes from the pipes with the pH, its cause, and flushing
    until then.
    """
    ph, flushed = water.range("ph"), water.range("copper_flushed")
    out = {"radon"} if radon_with_the_air(water) else set()
    if ph is not None and ph.best < NEUTRAL_PH - ACID_BELOW:
        most = rules.at("copper_flushed.action")
        out |= {"copper"} if flushed is None or flushed.best < most else set()
    return frozenset(out)


#: warnings of wear that the cost counts: a membrane’s life on hard water is counted shorter
PRICED = frozenset({"membrane.hardness"})

#: manganese from here on asks like a complaint, whoever has one
PRESSES = "manganese.canada"


def _pressing(water: Water, rules: Rules) -> frozenset[str]:
    """What no laboratory limit of health governs, and which asks for more than a stain does."""
    manganese = water.range("manganese")
    high = manganese is not None and manganese.best >= rules.at(PRESSES)
    return frozenset({"manganese"} if high else ())


def _asks_as(
    f: Finding | None,
    elsewhere: frozenset[str] = frozenset(),
    pressing: frozenset[str] = frozenset(),
) -> str:
    """Whether a finding asks as health, as a complaint, or as neither. Acid water eats the pipes
    whether anybody has seen it yet or not.
    """
    if f is None or f.analyte in elsewhere:
        return "rest"
    if f.weight is Weight.HEALTH:
        return "health"
    acid = f.analyte == "ph" and f.weight is Weight.ACT and (f.limit or 0.0) <= NEUTRAL_PH
    return "complaints" if f.explains or acid or f.analyte in pressing else "rest"


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
        targets: Mapping[str, tuple[float | None, str]],
        complaints: tuple[Complaint, ...] = (),
        had: frozenset[str] = frozenset(),
        rules: Rules = Rules(),
    ) -> None:
        """``had``: what equipment that stands there was bought against, whoever complains now."""
        colour: ColourFinding | None = meaning.colour
        self._site = site_of(home, settings, water)
        self._source = source_stream(water, colour, self._site.running_psi)
        self._items, self._measured = dict(items), measured or {}
        self._targets = targets
        self._findings = {f.analyte: f for f in reversed(meaning.findings)}
        self._at_the_tap = _tasted(meaning, complaints, home.tenant)
        self._home = home
        self._wished = frozenset(w.analyte for w in home.wishes if w.analyte in targets)
        #: what is wished less of, by no figure
        self.less_of = frozenset(a for a in self._wished if targets[a][0] is None)
        self._at_the_tap |= self._wished - {f.analyte for f in meaning.findings if f.explains}
        self._scale_counts = _scale_counts(self._findings.get("hardness"), complaints)
        acts = {f.analyte for f in meaning.findings if f.weight is Weight.ACT}
        # what somebody's diet minds asks like a complaint once it is over a limit of its own
        minded = home.diets & acts
        self._elsewhere = _decided_elsewhere(water, rules)
        self._pressing = _pressing(water, rules) | had & acts | minded
        #: whether something presses that no limit of health governs, and nobody has to complain of
        self.presses = bool(_pressing(water, rules) & set(targets))
        asks = {_asks_as(f, self._elsewhere, self._pressing) for f in meaning.findings}
        elsewhere = any(
            f.analyte in self._elsewhere and f.weight is Weight.HEALTH for f in meaning.findings
        )
        self._aside = self._worth_knowing()
        iron = water.range("iron")
        slime = any(c.sign == "slime" for c in complaints)
        self._slime = slime and iron is not None and iron.best >= rules.at("iron.stains")
        hardness = self._findings.get("hardness")
        wait = "health" in asks or elsewhere or brings_water(meaning.tonight)
        self.nothing = self._without_buying(wait, brings_water(meaning.tonight))
        #: whether hardness is complained of, or nothing else asks for anything
        self.hardness_asks = bool(hardness and hardness.explains) or (
            asks == {"rest"} and "hardness" not in self._aside
        )
        #: what was found and neither health, a complaint nor a wish asks for, where one of them
        #: asks for something else
        self.unasked = frozenset(
            a for a in targets if a not in self._wished and self._kind(a) == "rest"
        )
        self.of_need = bool(self._wished) or elsewhere or bool(asks - {"rest"})
        self.unasked = self.unasked if self.of_need else self._aside

    def _without_buying(self, wait: bool, brings: bool) -> str:
        """The name of the line that buys nothing."""
        if not wait:
            return NOTHING
        health = {a for a, f in self._findings.items() if f.weight is Weight.HEALTH}
        return WAIT_FOR_AIR if health == {"radon"} and not brings else WAIT

    def _worth_knowing(self) -> frozenset[str]:
        """Of what neither health, a complaint nor a wish asks for: what is only worth knowing,
        where something else asks to act."""
        rest = {a for a in self._targets if self._kind(a) == "rest" and a not in self._wished}
        acts = {a for a in rest if (f := self._findings.get(a)) and f.weight is Weight.ACT}
        return frozenset(rest - acts) if acts else frozenset()

    def _kind(self, analyte: str) -> str:
        return _asks_as(self._findings.get(analyte), self._elsewhere, self._pressing)

    def walked(self, option: Option) -> LineReport:
        """The line worked out on this water; RuleError where it cannot be."""
        stages = placed(option, self._items, self._source)
        line = run_stages(stages, self._source, self._site, self._measured, brief=True)
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
                leaves=tuple(self._targets),
                against_diet=0,
                watch=(str(e),),
                open=(),
                answers={},
            )
        g = grade(
            line,
            self._findings,
            self._targets,
            self._at_the_tap,
            self._scale_counts * _less_scale(line, self._items),
            _against_diet(line, self._home, self._items),
            self._wished,
            self._elsewhere,
            self._pressing,
            self._aside,
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
        kind = self._kind("iron")
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
        asks = "iron" in self._targets and "hardness" not in self._targets
        return asks and "softens" in done and "takes iron" not in done

    def _fouled(self, line: LineReport) -> bool:
        """Whether a softener meets iron and slime with nothing ahead that takes the iron out."""
        ahead = takewhile(lambda done: "softens" not in done, (does(s.kind) for s in line.stages))
        softened = any("softens" in does(s.kind) for s in line.stages)
        return self._slime and softened and all("takes iron" not in done for done in ahead)


#: tasted, and eating pipes everywhere
OF_THE_PIPES = frozenset({"ph"})
#: signs that are met with at the drinking tap
_TASTE = frozenset({"taste", "metal_taste", "solids"})


def _tasted(meaning: Meaning, complaints: tuple[Complaint, ...], tenant: bool) -> frozenset[str]:
    """Things found that matter at the drinking tap alone: what is only tasted, and all of it where
    nobody may plumb. What eats the house's pipes matters in all of them, however it is noticed.
    """
    signs = {c.id: c.sign for c in complaints}
    return frozenset(
        f.analyte
        for f in meaning.findings
        if tenant
        or (
            f.explains
            and f.analyte not in OF_THE_PIPES
            and all(signs.get(c, "") in _TASTE for c in f.explains)
        )
    )
