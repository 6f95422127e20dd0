"""``./zesty mutate``: break one line of a module at a time, and see whether the tests tell.

A mutant is the module with one operator, number or comparison changed; it is killed when a test
fails on it. Meant to be run by hand on what was changed, not in every test run.
"""

from __future__ import annotations

import argparse
import ast
import copy
import json
import os
import random
import subprocess
import sys
from collections.abc import Iterator
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path
from typing import NamedTuple, TypeGuard

from zesty_glass.cli.machine import ROOT, VENV
from zesty_glass.cli.say import Stop, guarded, step

PACKAGE = ROOT / "zesty_glass"
CORE = PACKAGE / "core"
TIMEOUT_S = 180.0
#: layers beside the core whose modules may be broken; their tests: a folder of the same name
LAYERS = ("records", "work", "documents", "catalogue", "messages", "standins")
#: tests of such a module over the wire, beside those of its layer
_WIRED = {
    "work/mailing": ("tests.api.test_sharing",),
    "work/planning": ("tests.api.test_planning",),
    "work/money": ("tests.api.test_proposals",),
    "work/passkeys": ("tests.api.test_passkeys",),
    "records/audit": ("tests.api.test_erasing",),
    "work/tokens": ("tests.api.test_people",),
    "work/signing_in": ("tests.api.test_session", "tests.api.test_guessing"),
    "work/catalogue": ("tests.api.test_catalogue", "tests.api.test_off_sale"),
    "documents/erasing": ("tests.api.test_erasing",),
}
#: where the tests of a folder of the core stand, beside those of the same name
_ALSO = {
    "costing": ("tests.core.test_assumptions", "tests.core.proposing.test_price"),
    "testing": ("tests.core.test_truth", "tests.core.test_any_reading"),
    "treating": ("tests.core.test_truth", "tests.core.test_any_home"),
    "proposing": ("tests.core.test_truth", "tests.core.treating.test_every_item"),
}
#: tests of modules that stand in no folder
_OF = {
    "own_limits": ("tests.core.test_own_limits",),
    "units": ("tests.core.test_units_by_hand", "tests.core.test_truth"),
}
EXAMPLES = "tests.core.test_examples"  # the worked examples in the docstrings
_COMPARE: dict[type[ast.cmpop], type[ast.cmpop]] = {
    ast.Lt: ast.LtE,
    ast.LtE: ast.Lt,
    ast.Gt: ast.GtE,
    ast.GtE: ast.Gt,
    ast.Eq: ast.NotEq,
    ast.NotEq: ast.Eq,
    ast.Is: ast.IsNot,
    ast.IsNot: ast.Is,
    ast.In: ast.NotIn,
    ast.NotIn: ast.In,
}
_BINARY: dict[type[ast.operator], type[ast.operator]] = {
    ast.Add: ast.Sub,
    ast.Sub: ast.Add,
    ast.Mult: ast.Div,
    ast.Div: ast.Mult,
    ast.FloorDiv: ast.Div,
    ast.Mod: ast.Mult,
    ast.Pow: ast.Mult,
}
_CALLS = {"min": "max", "max": "min", "floor": "ceil", "ceil": "floor", "any": "all", "all": "any"}


class Mutant(NamedTuple):
    """A module with one thing changed."""

    line: int
    what: str
    source: str


def _changes(node: ast.AST) -> Iterator[tuple[str, ast.AST]]:
    """What may be changed in a node: words for it, and the node as it is then."""
    new: ast.AST = copy.copy(node)
    match node:
        case ast.Compare(ops=[op]) if type(op) in _COMPARE:
            other = _COMPARE[type(op)]
            new.ops = [other()]  # type: ignore[attr-defined]
            yield f"{type(op).__name__} to {other.__name__}", new
        case ast.BinOp(op=op, left=left) if type(op) in _BINARY and not _is_text(left):
            other_op = _BINARY[type(op)]
            new.op = other_op()  # type: ignore[attr-defined]
            yield f"{type(op).__name__} to {other_op.__name__}", new
        case ast.BoolOp(op=ast.And()):
            new.op = ast.Or()  # type: ignore[attr-defined]
            yield "and to or", new
        case ast.BoolOp(op=ast.Or()):
            new.op = ast.And()  # type: ignore[attr-defined]
            yield "or to and", new
        case ast.UnaryOp(op=ast.Not() | ast.USub(), operand=operand):
            yield "its sign or not left out", operand
        case ast.Constant(value=bool() as flag):
            new.value = not flag  # type: ignore[attr-defined]
            yield f"{flag} to {not flag}", new
        case ast.Constant(value=int() | float() as number):
            new.value = number + 1  # type: ignore[attr-defined]
            yield f"{number} to {number + 1}", new
        case ast.Call(func=ast.Name(id=name)) if name in _CALLS:
            new.func = ast.Name(id=_CALLS[name], ctx=ast.Load())  # type: ignore[attr-defined]
            yield f"{name} to {_CALLS[name]}", new


