"""What is read before a proposal is signed: stops with their answers, warnings and unknowns."""

from __future__ import annotations

from collections.abc import Mapping

from ..errors import RuleError
from ..record import Words, record
from ..treating.line import LineReport


@record
class ToKnow:
    """One thing to know before signing: a stop, a warning or an unknown of the recommended line,
    with its remedy.

    ``status`` is "say" for what concerns whoever drinks the water, whatever their health.
    ``answer``: how a stop is answered, in the consultant's words.
    """

    stage: str
    status: str
    sentence: str
    answer: Words = ""


#: checks that are no warning and yet are read before signing
_ALWAYS_TOLD = frozenset({"softener.diet", "conditioner.minerals", "tannin.exchange"})
ANSWER_AT_LEAST = 12  # [characters] fewer say nothing


def to_know(line: LineReport, answers: Mapping[str, str] | None = None) -> tuple[ToKnow, ...]:
    """Every stop, warning and unknown of a line, gravest first, each once.

    Args:
        answers: how each stop is answered, by its sentence.
    """
    found = [(s.name, c) for s in line.stages for c in s.checks]
    found += [("The whole system", c) for c in line.checks]
    out: dict[tuple[str, str], ToKnow] = {}
    for status in ("stop", "unknown", "warn", "say"):
        for stage, c in found:
            if c.status == status and (status != "say" or c.id in _ALWAYS_TOLD):
                answer = (answers or {}).get(c.sentence, "") if status == "stop" else ""
                said = ToKnow(
                    stage=stage, status=status, sentence=c.sentence, answer=answer.strip()
                )
                out.setdefault((stage, c.sentence), said)
    return tuple(out.values())


def stopped(name: str, stops: list[ToKnow]) -> RuleError:
    """A line that cannot work as it stands, with every stop that has no answer yet."""
    first, *others = (
        RuleError(
            "offer.stopped",
            f"“{name}” cannot work as it stands: {k.stage}: {k.sentence}",
            "answers",
            "Write for each stop how it is answered, change the line, or recommend another.",
        )
        for k in stops
    )
    return RuleError(first.code, first.what, first.where, first.remedy, tuple(others))


def unanswered_stops(known: tuple[ToKnow, ...]) -> list[ToKnow]:
    """Stops that are not answered yet, or in too few words."""
    return [k for k in known if k.status == "stop" and len(k.answer) < ANSWER_AT_LEAST]
