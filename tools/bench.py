"""``./zesty bench``: the figures, measured on this machine, as JSON."""

from __future__ import annotations

import argparse
import gzip
import http.client
import json
import os
import re
import resource
import shutil
import signal
import statistics
import subprocess
import sys
import tempfile
import time
from collections.abc import Callable
from dataclasses import replace
from datetime import UTC, date, datetime
from pathlib import Path
from typing import Any

from zesty_glass.catalogue.examples import example_items
from zesty_glass.cli.cluster import free_port
from zesty_glass.cli.machine import ROOT, WEB
from zesty_glass.cli.say import guarded, step
from zesty_glass.cli.serve import quiet_collector
from zesty_glass.core.assess import assess
from zesty_glass.core.presenting.comparison import compare
from zesty_glass.core.presenting.offer import make_offer
from zesty_glass.core.proposing.proposal import Proposal, digest
from zesty_glass.core.testing.findings import meaning
from zesty_glass.core.testing.water import design_water
from zesty_glass.core.treating.line import walk
from zesty_glass.core.treating.option import Option, StageChoice
from zesty_glass.core.visit import Visit
from zesty_glass.demo.homes import demo_visits, home_1, home_3, home_5, uid
from zesty_glass.demo.load import EMAIL, PASSWORD
from zesty_glass.documents import visit_file
from zesty_glass.work.catalogue import Question

from .bench_firm import firm
from .bench_morning import morning
from .bench_trouble import trouble
from .large import large_catalogue
from .signed import sign_in


def timed(work: Callable[[], Any], times: int) -> dict[str, float]:
    """Milliseconds of a piece of work: median and 95th percentile."""
    work()
    quiet_collector()
    spent = []
    for _ in range(times):
        start = time.perf_counter()
        work()
        spent.append(1000 * (time.perf_counter() - start))
    spent.sort()
    return {
        "median_ms": round(statistics.median(spent), 2),
        "p95_ms": round(spent[int(0.95 * (times - 1))], 2),
    }


def core() -> dict[str, Any]:
    """Figures of the core alone."""
    at = datetime(2026, 11, 20, 9, 0, tzinfo=UTC)
    v = home_1(at)
    two = replace(v, options=v.options[:2], horizon=20)
    four = _four_of_ten(v)
    return {
        "compare_four_options_of_ten_stages_20_years": timed(
            lambda: compare(four, (20,), bands=False), 60
        ),
        "the_same_with_low_and_high_use": timed(lambda: compare(four, (20,)), 60),
        "assess_four_options_of_ten_stages_20_years": timed(lambda: assess(four), 60),
        "assess_two_lines_20_years": timed(lambda: assess(two), 200),
        "assess_all_seven_homes": timed(lambda: [assess(h) for h in demo_visits(at)], 10),
    }


def _four_of_ten(v: Visit) -> Visit:
    """Four options of ten stages each, over 20 years: the comparison of a large proposal."""
    items = example_items()
    lines = (
        (
            "SD-20B",
            "AC-B15",
            "FE-A10",
            "SO-20",
            "CC-15",
            "UV-12H",
            "SD-T10",
            "CB-T",
            "RO-75M",
            "CP-T",
        ),
        (
            "SD-20S",
            "AC-U15",
            "FE-L12",
            "SO-30",
            "CC-45",
            "UV-20H",
            "SD-T10",
            "CB-T",
            "RO-75E",
            "CP-T",
        ),
        (
            "SD-20A",
            "AC-M15",
            "FE-A08L",
            "SO-15",
            "CB-15",
            "UV-15V",
            "SD-T10",
            "CB-T",
            "RO-TL4",
            "CP-T",
        ),
        (
            "SD-50",
            "AC-B25",
            "FE-D10",
            "SO-10",
            "CB-10",
            "UV-12H",
            "SD-T10",
            "CB-T",
            "RO-50B",
            "CP-T",
        ),
    )
    options = tuple(
        Option(
            id=uid(f"bench-{n}"), name=f"Line {n}", stages=tuple(StageChoice(item=c) for c in codes)
        )
        for n, codes in enumerate(lines)
    )
    return replace(
        v,
        options=options,
        catalogue=items,
        horizon=20,
        recommended=None,
        proposals=(),
        demonstrations=(),
    )


