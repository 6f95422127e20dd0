"""What a customer reads on the page, in a language that nobody speaks: what shows plainly did not
go by the catalog.
"""

import json
import shutil
import tempfile
import unittest
from pathlib import Path
from uuid import uuid4

from selenium.common.exceptions import TimeoutException

from tests.application import Client
from tests.browser.driving import Browser
from tests.browser.serving import Served
from tests.browser.test_showing import HOME_2, SHOWN
from tests.messages import pseudo
from zesty_glass.api.app import PAGE
from zesty_glass.demo.homes import uid
from zesty_glass.demo.people import EMAIL, PASSWORD
from zesty_glass.messages import page

TEXTS = """
const walk = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT), out = [];
while (walk.nextNode()) { const t = walk.currentNode.data.trim(); if (t) out.push(t); }
return out;
"""
#: days are the locale's own, and a language names itself
ALWAYS = ("English", "noviembre", "diciembre", "enero")


def strings(value):
    """Every text in what the interface answered: names, and what somebody typed, are among them."""
    if isinstance(value, str):
        yield value
    elif isinstance(value, dict):
        for v in value.values():
            yield from strings(v)
    elif isinstance(value, list):
        for v in value:
            yield from strings(v)


class Pseudo(unittest.TestCase):
    @classmethod
    def setUpClass(cls):
        folder = tempfile.TemporaryDirectory()
        cls.addClassCleanup(folder.cleanup)
        dist = Path(folder.name, "dist")
        shutil.copytree(PAGE, dist)
        [chunk] = (dist / "assets").glob("es.generated-*.js")
        for packed in chunk.parent.glob(f"{chunk.name}.*"):
            packed.unlink()
        said = {m: pseudo.changed(m) for m in json.loads(page.file_of("es"))}
        chunk.write_text(f"export default {json.dumps(said)}")
        cls.served = Served(page=dist)
        cls.addClassCleanup(cls.served.close)
        cls.b = Browser()
        cls.addClassCleanup(cls.b.close)
        cls.client = Client(cls.served.app)
        me = cls.client.post("/api/session", json={"email": EMAIL, "password": PASSWORD}).json()
        cls.client.headers["X-Zesty-Token"] = me["token"]

    def all_said(self, names):
        """Fails with what shows plainly, once the page has come to rest."""

        def plain(_=None):
            found = self.b.driver.execute_script(TEXTS)
            return [t for t in found if pseudo.unsaid(t, {*names, *ALWAYS})]

        try:
            self.b.until(lambda d: not plain(), seconds=15)
        except TimeoutException:
            self.assertEqual(plain(), [])

    def names_of(self, path):
        answer = self.client.get(path).json()
        return {t for t in strings(answer["visit"]) if len(t) > 3}

    def test_an_offer(self):
        names = self.names_of(f"/api/visits/{uid('home-1-visit')}")
        items = self.client.get("/api/catalogue").json()
        names |= {t for t in strings(items) if " " in t}  # a word alone is a code
        made = f"/api/proposals/{uid('home-1-proposal')}/links"
        link = self.client.post(made, json={"id": str(uuid4())}).json()["path"]
        with pseudo.spoken():
            self.b.go(f"{self.served.base}{link}?language=es")
            self.b.see(pseudo.changed("Offered to you"))
            self.all_said(names)

    def test_what_faces_the_customer(self):
        names = self.names_of(f"/api{HOME_2}")
        self.b.sign_in(self.served.base, EMAIL, PASSWORD)
        with pseudo.spoken():
            for kind in SHOWN:
                self.b.go(f"{self.served.base}{HOME_2}/facing/{kind}?from=show")
                if kind == SHOWN[0]:
                    self.b.click("button", "Español")
                self.b.see(pseudo.changed("What it does not show"))
                with self.subTest(kind):
                    self.all_said(names)
