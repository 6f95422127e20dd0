"""Why items of the catalog are in none of the lines proposed."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import replace
from typing import NamedTuple

from ..treating.items import Item
from ..treating.walking import run_stage
from .answering import Answering
from .candidates import Candidates
from .found import Combination, LeftOut
from .states import MICRO, StageAt, State

BEATEN = (
    "Every line with it is beaten: another leaves no more behind and costs, drains and asks for no"
    " more."
)
PASSED = " Where other stages let it stand, lines without it do as well for less."
AT_THE_TAP = "The stages ahead leave too little pressure for it."


class _Refused(NamedTuple):
    """What stopped an item first: the check, and its sentence or where it was said."""

    rule: str
    sentence: str = ""
    stage: StageAt | None = None
    state: State | None = None


class Refusals:
    """What stopped which item, and which were let stand somewhere."""

    def __init__(self, candidates: Candidates) -> None:
        self._first = {c: _Refused(k.id, k.sentence) for c, k in candidates.stopped.items()}
        self._idle = candidates.play.idle
        self._passed: set[str] = set()

    def stopped(self, codes: Iterable[str], rule: str, stage: StageAt, state: State) -> None:
        """A check stopped these items, the first time at ``stage`` in ``state``."""
        for code in codes:
            self._first.setdefault(code, _Refused(rule, "", stage, state))

    def short_of_pressure(self, codes: Iterable[str], wants: int | None) -> None:
        """What stands ahead leaves these items too little pressure; ``wants`` [millionths of a
        psi]: what each asks for, where that is one figure.
        """
        sentence = AT_THE_TAP
        if wants is not None:
            sentence = f"Wants at least {wants / MICRO:g} psi running; the stages ahead leave less."
        for code in codes:
            self._first.setdefault(code, _Refused("pressure.least", sentence))

    def let_stand(self, codes: Iterable[str]) -> None:
        """These items were let stand in some line."""
        self._passed.update(codes)

    def left_out(self, lines: Iterable[Combination], answering: Answering) -> tuple[LeftOut, ...]:
        """The items in none of these lines, each with its reason."""
        used = {c for line in lines for c in line.items}
        items = (i for i in answering.question.items if i.code not in used)
        return tuple(self._left_out(i, answering) for i in items)

    def _left_out(self, item: Item, answering: Answering) -> LeftOut:
        rule, sentence = self._reason(item.code, answering)
        return LeftOut(code=item.code, name=item.name, rule=rule, sentence=sentence)

    def _reason(self, code: str, answering: Answering) -> tuple[str, str]:
        if code in self._idle:
            return "not needed", self._idle[code]
        if code not in self._first:
            return "beaten", BEATEN
        refused = self._first[code]
        elsewhere = PASSED if code in self._passed else ""
        return refused.rule, self._why(refused, answering) + elsewhere

    @staticmethod
    def _why(refused: _Refused, answering: Answering) -> str:
        """The sentence of a stop, written now that somebody reads it."""
        if refused.stage is None or refused.state is None:
            return refused.sentence
        question = answering.question
        site = replace(question.site, mute=False)
        inp = answering.inlet(refused.stage.item, refused.state, site)
        report, _ = run_stage(inp, question.source, question.measured)
        stops = (c for c in report.checks if c.id == refused.rule and c.status == "stop")
        return next((c.sentence for c in stops), "")