def search() -> dict[str, Any]:
    """A line of eight stages, and the search over a generated catalog of 500 items on three of
    the demo's waters.
    """
    at = datetime(2026, 11, 20, 9, 0, tzinfo=UTC)
    items = {i.code: i for i in example_items()}
    out: dict[str, Any] = {}
    v = home_3(at)
    raw = design_water(v.samples)
    assert raw is not None
    colour = meaning(raw, v.home, v.complaints, v.rules).colour
    eight = Option(
        id="x",
        name="x",
        stages=tuple(
            StageChoice(item=c)
            for c in ("SD-20B", "AC-B15", "FE-A10", "SO-20", "CC-15", "UV-12H", "CB-T", "RO-75M")
        ),
    )
    out["line_of_eight_stages"] = timed(
        lambda: walk(eight, items, raw, colour, v.home, v.settings), 200
    )
    large = {i.code: i for i in large_catalogue(500)}
    for name, home in (
        ("hard town water with chloramine", home_1(at)),
        ("granite well with fluoride and arsenic", home_5(at)),
        ("acid well with iron and manganese", home_3(at)),
    ):
        asked = Question(visit=home, items=large)
        found = asked.suggest()
        out[f"search_500: {name}"] = {
            **timed(asked.suggest, 3),
            "combinations": found.combinations,
            "walked_to_the_end": found.walked,
            "never_evaluated": found.never,
            "stages_worked_out": found.stages,
            "lines": len(found.lines),
        }
    out["peak_memory_mb"] = round(resource.getrusage(resource.RUSAGE_SELF).ru_maxrss / 1024, 1)
    out["why_sound"] = found.why
    return out


def pdf() -> dict[str, Any]:
    """A proposal's PDF, once warm."""
    from zesty_glass.documents.pdf import proposal_pdf

    now = datetime(2026, 11, 20, 9, 0, tzinfo=UTC)
    offer = make_offer(
        home_1(now),
        number="261120-BENCH",
        revision=1,
        created_at=now,
        valid_until=date(2026, 12, 20),
        recommended=uid("home-1-option-b"),
        reasons="",
    )
    proposal = Proposal(
        id="bench",
        number="261120-BENCH",
        recommended="b",
        reasons="",
        created_at=now,
        valid_until=date(2026, 12, 20),
        snapshot="{}",
        digest=digest("{}"),
    )
    sizes: list[int] = []
    return {
        **timed(lambda: sizes.append(len(proposal_pdf(offer, proposal))), 7),
        "bytes": sizes[-1],
    }


def scripts() -> dict[str, int]:
    """Gzipped bytes of the scripts that signing in and the visit load at once, and of
    all scripts.
    """
    page = (WEB / "dist" / "index.html").read_text()
    first = set(re.findall(r'(?:src|href)="/(assets/[^"]+\.js)"', page))
    every = [p for p in (WEB / "dist" / "assets").glob("*.js")]

    def size(p: Path) -> int:
        return len(gzip.compress(p.read_bytes(), 9))

    return {
        "sign_in_and_visit_bytes": sum(size(WEB / "dist" / p) for p in first),
        "all_bytes": sum(map(size, every)),
    }


class Running:
    """A demo started by the real command."""

    def __init__(self, data: Path) -> None:
        self.port = free_port()
        start = time.monotonic()
        self.process = subprocess.Popen(
            [str(ROOT / "zesty"), "demo", "--port", str(self.port), "--data", str(data)],
            stdout=subprocess.DEVNULL,
            stderr=subprocess.DEVNULL,
            start_new_session=True,
        )
        while not self._page():
            if self.process.poll() is not None or time.monotonic() - start > 120:
                raise RuntimeError("the demo did not start")
            time.sleep(0.02)
        self.first_page_s = round(time.monotonic() - start, 2)

    def _page(self) -> bool:
        try:
            c = http.client.HTTPConnection("127.0.0.1", self.port, timeout=2)
            c.request("GET", "/")
            return c.getresponse().status == 200
        except OSError:
            return False

    def memory_mb(self) -> float:
        """Resident memory of the serving process [MB]."""
        text = Path(f"/proc/{self.process.pid}/status").read_text()
        return round(int(re.findall(r"VmRSS:\s+(\d+)", text)[0]) / 1024, 1)

    def stop(self) -> None:
        """Ctrl-C."""
        os.killpg(self.process.pid, signal.SIGINT)
        self.process.wait(30)


_ID = rb"[0-9a-f]{8}(?:-[0-9a-f]{4}){3}-[0-9a-f]{12}"


def _signed_in(port: int) -> tuple[http.client.HTTPConnection, str, str]:
    """A connection, its cookie, and the address of a visit with four options of ten stages that was
    brought in.
    """
    signed = sign_in(port)
    c = signed.connect()
    large = visit_file.write(_four_of_ten(home_1(datetime(2026, 11, 20, 9, 0, tzinfo=UTC))))
    status, body = signed.ask(
        c,
        "POST",
        "/api/visits/import",
        re.sub(_ID, lambda m: uid(f"bench {m[0]!r}").encode(), large),
        plain=True,
    )
    brought = json.loads(body)
    if status != 201:
        raise RuntimeError(f"import: {status} {brought}")
    return c, signed.cookie, f"/visits/{brought['id']}"


