"""What goes home on paper: the proposal, made from its snapshot alone, and the filter check."""

from __future__ import annotations

from collections.abc import Callable
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
from ..core.presenting.filter_check import FilterCheck
from ..core.presenting.offer import Offer, OfferedOption
from ..core.proposing.proposal import Proposal
from ..core.testing.finding import Finding, Weight
from ..core.treating.stages.salt import SALT_BAG_LB
from ..core.units import DAYS_PER_MONTH
from ..messages.catalogue import ORIGINAL, Language
from ..messages.in_language import in_language, names_of
from ..messages.spoken import Spoken
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
    return bool(line.missing)


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


def _option(offer: Offer, o: OfferedOption, spoken: Spoken) -> dict[str, Any]:
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
        "drained": spoken.say(_drained(offer, o)),
        "missing": ", ".join(spoken.say(m) for m in cost.missing) if cost else "",
    }


def _line(line: CostLine, spoken: Spoken) -> dict[str, Any]:
    """A line of the costs as it is written: what, when and why, and its sums if it has any."""
    return {
        "label": spoken.say(line.label),
        "when": spoken.say(_when(line)),
        "unpriced": _unpriced(line),
        "price": line.price,
        "total": line.total,
    }


def _rows(offer: Offer) -> list[dict[str, Any]]:
    rows = []
    for r in offer.rows:
        cells = []
        for o in offer.options:
            c = next((c for c in r.cells if c.option == o.id), None)
            cells.append({"cell": c, "bar": range_bar(r, c, r.cells[0]) if c else ""})
        rows.append({"row": r, "cells": cells, "name": mid_sentence(r.name)})
    return rows


def _money(offer: Offer) -> dict[str, Callable[[Decimal], str]]:
    """Sums as they are written: to the cent, whole, and over the years."""
    return {
        "money": lambda v: f"{offer.currency}{v:,.2f}",
        "over": lambda v: f"{offer.currency}{words.sum_over(v, offer.horizon):,.0f}",
        "whole": lambda v: f"{offer.currency}{v:,.0f}",
    }


def _costs(offer: Offer, spoken: Spoken) -> dict[str, Any]:
    """What is said of the costs of the line that is recommended, as it was written."""
    chosen = next(o for o in offer.options if o.id == offer.recommended)
    cost = next((c for c in chosen.costs if c.years == offer.horizon), None)
    lines = () if cost is None else cost.lines
    return {
        "cost": cost,
        "lines": [_line(x, spoken) for x in lines if x.interval_months is None or x.times],
        "later": [_line(x, spoken) for x in lines if x.interval_months is not None and not x.times],
    }


def proposal_html(
    written: Offer,
    proposal: Proposal,
    seal: str = "good",
    link: str = "",
    language: Language = ORIGINAL,
) -> str:
    """The document as HTML.

    Args:
        written: the offer as it is kept.
        link: the address under which it can be read, as dots for a camera.
        language: that it is said in. KeyError: there is none of this name.
    """
    offer, spoken = in_language(written, language), Spoken(language, names_of(written))
    options = [_option(offer, o, spoken) for o in offer.options]
    chosen = next(o for o in offer.options if o.id == offer.recommended)
    curves = [
        (
            x["o"].letter or spoken.message("Today"),
            x["cost"].monthly,
            x["o"].id == offer.recommended,
            bool(x["cost"].missing),
        )
        for x in options
        if x["cost"]
    ]
    nothing = offer.recommended == "today" and offer.nothing_needed
    return (
        _environment()
        .get_template("proposal.html")
        .render(
            _=spoken.message,
            day=spoken.day,
            language=language,
            o=offer,
            p=proposal,
            seal=spoken.message(SEALS.get(seal, SEALS["broken"])),
            options=options,
            chosen=chosen,
            rows=_rows(offer),
            found=_to_say(offer),
            title=spoken.message("Nothing needed") if nothing else chosen.name,
            place=", ".join(x for x in (offer.home, offer.place) if x),
            chores=[
                (c, spoken.say(_often(c))) for c in (chosen.chores.chores if chosen.chores else ())
            ],
            gallons=words.about_gallons,
            bag=words.pounds(SALT_BAG_LB, offer.units),
            code=Markup(code_picture(link, 2)) if link else "",
            chart=cost_chart(curves, offer.horizon, offer.currency, spoken.message),
            raw_glass=glass(offer.raw, 118, ferric=offer.ferric_raw, scale=offer.scale_60),
            **_costs(written, spoken),
            **_money(offer),
        )
    )


def proposal_pdf(
    offer: Offer,
    proposal: Proposal,
    seal: str = "good",
    link: str = "",
    language: Language = ORIGINAL,
) -> bytes:
    """The document as tagged PDF bytes (PDF/UA-1); ``seal`` says whether the proposal is as it was
    sealed, ``link`` is the address of its page, if it has one."""
    return _pdf(proposal_html(offer, proposal, seal, link, language))


def _pdf(page: str) -> bytes:
    html = HTML(
        string=page,
        base_url=FONTS.as_uri() + "/",
        url_fetcher=ShippedFonts(allowed_protocols=("file",)),
    )
    data: bytes = html.write_pdf(font_config=_fonts(), pdf_variant="pdf/ua-1")
    return data


def filter_check_html(check: FilterCheck) -> str:
    """The page of a filter check as HTML; what is found of equipment in place is said in English
    alone so far.
    """
    spoken, cost = Spoken(ORIGINAL), check.cost_year
    return (
        _environment()
        .get_template("filter_check.html")
        .render(
            _=spoken.message,
            day=spoken.day,
            language=ORIGINAL,
            c=check,
            cost="" if cost is None else f"{check.currency}{cost:,.0f}",
        )
    )


def filter_check_pdf(check: FilterCheck) -> bytes:
    """The page of a filter check as tagged PDF bytes (PDF/UA-1)."""
    return _pdf(filter_check_html(check))
