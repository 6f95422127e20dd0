"""``./zesty client``: the page's typed API client, from the application's own description."""

from __future__ import annotations

import json
import subprocess
import sys
import tempfile
from pathlib import Path

from ..api.app import create_app
from .machine import WEB

GENERATED = WEB / "src" / "api" / "schema.generated.ts"


def generate() -> str:
    """The client's types as text."""
    description = create_app("postgresql://nobody@127.0.0.1:1/none", "x" * 32).openapi()
    with tempfile.TemporaryDirectory() as d:
        source, out = Path(d, "openapi.json"), Path(d, "schema.ts")
        source.write_text(json.dumps(description))
        subprocess.run(
            ["npx", "openapi-typescript", str(source), "-o", str(out)],
            cwd=WEB,
            check=True,
            capture_output=True,
        )
        return out.read_text()


def main(arguments: list[str]) -> int:
    """Write it, or with --check say whether it is out of date."""
    text = generate()
    if "--check" in arguments:
        if GENERATED.read_text() != text:
            print("the page's API client is out of date: run ./zesty client", file=sys.stderr)
            return 1
        return 0
    GENERATED.write_text(text)
    return 0


if __name__ == "__main__":
    sys.exit(main(sys.argv[1:]))
