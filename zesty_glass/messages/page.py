"""The messages of the page: what its code says, and the files that it reads them from."""

from __future__ import annotations

import ast
import json
import re
from pathlib import Path

from ..core.analytes import ANALYTES
from .catalogue import ORIGINAL, languages, locale_of, own_name, read

CONTEXT = "page"
_TEXT = r'"(?:[^"\\]|\\.)*"'
#: a message that is said, or kept to be said: one text, perhaps in pieces
_SAID = re.compile(rf"\b(?:say|message)\(\s*((?:{_TEXT}\s*\+?\s*)+)[,)]")
#: an object or a list whose texts are said as they are read out of it
_KEPT = re.compile(r"\bspoken\(\s*[\[{]")
_PIECE = re.compile(_TEXT)
_PROSE = re.compile(r"\s|^[A-Z]")  # a code is one word in small letters


def messages_of(source: str) -> list[str]:
    """Every message that a module of the page says, in its order.

    >>> messages_of('say("Ask {firm}", { firm }); message("met"); say("a " + "b")')
    ['Ask {firm}', 'met', 'a b']
    >>> messages_of('spoken({ a: "At once", b: ["a_code", "Wait"], "no key": x }); "Not this"')
    ['At once', 'Wait']
    """
    found = {m.start(): _joined(m[1]) for m in _SAID.finditer(source)}
    for kept in _KEPT.finditer(source):
        start = kept.end() - 1
        inside = source[start : _end_of(source, start)]
        for text in _PIECE.finditer(inside):
            is_key = inside[text.end() :].lstrip().startswith(":")
            words = ast.literal_eval(text[0])
            if not is_key and _PROSE.search(words):
                found.setdefault(start + text.start(), words)
    return list(dict.fromkeys(found[at] for at in sorted(found)))


_FORM = re.compile(r"_(?:zero|one|two|few|many|other)$")


def message_of(key: str) -> str:
    """The message that a form by number belongs to; any other is itself.

    >>> message_of("{n} tests_few"), message_of("{n} tests")
    ('{n} tests', '{n} tests')
    """
    return _FORM.sub("", key)


def _joined(pieces: str) -> str:
    return "".join(ast.literal_eval(piece) for piece in _PIECE.findall(pieces))


def _end_of(source: str, start: int) -> int:
    """Where the bracket that opens at ``start`` closes; texts are passed over."""
    depth, at = 0, start
    while at < len(source):
        text = _PIECE.match(source, at)
        if text:
            at = text.end()
            continue
        depth += {"[": 1, "{": 1, "(": 1, "]": -1, "}": -1, ")": -1}.get(source[at], 0)
        at += 1
        if depth == 0:
            break
    return at


def messages_under(folder: Path) -> dict[str, str]:
    """Every message of the page, with the module where it stands first."""
    out: dict[str, str] = {}
    for path in sorted(folder.rglob("*.ts*")):
        if ".test." not in path.name and "generated" not in path.name:
            for message in messages_of(path.read_text()):
                out.setdefault(message, path.relative_to(folder.parent).as_posix())
    return out


def file_of(language: str) -> str:
    """What the page reads: each message with what it is in a language; names of analytes too."""
    catalogue = read(language)
    said = {
        str(m.id): str(m.string) for m in catalogue if m.id and m.string and m.context == CONTEXT
    }
    for analyte in ANALYTES.values():
        named = catalogue.get(analyte.name)
        if named is not None and named.string:
            said.setdefault(analyte.name, str(named.string))
    return json.dumps(said, ensure_ascii=False, indent=2, sort_keys=True) + "\n"


_LANGUAGES = """/** Written by ./zesty messages: the languages of the page, and their files. */
export const LANGUAGES = {names} as const;
/** How days and numbers are written; empty for the reader's own English. */
export const LOCALES: Record<keyof typeof LANGUAGES, string> = {locales};
export const FILES: Record<string, () => Promise<{{ default: Record<string, string> }}>> = {files};
"""


def languages_of_the_page() -> str:
    """The module that tells the page which languages there are."""
    others = [x for x in languages() if x != ORIGINAL]
    tags = {x: str(locale_of(x)).replace("_", "-") for x in others}
    files = ", ".join(f'{x}: () => import("./{x}.generated.json")' for x in others)
    return _LANGUAGES.format(
        names=_object({x: own_name(x) for x in languages()}),
        locales=_object({ORIGINAL: ""} | tags),
        files=f"{{ {files} }}",
    )


def _object(of: dict[str, str]) -> str:
    inside = ", ".join(f"{k}: {json.dumps(v, ensure_ascii=False)}" for k, v in of.items())
    return f"{{ {inside} }}"
