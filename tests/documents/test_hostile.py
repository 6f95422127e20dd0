"""Whatever a text of a visit says, no document fetches, runs or hides anything because of it."""

import csv
import io
import re
import unittest
from dataclasses import fields, is_dataclass, replace
from datetime import UTC, date, datetime
from html.parser import HTMLParser

from icalendar import Calendar
from markupsafe import Markup

from tests.documents.hostile import TEXTS
from zesty_glass.core.assess import assess
from zesty_glass.core.errors import RuleError
from zesty_glass.core.presenting.offer import make_offer
from zesty_glass.core.proposing.proposal import Proposal, digest
from zesty_glass.core.rules import Settings
from zesty_glass.demo.homes import home_1, uid
from zesty_glass.documents import pdf, pictures, sheets
from zesty_glass.documents.calendar import service_calendar
from zesty_glass.documents.tables import costs_csv, readings_csv

AT = datetime(2026, 11, 20, 9, tzinfo=UTC)
VISIT = home_1(AT)
OFFER = make_offer(
    VISIT,
    number="261120-AAAA",
    revision=1,
    created_at=AT,
    valid_until=date(2026, 12, 20),
    recommended=uid("home-1-option-b"),
    reasons="Because.",
    plan=None,
)
#: texts that decide what something is, not what is read
_STRUCTURE = {"id", "recommended", "option", "analyte", "unit", "scope", "kind", "change", "op"}
_STRUCTURE |= {"letter", "status", "weight", "about", "evidence_level", "method", "observation"}


def filled(value, text, name=""):
    """A value with every free text in it replaced."""
    if is_dataclass(value):
        return replace(
            value,
            **{f.name: filled(getattr(value, f.name), text, f.name) for f in fields(value)},
        )
    if isinstance(value, tuple) and not hasattr(value, "_fields"):
        return tuple(filled(v, text, name) for v in value)
    if type(value) is str and name not in _STRUCTURE:
        return text
    return value


def proposal(offer):
    return Proposal(
        id=uid("p"),
        number=offer.number,
        recommended=offer.recommended,
        reasons=offer.reasons,
        created_at=AT,
        valid_until=date(2026, 12, 20),
        snapshot="{}",
        digest=digest("{}"),
    )


class Tags(HTMLParser):
    """Counts tags, and keeps every address that a document names."""

    def __init__(self, text):
        super().__init__()
        self.count, self.addresses = {}, []
        self.feed(text)

    def handle_starttag(self, tag, attrs):
        self.count[tag] = self.count.get(tag, 0) + 1
        self.addresses += [v for k, v in attrs if k in ("href", "src", "xlink:href", "data")]
        assert not any(k.startswith("on") for k, _ in attrs), attrs


try:
    PLAIN = filled(OFFER, "plain words")
except RuleError as e:  # said here, where it can be read
    raise AssertionError(str(e)) from e


class OnPaper(unittest.TestCase):
    def test_no_text_of_an_offer_becomes_markup(self):
        want = Tags(pdf.proposal_html(PLAIN, proposal(PLAIN))).count
        for text in TEXTS:
            with self.subTest(text):
                offer = filled(OFFER, text)
                seen = Tags(pdf.proposal_html(offer, proposal(offer)))
                seen.count["p"] = want["p"]  # reasons are cut into paragraphs
                self.assertEqual((seen.count, seen.addresses), (want, []))

    def test_a_text_in_a_style_stays_a_string(self):
        for text in TEXTS:
            with self.subTest(text):
                offer = replace(OFFER, firm=text, number=text)
                html = pdf.proposal_html(offer, proposal(offer))
                line = re.search(r'content: "(.*?)";\s+font', html).group(1)
                self.assertNotRegex(line, r'["\n\r<>{}@:;]')

    def test_only_the_shipped_fonts_are_given(self):
        asked = []

        class Watched(pdf.ShippedFonts):
            def fetch(self, url, headers=None):
                asked.append(url)
                return super().fetch(url, headers)

        given = Watched(allowed_protocols=("file",))
        font = next(pdf.FONTS.glob("*.woff2")).as_uri()
        self.assertTrue(given.fetch(font))
        for url in (
            "file:///etc/passwd",
            pdf.FONTS.as_uri() + "/../pdf.py",
            pdf.FONTS.as_uri() + "/../../../../../../etc/passwd",
            font + "/../../pdf.py",
            font + "?x",
            font + "#x",
            font.replace("file:///", "file://elsewhere/"),
            pdf.FONTS.as_uri() + "/instrument-sans-LICENSE.txt",
            "http://127.0.0.1:1/x",
            "data:text/plain,x",
        ):
            with self.subTest(url), self.assertRaises(ValueError):
                given.fetch(url)

    def test_words_in_a_picture_are_escaped(self):
        drawn = pictures.cost_chart([("<b>", [1, 2], True, False)], 5, "<i>")
        self.assertIsInstance(drawn, Markup)
        self.assertNotIn("<b>", drawn)
        self.assertNotIn("<i>", drawn)

    def test_a_picture_does_not_grow_with_its_numbers(self):
        small = len(pictures.tubs({"membrane": 900.0}))
        self.assertLess(len(pictures.tubs({"membrane": 1e12, "backwash": 1e9})), 60 * small)
        chart = pictures.cost_chart([("A", [10**12] * 60, True, False)], 5, "$")
        self.assertLess(len(chart), 9000)


class InTables(unittest.TestCase):
    def test_no_cell_is_run(self):
        for text in TEXTS:
            with self.subTest(text):
                offer, visit = filled(OFFER, text), replace(VISIT, samples=VISIT.samples)
                visit = replace(
                    visit, samples=tuple(replace(s, name=text, place=text) for s in visit.samples)
                )
                for data in (costs_csv(offer), readings_csv(visit, assess(visit))):
                    for row in csv.reader(io.StringIO(data.decode("utf-8-sig"))):
                        for cell in row:
                            self.assert_not_run(cell)

    def assert_not_run(self, cell):
        for line in re.split(r"[\r\n]", cell):
            bare = line.strip("\u200b\u202e\ufeff \t")
            if bare[:1] in tuple("=+-@\uff1d\uff0b\uff0d\uff20"):
                self.assertRegex(cell, r"^[-+]?[\d.]+(e[-+]?\d+)?$")

    def test_what_was_defused_comes_back(self):
        for text in (*TEXTS, "-2", "plain", "'quoted'"):
            if sheets.safe(text) != text:
                self.assertEqual(sheets.plain_again(sheets.safe(text)), text)


class InACalendar(unittest.TestCase):
    def test_no_text_ends_an_entry(self):
        plain = service_calendar(OFFER, "x", AT.date(), AT)
        want = [c.name for c in Calendar.from_ical(plain).walk()]
        for text in TEXTS:
            with self.subTest(text):
                offer = filled(OFFER, text)
                made = service_calendar(offer, "x", AT.date(), AT)
                self.assertEqual([c.name for c in Calendar.from_ical(made).walk()], want)


class Currency(unittest.TestCase):
    def test_only_known_ones(self):
        for good in ("$", "€", "USD", "kr", "CHF"):
            Settings(currency=good)
        for bad in ("", "<b>", "$$", "usd ", "DOLLARS", "\u202e$"):
            with self.subTest(bad), self.assertRaises(RuleError):
                Settings(currency=bad)
