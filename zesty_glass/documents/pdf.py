"""The proposal on paper, made from its snapshot alone."""

from __future__ import annotations

from decimal import Decimal
from functools import cache
from pathlib import Path
from typing import Any

from jinja2 import Environment, FileSystemLoader
from markupsafe import Markup
from weasyprint import HTML
from weasyprint.text.fonts import FontConfiguration
from weasyprint.urls import URLFetcher

from ..core import words
from ..core.analytes import Kind, mid_sentence
from ..core.costing.chores import YearlyChore
from ..core.costing.money import CostLine
from ..core.presenting.offer import Offer, OfferedOption
from ..core.proposing.proposal import Proposal
from ..core.testing.finding import Finding, Weight
from ..core.units import DAYS_PER_MONTH
from .codes import code_picture
from .pictures import cost_chart, glass, range_bar, tubs

_HERE = Path(__file__).parent
FONTS = _HERE / "fonts"
HOUSE_PX, TAP_PX = 62, 48  # heights of the glasses of an option


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
    env.filters["when"] = _when
    env.filters["unpriced"] = _unpriced
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


def every(months: float) -> str:
    """How far apart two times are, in words a household uses.

    Args:
        months: between two [months].

    >>> every(144.0), every(18.0), every(12.0), every(6.2), every(0.5)
    ('every 12 years', 'every 1.5 years', 'yearly', 'every 6 months', 'every 15 days')
    """
    if months >= 11.5:
        years = round(months / 12, 1)
        return "yearly" if years == 1 else f"every {years:g} years"
    if months >= 1.5:
        return f"every {months:.0f} months"
    return "monthly" if months >= 0.95 else f"every {months * DAYS_PER_MONTH:.0f} days"


def _when(line: CostLine) -> str:
    """When a cost falls due and why; a time that is never reached within the years is no time."""
    if line.interval_months is None:
        return line.why
    times = {0: "", 1: ", once"}.get(line.times, f", {line.times} times")
    why = f"; {line.why}" if line.why and line.times else ""
    return f"{every(line.interval_months)}{times}{why}"


def _unpriced(line: CostLine) -> bool:
    """Whether nobody knows what it costs."""
    return line.why.startswith("not priced")


def _drained(offer: Offer, o: OfferedOption) -> str:
    """What an option sends to the drain in a year, in words."""
    w = o.waste
    if w is None or w.total_gal_year <= 0:
        return "not known" if w is not None and w.unknown else "nothing"
    said = [f"{w.bathtubs:,.0f} bathtubs, {words.about_gallons(w.total_gal_year, offer.units)}"]
    if w.tap_gal_year > 0 and w.per_gallon_tap is not None:
        said.append(f"{w.per_gallon_tap:.1f} times what is drunk")
    if w.house_gal_year > 0:
        house = words.about_gallons(w.house_gal_year, offer.units)
        said.append(f"house {house}, {words.gallons(w.largest_gal, offer.units)} at most at once")
    if w.brine:
        said.append("brine")
    if not w.priced:
        said.append("not priced: ask for the water bill")
    elif w.cost_year > 0:
        said.append(f"{offer.currency}{w.cost_year:,.0f} a year for water and sewer")
    return "; ".join(said)


def _to_say(offer: Offer) -> list[Finding]:
    """Findings that ask for something, or explain a complaint; health that is not judged too."""
    quiet = (Weight.FINE, Weight.NOT_JUDGED)
    return [
        f
        for f in offer.findings
        if f.weight not in quiet
        or f.explains
        or (f.kind is Kind.HEALTH and f.weight is Weight.NOT_JUDGED)
    ]


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
        glass(
            o.house, HOUSE_PX, ferric=o.ferric_house, predicted=True, chosen=chosen and not at_tap
        )
        if in_house
        else glass(
            offer.raw,
            HOUSE_PX,
            ferric=offer.ferric_raw,
            scale=offer.scale_60,
            chosen=chosen and not at_tap,
        )
    )
    tap = glass(o.tap, TAP_PX, ferric=o.ferric_tap, predicted=True, chosen=chosen) if at_tap else ""
    cost = next((c for c in o.costs if c.years == offer.horizon), None)
    return {
        "o": o,
        "house": house,
        "tap": tap,
        "cost": cost,
        "tubs": tubs(o.waste.by_kind) if o.waste else "",
        "drained": _drained(offer, o),
    }


def proposal_html(offer: Offer, proposal: Proposal, seal: str = "good", link: str = "") -> str:
    """The document as HTML; ``link``: the address under which it can be read, as dots for a
    camera."""
    options = [_option(offer, o) for o in offer.options]
    chosen = next(o for o in offer.options if o.id == offer.recommended)
    rows = []
    for r in offer.rows:
        cells = []
        for o in offer.options:
            c = next((c for c in r.cells if c.option == o.id), None)
            cells.append({"cell": c, "bar": range_bar(r, c, r.cells[0]) if c else ""})
        rows.append({"row": r, "cells": cells, "name": mid_sentence(r.name)})
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

    cost = next((c for c in chosen.costs if c.years == offer.horizon), None)
    every_line = () if cost is None else cost.lines
    nothing = offer.recommended == "today" and offer.nothing_needed
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
            cost=cost,
            lines=[x for x in every_line if x.interval_months is None or x.times],
            later=[x for x in every_line if x.interval_months is not None and not x.times],
            found=_to_say(offer),
            title="Nothing needed" if nothing else chosen.name,
            place=", ".join(x for x in (offer.home, offer.place) if x),
            money=money,
            over=over,
            whole=whole,
            about=words.about,
            code=Markup(code_picture(link, 2)) if link else "",
            chart=cost_chart(curves, offer.horizon, offer.currency),
            raw_glass=glass(offer.raw, 118, ferric=offer.ferric_raw, scale=offer.scale_60),
        )
    )


def proposal_pdf(offer: Offer, proposal: Proposal, seal: str = "good", link: str = "") -> bytes:
    """The document as tagged PDF bytes (PDF/UA-1); ``seal`` says whether the proposal is as it was
    sealed, ``link`` is the address of its page, if it has one."""
    html = HTML(
        string=proposal_html(offer, proposal, seal, link),
        base_url=FONTS.as_uri() + "/",
        url_fetcher=ShippedFonts(allowed_protocols=("file",)),
    )
    data: bytes = html.write_pdf(font_config=_fonts(), pdf_variant="pdf/ua-1")
    return data