def _calls(port: int) -> dict[str, Any]:
    c, cookie, four = _signed_in(port)

    def get(path: str) -> Callable[[], bytes]:
        def call() -> bytes:
            c.request("GET", path, headers={"Cookie": cookie, "Accept-Encoding": "gzip"})
            answer = c.getresponse()
            body = answer.read()
            if answer.status != 200:
                raise RuntimeError(f"{path}: {answer.status}")
            return body

        return call

    home = f"/api/visits/{uid('home-1-visit')}"
    return {
        "open_a_visit": timed(get(home), 100),
        "comparison_three_options_four_horizons": timed(get(f"{home}/comparison"), 60),
        "comparison_four_options_of_ten_stages_20_years": timed(
            get(f"/api{four}/comparison?years=20"), 60
        ),
        "comparison_four_options_of_ten_stages_four_horizons": timed(
            get(f"/api{four}/comparison"), 60
        ),
        "todays_visits": timed(get("/api/visits"), 60),
    }


def _until(press: str, ready: str) -> str:
    """A script that presses an element and answers with the milliseconds until a condition holds
    and is painted.
    """
    return f"""const done = arguments[arguments.length - 1]; const start = performance.now();
    const look = () => (({ready})
      ? requestAnimationFrame(() => done(performance.now() - start))
      : requestAnimationFrame(look));
    ({press}).click(); look();"""


def page() -> dict[str, Any]:
    """The comparison of four options of ten stages in the real interface: from the touch that opens
    it, and from a touch on another horizon [ms].
    """
    sys.path.insert(0, str(ROOT))
    from tests.browser.driving import Browser
    from tests.browser.serving import Served

    served, browser = Served(), Browser()
    try:
        *_, four = _signed_in(served.port)
        browser.sign_in(served.base, EMAIL, PASSWORD)
        opened, switched = [], []
        for _ in range(5):
            browser.go(f"{served.base}{four}/line")
            browser.find("a", "Compare")
            opened.append(
                browser.driver.execute_async_script(
                    _until(
                        "[...document.querySelectorAll('a')].find((a) =>"
                        " a.textContent.includes('Compare') && a.href.endsWith('/compare'))",
                        "document.querySelector('[data-testid=cost-chart]')",
                    )
                )
            )
            for years in (5, 10, 15, 20, 5):
                switched.append(
                    browser.driver.execute_async_script(
                        _until(
                            "[...document.querySelectorAll('[role=radio]')].find((e) =>"
                            f" e.textContent === '{years}')",
                            "document.querySelector('[data-testid=cost-chart]')"
                            f".getAttribute('aria-label').includes('over {years} years')",
                        )
                    )
                )
        return {
            name: {"median_ms": round(statistics.median(x), 1), "most_ms": round(max(x), 1)}
            for name, x in (("comparison_opened", opened), ("horizon_switched", switched))
        }
    finally:
        browser.close()
        served.close()


def server() -> dict[str, Any]:
    """The running demo: starts, calls, memory."""
    folder = Path(tempfile.mkdtemp(prefix="zg-bench-"))
    folder.chmod(0o755)
    try:
        first = Running(folder)
        made = first.first_page_s
        first.stop()
        second = Running(folder)
        try:
            out = {
                "start_new_data_s": made,
                "start_second_s": second.first_page_s,
                "memory_after_start_mb": second.memory_mb(),
                "api": _calls(second.port),
            }
            out["memory_after_calls_mb"] = second.memory_mb()
        finally:
            second.stop()
        return out
    finally:
        shutil.rmtree(folder, ignore_errors=True)


def touches() -> dict[str, Any]:
    """Touches and keys from the first word to a signed proposal, counted in the real interface."""
    sys.path.insert(0, str(ROOT))
    from tests.browser.test_touches import NEW_VISIT, SIGNED, WHOLE_SET, counted

    most = {"new visit": NEW_VISIT, "whole set of tests": WHOLE_SET, "to a signed proposal": SIGNED}
    return {"counted": counted(), "at_most": most}


PARTS: dict[str, Callable[[], Any]] = {
    "core": core,
    "search": search,
    "pdf": pdf,
    "scripts": scripts,
    "server": server,
    "page": page,
    "touches": touches,
    "firm": firm,
    "morning": morning,
    "trouble": trouble,
}


def main(arguments: list[str]) -> int:
    """Print the figures."""
    parser = argparse.ArgumentParser(prog="./zesty bench")
    parser.add_argument(
        "only", nargs="*", choices=[*PARTS, []], help="parts to measure; all unless given"
    )
    given = parser.parse_args(arguments)
    out: dict[str, Any] = {"cores": os.cpu_count()}
    for name, part in PARTS.items():
        if not given.only or name in given.only:
            step(f"measuring: {name}")
            out[name] = part()
    print(json.dumps(out, indent=2))
    return 0


if __name__ == "__main__":
    sys.exit(guarded(main, sys.argv[1:]))
