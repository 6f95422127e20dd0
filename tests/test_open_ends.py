"""An open upper end is nobody's best value: it has one home, ``Range.top``, and no line of the core
puts another figure in its place.
"""

import ast
import unittest
from pathlib import Path

CORE = Path(__file__).resolve().parent.parent / "zesty_glass" / "core"
#: where the largest value that was seen is drawn, or is a corner of a formula that says so itself
SEEN = {
    "demonstrating/distilling.py",
    "demonstrating/shown.py",
    "ranges.py",
    "treating/existing_equipment.py",
    "treating/stages/calcite.py",
    "treating/stages/membrane.py",
}


def _is(node: ast.AST, field: str) -> bool:
    return isinstance(node, ast.Attribute) and node.attr == field


def puts_another(source: str) -> list[int]:
    """Lines on which something stands in for an upper end that is open.

    >>> puts_another("a = r.high or r.best")
    [1]
    >>> puts_another("a = r.best if r.high is None else r.high")
    [1]
    >>> puts_another("a = None if r.high is None else r.high * 2")
    []
    """
    found = []
    for node in ast.walk(ast.parse(source)):
        either = isinstance(node, ast.BoolOp) and isinstance(node.op, ast.Or)
        if either and any(_is(v, "high") for v in node.values[:-1]):
            found.append(node.lineno)
        if isinstance(node, ast.IfExp) and _is(node.orelse, "high"):
            stands_in = not (isinstance(node.body, ast.Constant) and node.body.value is None)
            found += [node.lineno] * (stands_in and not _is(node.body, "inf"))
    return found


class OpenEnds(unittest.TestCase):
    def test_nothing_stands_in_for_an_open_end(self):
        for path in sorted(CORE.rglob("*.py")):
            where = path.relative_to(CORE).as_posix()
            if where != "ranges.py":
                self.assertEqual(puts_another(path.read_text()), [], where)

    def test_the_largest_seen_is_used_where_it_is_said(self):
        used = {
            p.relative_to(CORE).as_posix()
            for p in CORE.rglob("*.py")
            if "seen_top" in p.read_text()
        }
        self.assertEqual(used, SEEN)

    def test_the_finder_finds(self):
        self.assertEqual(puts_another("a = r.high or 0"), [1])
        self.assertEqual(puts_another("a = r.best if r.high is None else r.high"), [1])
        self.assertEqual(puts_another("a = r.top"), [])
