"""The catalogue of messages: brought up to date with the code, and what the page reads of it.

``--check`` changes nothing and tells whether anything would change.
"""

from __future__ import annotations

import argparse
import re
import sys
from collections import Counter

from babel.messages.catalog import Catalog, Message

from ..messages import catalogue, page
from ..messages.templates import messages_on_paper, messages_under
from .machine import WEB
from .say import fail, guarded, step

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
    """The catalogue of a language with every message of the code as it is now, in its order; what
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
    return new


def unlike(message: Message) -> str:
    """What is wrong with a translation; empty when its values are those of the message."""
    source, said = str(message.id), str(message.string)
    if Counter(_VALUE.findall(source)).keys() != Counter(_VALUE.findall(said)).keys():
        return f"“{source}” and “{said}” do not have the same values."
    return ""


def _lines(of: Catalog) -> list[tuple[str, str, str]]:
    return [(m.context or "", str(m.id), str(m.string)) for m in of if m.id]


def main(arguments: list[str]) -> int:
    """Bring every language up to date, or check that it is."""
    parser = argparse.ArgumentParser(prog="python -m zesty_glass.cli.messages")
    parser.add_argument("--check", action="store_true", help="change nothing, say what would")
    check = parser.parse_args(arguments).check
    for language in catalogue.languages()[1:]:
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
            return fail(f"{language}: run python -m zesty_glass.cli.messages and commit.")
        file.write_text(text)
        step(f"{language}: {len(_lines(new))} messages")
    return 0


if __name__ == "__main__":
    sys.exit(guarded(main, sys.argv[1:]))
