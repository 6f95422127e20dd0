"""What must be on the machine before a command runs: Debian packages, the virtual environment, the
built page.

Standard library only: this runs before anything is installed.
"""

from __future__ import annotations

import ast
import compileall
import hashlib
import os
import shutil
import subprocess
import sys
from pathlib import Path

from .say import Stop, fail, guarded, step

ROOT = Path(__file__).resolve().parents[2]
VENV = ROOT / ".venv"
STATE = ROOT / ".zesty"
WEB = ROOT / "web"

_PRINTING = {
    "libpango-1.0.so.0": "libpango-1.0-0",
    "libpangoft2-1.0.so.0": "libpangoft2-1.0-0",
    "libharfbuzz-subset.so.0": "libharfbuzz-subset0",
}
#: command -> what it does, what it needs on the machine, what is typed after it
COMMANDS = {
    "demo": ("start everything with the demo firm and print the address", "run", ""),
    "serve": ("serve for a firm; configured by environment (see docs/operating.md)", "run", ""),
    "test": ("check and test everything", "test", "[PART ...]"),
    "bench": ("measure the figures and print them as JSON", "test", "[PART ...]"),
    "assess": ("work out a visit file and print JSON", "core", "VISIT.json"),
    "suggest": ("search a catalog for lines that answer a visit file", "core", "VISIT.json"),
    "docs": ("write the generated parts of docs/ anew", "core", "[--check]"),
    "shots": ("take the screenshots of docs/screenshots/ anew", "test", "[NAME ...]"),
    "client": ("write the page's API client anew", "page", "[--check]"),
    "migrate": ("bring a firm's database to the newest shape", "core", ""),
    "backup": ("write the whole database into one file, with its checksum", "core", "FILE"),
    "restore": ("read such a file into an empty database, and count", "core", "FILE"),
    "check": ("open and work out every visit of a database", "core", "[--strike]"),
    "audit": ("verify that the audit trail is as it was written", "core", ""),
    "remind": ("one message to every customer about what falls due", "core", ""),
    "forget": ("erase people whom firms keep no longer than their rule says", "core", ""),
    "messages": ("bring the languages up to date with the code", "core", ""),
    "mutate": ("break lines of a module, and see whether the tests tell", "test", "MODULE"),
    "answers": ("write all that is said of the demo’s homes and generated ones", "test", "FILE"),
    "say": ("print all that a customer gets for a home, to be read", "test", "--home N"),
    "fuzz": ("send generated requests against the interface", "test", "[--requests N] [--seed S]"),
    "install": ("install what is missing and build the page; start nothing", "run", ""),
    "let-in": ("make a code for somebody who is locked out", "core", "EMAIL"),
    "remove-firm": ("remove a firm that leaves, with all that is kept of it", "core", "NAME"),
    "add-firm": ("add a firm and its first manager", "core", "NAME EMAIL MANAGER"),
}
#: commands that measure, break or photograph the product: not shipped with it
TOOLS = frozenset({"answers", "bench", "fuzz", "mutate", "say", "shots"})
LEAST_NODE = 20
#: How long another installation on this machine is waited for [s].
LOCK_S = 300


def _library(name: str) -> bool:
    folders = [*Path("/usr/lib").glob("*-linux-gnu"), Path("/usr/lib"), Path("/lib")]
    return any((f / name).exists() for f in folders)


def _missing(need: str) -> list[str]:
    out = []
    if need in ("run", "test"):
        if (
            not any(Path("/usr/lib/postgresql").glob("*/bin/initdb"))
            and shutil.which("initdb") is None
        ):
            out.append("postgresql")
        out += [package for library, package in _PRINTING.items() if not _library(library)]
    if need == "test":
        out += [
            p
            for p, program in (
                ("chromium", "chromium"),
                ("chromium-driver", "chromedriver"),
                ("poppler-utils", "pdftoppm"),
            )
            if shutil.which(program) is None
        ]
        if not Path("/usr/share/fonts/truetype/liberation").exists():
            out.append("fonts-liberation")
    try:
        import ensurepip  # noqa: F401
        import venv  # noqa: F401
    except ImportError:
        out.append("python3-venv")
    return out


#: what package managers say where no network is
_AWAY = (
    "Temporary failure resolving",
    "name resolution",
    "Network is unreachable",
    "ENOTFOUND",
    "EAI_AGAIN",
    "ECONNREFUSED",
    "ENETUNREACH",
    "ConnectError",
    "dns error",
    "NewConnectionError",
    "No matching distribution found",
)
_FULL = ("No space left", "ENOSPC")


