"""What asks for an answer in a home, and how: as health, as a complaint, as the rest, or aside."""

from __future__ import annotations

from collections.abc import Mapping
from functools import cached_property
from typing import Literal

from ..home import Home
from ..rules import Rules
from ..testing.complaints import Complaint
from ..testing.finding import Finding, Weight
from ..testing.findings import Meaning
from ..testing.water import Water
from .looked_at import radon_with_the_air

Targets = Mapping[str, tuple[float | None, str]]
As = Literal["health", "complaints", "rest", "aside"]

NEUTRAL_PH = 7.5  # a limit under it is one that acid water fails
ACID_BELOW = (
    0.5  # below neutral by so much [pH] water is corrosive to copper: trade practice (2024)
)
#: manganese from here on asks like a complaint, whoever has one
PRESSES = "manganese.canada"
#: tasted, and eating pipes everywhere
OF_THE_PIPES = frozenset({"ph"})
#: signs that are met with at the drinking tap
_TASTE = frozenset({"taste", "metal_taste", "solids"})


class Asks:
    """What was found in a water and is wanted of it, by how it asks.

    ``had``: what equipment that stands there was bought against, whoever complains now.
    """

    def __init__(
        self,
        water: Water,
        meaning: Meaning,
        home: Home,
        targets: Targets,
        complaints: tuple[Complaint, ...],
        had: frozenset[str],
        rules: Rules,
    ) -> None:
        self.targets = targets
        self.findings: dict[str, Finding] = {f.analyte: f for f in reversed(meaning.findings)}
        self._every = meaning.findings
        #: what is wished less of, which counts like a complaint
        self.wished = frozenset(w.analyte for w in home.wishes if w.analyte in targets)
        #: what is judged with something else than the tap's water
        self.elsewhere = _decided_elsewhere(water, rules)
        acts = {f.analyte for f in meaning.findings if f.weight is Weight.ACT}
        # what somebody's diet minds asks like a complaint once it is over a limit of its own
        minded = home.diets & acts
        self._presses = _pressing(water, rules)
        self.pressing = self._presses | had & acts | minded
        explained = {f.analyte for f in meaning.findings if f.explains}
        #: what is complained of at the drinking tap alone, and is judged there alone
        self.at_the_tap = _tasted(meaning, complaints, home.tenant) | (self.wished - explained)

    @property
    def less_of(self) -> frozenset[str]:
        """What is wished less of, by no figure."""
        return frozenset(a for a in self.wished if self.targets[a][0] is None)

    @property
    def presses(self) -> bool:
        """Whether something presses that no limit of health governs, and nobody has to complain
        of.
        """
        return bool(self._presses & set(self.targets))

    def of(self, finding: Finding | None) -> As:
        """How a finding asks by itself. Acid water eats the pipes whether anybody has seen it yet
        or not.
        """
        f = finding
        if f is None or f.analyte in self.elsewhere:
            return "rest"
        if f.weight is Weight.HEALTH:
            return "health"
        acid = f.analyte == "ph" and f.weight is Weight.ACT and (f.limit or 0.0) <= NEUTRAL_PH
        return "complaints" if f.explains or acid or f.analyte in self.pressing else "rest"

    def counts_as(self, analyte: str) -> As:
        """How a thing found counts in a line's grade."""
        if analyte in self.aside:
            return "aside"
        kind = self.of(self.findings.get(analyte))
        return "complaints" if kind == "rest" and analyte in self.wished else kind

    @cached_property
    def _rest(self) -> frozenset[str]:
        """What neither health, a complaint nor a wish asks for."""
        return frozenset(
            a
            for a in self.targets
            if a not in self.wished and self.of(self.findings.get(a)) == "rest"
        )

    @cached_property
    def aside(self) -> frozenset[str]:
        """Of the rest what is only worth knowing, where something else of it asks to act."""
        acts = {a for a in self._rest if (f := self.findings.get(a)) and f.weight is Weight.ACT}
        return self._rest - acts if acts else frozenset()

    @cached_property
    def kinds(self) -> frozenset[As]:
        """How all that was found asks."""
        return frozenset(self.of(f) for f in self._every)

    @cached_property
    def health_elsewhere(self) -> bool:
        """Whether something of health is judged with something else than the tap's water."""
        return any(f.analyte in self.elsewhere and f.weight is Weight.HEALTH for f in self._every)

    @property
    def of_need(self) -> bool:
        """Whether health, a complaint or a wish asks for anything."""
        return bool(self.wished) or self.health_elsewhere or bool(self.kinds - {"rest"})

    @property
    def unasked(self) -> frozenset[str]:
        """What was found and neither health, a complaint nor a wish asks for, where one of them
        asks for something else.
        """
        return self._rest if self.of_need else self.aside

    @property
    def hardness(self) -> bool:
        """Whether hardness is complained of, or nothing else asks for anything."""
        f = self.findings.get("hardness")
        alone = self.kinds == {"rest"} and "hardness" not in self.aside
        return bool(f and f.explains) or alone

    def health_is_only(self, analyte: str) -> bool:
        """Whether one thing alone asks as health."""
        return {a for a, f in self.findings.items() if f.weight is Weight.HEALTH} == {analyte}


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


def _pressing(water: Water, rules: Rules) -> frozenset[str]:
    """What no laboratory limit of health governs, and which asks for more than a stain does."""
    manganese = water.range("manganese")
    high = manganese is not None and manganese.best >= rules.at(PRESSES)
    return frozenset({"manganese"} if high else ())


def _tasted(meaning: Meaning, complaints: tuple[Complaint, ...], tenant: bool) -> frozenset[str]:
    """Things found that matter at the drinking tap alone: what is only tasted, and all of it where
    nobody may plumb. What eats the house's pipes matters in all of them, however it is noticed.
    """
    signs = {c.id: c.sign for c in complaints}
    return frozenset(f.analyte for f in meaning.findings if tenant or _only_tasted(f, signs))


def _only_tasted(f: Finding, signs: Mapping[str, str]) -> bool:
    """Whether all that a finding explains is met with at the drinking tap."""
    if not f.explains or f.analyte in OF_THE_PIPES:
        return False
    return all(signs.get(c, "") in _TASTE for c in f.explains)
