"""A language is one file: what it takes to add one, and that all a customer reads goes by it."""

import json
import shutil
import subprocess
import sys
import tempfile
import unittest
from pathlib import Path

from tests.messages import pseudo
from tests.messages.test_catalogue import offers, texts
from zesty_glass.cli import messages as tool
from zesty_glass.cli.machine import ROOT
from zesty_glass.messages.in_language import in_language, names_of

#: fields that are codes to the core, and said by the page
SAID_BY_THE_PAGE = ("band", "words")
FRENCH = """
import json
from datetime import date
from zesty_glass.api.app import create_app
from zesty_glass.cli import messages as tool
from zesty_glass.documents import pdf
from zesty_glass.messages import catalogue, page
from zesty_glass.messages.spoken import Spoken
from tests.documents.test_paper import proposal
from tests.messages.test_catalogue import offers

one = next(offers())
api = create_app("postgresql://nobody@127.0.0.1:1/none", "x" * 32).openapi()
asked = api["paths"]["/api/offered/{token}"]["get"]["parameters"]
tool.main(["--language", "fr"])
print(json.dumps({
    "day": Spoken("fr").day(date(2026, 11, 5)),
    "text": catalogue.say_in("fr")("Do nothing"),
    "paper": pdf.proposal_html(one, proposal(one), language="fr")[:400],
    "asked": next(p["schema"]["enum"] for p in asked if p["name"] == "language"),
    "page": (tool.WEB / "src/app/languages.generated.ts").read_text(),
    "file": json.loads((tool.WEB / "src/app/fr.generated.json").read_text()),
}))
"""


class Another(unittest.TestCase):
    def test_a_file_is_all_that_it_takes(self):
        with tempfile.TemporaryDirectory() as d:
            skip = shutil.ignore_patterns("__pycache__", "node_modules", "dist")
            for part in ("zesty_glass", "tests", "web"):
                shutil.copytree(ROOT / part, Path(d, part), ignore=skip)
            Path(d, "zesty_glass/messages/fr.po").touch()
            done = subprocess.run(
                [sys.executable, "-c", FRENCH], cwd=d, capture_output=True, text=True
            )
            self.assertEqual(done.returncode, 0, done.stderr[-2000:])
        told = json.loads(done.stdout)
        self.assertEqual(told["day"], "5 novembre 2026")
        self.assertEqual(told["text"], "Do nothing")  # whole, in English, until it is said
        self.assertIn('<html lang="fr">', told["paper"])
        self.assertEqual(told["asked"], ["en", "es", "fr"])
        self.assertIn('fr: "Français"', told["page"])
        self.assertIn('import("./fr.generated.json")', told["page"])
        self.assertEqual(told["file"], {})

    def test_a_translator_is_given_the_customers_messages_first(self):
        turns = [tool._turn(m.auto_comments[0]) for m in tool.lacking("es") if m.id]
        self.assertEqual(turns, sorted(turns))
        self.assertLess(tool._turn("features/offered/Offered.tsx"), tool._turn("core/units.py"))
        self.assertLess(tool._turn("core/units.py"), tool._turn("features/firm/Limits.tsx"))


class Pseudo(unittest.TestCase):
    def test_all_of_an_offer_goes_by_the_catalogue(self):
        with pseudo.spoken():
            for one in list(offers())[::3]:
                typed = {o.name for o in one.options}
                names = names_of(one) | typed | {t for f, t in texts(one) if f == "complaints"}
                said = texts(in_language(one, "es"))
                # a word alone may be a code: what has a space is said
                left = [
                    (f, t)
                    for f, t in said
                    if " " in t and f not in SAID_BY_THE_PAGE and t.isascii()
                    if pseudo.unsaid(t, names)
                ]
                self.assertEqual(left, [], one.number)
