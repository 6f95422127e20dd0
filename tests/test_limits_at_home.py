"""A limit stands once, in ``core/rules.py``; rules ask for it by its id."""

import ast
import unittest
from collections.abc import Iterator
from dataclasses import replace
from pathlib import Path

from tests.making import home, water
from zesty_glass.core.analytes import ANALYTES
from zesty_glass.core.home import Source
from zesty_glass.core.proposing.first import FIRST
from zesty_glass.core.proposing.looked_at import At
from zesty_glass.core.rules import LIMITS, Rules
from zesty_glass.core.testing.bottles import panel
from zesty_glass.core.testing.findings import meaning

CORE = Path(__file__).parents[1] / "zesty_glass" / "core"
#: numbers that are as large as a limit and say something else, each with what it says
NO_LIMIT = {
    "TANNIN_BINDS_IRON": "from where tannin holds iron back: of chemistry, not of looks",
    "IRON_LOOSENS": "from where a bed is loosened twice as often: of upkeep",
    "IRON_RULE_MG_L": "from where a softener regenerates every four days: of resin",
    "crosschecks:iron": "from where the cup, and the tannin kit, shows iron",
    "NITRATE_N_MOST": "carried water goes by the law’s maximum, whatever a firm goes by",
}


def _values() -> dict[str, set[float]]:
    """Values of limits by analyte; 0 and 1 stand for too much else."""
    out: dict[str, set[float]] = {}
    for limit in LIMITS:
        if limit.value not in (0.0, 1.0):
            out.setdefault(limit.analyte, set()).add(limit.value)
    return out


VALUES = _values()


def _analyte(text: str) -> str | None:
    """The analyte that a name in the code means."""
    words = text.lower()
    return next((a for a in sorted(VALUES, key=len, reverse=True) if words.startswith(a)), None)


def _numbers(*nodes: ast.AST) -> set[float]:
    found = (c for n in nodes for c in ast.walk(n) if isinstance(c, ast.Constant))
    return {float(c.value) for c in found if type(c.value) in (int, float)}


def _strings(*nodes: ast.AST) -> list[str]:
    return [n.value for n in nodes if isinstance(n, ast.Constant) and isinstance(n.value, str)]


def _of(node: ast.AST) -> Iterator[tuple[str, str, set[float]]]:
    """Names under which one node holds numbers, the analyte meant, and the numbers."""
    match node:
        case ast.Assign(targets=[ast.Name(id=name)], value=value) if name.isupper():
            yield name, _analyte(name) or "", _numbers(value)
        case ast.Compare(left=left, comparators=right):
            names = {n.id for s in (left, *right) for n in ast.walk(s) if isinstance(n, ast.Name)}
            plain = [s for s in (left, *right) if isinstance(s, ast.Constant)]
            for name in names:
                yield _analyte(name) or "", _analyte(name) or "", _numbers(*plain)
        case ast.Call(func=func, args=args) if not (
            isinstance(func, ast.Name) and func.id in ("Need", "limit")
        ):
            for name in _strings(*args):
                plain = [a for a in args if isinstance(a, ast.Constant)]
                yield name, _analyte(name) or "", _numbers(*plain)
        case ast.Dict(keys=keys, values=values):
            for key, value in zip(keys, values, strict=True):
                for name in _strings(key) if key is not None else ():
                    yield name, name if name in VALUES else "", _numbers(value)


def repeated(source: str, file: str) -> list[tuple[str, str]]:
    """Where a source repeats a limit: under what name, and which."""
    found = []
    for node in ast.walk(ast.parse(source)):
        for name, analyte, numbers in _of(node):
            held = VALUES.get(analyte, set()) & numbers
            key = name if name.isupper() else f"{file}:{analyte}"
            found += [(key, f"{file}:{getattr(node, 'lineno', 0)} {analyte} {v}") for v in held]
    return found


class LimitsAtHome(unittest.TestCase):
    def test_no_number_of_the_core_repeats_a_limit(self):
        files = [f for f in CORE.rglob("*.py") if f.name != "analyte_table.py"]
        found = [r for f in files for r in repeated(f.read_text(), f.stem)]
        self.assertEqual([where for key, where in found if key not in NO_LIMIT], [])
        self.assertEqual(set(NO_LIMIT) - {key for key, _ in found}, set(), "exceptions not needed")

    def test_a_number_that_does_is_found(self):
        for source in (
            "x = iron.best > 0.3",
            "x = at.surely('manganese', 0.05)",
            "IRON_STAINS = 0.3",
            "STAINS = {'iron': 0.3}",
            "x = lead is not None and 0.015 <= lead.high",
        ):
            self.assertTrue(repeated(source, "some"), source)

    def test_and_another_is_not(self):
        for source in (
            "x = iron.best > 0.4",
            "Need(analyte='iron', limit=0.3)",
            "x = hardness.best > 0.3",
            "x = rules.at('iron.stains')",
        ):
            self.assertEqual(repeated(source, "some"), [], source)

    def test_a_firm_that_changes_irons_limit_changes_it_wherever_it_is_asked(self):
        own = Rules(
            limits=tuple(
                replace(limit, value=0.2) if limit.id == "iron.stains" else limit
                for limit in LIMITS
            )
        )
        well, some = home(source=Source.WELL_DRILLED), water(iron=0.25, ph=7.4)
        for rules, asked in ((Rules(), False), (own, True)):
            at = At(
                water=some,
                meaning=meaning(some, well, (), rules),
                home=well,
                rules=rules,
            )
            said = [f.id for f in FIRST if f.holds(at)]
            self.assertEqual("manganese" in said, asked)
            bottles = {b.why for b in panel(well, frozenset(), some, rules)}
            self.assertEqual(any("iron brings" in why for why in bottles), asked)
            self.assertEqual(rules.at("iron.stains"), 0.2 if asked else 0.3)

    def test_a_limit_that_a_firm_of_an_older_day_lacks_is_the_published_one(self):
        self.assertEqual(Rules(limits=()).at("nitrate.us"), 10.0)

    def test_every_analyte_with_a_limit_is_known(self):
        self.assertLessEqual(set(VALUES), set(ANALYTES))


if __name__ == "__main__":
    unittest.main()
