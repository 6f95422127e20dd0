"""A technology is known by its own file: nothing else asks for it by its name."""

import ast
import unittest
from pathlib import Path

from zesty_glass.core.aftercare.proof import CAUSES
from zesty_glass.core.aftercare.steps import LIBRARY
from zesty_glass.core.in_place import KINDS
from zesty_glass.core.treating.stages import TECHNOLOGIES, does, service_of

PACKAGE = Path(__file__).parents[1] / "zesty_glass"
#: where a technology is told, and what stands in homes already
AT_HOME = ("core/treating/stages/", "core/in_place.py")
#: words that mean something else too: analytes, parts, bottles, glasses, colors, drains, sheets
ALSO = {"tannin", "arsenic", "nitrate", "membrane", "sediment", "cartridge", "pitcher", "bypass"}
ALSO |= {"regulator", "distiller"}
#: a name that is no rule
ELSEWHERE = {
    ("api/parameters.py", "softener"): "an example of a kind",
    ("cli/machine.py", "uv"): "a program of that name",
    ("documents/visit_file.py", "softener"): "the name of a choice in older files",
    ("core/proposing/schools.py", "salt_free"): "a school's own id",
}


def named(source: str, file: str = "") -> list[tuple[str, str]]:
    """Technologies that a source names: by any string, and of the words that mean something else
    too, by what is held against a kind.
    """
    tree = ast.parse(source)
    strings = [
        n.value
        for n in ast.walk(tree)
        if isinstance(n, ast.Constant) and n.value in TECHNOLOGIES and n.value not in ALSO
    ]
    for n in ast.walk(tree):
        if isinstance(n, ast.Compare):
            sides = (n.left, *n.comparators)
            held = [x for s in sides for x in ast.walk(s)]
            kind = any(
                (isinstance(x, ast.Attribute) and x.attr in ("kind", "kinds"))
                or (isinstance(x, ast.Name) and x.id == "kinds")
                for x in held
            )
            sample = any(isinstance(x, ast.Name) and x.id == "sample" for x in held)
            if kind and not sample:
                strings += [
                    x.value for x in held if isinstance(x, ast.Constant) and x.value in ALSO
                ]
    return [(file, s) for s in strings]


class TechnologiesAtHome(unittest.TestCase):
    def test_nothing_else_names_one(self):
        found = []
        for path in sorted(PACKAGE.rglob("*.py")):
            file = str(path.relative_to(PACKAGE))
            if not file.startswith(AT_HOME):
                found += named(path.read_text(), file)
        self.assertEqual(set(found) - set(ELSEWHERE), set())
        self.assertEqual(set(ELSEWHERE) - set(found), set(), "exceptions not needed")

    def test_what_names_one_is_found(self):
        for source in ("x = 'softener'", "x = s.kind == 'membrane'", "x = 'sediment' in kinds"):
            self.assertTrue(named(source), source)
        for source in ("x = water.range('tannin')", "parts = ('membrane',)", "x = 'softens'"):
            self.assertEqual(named(source), [], source)

    def test_every_sheet_is_named_by_a_technology_and_every_name_is_a_sheet(self):
        of_stages = {t.id for t in LIBRARY if t.of_stage}
        self.assertEqual({s for t in TECHNOLOGIES.values() for s in t.service.sheets}, of_stages)

    def test_every_cause_that_is_named_is_one(self):
        named_causes = {c for t in TECHNOLOGIES.values() for c in t.service.causes}
        self.assertLessEqual(named_causes, {c.id for c in CAUSES})

    def test_what_stands_in_homes_does_something_that_a_technology_does(self):
        all_done = {d for t in TECHNOLOGIES.values() for d in t.does}
        self.assertLessEqual({d for k in KINDS.values() for d in k.does}, all_done)

    def test_nothing_is_known_of_what_is_no_technology(self):
        self.assertEqual((does("in_place"), service_of("in_place").sheets), (frozenset(), ()))


if __name__ == "__main__":
    unittest.main()