def _is_text(node: ast.AST) -> bool:
    return isinstance(node, ast.JoinedStr) or (
        isinstance(node, ast.Constant) and isinstance(node.value, str)
    )


#: parts of a node that are declared or said, not computed with
_DECLARED = ("annotation", "returns", "decorator_list", "format_spec", "slice")


def _is_rank(node: ast.AST) -> TypeGuard[ast.Call | ast.FunctionDef]:
    """Ranks of ``at(house=…, tap=…)`` and of ``_place``: they only order, the gaps between them
    mean nothing.
    """
    if isinstance(node, ast.FunctionDef):
        return node.name == "_place"
    return isinstance(node, ast.Call) and isinstance(node.func, ast.Name) and node.func.id == "at"


def _is_row(node: ast.AST) -> TypeGuard[ast.Tuple]:
    """A row of a working: its flag only says that it stands out."""
    return isinstance(node, ast.Tuple) and len(node.elts) > 2 and _is_text(node.elts[0])


def _left_out(node: ast.AST) -> Iterator[ast.AST]:
    """What of a node is not mutated, with all that hangs on it."""
    for field, value in ast.iter_fields(node):
        if field in _DECLARED:
            yield from value if isinstance(value, list) else [value]
    match node:
        case ast.keyword(arg="year"):
            yield node.value
        case ast.Call(keywords=keywords) if _is_rank(node):
            yield from keywords
        case ast.Tuple() if _is_row(node):
            yield from (e for e in node.elts if isinstance(e, ast.Constant) and e.value is True)


def _sites(tree: ast.Module) -> Iterator[tuple[ast.AST, str, int | None, ast.AST]]:
    """Every place of a tree where a node hangs: its parent, field, index and itself. What is only
    said or declared (formats, annotations, decorators, ranks, years of sources) is left out.
    """
    out = {
        id(inner)
        for node in ast.walk(tree)
        for left in _left_out(node)
        if isinstance(left, ast.AST)
        for inner in ast.walk(left)
    }
    out |= {id(n) for f in ast.walk(tree) if _is_rank(f) for n in _ranks(f)}
    for parent in ast.walk(tree):
        if isinstance(parent, ast.FormattedValue | ast.JoinedStr) or id(parent) in out:
            continue
        for field, value in ast.iter_fields(parent):
            nodes = enumerate(value) if isinstance(value, list) else [(None, value)]
            for i, node in nodes:
                if isinstance(node, ast.AST) and id(node) not in out:
                    yield parent, field, i, node


def _ranks(of: ast.AST) -> Iterator[ast.AST]:
    """Numbers that a function of ranks gives."""
    for node in ast.walk(of):
        if isinstance(node, ast.Return) and node.value is not None:
            given = node.value
            values = (given.body, given.orelse) if isinstance(given, ast.IfExp) else (given,)
            yield from (v for v in values if isinstance(v, ast.Constant))


def mutants(source: str) -> list[Mutant]:
    """Every mutant of a module, in the order of its lines."""
    tree, out = ast.parse(source), []
    for parent, field, i, node in _sites(tree):
        for what, new in _changes(node):
            if i is None:
                setattr(parent, field, new)
            else:
                getattr(parent, field)[i] = new
            text = ast.unparse(ast.fix_missing_locations(tree))
            out.append(Mutant(getattr(node, "lineno", 0), what, text))
            if i is None:
                setattr(parent, field, node)
            else:
                getattr(parent, field)[i] = node
    return sorted(out, key=lambda m: m.line)


#: replaces one module's source when it is imported, then runs the tests until the first one fails
_RUN = """
import importlib.abc, importlib.util, os, sys, unittest
name, path = os.environ["ZESTY_MUTANT"], os.environ["ZESTY_MUTANT_SOURCE"]
class Loader(importlib.abc.SourceLoader):
    def get_filename(self, fullname): return path
    def get_data(self, p): return open(path, "rb").read()
class Finder(importlib.abc.MetaPathFinder):
    def find_spec(self, fullname, where, target=None):
        if fullname == name:
            return importlib.util.spec_from_loader(fullname, Loader())
sys.dont_write_bytecode = True
sys.meta_path.insert(0, Finder())
from hypothesis import settings
import tests
settings.register_profile("mutate", deadline=None, max_examples=15, derandomize=True)
settings.load_profile("mutate")
suite = unittest.TestSuite()
for t in sys.argv[1:]:
    found = unittest.defaultTestLoader
    suite.addTests(
        found.discover(t.replace(".", "/"), top_level_dir=".")
        if os.path.isdir(t.replace(".", "/")) else found.loadTestsFromName(t))
result = unittest.TextTestRunner(stream=open(os.devnull, "w"), failfast=True).run(suite)
sys.exit(0 if result.wasSuccessful() else 1)
"""


