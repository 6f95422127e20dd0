"""Lists a page at a time: every list has pages, and its pages together are the whole."""

from urllib.parse import parse_qs, quote, urlsplit
from uuid import uuid4

from tests.api.client import HOME_1, HOME_2, HOME_6, ApiCase
from zesty_glass.api.paging import MOST
from zesty_glass.demo.homes import uid
from zesty_glass.demo.load import MANAGER_EMAIL

AT = quote("2026-11-20T10:00:00+01:00")
#: every list of the interface, as somebody asks for it
LISTS = {
    "/api/catalogue": "/api/catalogue",
    "/api/catalogue/off-sale": "/api/catalogue/off-sale",
    "/api/certificates": "/api/certificates",
    "/api/feeds": "/api/feeds",
    "/api/homes/elsewhere": "/api/homes/elsewhere?find=somebody",
    "/api/instruments": "/api/instruments",
    "/api/instruments/drift": "/api/instruments/drift",
    "/api/jobs": "/api/jobs",
    "/api/laboratory/kinds": "/api/laboratory/kinds",
    "/api/laboratory/posting": f"/api/laboratory/posting?at={AT}",
    "/api/outbox": "/api/outbox",
    "/api/proposals/{id}/links": f"/api/proposals/{uid('home-2-proposal')}/links",
    "/api/session/all": "/api/session/all",
    "/api/session/passkeys": "/api/session/passkeys",
    "/api/tokens": "/api/tokens",
    "/api/visits": "/api/visits",
    "/api/visits/homes": "/api/visits/homes",
    "/api/visits/{id}/options/{option_id}/what-if": (
        f"/api/visits/{HOME_1}/options/{uid('home-1-option-b')}/what-if"
    ),
    "/api/visits/{id}/pair": "",
    "/api/visits/{id}/pictures": f"/api/visits/{HOME_2}/pictures",
    "/api/visits/{id}/renting": f"/api/visits/{HOME_1}/renting",
    "/api/waiting": "/api/waiting",
}


class Pages(ApiCase):
    def setUp(self):
        super().setUp()
        self.client = self.manager()

    def page(self, path):
        r = self.client.get(path)
        self.assertEqual(r.status_code, 200, f"{path}: {r.text[:300]}")
        return r.json(), r.links.get("next", {}).get("url", "")

    def walked(self, path, most):
        rows, asked = [], path + ("&" if "?" in path else "?") + f"most={most}"
        while asked:
            page, asked = self.page(asked)
            self.assertLessEqual(len(page), most)
            rows += page
        return rows

    def test_every_list_has_pages(self):
        paths = self.app.openapi()["paths"]
        found = {
            path
            for path, methods in paths.items()
            if "get" in methods
            and methods["get"]["responses"]["200"]
            .get("content", {})
            .get("application/json", {})
            .get("schema", {})
            .get("type")
            == "array"
        }
        self.assertEqual(found - {"/api/catalogue/file"}, set(LISTS))  # a file is no list
        for path in LISTS:
            asked = {p["name"] for p in paths[path]["get"]["parameters"]}
            self.assertLessEqual({"after", "most"}, asked, path)
            self.assertIn("Link", paths[path]["get"]["responses"]["200"]["headers"])

    def test_the_pages_of_a_list_are_the_whole_of_it(self):
        glasses = [s["id"] for s in self.get(f"/api/visits/{HOME_6}")["visit"]["samples"]][:2]
        pair = f"/api/visits/{HOME_6}/pair?first={glasses[0]}&second={glasses[1]}"
        self.signed_in(MANAGER_EMAIL)
        for _ in range(3):
            self.send("POST", "/api/feeds", {"id": str(uuid4())}, 201)
        longer = 0
        for path in LISTS.values():
            with self.subTest(path):
                whole, more = self.page(path or pair)
                self.assertEqual(more, "")
                self.assertEqual(self.walked(path or pair, 2), whole)
                longer += len(whole) > 2
        self.assertGreaterEqual(longer, 10)

    def test_a_page_begins_behind_the_row_the_last_one_ended_with_wherever_it_is(self):
        ids = [str(uuid4()) for _ in range(4)]
        for id in ids:
            self.send("POST", "/api/feeds", {"id": id}, 201)
        whole = [x["id"] for x in self.page("/api/feeds")[0]]
        first, after = self.page("/api/feeds?most=2")
        self.send("POST", "/api/feeds", {"id": str(uuid4())}, 201)
        second, _ = self.page(after)
        now = [x["id"] for x in self.page("/api/feeds")[0]]
        last = now.index(first[-1]["id"])
        self.assertEqual([x["id"] for x in second], now[last + 1 : last + 3])
        self.assertEqual([x["id"] for x in first], whole[:2])

    def test_what_else_was_asked_stays_asked(self):
        _, after = self.page("/api/visits/homes?find=e&most=1")
        self.assertEqual(
            {k: v for k, v in parse_qs(urlsplit(after).query).items() if k != "after"},
            {"find": ["e"], "most": ["1"]},
        )

    def test_a_row_that_is_gone_ends_nothing(self):
        whole, _ = self.page("/api/instruments")
        page, _ = self.page("/api/instruments?most=2&after=3.long-gone")
        self.assertEqual(page, whole[3:5])
        self.assertEqual(self.page("/api/instruments?after=999999.long-gone")[0], [])

    def test_people_come_a_page_at_a_time_too(self):
        whole = self.page("/api/people")[0]
        found, more = [], ""
        while more is not None:
            page = self.client.get("/api/people", params={"most": 1, "after": more}).json()
            found += page["people"]
            more = page["more"] or None
        self.assertGreater(len(found), 2)
        self.assertEqual((found, whole["more"]), (whole["people"], ""))

    def test_what_no_page_told_is_refused(self):
        for after in ("x", "12", "-1.a", "1234567.a", "12."):
            r = self.client.get("/api/instruments", params={"after": after})
            self.assertEqual((r.status_code, r.json()["code"]), (422, "page.after"), after)
        for most in (0, -1, MOST + 1, "all"):
            r = self.client.get("/api/instruments", params={"most": most})
            self.assertEqual(r.status_code, 422, most)
