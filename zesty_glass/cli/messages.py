"""The catalog of messages: brought up to date with the code, and what the page reads of it.

``--check`` changes nothing and tells whether anything would change.
"""

from __future__ import annotations

import argparse
import re
import sys
from collections import Counter
from pathlib import Path

from babel.messages.catalog import Catalog, Message
from babel.messages.pofile import read_po, write_po

from ..messages import catalogue, page
from ..messages.extraction import messages_on_paper, messages_under
from .machine import WEB
from .say import Stop, fail, guarded, step

_VALUE = re.compile(r"\{\w+\}")
#: said by no line of the code as it stands: a firm's words, and what the code puts together
JOINED = "put together, or a firm’s own words"


def every_message() -> dict[str, str]:
    """Every message of the core and of the documents, with where it stands first."""
    out: dict[str, str] = {}
    for folder in catalogue.SAID_IN:
        out = messages_under(catalogue.CODE / folder) | out
    return out


def renewed(language: catalogue.Language) -> Catalog:
    """The catalog of a language with every message of the code as it is now, in its order; what
    it had of others is left out, but for what no line says as it stands.
    """
    old = catalogue.read(language)
    new = Catalog(locale=old.locale, project="Zesty Glass", version="1", fuzzy=False)
    new.creation_date = new.revision_date = old.creation_date
    for message, where in every_message().items():
        known = old.get(message)
        if known is not None and known.string:
            new.add(message, known.string, auto_comments=[where])
    for known in old:
        joined = known.id and known.context is None and JOINED in known.user_comments
        if joined and known.id not in new:
            new.add(known.id, known.string, user_comments=[JOINED])
    paper = messages_on_paper(catalogue.CODE / "documents" / "templates")
    apart = {catalogue.PAPER: paper, page.CONTEXT: page.messages_under(WEB / "src")}
    for context, messages in apart.items():
        for message, where in messages.items():
            known = old.get(message, context)
            if known is not None and known.string:
                new.add(message, known.string, auto_comments=[where], context=context)
    for known in old:  # forms by number, as the language has them
        is_form = known.context == page.CONTEXT and page.message_of(str(known.id)) != known.id
        if is_form and page.message_of(str(known.id)) in apart[page.CONTEXT]:
            new.add(known.id, known.string, context=page.CONTEXT)
    return new


def unlike(message: Message) -> str:
    """What is wrong with a translation; empty when its values are those of the message."""
    source, said = str(message.id), str(message.string)
    if Counter(_VALUE.findall(source)).keys() != Counter(_VALUE.findall(said)).keys():
        return f"“{source}” and “{said}” do not have the same values."
    return ""


def _lines(of: Catalog) -> list[tuple[str, str, str]]:
    return [(m.context or "", str(m.id), str(m.string)) for m in of if m.id]


def lacking(language: catalogue.Language) -> Catalog:
    """The messages of the code that a language lacks, to be translated."""
    have = catalogue.read(language)
    paper = messages_on_paper(catalogue.CODE / "documents" / "templates")
    apart = {None: every_message(), catalogue.PAPER: paper}
    apart[page.CONTEXT] = page.messages_under(WEB / "src")
    out = Catalog(locale=have.locale, project="Zesty Glass", version="1", fuzzy=False)
    found = [
        (message, context, where)
        for context, messages in apart.items()
        for message, where in messages.items()
        if have.get(message, context) is None
    ]
    for message, context, where in sorted(found, key=lambda one: _turn(one[2])):
        out.add(message, auto_comments=[where], context=context)
    return out


#: where what a customer reads is said: the paper, the link, what faces them, and what they are
#: mailed; the pages of a firm come last, for they are in English so far
_CUSTOMERS = (
    "documents/",
    "features/offered",
    "features/facing",
    "features/showing",
    "core/presenting",
    "core/demonstrating",
    "core/aftercare",
)


def _turn(where: str) -> int:
    """When a message is to be translated: the customer's first."""
    turns = (n for n, place in enumerate(_CUSTOMERS) if place in where)
    return next(turns, len(_CUSTOMERS) + where.startswith("features/"))


def take(language: catalogue.Language, file: Path) -> int:
    """Take the translations of a file over; how many there were.

    Raises:
        Stop: one does not have the values of its message.
    """
    with file.open("rb") as f:
        given = [m for m in read_po(f) if m.id and m.string]
    for wrong in filter(None, map(unlike, given)):
        raise Stop(wrong)
    into = catalogue.read(language)
    for message in given:
        into.delete(message.id, message.context)
        into.add(message.id, message.string, context=message.context)
    catalogue.write(language, into)
    catalogue.read.cache_clear()
    return len(given)


def _renew(language: catalogue.Language, check: bool) -> int:
    """Bring a language up to date; with ``check`` only say whether it is."""
    new = renewed(language)
    for wrong in filter(None, (unlike(m) for m in new if m.id)):
        return fail(wrong)
    stale = _lines(new) != _lines(catalogue.read(language))
    if stale and not check:
        catalogue.write(language, new)
        catalogue.read.cache_clear()
    file = WEB / "src" / "app" / f"{language}.generated.json"
    text = page.file_of(language)
    stale = stale or not file.is_file() or file.read_text() != text
    if stale and check:
        return fail(f"{language}: run ./zesty messages and commit.")
    file.write_text(text)
    step(f"{language}: {len(_lines(new))} messages")
    return 0


def main(arguments: list[str]) -> int:
    """Bring every language up to date, or check that it is; give out what one lacks, and take it
    back translated.
    """
    parser = argparse.ArgumentParser(prog="./zesty messages")
    parser.add_argument("--check", action="store_true", help="change nothing, say what would")
    there = catalogue.languages()[1:]
    parser.add_argument("--language", choices=there, default=there[0])
    parser.add_argument("--lacking", type=Path, metavar="FILE", help="write what it lacks")
    parser.add_argument("--take", type=Path, metavar="FILE", help="take translations over")
    given = parser.parse_args(arguments)
    if given.lacking is not None:
        out = lacking(given.language)
        with given.lacking.open("wb") as f:
            write_po(f, out, width=100)
        step(f"{given.language}: {len(_lines(out))} messages to translate in {given.lacking}")
        return 0
    if given.take is not None:
        step(f"{given.language}: {take(given.language, given.take)} messages taken")
    renewed = [_renew(language, given.check) for language in there]
    return max(*renewed, _list_them(given.check))


def _list_them(check: bool) -> int:
    """Tell the page which languages there are; with ``check`` only say whether it knows."""
    file, text = WEB / "src" / "app" / "languages.generated.ts", page.languages_of_the_page()
    if file.is_file() and file.read_text() == text:
        return 0
    if check:
        return fail("the page does not know its languages: run ./zesty messages and commit.")
    file.write_text(text)
    return 0


if __name__ == "__main__":
    sys.exit(guarded(main, sys.argv[1:]))
