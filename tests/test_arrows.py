"""The house rules that a machine can check: imports run one way, and no file names what it should
not.
"""

import ast
import re
import unittest
from importlib import import_module
from pathlib import Path

ROOT = Path(__file__).resolve().parents[1]
PACKAGE = ROOT / "zesty_glass"
#: layer -> layers it may import from
MAY = {
    "core": set(),
    "messages": {"core"},
    "documents": {"core", "messages"},
    "catalogue": {"core", "documents"},
    "records": {"core"},
    "standins": {"core"},
    "work": {"core", "messages", "documents", "catalogue", "records", "standins"},
    "demo": {"core", "documents", "catalogue", "records", "work"},
    "api": {"core", "messages", "documents", "catalogue", "records", "standins", "work"},
    "cli": {"core", "messages", "documents", "catalogue", "records", "standins", "work"}
    | {"demo", "api"},
}
#: lines of a file; data may have more
WIDEST = 100
LONGEST, DATA = 500, {"zesty_glass/core/analyte_table.py"}
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


def imports(file, source=None):
    """Everything that a module imports, at its head or later, each thing by its whole name."""
    inside = ["zesty_glass", *file.relative_to(PACKAGE).parts[:-1]]
    for node in ast.walk(ast.parse(file.read_text() if source is None else source)):
        if isinstance(node, ast.Import):
            yield from (a.name for a in node.names)
        elif isinstance(node, ast.ImportFrom):
            above = inside[: len(inside) - node.level + 1] if node.level else []
            base = [*above, *([node.module] if node.module else [])]
            yield from (".".join([*base, a.name]) for a in node.names)


def layer_of(name):
    """The layer that a thing stands in; none where it is not ours, or the package itself."""
    parts = name.split(".")
    return parts[1] if parts[0] == "zesty_glass" and parts[1:2] != ["__version__"] else None


def against(file, source=None):
    """What a module imports and may not, by its layer."""
    mine = file.relative_to(PACKAGE).parts[0]
    layers = ((name, layer_of(name)) for name in imports(file, source))
    return [name for name, layer in layers if layer and layer not in MAY[mine] | {mine}]


def modules():
    """Every module by its name; a package by the name of its folder."""
    for file in PACKAGE.rglob("*.py"):
        parts = ["zesty_glass", *file.relative_to(PACKAGE).with_suffix("").parts]
        yield ".".join(parts[:-1] if parts[-1] == "__init__" else parts), file


def circles(uses):
    """Sets of modules that lead back to themselves."""
    from graphlib import CycleError, TopologicalSorter

    try:
        TopologicalSorter(uses).prepare()
    except CycleError as e:
        return e.args[1]
    return []


def room(name):
    return ROOMS.index(name) if name in ROOMS else 0


class Arrows(unittest.TestCase):
    def test_every_folder_is_a_layer(self):
        folders = {d.name for d in PACKAGE.iterdir() if d.is_dir() and d.name != "__pycache__"}
        self.assertEqual(folders, set(MAY))

    def test_imports_run_one_way(self):
        for file in PACKAGE.glob("*/**/*.py"):
            self.assertEqual(against(file), [], file)

    def test_no_module_leads_back_to_itself(self):
        known = dict(modules())
        uses = {}
        for module, file in known.items():
            found = (n if n in known else n.rpartition(".")[0] for n in imports(file))
            uses[module] = {n for n in found if n in known and n != module}
        self.assertEqual(circles(uses), [])

    def test_the_guards_guard(self):
        """What must be told, whichever way it is written."""
        words, deep = PACKAGE / "core" / "words.py", PACKAGE / "core" / "treating" / "line.py"
        for file, source, told in (
            (words, "from ..messages import catalogue", "zesty_glass.messages.catalogue"),
            (words, "from .. import cli", "zesty_glass.cli"),
            (words, "def f():\n    from ..api import app", "zesty_glass.api.app"),
            (words, "import zesty_glass.work.jobs", "zesty_glass.work.jobs"),
            (deep, "from ... import records", "zesty_glass.records"),
            (
                PACKAGE / "work" / "jobs.py",
                "from ..api.may import Policy",
                "zesty_glass.api.may.Policy",
            ),
        ):
            with self.subTest(source):
                self.assertEqual(against(file, source), [told])
        self.assertEqual(against(words, "from . import units\nimport math"), [])
        self.assertEqual(against(PACKAGE / "api" / "app.py", "from .. import __version__"), [])
        self.assertTrue(circles({"a": {"b"}, "b": {"c"}, "c": {"a"}}))

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
        files = [*PACKAGE.rglob("*.py"), *page]
        for folder in ("tests", "tools"):
            files += (ROOT / folder).rglob("*.py")
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
        own = [f for d in (PACKAGE, root / "tests", root / "tools") for f in d.rglob("*.py")]
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

    def test_a_color_stands_in_the_tokens_alone(self):
        page = PACKAGE.parent / "web" / "src"
        told = [
            f"{f.relative_to(page)}:{n}"
            for f in page.rglob("*.ts*")
            if "generated" not in f.name
            for n, line in enumerate(f.read_text().splitlines(), 1)
            if re.search(r"#(?:[0-9A-Fa-f]{6}|[0-9A-Fa-f]{3})\b", line)
        ]
        self.assertEqual(told, [])

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
