"""``./zesty shots``: one current picture of each main view, made from the demo data."""

from __future__ import annotations

import sys
from uuid import UUID

from zesty_glass.cli.machine import ROOT
from zesty_glass.cli.say import Stop, guarded, step
from zesty_glass.demo.homes import uid
from zesty_glass.demo.people import EMAIL, MANAGER_EMAIL, PASSWORD
from zesty_glass.work.jobs import job_id

FOLDER = ROOT / "docs" / "screenshots"
_HOME = f"/visits/{uid('home-1-visit')}"
_JOB = f"/jobs/{job_id(UUID(uid('past-4-proposal')))}"
#: name -> (path, size, something that is on it)
VIEWS: dict[str, tuple[str, tuple[int, int], str]] = {
    "today": ("/", (1280, 800), "days over"),
    "test-meter": (f"{_HOME}/test?kit=tds", (1280, 800), "true value lies between"),
    "test-drops": (f"{_HOME}/test?kit=hardness", (1280, 800), "Strike this reading"),
    "test-colour": (
        f"/visits/{uid('home-4-visit')}/test?kit=colour",
        (1280, 800),
        "Color, in three cups",
    ),
    "laboratory": (f"/visits/{uid('home-3-visit')}/test?kit=lab", (1280, 800), "Bottles to draw"),
    "kits-and-limits": ("/firm", (1280, 800), "Limits, with source"),
    "meaning": (f"{_HOME}/meaning", (1280, 800), "What bothers them"),
    "line": (f"{_HOME}/line?line={uid('home-1-option-b')}", (1280, 800), "regenerates every"),
    "suggest": (f"{_HOME}/line", (1280, 800), "wastewater a year"),
    "compare": (f"{_HOME}/compare", (1280, 800), "Total cost"),
    "show-glass": (f"{_HOME}/facing/glass", (1280, 800), "What it does not show"),
    "show-side-by-side": (
        f"/visits/{uid('home-6-visit')}/facing/side_by_side",
        (1280, 800),
        "not flushed yet",
    ),
    "proposal": (f"/proposals/{uid('home-1-proposal')}", (1280, 800), "What was compared"),
    "nothing-needed": (f"/visits/{uid('home-7-visit')}/meaning", (1280, 800), "Nothing needed"),
    "due": ("/due", (1280, 800), "Jobs that wait"),
    "job-steps": (f"{_JOB}?part=steps&sheet=pipe", (820, 1180), "Take along"),
    "job-proof": (f"{_JOB}?part=proof", (1280, 800), "falls short"),
    "home-years": ("/homes?find=kettleby", (1280, 800), "over the years"),
    "monday": ("/monday", (1280, 800), "Who is where today"),
}
#: views that only a manager has
OF_MANAGERS = frozenset({"monday"})
#: what is touched first, to come to the view
PRESSED: dict[str, tuple[tuple[str, str], ...]] = {
    "suggest": (("button", "Propose systems"),),
    "home-years": (("a", "Orrin Kettleby"),),
}


def _as_demo() -> str:
    """A database with what ``./zesty demo`` loads."""
    from tests.database import SECRET, fresh
    from zesty_glass.demo.load import load_demo
    from zesty_glass.records.db import make_engine, make_sessions
    from zesty_glass.work import seals

    database = fresh(demo=False)
    engine = make_engine(database)
    load_demo(make_sessions(engine, **{seals.KEYS: seals.keys_from(SECRET)}), two_years=True)
    engine.dispose()
    return database


def main(arguments: list[str]) -> int:
    """Take all pictures, or those named."""
    sys.path.insert(0, str(ROOT))
    from tests.browser.driving import Browser
    from tests.browser.serving import Served

    if unknown := sorted(set(arguments) - set(VIEWS)):
        raise Stop(f"There is no view {unknown[0]}. There are: {', '.join(VIEWS)}.")
    FOLDER.mkdir(parents=True, exist_ok=True)
    served, browser = Served(_as_demo()), Browser()
    try:
        browser.sign_in(served.base, EMAIL, PASSWORD)
        for name, (path, size, text) in VIEWS.items():
            if arguments and name not in arguments:
                continue
            browser.size(*size)
            if name in OF_MANAGERS:
                browser.sign_in(served.base, MANAGER_EMAIL, PASSWORD)
            browser.go(served.base + path)
            for css, words in PRESSED.get(name, ()):
                browser.click(css, words)
            browser.see(text)
            browser.shot(FOLDER / f"{name}.png")
            step(name)
    finally:
        browser.close()
        served.close()
    return 0


if __name__ == "__main__":
    sys.exit(guarded(main, sys.argv[1:]))
