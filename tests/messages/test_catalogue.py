"""Every language is whole: its messages are the code's, and all that a customer reads is said."""

import dataclasses
import json
import re
import unittest
from dataclasses import replace
from enum import Enum

from tests.core.presenting.test_offer import VISITS, offer
from tests.documents.test_paper import proposal
from zesty_glass.cli import messages as tool
from zesty_glass.cli.machine import WEB
from zesty_glass.core.assess import assess
from zesty_glass.core.demonstrating.about import ABOUT, NOT_OFFERED
from zesty_glass.core.errors import RuleError
from zesty_glass.core.treating.stages import TECHNOLOGIES
from zesty_glass.documents import pdf
from zesty_glass.messages import catalogue, page
from zesty_glass.messages.extraction import messages_on_paper
from zesty_glass.messages.in_language import in_language, names_of

SPANISH = catalogue.speaker("es")
ENGLISH = re.compile(r"\b(the|of|and|is|are|not|with|from|which|your|within|after|goes)\b")


def texts(value, field=""):
    """Every text of a record, with the name of its field."""
    if isinstance(value, Enum):
        return
    if isinstance(value, str):
        yield field, value
    elif dataclasses.is_dataclass(value):
        for f in dataclasses.fields(value):
            yield from texts(getattr(value, f.name), f.name)
    elif isinstance(value, dict):
        for v in value.values():
            yield from texts(v, field)
    elif isinstance(value, tuple | list):
        for v in value:
            yield from texts(v, field)


def offers():
    for visit in VISITS:
        for option in visit.options:
            try:
                yield offer(visit, option.id)
            except RuleError:  # a line that cannot work is not offered
                continue


def english_in(text, names):
    """Words of English in a text, but for names and what somebody said."""
    for name in sorted(names, key=len, reverse=True):
        text = text.replace(name, "") if name else text
    return ENGLISH.findall(re.sub("“[^”]*”", "", text))


class Catalogue(unittest.TestCase):
    def test_is_that_of_the_code(self):
        new = tool.renewed("es")
        self.assertEqual(tool._lines(new), tool._lines(catalogue.read("es")))
        self.assertEqual([w for w in (tool.unlike(m) for m in new if m.id) if w], [])

    def test_the_page_reads_what_it_holds(self):
        file = WEB / "src" / "app" / "es.generated.json"
        self.assertEqual(file.read_text(), page.file_of("es"))

    def test_what_only_paper_says_is_whole(self):
        said = catalogue.on_paper("es")
        every = messages_on_paper(catalogue.CODE / "documents" / "templates")
        self.assertEqual([m for m in every if m not in said], [])

    def test_what_faces_the_customer_on_the_page_is_whole(self):
        said = json.loads(page.file_of("es"))
        for part in ("features/offered", "features/showing", "glass"):
            for message in page.messages_under(WEB / "src" / part):
                with self.subTest(part, message=message):
                    self.assertIn(message, said)

    def test_technologies_and_demonstrations_are_named(self):
        for technology in TECHNOLOGIES.values():
            self.assertIsNotNone(SPANISH.said(technology.name), technology.name)
        for said in (in_language(a, "es") for a in (*ABOUT.values(), *NOT_OFFERED)):
            self.assertEqual([t for _, t in texts(said) if english_in(t, ())], [])


class Said(unittest.TestCase):
    def test_an_offer_holds_no_english_but_names(self):
        for one in offers():
            typed = {o.name for o in one.options}
            names = names_of(one) | typed | {t for f, t in texts(one) if f == "complaints"}
            said = in_language(one, "es")
            left = [t for _, t in texts(said) if english_in(t, names)]
            devices = tuple(d.name for v in VISITS for d in v.home.in_place)
            left = [t for t in left if t not in typed and not t.startswith(devices)]
            self.assertEqual(left, [], one.number)

    def test_what_is_worked_out_of_a_visit_keeps_its_numbers_and_codes(self):
        def numbers(text):
            return sorted(re.findall(r"\d+(?:[.,]\d+)*", text))

        for visit in VISITS:
            before = assess(visit)
            after = in_language(before, "es", names_of(visit))
            for (f, a), (g, b) in zip(texts(before), texts(after), strict=True):
                self.assertEqual((f, numbers(a)), (g, numbers(b)))
                if f in ("id", "code", "kind", "status", "scope", "analyte"):
                    self.assertEqual(a, b, f)

    def test_is_itself_in_the_original(self):
        one = next(offers())
        self.assertIs(in_language(one, "en"), one)

    def test_a_paper_is_said_whole(self):
        one = next(offers())
        html = pdf.proposal_html(one, proposal(one), "broken", "http://a/b", "es")
        self.assertIn('<html lang="es">', html)
        for words in (
            "Usted nos habló de",
            "Si le conviene, firme",
            "20 de noviembre de 2026",
            "se cambió después",
        ):
            self.assertIn(words, html)
        self.assertNotIn("{0}", html)

    def test_what_is_not_priced_is_so_in_every_language(self):
        one = next(offers())
        chosen = next(o for o in one.options if o.id == one.recommended)
        cost = next(c for c in chosen.costs if c.years == one.horizon)
        line = replace(cost.lines[0], why="not priced: ask for the water bill")
        costs = tuple(replace(c, lines=(line, *c.lines[1:])) for c in chosen.costs)
        options = tuple(replace(o, costs=costs) if o is chosen else o for o in one.options)
        for language, words in (("en", "not priced"), ("es", "sin precio")):
            html = pdf.proposal_html(
                replace(one, options=options), proposal(one), language=language
            )
            self.assertIn(words, html)


if __name__ == "__main__":
    unittest.main()
