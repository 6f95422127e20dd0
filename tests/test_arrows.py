"""The house rules that a machine can check: imports run one way, and no file names what it should
not.
"""

import ast
import unittest
from importlib import import_module
from pathlib import Path

ROOT = Path(__file__).resolve().parents[1]
PACKAGE = ROOT / "zesty_glass"
#: layer -> layers it may import from
MAY = {
    "core": set(),
    "catalogue": {"core", "documents"},
    "documents": {"core"},
    "records": {"core", "catalogue"},
    "standins": {"core"},
    "work": {"core", "catalogue", "documents", "records", "standins"},
    "api": {"core", "catalogue", "documents", "records", "standins", "work"},
    "demo": {"core", "catalogue", "documents", "records", "standins", "work"},
    "cli": {"core", "catalogue", "documents", "records", "standins", "work", "api", "demo"},
}
#: lines of a file; data may have more
WIDEST = 100
LONGEST, DATA = 500, {"zesty_glass/core/rules.py"}
#: the rooms of the core, each built on those before it; a file beside the rooms that is not named
#: here is foundation
ROOMS = (
    "foundation",
    "testing",
    "treating",
    "costing",
    "aftercare",
    "searching",
    "demonstrating",
    "proposing",
    "visit",
    "spending",
    "worked",
    "assess",
    "presenting",
)
STANDARD_ONLY = {
    "unicodedata",
    "bisect",
    "calendar",
    "__future__",
    "collections",
    "dataclasses",
    "datetime",
    "decimal",
    "enum",
    "functools",
    "hashlib",
    "heapq",
    "itertools",
    "math",
    "operator",
    "random",
    "re",
    "statistics",
    "types",
    "typing",
}


def imports(file):
    layer = file.relative_to(PACKAGE).parts
    for node in ast.walk(ast.parse(file.read_text())):
        if isinstance(node, ast.Import):
            yield from (a.name for a in node.names)
        elif isinstance(node, ast.ImportFrom):
            if node.level:
                base = ["zesty_glass", *layer[:-1]]
                base = base[: len(base) - node.level + 1]
                yield ".".join(base + ([node.module] if node.module else []))
            else:
                yield node.module


def room(name):
    return ROOMS.index(name) if name in ROOMS else 0


class Arrows(unittest.TestCase):
    def test_imports_run_one_way(self):
        for file in PACKAGE.rglob("*.py"):
            layer = file.relative_to(PACKAGE).parts[0]
            if layer not in MAY:
                continue
            for name in imports(file):
                parts = name.split(".")
                if parts[0] == "zesty_glass" and len(parts) > 1 and parts[1] in MAY:
                    self.assertIn(parts[1], MAY[layer] | {layer}, f"{file}: {name}")

    def test_the_rooms_of_the_core_are_built_on_those_before_them(self):
        core = PACKAGE / "core"
        for file in core.rglob("*.py"):
            for name in imports(file):
                parts = name.split(".")
                if parts[:2] == ["zesty_glass", "core"] and len(parts) > 2:
                    mine = room(file.relative_to(core).with_suffix("").parts[0])
                    self.assertLessEqual(room(parts[2]), mine, f"{file}: {name}")

    def test_no_file_is_longer_than_one_reads_but_data(self):
        page = [f for f in (ROOT / "web" / "src").rglob("*") if f.suffix in (".ts", ".tsx", ".css")]
        files = [*PACKAGE.rglob("*.py"), *(ROOT / "tests").rglob("*.py"), *page]
        long = {
            str(f.relative_to(ROOT))
            for f in files
            if "generated" not in f.name and len(f.read_text().splitlines()) > LONGEST
        }
        self.assertLessEqual(long, DATA)

    def test_no_condition_hangs_within_another(self):
        nested = [
            f"{path.relative_to(ROOT)}:{node.lineno}"
            for path in sorted((ROOT / "zesty_glass").rglob("*.py"))
            for node in ast.walk(ast.parse(path.read_text()))
            if isinstance(node, ast.IfExp)
            and any(isinstance(x, ast.IfExp) for x in (node.body, node.orelse, node.test))
        ]
        self.assertEqual(nested, [])

    def test_no_line_is_wider_than_the_formatters_let_it(self):
        root = PACKAGE.parent
        own = [*PACKAGE.rglob("*.py"), *(root / "tests").rglob("*.py")]
        page = (root / "web" / "src").rglob("*")
        own += [f for f in page if f.suffix in (".ts", ".tsx", ".css")]
        wide = [
            f"{f.relative_to(root)}:{n}"
            for f in own
            if "generated" not in f.name
            for n, line in enumerate(f.read_text().splitlines(), 1)
            if len(line) > WIDEST
        ]
        self.assertEqual(wide, [])

    def test_the_core_needs_the_standard_library_only(self):
        for file in (PACKAGE / "core").rglob("*.py"):
            for name in imports(file):
                root = name.split(".")[0]
                self.assertTrue(root == "zesty_glass" or root in STANDARD_ONLY, f"{file}: {name}")

    def test_every_migration_reaches_the_models(self):
        from alembic.autogenerate import compare_metadata
        from alembic.migration import MigrationContext

        from tests.database import fresh
        from zesty_glass.records.base import Base
        from zesty_glass.records.db import make_engine

        for file in (PACKAGE / "records").glob("*models.py"):
            import_module(f"zesty_glass.records.{file.stem}")
        self.assertGreater(len(Base.metadata.tables), 25)

        engine = make_engine(fresh(demo=False))
        self.addCleanup(engine.dispose)
        with engine.connect() as c:
            self.assertEqual(compare_metadata(MigrationContext.configure(c), Base.metadata), [])
