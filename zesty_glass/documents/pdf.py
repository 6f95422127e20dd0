"""The proposal on paper, made from its snapshot alone."""

from __future__ import annotations

from decimal import Decimal
from functools import cache
from pathlib import Path
from typing import Any

from jinja2 import Environment, FileSystemLoader
from weasyprint import HTML
from weasyprint.text.fonts import FontConfiguration
from weasyprint.urls import URLFetcher

from ..core import words
from ..core.costing.chores import YearlyChore
from ..core.presenting.offer import Offer, OfferedOption
from ..core.proposing.proposal import Proposal
from .pictures import cost_chart, glass, range_bar, tubs

_HERE = Path(__file__).parent
FONTS = _HERE / "fonts"


#: what the paper says of a proposal's seal; nothing of one that fits
SEALS = {
    "good": "",
    "broken": (
        "This proposal was changed after it was sealed. Do not rely on it; ask the firm for the"
        " original."
    ),
    "none": "This proposal carries no seal.",
    "unknown_key": (
        "The seal of this proposal cannot be checked: its key is not known to this server."
    ),
}


@cache
def _environment() -> Environment:
    env = Environment(loader=FileSystemLoader(_HERE / "templates"), autoescape=True)
    env.filters["css"] = _css
    env.filters["often"] = _often
    return env


def _css(text: object) -> str:
    """A text inside a CSS string: all but letters, digits and blanks as escapes (CSS Syntax 3,
    4.3.7).
    """
    return "".join(c if c.isalnum() or c == " " else f"\\{ord(c):06x} " for c in str(text))


def _often(chore: YearlyChore) -> str:
    """How often, in words: times a year, or every so many years."""
    if chore.times_year >= 1.5:
        return f"{chore.times_year:.0f} times"
    return "yearly" if chore.times_year >= 0.95 else f"every {1 / chore.times_year:.0f} years"


@cache
def _fonts() -> FontConfiguration:
    return FontConfiguration()


@cache
def _shipped() -> frozenset[str]:
    """Addresses of exactly the font files that ship with the application."""
    return frozenset(f.as_uri() for f in FONTS.glob("*.woff2")) | frozenset(
        f.as_uri() for f in FONTS.glob("*.ttf")
    )


class ShippedFonts(URLFetcher):  # type: ignore[misc]
    """Gives the shipped fonts by their exact names and nothing else, whatever a
    document asks for.
    """

    def fetch(self, url: str, headers: Any = None) -> Any:
        """A shipped font; ValueError for any other address."""
        if url not in _shipped():
            raise ValueError("nothing is fetched for a document")
        return super().fetch(url, headers)


def _option(offer: Offer, o: OfferedOption) -> dict[str, Any]:
    chosen = o.id == offer.recommended
    in_house, at_tap = (any(s.scope == scope for s in o.stages) for scope in ("house", "tap"))
    house = (
        glass(o.house, 74, ferric=o.ferric_house, predicted=True, chosen=chosen and not at_tap)
        if in_house
        else glass(
            offer.raw,
            74,
            ferric=offer.ferric_raw,
            scale=offer.scale_60,
            chosen=chosen and not at_tap,
        )
    )
    tap = glass(o.tap, 56, ferric=o.ferric_tap, predicted=True, chosen=chosen) if at_tap else ""
    cost = next((c for c in o.costs if c.years == offer.horizon), None)
    return {
        "o": o,
        "house": house,
        "tap": tap,
        "cost": cost,
        "tubs": tubs(o.waste.by_kind) if o.waste else "",
    }


def proposal_html(offer: Offer, proposal: Proposal, seal: str = "good") -> str:
    """The document as HTML."""
    options = [_option(offer, o) for o in offer.options]
    chosen = next(o for o in offer.options if o.id == offer.recommended)
    rows = []
    for r in offer.rows:
        cells = []
        for o in offer.options:
            c = next((c for c in r.cells if c.option == o.id), None)
            cells.append({"cell": c, "bar": range_bar(r, c, r.cells[0]) if c else ""})
        rows.append({"row": r, "cells": cells})
    curves = [
        (x["o"].letter or "Today", x["cost"].monthly, x["o"].id == offer.recommended)
        for x in options
        if x["cost"]
    ]

    def money(v: Decimal) -> str:
        return f"{offer.currency}{v:,.2f}"

    def over(v: Decimal) -> str:
        return f"{offer.currency}{words.sum_over(v, offer.horizon):,.0f}"

    def whole(v: Decimal) -> str:
        return f"{offer.currency}{v:,.0f}"

    return (
        _environment()
        .get_template("proposal.html")
        .render(
            o=offer,
            p=proposal,
            seal=SEALS.get(seal, SEALS["broken"]),
            options=options,
            chosen=chosen,
            rows=rows,
            cost=next((c for c in chosen.costs if c.years == offer.horizon), None),
            money=money,
            over=over,
            whole=whole,
            about=words.about,
            chart=cost_chart(curves, offer.horizon, offer.currency),
            raw_glass=glass(offer.raw, 132, ferric=offer.ferric_raw, scale=offer.scale_60),
        )
    )


def proposal_pdf(offer: Offer, proposal: Proposal, seal: str = "good") -> bytes:
    """The document as PDF bytes; ``seal`` says whether the proposal is as it was sealed."""
    html = HTML(
        string=proposal_html(offer, proposal, seal),
        base_url=FONTS.as_uri() + "/",
        url_fetcher=ShippedFonts(allowed_protocols=("file",)),
    )
    data: bytes = html.write_pdf(font_config=_fonts())
    return data
