"""What was worked out before is given again as long as it holds, and never a moment longer."""

import unittest
from unittest import mock
from uuid import UUID, uuid4

from tests.api.client import HOME_1, HOME_2, ApiCase
from tests.application import Client
from tests.database import SECRET
from zesty_glass.api.app import create_app
from zesty_glass.api.response_cache import tag
from zesty_glass.demo.homes import uid
from zesty_glass.demo.load import EMAIL, PASSWORD
from zesty_glass.records.models import Firm, ItemRow
from zesty_glass.work import printing
from zesty_glass.work.held import Held


class Papers(ApiCase):
    def test_the_same_paper_is_made_once_and_another_anew(self):
        path = f"/api/proposals/{uid('home-1-proposal')}"
        with (
            mock.patch.object(printing, "_made", Held(printing.MOST_BYTES)),
            mock.patch.object(printing, "papers") as apart,
        ):
            apart.return_value.run.side_effect = [b"%PDF 1", b"%PDF 2"]
            asked = [self.client.get(f"{path}/pdf").content for _ in range(2)]
            self.assertEqual(asked, [b"%PDF 1", b"%PDF 1"])
            version = self.get(path)["version"]
            self.send("POST", f"{path}/declined", {"version": version})
            self.assertEqual(self.client.get(f"{path}/pdf").content, b"%PDF 2")


class Keys(unittest.TestCase):
    def test_another_link_seal_or_offer_is_another_paper(self):
        asked = [("o", "p", "intact", "a"), ("o", "p", "intact", "b"), ("o", "p", "broken", "a")]
        asked += [("x", "p", "intact", "a"), ("o", "x", "intact", "a")]
        with (
            mock.patch.object(printing, "_made", Held(1000)),
            mock.patch.object(printing, "papers") as apart,
        ):
            apart.return_value.run.side_effect = [str(n).encode() for n in range(len(asked))]
            made = [printing.pdf(*about) for about in asked]
        self.assertEqual(len(set(made)), len(asked))


class Bodies(unittest.TestCase):
    def test_the_least_used_is_forgotten_first(self):
        k = Held(most=100)
        for name in "abcd":
            k.put(name, b"x" * 25)
        k.get("a")
        k.put("e", b"x" * 25)
        self.assertEqual([n for n in "abcde" if k.get(n)], ["a", "c", "d", "e"])

    def test_what_is_too_large_is_not_kept_and_a_name_is_kept_once(self):
        k = Held(most=100)
        k.put("a", b"x" * 26)
        self.assertIsNone(k.get("a"))
        for _ in range(10):
            k.put("b", b"x" * 20)
        self.assertEqual((len(k), k._held), (1, 20))

    def test_tags_tell_parts_apart(self):
        self.assertNotEqual(tag("a", "bc"), tag("ab", "c"))


class Answers(ApiCase):
    def tagged(self, path=f"/api/visits/{HOME_1}", client=None, **headers):
        r = (client or self.client).get(path, headers=headers)
        return r.status_code, r.headers.get("etag"), r

    def test_a_page_that_has_it_is_told_so(self):
        for path in (f"/api/visits/{HOME_1}", f"/api/visits/{HOME_1}/comparison"):
            _, etag, _ = self.tagged(path)
            status, again, r = self.tagged(path, **{"If-None-Match": etag})
            self.assertEqual((status, again, r.content), (304, etag, b""), path)
            self.assertEqual(r.headers["cache-control"], "no-store")

    def test_packed_or_not_it_says_the_same(self):
        plain = self.client.get(f"/api/visits/{HOME_1}", headers={"Accept-Encoding": "identity"})
        packed = self.client.get(f"/api/visits/{HOME_1}", headers={"Accept-Encoding": "gzip"})
        self.assertNotIn("content-encoding", plain.headers)
        self.assertEqual(packed.headers["content-encoding"], "gzip")
        self.assertEqual(plain.json(), packed.json())

    def changes(self, what, path=f"/api/visits/{HOME_1}"):
        _, before, _ = self.tagged(path)
        what()
        _, after, _ = self.tagged(path)
        self.assertNotEqual(before, after)

    def test_every_change_that_it_hangs_on_gives_another(self):
        view = self.get(f"/api/visits/{HOME_1}")
        sample = view["visit"]["samples"][0]["id"]
        reading = self.reading("hard-1", {"method": "drops", "drops": 20})
        self.changes(lambda: self.keep(HOME_1, sample, reading))
        path = f"/api/visits/{HOME_1}/readings/{reading['id']}/strike"
        self.changes(lambda: self.send("POST", path, {"because": "a slip"}))
        home = {**view["visit"]["home"], "people": 5}
        body = {"version": view["versions"]["home"], "customer": view["visit"]["customer"]}
        self.changes(lambda: self.send("PUT", f"/api/visits/{HOME_1}/home", {**body, "home": home}))
        o = {"id": str(uuid4()), "name": "Another", "stages": []}
        self.changes(lambda: self.send("PUT", f"/api/visits/{HOME_1}/options/{o['id']}", o))
        self.changes(
            lambda: self.send("DELETE", f"/api/visits/{HOME_1}/options/{o['id']}", None, 204)
        )
        self.changes(self.dearer)
        self.changes(self.renamed)
        self.changes(
            lambda: self.send("POST", f"/api/visits/{HOME_1}/again", {"id": str(uuid4())}, 201)
        )

    def dearer(self):
        with self.app.state.sessions.begin() as db:
            row = db.get(ItemRow, UUID(uid("item-SO-20")))
            row.data = {**row.data, "price": "9999"}
            row.version += 1

    def renamed(self):
        with self.app.state.sessions.begin() as db:
            firm = db.get(Firm, UUID(uid("firm")))
            firm.name, firm.version = "Larkspout and Daughters", firm.version + 1

    def test_what_it_does_not_hang_on_gives_the_same(self):
        _, before, _ = self.tagged()
        self.new_visit()
        self.assertEqual(self.tagged()[1], before)

    def test_another_process_never_serves_an_old_price(self):
        other = create_app(str(self.app.state.engine.url.render_as_string(False)), SECRET, False)
        self.addCleanup(other.state.engine.dispose)
        there = Client(other)
        there.headers["X-Zesty-Token"] = there.post(
            "/api/session", json={"email": EMAIL, "password": PASSWORD}
        ).json()["token"]
        path = f"/api/visits/{HOME_2}/comparison"
        here, first = self.client.get(path).json(), there.get(path).json()
        self.assertEqual(here, first)
        with self.app.state.sessions.begin() as db:
            for row in db.query(ItemRow):
                row.data = {**row.data, "price": "4321"}
                row.version += 1
        here, now = self.client.get(path).json(), there.get(path).json()
        self.assertEqual(here, now)
        self.assertNotEqual(now["options"][1]["bought"], first["options"][1]["bought"])

    def test_what_one_person_got_is_not_given_to_another(self):
        _, mine, _ = self.tagged()
        status, theirs, _ = self.tagged(client=self.manager(), **{"If-None-Match": mine})
        self.assertEqual(status, 200)
        self.assertNotEqual(mine, theirs)

    def test_who_may_not_see_it_gets_no_304(self):
        _, mine, _ = self.tagged()
        stranger = Client(self.app, raise_server_exceptions=False)
        status, _, _ = self.tagged(client=stranger, **{"If-None-Match": mine})
        self.assertEqual(status, 401)


if __name__ == "__main__":
    unittest.main()
