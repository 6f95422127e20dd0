"""An option of the consultant's: items chosen with their settings, equipment that is kept, and what
is bought or rented for it.
"""

from __future__ import annotations

from dataclasses import field, replace
from decimal import Decimal
from typing import Literal

from ..errors import RuleError
from ..record import Words, record
from .existing_equipment import KeptInPlace, code_of
from .fitter import Fitter
from .items import Item, SystemFigures
from .letting import TERMS, Letting, Terms

MOST_STAGES = 40  # in one system


@record
class StageChoice:
    """One item of an option with the consultant's own settings; ``position`` moves it, and wants a
    reason; ``fitter``: who fits it; ``terms``: whether it is bought or rented.
    """

    item: str
    overrides: dict[str, float | str] = field(default_factory=dict)
    position: int | None = None
    reason: Words = ""
    fitter: Fitter = "firm"
    terms: Terms = "buy"


@record
class Option:
    """A line the consultant considers; no stages: do nothing. ``keeps``: equipment in place that
    goes on working in it; what it does not name is taken out.
    """

    id: str
    name: Words
    stages: tuple[StageChoice, ...] = ()
    note: Words = ""
    keeps: tuple[KeptInPlace, ...] = ()

    @property
    def choices(self) -> tuple[StageChoice, ...]:
        """All its stages: equipment in place that is kept, and what is bought."""
        kept = tuple(StageChoice(item=code_of(k.device, k.how)) for k in self.keeps)
        return (*kept, *self.stages)


@record
class Purchase:
    """What is bought at month 0; ``let``: what is rented instead, with no price then; ``fitter``:
    who fits it; ``parts``: codes of the items that a system is made of.
    """

    code: str
    label: str
    price: Decimal
    installation: Decimal
    scope: Literal["house", "tap"]
    let: Letting | None = None
    fitter: Fitter = "firm"
    parts: tuple[str, ...] = ()


def expand(
    choice: StageChoice, catalogue: dict[str, Item], seen: tuple[str, ...] = ()
) -> tuple[tuple[Item, StageChoice], ...]:
    """A system becomes its stages; RuleError for an unknown code or a system that holds itself."""
    if choice.item not in catalogue:
        raise RuleError(
            "line.unknown_item",
            f"There is no item “{choice.item}” in this catalog.",
            "option.stages",
            "Choose one from the catalog.",
        )
    item = catalogue[choice.item]
    if not isinstance(item.figures, SystemFigures):
        return ((item, choice),)
    if choice.item in seen:
        raise RuleError(
            "item.circular",
            f"{item.name} holds itself.",
            f"items[{item.code}]",
            "Name its stages only.",
        )
    out: list[tuple[Item, StageChoice]] = []
    for code in item.figures.parts:
        part = catalogue.get(code)
        if seen and part is not None and isinstance(part.figures, SystemFigures):
            raise RuleError(
                "item.nested",
                f"{item.name} is a system in a system that holds systems again.",
                f"items[{item.code}]",
                "Name its stages instead.",
            )
        out += expand(
            StageChoice(item=code, overrides=choice.overrides), catalogue, (*seen, choice.item)
        )
        if len(out) > MOST_STAGES:
            raise RuleError(
                "line.stages",
                f"{item.name} has more than {MOST_STAGES} stages.",
                f"items[{item.code}]",
                "Sell it as two systems.",
            )
    return tuple(out)


def bought_of(item: Item, choice: StageChoice) -> Purchase:
    """An item bought, and installed where the firm does it; a licensed person’s own price is not
    known, and is said instead.

    Raises:
        RuleError: ``line.not_let`` where it is to be rented and the firm does not let it so.
    """
    as_bought = Purchase(
        code=item.code,
        label=item.name,
        price=item.price,
        installation=item.installation if choice.fitter == "firm" else Decimal(0),
        scope=item.scope,
        fitter=choice.fitter,
    )
    if choice.terms == "buy":
        return as_bought
    let = next((x for x in item.lets if x.kind == choice.terms), None)
    if let is None:
        raise RuleError(
            "line.not_let",
            f"{item.name} is not {TERMS[choice.terms]} by this firm.",
            "option.stages",
            "Buy it, or let the catalog say for how much a month.",
        )
    return replace(as_bought, price=Decimal(0), installation=let.setup, let=let)
