"""Routes found by the shape of an address: what is found, and what is left to the table."""

import unittest

from fastapi import APIRouter, FastAPI
from fastapi.testclient import TestClient

from zesty_glass.api.route_index import Shelf


def application():
    router = APIRouter(prefix="/api")

    @router.get("/a/{id}")
    def read(id: int):
        return {"read": id}

    @router.put("/a/{id}")
    def write(id: int):
        return {"wrote": id}

    @router.get("/a/all")
    def never():
        return {"never": "the one before it takes its address"}

    @router.get("/b/first")
    def named():
        return {"named": True}

    @router.get("/b/{name}")
    def other(name: str):
        return {"other": name}

    app = FastAPI()
    app.include_router(router)
    return app, router


class Found(unittest.TestCase):
    def setUp(self):
        app, router = application()
        app.router.routes.insert(0, Shelf(router.routes))
        self.with_shelf, self.without = TestClient(app), TestClient(application()[0])

    def test_a_shelf_changes_no_answer(self):
        for method, path in (
            ("GET", "/api/a/3"),
            ("PUT", "/api/a/3"),
            ("DELETE", "/api/a/3"),
            ("GET", "/api/a/three"),
            ("GET", "/api/a/all"),
            ("GET", "/api/a/3/"),
            ("GET", "/api/a"),
            ("GET", "/api"),
            ("GET", "/"),
            ("GET", "/api/b/first"),
            ("GET", "/api/b/second"),
            ("POST", "/api/b/second"),
            ("GET", "/api/b/a%2Fb"),
            ("GET", "/api/c/1"),
        ):
            with self.subTest(f"{method} {path}"):
                ours, theirs = (
                    c.request(method, path, follow_redirects=False)
                    for c in (self.with_shelf, self.without)
                )
                self.assertEqual(
                    (ours.status_code, ours.content, ours.headers.get("allow")),
                    (theirs.status_code, theirs.content, theirs.headers.get("allow")),
                )

    def test_what_is_found_is_not_looked_for_again(self):
        app, router = application()
        app.router.routes[:] = [Shelf(router.routes)]
        alone = TestClient(app)
        self.assertEqual(alone.get("/api/a/3").json(), {"read": 3})
        self.assertEqual(alone.put("/api/a/4").json(), {"wrote": 4})
        self.assertEqual(alone.get("/api/b/first").json(), {"named": True})
        self.assertEqual(alone.get("/api/c").status_code, 404)


if __name__ == "__main__":
    unittest.main()