def _not_installed(what: str, said: str, most: int, otherwise: str) -> Stop:
    """Why something could not be installed, by what the package manager says."""
    if any(words in said for words in _FULL):
        return Stop("The disk is full: make room and start again.")
    if any(words in said for words in _AWAY):
        return Stop(f"{what}: no package registry is reached. Check the network, then start again.")
    return Stop(f"{what}:\n{said.strip()[-most:]}\n{otherwise}")


def _packages(need: str) -> None:
    missing = _missing(need)
    if not missing:
        return
    step(f"installing from Debian's packages: {' '.join(missing)}")
    if shutil.which("apt-get") is None:
        raise Stop(
            "This machine has no apt-get. Install these yourself, then start again:"
            f" {' '.join(missing)}"
        )
    sudo = [] if os.geteuid() == 0 else ["sudo"]
    if sudo and shutil.which("sudo") is None:
        raise Stop(
            "Packages are missing and there is no sudo. As root, run: apt-get install"
            f" {' '.join(missing)}"
        )
    env = os.environ | {"DEBIAN_FRONTEND": "noninteractive"}
    keep = ["--preserve-env=DEBIAN_FRONTEND"] if sudo else []
    # A machine just started often updates itself: its lock is waited for.
    wait = ["-o", f"DPkg::Lock::Timeout={LOCK_S}"]
    for command in (
        ["apt-get", "update", "-qq", *wait],
        ["apt-get", "install", "-y", "-qq", *wait, "--no-install-recommends", *missing],
    ):
        done = subprocess.run(
            [*sudo, *(keep if sudo else []), *command], env=env, capture_output=True, text=True
        )
        if done.returncode:
            raise _not_installed(
                f"Debian's packages {' '.join(missing)} could not be installed",
                done.stderr or done.stdout,
                600,
                "Install them yourself, then start again.",
            )


def _mark(path: Path) -> str:
    return hashlib.sha256(path.read_bytes()).hexdigest()


def _environment(lock: Path) -> None:
    """The virtual environment as the lock says; skipped when it is that already."""
    mark = VENV / f".{lock.stem}"
    stronger = VENV / ".requirements-dev"
    want = _mark(lock)
    if (mark.exists() and mark.read_text() == want) or (
        lock.stem == "requirements"
        and stronger.exists()
        and stronger.read_text() == _mark(ROOT / "requirements-dev.txt")
    ):
        return
    python = VENV / "bin" / "python"
    if not python.exists():
        step("making the virtual environment")
        done = subprocess.run(
            [sys.executable, "-m", "venv", str(VENV)], capture_output=True, text=True
        )
        if done.returncode:
            raise Stop(
                "The virtual environment could not be made:"
                f" {done.stdout.strip() or done.stderr.strip()}\nRun: sudo apt-get install"
                " python3-venv"
            )
    step("installing Python packages")
    for command in (
        [
            str(python),
            "-m",
            "pip",
            "install",
            "-q",
            "--disable-pip-version-check",
            "--require-hashes",
            "-r",
            str(ROOT / "requirements-uv.txt"),
        ],
        [
            str(VENV / "bin" / "uv"),
            "pip",
            "sync",
            "-q",
            "--compile-bytecode",
            "--require-hashes",
            str(lock),
        ],
    ):
        done = subprocess.run(
            command,
            cwd=ROOT,
            capture_output=True,
            text=True,
            env=os.environ
            | {
                "VIRTUAL_ENV": str(VENV),
                "UV_NO_PROGRESS": "1",
                "UV_SYSTEM_CERTS": "1",
                "UV_NATIVE_TLS": "1",
                "UV_LINK_MODE": "copy",
            },
        )
        if done.returncode:
            raise _not_installed(
                "Python packages could not be installed", done.stderr, 800, "Then start again."
            )
    for other in VENV.glob(".requirements*"):
        other.unlink()
    mark.write_text(want)


def tree_mark() -> str:
    """A digest of everything the page is built from."""
    h = hashlib.sha256()
    files = [
        *sorted((WEB / "src").rglob("*")),
        *(WEB / n for n in ("index.html", "vite.config.ts", "package-lock.json", "tsconfig.json")),
        ROOT / "zesty_glass" / "documents" / "glass.json",
    ]
    for f in files:
        if f.is_file():
            h.update(str(f.relative_to(ROOT)).encode())
            h.update(f.read_bytes())
    return h.hexdigest()


def _npm(*arguments: str) -> None:
    done = subprocess.run(["npm", *arguments], cwd=WEB, capture_output=True, text=True)
    if done.returncode:
        raise _not_installed(
            "The page's packages could not be installed"
            if arguments[0] == "ci"
            else "The page could not be built",
            done.stderr or done.stdout,
            1200,
            "Then start again.",
        )


