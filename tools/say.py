"""``./zesty say --home N``: all that a customer gets for a home, as one text to read from end to
end: the proposal with its letter, the card for the refrigerator, and the steps.

Homes 1 to 7 are the demo's; from 8 on they are generated, each number always the same one.
"""

from __future__ import annotations

import argparse
import sys
from collections.abc import Iterator
from dataclasses import replace
from xml.etree.ElementTree import Element

import tinyhtml5

from tools.answers import DAY, LINES, generated, offer_of
from zesty_glass.catalogue.examples import example_items
from zesty_glass.cli.say import Stop, guarded
from zesty_glass.core.aftercare.job import fitting_sheets, job_of
from zesty_glass.core.assess import assess
from zesty_glass.core.presenting.card import WaterCard, water_card
from zesty_glass.core.presenting.metric import in_units
from zesty_glass.core.presenting.offer import Offer
from zesty_glass.core.proposing.proposal import Proposal
from zesty_glass.core.visit import Visit
from zesty_glass.demo.homes import demo_visits, used_items
from zesty_glass.documents.pdf import proposal_html
from zesty_glass.messages.catalogue import languages
from zesty_glass.messages.in_language import in_language
from zesty_glass.work.catalogue import Question

BLOCKS = frozenset({"h1", "h2", "h3", "p", "li", "caption"})
UNREAD = frozenset({"style", "svg", "title", "head"})
NAMESPACE = "{http://www.w3.org/1999/xhtml}"


def home(n: int) -> Visit:
    """The ``n``-th home, with the systems that are compared for it.

    Raises:
        Stop: homes are counted from 1.
    """
    if n < 1:
        raise Stop("Homes are counted from 1: try ./zesty say --home 1.")
    of_the_demo = demo_visits(DAY)
    visit = of_the_demo[n - 1] if n <= len(of_the_demo) else generated(n)
    if visit.options:
        return visit
    items = {i.code: i for i in example_items()}
    lines = Question(visit=visit, items=items).suggest().lines[:LINES]
    options = tuple(line.option for line in lines if line.option.stages)
    return replace(visit, options=options, catalogue=used_items(options, items))


def offer(visit: Visit) -> Offer:
    """The proposal of the first system that can work; to buy nothing where none can."""
    done = assess(visit)
    can = [o.id for o in done.options[1:] if o.line is not None and o.line.status != "stop"]
    return offer_of(visit, "today" if done.nothing_needed or not can else can[0])


def _text(element: Element) -> str:
    return " ".join("".join(element.itertext()).split())


def _blocks(element: Element) -> Iterator[str]:
    """The texts of a page, a block each, as they are read."""
    for part in element:
        name = str(part.tag).removeprefix(NAMESPACE)
        if name in UNREAD:
            continue
        if name == "tr" and not part.findall(f".//{NAMESPACE}p"):
            yield " | ".join(map(_text, part))
        elif name in BLOCKS:
            yield _text(part)
        else:
            yield from _blocks(part)


def _paper(written: Offer, language: str) -> Iterator[str]:
    proposal = Proposal(
        id="p",
        number=written.number,
        revision=1,
        recommended=written.recommended,
        reasons=written.reasons,
        own_words=False,
        horizon=written.horizon,
        plan=None,
        created_at=written.created_at,
        valid_until=written.valid_until,
        snapshot="",
        digest="",
    )
    page = tinyhtml5.parse(proposal_html(written, proposal, "good", language=language))
    return _blocks(page)


def _card(card: WaterCard) -> Iterator[str]:
    yield from card.tonight
    for r in card.readings:
        yield f"{r.name}: {r.shown} ({r.span}). {r.sentence}"
    yield from (f"{what}: {to}" for what, to in card.settings)
    yield from card.next
    yield card.honest


def _steps(visit: Visit, written: Offer, language: str) -> Iterator[str]:
    line = next(o.line for o in assess(visit).options if o.id == written.recommended)
    if line is None or not line.stages:
        return
    job = job_of(line, visit.home, id="j", visit=visit.id, proposal="p", units="us", made_at=DAY)
    for sheet in in_language(in_units(fitting_sheets(job), visit), language, beside=written):
        yield f"{sheet.title}. {sheet.caution}"
        yield from (f"- {step.text}" for step in sheet.steps)


def document(visit: Visit, language: str) -> Iterator[tuple[str, str]]:
    """All that a customer gets for a visit: what each text is part of, and the text."""
    written = offer(visit)
    card = in_language(in_units(water_card(visit, assess(visit)), visit), language, beside=written)
    parts = {
        "The proposal": _paper(written, language),
        "The card": _card(card),
        "The steps": _steps(visit, written, language),
    }
    for part, texts in parts.items():
        yield from ((part, t) for t in texts if t.strip(" |"))


def main(arguments: list[str]) -> int:
    """Print the document of a home."""
    parser = argparse.ArgumentParser(prog="./zesty say")
    parser.add_argument("--home", type=int, required=True, help="1 to 7 the demo’s, then generated")
    parser.add_argument("--language", default="en", choices=languages())
    parser.add_argument("--units", default="us", choices=("us", "metric"))
    given = parser.parse_args(arguments)
    visit = home(given.home)
    visit = replace(visit, settings=replace(visit.settings, units=given.units))
    part = ""
    for of, text in document(visit, given.language):
        if of != part:
            print(f"\n# {of}\n")
            part = of
        print(text)
    return 0


if __name__ == "__main__":
    sys.exit(guarded(main, sys.argv[1:]))
