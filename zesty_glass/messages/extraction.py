"""The messages of the code: every text that is said, with {0}, {1} … where a value stands."""

from __future__ import annotations

import ast
import re
from collections.abc import Iterator
from pathlib import Path

#: what holds no word: numbers, signs, ids, colours, paths
_NO_WORD = re.compile(r"[^A-Za-zÀ-ÿ]*|[a-z0-9_.:/#-]*[_./:#][a-z0-9_.:/#-]*|#[0-9A-Fa-f]{6}")

_FIELD = re.compile(r"\{[A-Za-z_]\w*(?::[^{}]*)?\}")


def messages_of(source: str) -> list[str]:
    """Every message of a module, in its order: constants, and formatted texts with their values
    numbered.

    >>> messages_of('x = f"{n:.0f} gal of {water}", "brine", x["key_of"]')
    ['{0} gal of {1}', 'brine']
    """
    found = dict.fromkeys(_texts(ast.parse(source)))
    return [text for text in found if not _NO_WORD.fullmatch(text)]


def _texts(tree: ast.Module) -> Iterator[str]:
    silent = {id(x) for node in ast.walk(tree) for x in _not_said(node)}
    for node in ast.walk(tree):
        if id(node) in silent:
            continue
        if isinstance(node, ast.JoinedStr):
            yield template(node)
        elif isinstance(node, ast.Constant) and isinstance(node.value, str):
            yield numbered(node.value)


def _not_said(node: ast.AST) -> Iterator[ast.AST]:
    """Parts of a node that are no messages of their own: its docstring, pieces of a formatted text,
    formats, keys.
    """
    match node:
        case (
            ast.Module(body=[ast.Expr(value=first), *_])
            | ast.ClassDef(body=[ast.Expr(value=first), *_])
            | ast.FunctionDef(body=[ast.Expr(value=first), *_])
        ):
            yield first
        case ast.JoinedStr(values=pieces):
            yield from (p for p in pieces if isinstance(p, ast.Constant))
        case ast.FormattedValue(format_spec=ast.JoinedStr() as spec):
            yield spec
            yield from spec.values
        case ast.Subscript(slice=ast.Constant() as key):
            yield key


def numbered(text: str) -> str:
    """A text for ``str.format`` with its values numbered.

    >>> numbered("Flush {flush} gal to {place}.")
    'Flush {0} gal to {1}.'
    """
    count = iter(range(1000))
    return _FIELD.sub(lambda _: f"{{{next(count)}}}", text)


def template(text: ast.JoinedStr) -> str:
    """A formatted text with its values numbered."""
    out, n = [], 0
    for piece in text.values:
        if isinstance(piece, ast.Constant):
            out.append(str(piece.value))
        else:
            out.append(f"{{{n}}}")
            n += 1
    return "".join(out)


_ON_PAPER = re.compile(r'\b_\(\s*"([^"]*)"')


def messages_on_paper(folder: Path) -> dict[str, str]:
    """Every message of the templates of documents, with the file where it stands first."""
    out: dict[str, str] = {}
    for path in sorted(p for p in folder.rglob("*") if p.suffix in (".html", ".css")):
        for message in _ON_PAPER.findall(path.read_text()):
            out.setdefault(message, path.relative_to(folder.parent.parent).as_posix())
    return out


def messages_under(folder: Path) -> dict[str, str]:
    """Every message under a folder, with the module where it stands first."""
    out: dict[str, str] = {}
    for path in sorted(folder.rglob("*.py")):
        for message in messages_of(path.read_text()):
            out.setdefault(message, path.relative_to(folder.parent).as_posix())
    return out
