"""The messages of the page: what its code says, and the files that it reads them from."""

from __future__ import annotations

import ast
import json
import re
from pathlib import Path

from ..core.analytes import ANALYTES
from .catalogue import read

CONTEXT = "page"
_SAID = re.compile(r'\b(?:say|message)\(\s*((?:"(?:[^"\\]|\\.)*"\s*\+?\s*)+)[,)]')
_PIECE = re.compile(r'"(?:[^"\\]|\\.)*"')


def messages_of(source: str) -> list[str]:
    """Every message that a module of the page says, in its order.

    >>> messages_of('say("Ask {firm}", { firm }); message("met"); say("a " + "b")')
    ['Ask {firm}', 'met', 'a b']
    """
    found = (
        "".join(ast.literal_eval(piece) for piece in _PIECE.findall(said[1]))
        for said in _SAID.finditer(source)
    )
    return list(dict.fromkeys(found))


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
