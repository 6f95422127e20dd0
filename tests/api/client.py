"""A client of the application on a fresh demo database."""

from __future__ import annotations

import unittest
from decimal import Decimal
from uuid import uuid4

from tests.application import Client, borrowed, given_back
from tests.database import fresh
from zesty_glass.core.rules import Rules, Settings
from zesty_glass.demo.homes import uid
from zesty_glass.demo.load import EMAIL, MANAGER_EMAIL, PASSWORD
from zesty_glass.documents.codec import plain
from zesty_glass.records.models import Firm
from zesty_glass.work.signing_in import add_user

#: what became of a piece, as it is sent
MOVE = {"piece": 0, "fate": "swapped", "on": "2026-11-01", "because": "x"}
HOME_1, HOME_2, HOME_3, HOME_6, HOME_7 = (uid(f"home-{n}-visit") for n in (1, 2, 3, 6, 7))


class ApiCase(unittest.TestCase):
    """Signed in as the demo consultant; one database a class."""

    @classmethod
    def setUpClass(cls):
        cls.app = borrowed(fresh(), public_address="https://water.example")
        cls.addClassCleanup(given_back, cls.app)

    def setUp(self):
        cls = type(self)
        if (
            "session" not in cls.__dict__
        ):  # one sign-in a class: a password takes a tenth of a second to check, on purpose
            first = self.signed_in(EMAIL)
            cls.session = (dict(first.cookies), first.headers["X-Zesty-Token"])
        self.client = Client(self.app, raise_server_exceptions=False, cookies=cls.session[0])
        self.client.headers["X-Zesty-Token"] = cls.session[1]

    def signed_in(self, email, password=PASSWORD):
        client = Client(self.app, raise_server_exceptions=False)
        r = client.post("/api/session", json={"email": email, "password": password})
        self.assertEqual(r.status_code, 200, r.text)
        client.headers["X-Zesty-Token"] = r.json()["token"]
        return client

    def manager(self):
        return self.signed_in(MANAGER_EMAIL)

    def get(self, path, status=200):
        r = self.client.get(path)
        self.assertEqual(r.status_code, status, r.text[:600])
        return r.json()

    def send(self, method, path, body=None, status=200, **headers):
        r = self.client.request(
            method,
            path,
            json=body,
            headers={k.replace("_", "-"): str(v) for k, v in headers.items()},
        )
        self.assertEqual(r.status_code, status, r.text[:900])
        return r.json() if r.content else None

    def other_firm(self):
        """Signed in as the manager of a firm of its own."""
        firm, email = uuid4(), f"m{uuid4().hex[:6]}@other.example"
        with self.app.state.sessions.begin() as db:
            db.add(
                Firm(
                    id=firm,
                    name="Another firm",
                    settings=plain(Settings()),
                    rules=plain(Rules()),
                    version=1,
                )
            )
            db.flush()
            add_user(db, firm, email, "Another", "manager", "another long password")
        return self.signed_in(email, "another long password")

    def instrument(self, key):
        return next(k for k in self.get("/api/instruments") if k["id"] == key)

    def new_visit(self, **home):
        id = str(uuid4())
        body = {
            "id": id,
            "customer": {"name": "Tamsin Roakwell"},
            "home": {"name": "A house", "people": 4, "bathrooms": 2, "source": "city", **home},
            "complaints": [{"id": str(uuid4()), "sign": "white_crust", "words": "Crust"}],
        }
        self.send("POST", "/api/visits", body, 201)
        return id

    def new_sample(self, visit, **more):
        id = str(uuid4())
        body = {
            "id": id,
            "name": "Kitchen cold",
            "raw": True,
            "drawn_at": "2026-11-20T10:00:00Z",
            **more,
        }
        self.send("PUT", f"/api/visits/{visit}/samples/{id}", body)
        return id

    def reading(self, kit, observation, id=None):
        k = self.instrument(kit)
        return {
            "id": id or str(uuid4()),
            "analyte": k["analyte"],
            "instrument": k,
            "observation": observation,
            "made_at": "2026-11-20T10:05:00Z",
        }

    def keep(self, visit, sample, reading, status=200):
        return self.send(
            "PUT", f"/api/visits/{visit}/samples/{sample}/readings/{reading['id']}", reading, status
        )


def compared(assessment):
    """An assessment in the shape of a comparison over its one horizon."""

    def stops(o):
        return o["line"] is None or any(
            c["status"] == "stop"
            for checks in (o["line"]["checks"], *(s["checks"] for s in o["line"]["stages"]))
            for c in checks
        )

    def water(o, scope):
        return (
            o["line"][{"house": "house", "tap": "tap"}[scope]]
            if o["line"] and any(s["scope"] == scope for s in o["line"]["stages"])
            else None
        )

    def bought(o):
        return sum(
            (
                Decimal(p["price"]) + Decimal(p["installation"])
                for p in (o["line"] or {"purchases": ()})["purchases"]
            ),
            Decimal(0),
        )

    def rent(o):
        lets = [p["let"] for p in (o["line"] or {"purchases": ()})["purchases"]]
        return sum((Decimal(x["per_month"]) for x in lets if x), Decimal(0))

    def needs(o):
        found = (
            [
                {"stage": s["name"], "status": c["status"], "sentence": c["sentence"]}
                for s in o["line"]["stages"]
                for c in s["checks"]
            ]
            + [
                {"stage": "The whole system", "status": c["status"], "sentence": c["sentence"]}
                for c in o["line"]["checks"]
            ]
            if o["line"]
            else []
        )
        grave = ("stop", "unknown", "warn")
        every = []
        for n in found:
            if n["status"] in grave and n not in every:
                every.append(n)
        return sorted(every, key=lambda n: grave.index(n["status"]))

    def single(o):
        return list(
            dict.fromkeys(
                d["label"]
                for s in (o["line"] or {"stages": ()})["stages"]
                for d in s["dues"]
                if not d["common"]
            )
        )

    options = [
        {
            **{k: o[k] for k in ("id", "name", "error", "waste", "chores", "left")},
            "stops": stops(o),
            "bought": bought(o),
            "per_month": rent(o),
            "house": water(o, "house"),
            "tap": water(o, "tap"),
            "needs": needs(o),
            "single_source": single(o),
        }
        for o in assessment["options"]
    ]
    over = {
        "years": assessment["horizon"],
        "options": {
            o["id"]: {k: o[k] for k in ("cost", "use_band", "cheaper_than")}
            for o in assessment["options"]
        },
    }
    return {
        "options": options,
        "rows": assessment["rows"],
        "assumptions": assessment["assumptions"],
        "over": [over],
    }


def in_decimals(comparison):
    """The same with its prices as decimals, so that 10 and 10.00 are one amount, and without the
    way each value came about and the facts in words, which an assessment does not hold.
    """
    return {
        **{k: v for k, v in comparison.items() if k != "facts"},
        "options": [
            {
                **{k: v for k, v in o.items() if k != "steps"},
                **{k: Decimal(o[k]) for k in ("bought", "per_month")},
            }
            for o in comparison["options"]
        ],
    }
