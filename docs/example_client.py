"""Reads a firm's homes through the interface, and the readings of their last visits, as CSV.

ZESTY_TOKEN=zesty_… python3 docs/example_client.py https://water.larkspout.example
"""

import csv
import json
import os
import sys
from urllib.parse import quote
from urllib.request import Request, urlopen


def get(base, path, token):
    """JSON from the interface; HTTPError carries a problem (RFC 9457) that says what is wrong."""
    with urlopen(Request(base + path, headers={"Authorization": f"Bearer {token}"})) as answer:
        found, more = json.load(answer), answer.headers.get("Link", "")
    if more:  # a list a page at a time: <address of the next>; rel="next"
        found += get(base, more[1 : more.index(">")], token)
    return found


def main(base, token, out=sys.stdout):
    rows = csv.writer(out)
    rows.writerow(("visit", "customer", "sample", "analyte", "best", "low", "high", "unit"))
    for visit in get(base, "/api/visits", token):
        view = get(base, f"/api/visits/{quote(visit['id'])}", token)
        for sample in view["assessment"]["samples"]:
            for name, value in sample["water"]["values"].items():
                r = value["range"] or {"best": "", "low": "", "high": ""}
                row = (visit["id"], visit["customer"], sample["name"], name)
                rows.writerow((*row, r["best"], r["low"], r["high"], value["unit"]))


if __name__ == "__main__":
    main(sys.argv[1].rstrip("/"), os.environ["ZESTY_TOKEN"])