def killed(name: str, mutant: Mutant, tests: list[str], folder: Path, number: int) -> bool:
    """Whether a test fails, or never ends, on a mutant of the module ``name``."""
    path = folder / f"mutant-{number}.py"
    path.write_text(mutant.source)
    env = os.environ | {"ZESTY_MUTANT": name, "ZESTY_MUTANT_SOURCE": str(path)}
    try:
        done = subprocess.run(
            [str(VENV / "bin" / "python"), "-c", _RUN, *tests],
            cwd=ROOT,
            env=env,
            capture_output=True,
            timeout=TIMEOUT_S,
        )
    except subprocess.TimeoutExpired:
        return True
    finally:
        path.unlink()
    return done.returncode != 0


def _module(text: str) -> Path:
    tried = [Path(text), ROOT / text, PACKAGE / text, CORE / text]
    allowed = (CORE, *(PACKAGE / layer for layer in LAYERS))
    for path in tried:
        if path.is_absolute() and path.is_file() and set(allowed) & set(path.parents):
            return path
    layers = ", ".join(LAYERS)
    raise Stop(f"{text} is no module of core, {layers}. Example: costing/money.py")


def _tests_of(path: Path) -> list[str]:
    """The tests that are to tell: of the folder of the core, or of the layer, and over the wire."""
    if CORE in path.parents:
        area = path.relative_to(CORE).parts[0].removesuffix(".py")
        return [*_OF.get(area, (f"tests.core.{area}",)), *_ALSO.get(area, ()), EXAMPLES]
    own = path.relative_to(PACKAGE).with_suffix("")
    named = ROOT / "tests" / own.parent / f"test_{own.name}.py"
    beside = ".".join(named.relative_to(ROOT).with_suffix("").parts)
    wired = _WIRED.get(str(own), ())
    alone = named.exists()
    return [*((beside,) if alone else ()), *wired] or [f"tests.{own.parts[0]}"]


def main(arguments: list[str]) -> int:
    """Break a module in every way, or in a sample of them; survivors as JSON. Status 1 where fewer
    are killed than ``--least``.
    """
    import tempfile

    parser = argparse.ArgumentParser(prog="./zesty mutate")
    parser.add_argument("module", help="e.g. costing/money.py, records/audit.py")
    parser.add_argument("--tests", nargs="*", help="test folders or modules, by their dotted names")
    parser.add_argument("--most", type=int, default=0, help="a sample of so many mutants")
    parser.add_argument("--least", type=float, default=0.0, help="the least share, e.g. 0.9")
    parser.add_argument("--seed", type=int, default=1, help="of the sample")
    given = parser.parse_args(arguments)
    path = _module(given.module)
    tests = given.tests or _tests_of(path)
    every = mutants(path.read_text())
    if given.most and given.most < len(every):
        every = sorted(random.Random(given.seed).sample(every, given.most))
    name = ".".join(path.relative_to(ROOT).with_suffix("").parts)
    step(f"{len(every)} mutants of {name}, tried with {', '.join(tests)}")
    with tempfile.TemporaryDirectory() as d, ThreadPoolExecutor(os.cpu_count() or 1) as pool:
        whole = Mutant(0, "nothing", path.read_text())
        if killed(name, whole, tests, Path(d), -1):
            raise Stop("The tests fail, or do not end, on the module as it is: mend that first.")
        numbered = list(enumerate(every))
        dead = list(pool.map(lambda p: killed(name, p[1], tests, Path(d), p[0]), numbered))
    left = [m for m, gone in zip(every, dead, strict=True) if not gone]
    told = {
        "module": name,
        "mutants": len(every),
        "killed": sum(dead),
        "share": round(sum(dead) / len(every), 3) if every else 1.0,
        "survivors": [{"line": m.line, "what": m.what} for m in left],
    }
    print(json.dumps(told, indent=2))
    return 0 if sum(dead) >= given.least * len(every) else 1


if __name__ == "__main__":
    sys.exit(guarded(main, sys.argv[1:]))