def _node() -> None:
    """Stop, before anything is installed, where Node is too old."""
    said = subprocess.run(["node", "--version"], capture_output=True, text=True).stdout.strip()
    major = said.lstrip("v").split(".")[0]
    if not major.isdigit() or int(major) < LEAST_NODE:
        raise Stop(
            f"Node {LEAST_NODE} or newer is needed to build the page; found {said or 'none'}."
            " Debian 13: sudo apt-get install nodejs npm. Debian 12 has Node 18: take Node"
            f" {LEAST_NODE} from nodejs.org or from Debian's backports, then start again."
        )


def _modules() -> None:
    want = _mark(WEB / "package-lock.json")
    mark = WEB / "node_modules" / ".zesty-lock"
    if mark.exists() and mark.read_text() == want:
        return
    if shutil.which("npm") is None:
        raise Stop("Node 20 with npm is needed to build the page. Install it, then start again.")
    _node()
    step("installing the page's packages (about a minute the first time)")
    _npm("ci", "--no-progress", "--no-audit", "--no-fund")
    mark.write_text(want)


def _packed() -> None:
    """The page's texts compressed beside them; without it they are served as they are."""
    python = str(VENV / "bin" / "python")
    folders = (str(WEB / "dist"), str(WEB / "src"))
    subprocess.run([python, "-m", "zesty_glass.cli.packed", *folders], cwd=ROOT, check=False)


def _page(with_modules: bool) -> None:
    """The built page; built anew only when its sources changed."""
    mark = WEB / "dist" / ".built-from"
    built = mark.exists() and mark.read_text() == tree_mark()
    if with_modules or not built:
        _modules()
    if not built:
        step("building the page")
        _npm("run", "build", "--silent")
        _packed()
        mark.write_text(tree_mark())


def _compiled() -> None:
    """Our own modules as bytecode, where Python is told not to write it by itself: without it every
    start compiles all of them.
    """
    if sys.dont_write_bytecode:
        compileall.compile_dir(ROOT / "zesty_glass", quiet=2)


def ready(need: str) -> None:
    """Bring the machine to what a command needs."""
    _packages(need)
    _environment(ROOT / ("requirements-dev.txt" if need == "test" else "requirements.txt"))
    _compiled()
    if need in ("run", "test"):
        _page(with_modules=need == "test")
    if need == "page":
        _modules()


def _usage() -> int:
    print("Zesty Glass\n\nusage: ./zesty COMMAND\n")
    for name, (what, _, _) in COMMANDS.items():
        print(f"  {name:<11} {what}")
    print("\n./zesty COMMAND --help says more, and does nothing.")
    return 0


def _help(name: str) -> int:
    """A command's own help: nothing is installed or done for it."""
    what, need, typed = COMMANDS[name]
    wants = {
        "run": "PostgreSQL and Node 20",
        "test": "also Chromium",
        "page": "Node 20",
        "core": "Python alone",
    }
    print(f"usage: ./zesty {name} {typed}".rstrip())
    print(f"\n{what[0].upper()}{what[1:]}.")
    print(f"It installs what is missing when it is run ({wants[need]}). See README.md and docs/.")
    _own_options(name)
    return 0


def _own_options(name: str) -> None:
    """What a command takes, as its source declares it: nothing is loaded to say it."""
    source = ROOT.joinpath(*_module(name).split(".")).with_suffix(".py")
    tree = ast.parse(source.read_text())
    for call in ast.walk(tree):
        of = call.func if isinstance(call, ast.Call) else None
        if not (isinstance(of, ast.Attribute) and of.attr == "add_argument"):
            continue
        assert isinstance(call, ast.Call)  # as looked at above
        said = next((k.value for k in call.keywords if k.arg == "help"), None)
        first = call.args[0]
        if isinstance(first, ast.Constant) and isinstance(said, ast.Constant):
            declared, told = str(first.value), str(said.value)
            print(f"  {declared:<14} {told}")


def _module(name: str) -> str:
    """The module behind a command; what is no part of the product stands apart."""
    folder = "tools" if name in TOOLS else "zesty_glass.cli"
    return f"{folder}.{name.replace('-', '_')}"


def main(arguments: list[str]) -> int:
    """Make the machine ready, then hand over to the command inside the virtual environment."""
    return guarded(_command, arguments)


def _command(arguments: list[str]) -> int:
    if not arguments or arguments[0] in ("-h", "--help", "help"):
        return _usage()
    name = arguments[0]
    if name not in COMMANDS:
        return fail(f"there is no command “{name}”. Run ./zesty alone for the list.")
    if {"-h", "--help"} & set(arguments[1:]):
        return _help(name)
    ready(COMMANDS[name][1])
    sys.stdout.flush()
    python = str(VENV / "bin" / "python")
    found = os.environ | {"PYTHONPATH": str(ROOT)}  # from whatever folder it is called
    os.execve(python, [python, "-m", _module(name), *arguments[1:]], found)
