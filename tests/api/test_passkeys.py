"""Passkeys: made with the password, opened by their owner alone, once for each question."""

from datetime import timedelta
from unittest.mock import patch
from uuid import UUID, uuid4

from tests.api.client import ApiCase
from tests.api.device import PRESENT, Device, data, text
from tests.application import Client
from zesty_glass.demo.load import EMAIL, FITTER_EMAIL, MANAGER_EMAIL, PASSWORD
from zesty_glass.records import signing
from zesty_glass.records.models import Audit, Throttle, User
from zesty_glass.records.passkey_models import Challenge, PasskeyRow
from zesty_glass.work import passkeys, signing_in

ORIGIN = "https://water.example"
KEYS = "/api/session/passkeys"


class Keys(ApiCase):
    def setUp(self):
        super().setUp()
        with self.app.state.sessions.begin() as db:
            db.query(PasskeyRow).delete()
            db.query(Throttle).delete()
            db.query(Challenge).delete()

    def asked(self, client=None):
        r = (client or self.client).post(f"{KEYS}/options", json={"password": PASSWORD})
        self.assertEqual(r.status_code, 200, r.text)
        return r.json()["options"]

    def added(self, device, client=None, status=201, options=None, name="Tablet"):
        made = device.make(options or self.asked(client))
        r = (client or self.client).post(KEYS, json={"name": name, "credential": made})
        self.assertEqual(r.status_code, status, r.text)
        return r.json()

    def stranger(self):
        return Client(self.app, raise_server_exceptions=False)

    def options(self):
        r = self.stranger().post("/api/session/passkey/options")
        self.assertEqual(r.status_code, 200, r.text)
        return r.json()["options"]

    def entered(self, answer, status=200):
        client = self.stranger()
        r = client.post("/api/session/passkey", json={"credential": answer})
        self.assertEqual(r.status_code, status, r.text)
        if status == 200:
            client.headers["X-Zesty-Token"] = r.json()["token"]
        return client, r.json()

    def test_a_key_signs_its_owner_in(self):
        device = Device(ORIGIN)
        view = self.added(device, name="  Tablet in the van ")
        self.assertEqual((view["name"], view["used_at"]), ("Tablet in the van", None))
        client, me = self.entered(device.sign(self.options()))
        self.assertEqual(me["name"], self.get("/api/session")["name"])
        self.assertEqual(client.get("/api/session").json()["id"], me["id"])
        self.assertEqual(client.post("/api/feeds", json={"id": str(uuid4())}).status_code, 201)
        self.assertIsNotNone(self.get(KEYS)[0]["used_at"])

    def test_it_stands_for_the_second_factor_too(self):
        device = Device(ORIGIN)
        manager = self.manager()
        self.added(device, manager)
        with self.app.state.sessions.begin() as db:
            signing.user_by_email(db, MANAGER_EMAIL).totp_on = True
        self.addCleanup(self.factor_off)
        r = self.stranger().post(
            "/api/session", json={"email": MANAGER_EMAIL, "password": PASSWORD}
        )
        self.assertEqual(r.json()["code"], "session.code")
        self.assertEqual(self.entered(device.sign(self.options()))[1]["role"], "manager")

    def factor_off(self):
        with self.app.state.sessions.begin() as db:
            signing.user_by_email(db, MANAGER_EMAIL).totp_on = False

    def test_each_question_is_answered_once_and_soon(self):
        device = Device(ORIGIN)
        options = self.asked()
        self.added(device, options=options)
        self.assertEqual(
            self.added(Device(ORIGIN), options=options, status=422)["code"], "passkey.wrong"
        )
        asked = self.options()
        answer = device.sign(asked)
        self.entered(answer)
        self.entered(answer, 401)
        self.entered(device.sign(asked), 401)
        late = self.options()
        with patch.object(passkeys, "now", lambda: signing_in.now() + timedelta(minutes=6)):
            self.entered(device.sign(late), 401)

    def test_a_question_belongs_to_whom_it_was_asked(self):
        fitter = self.signed_in(FITTER_EMAIL)
        refused = self.added(Device(ORIGIN), options=self.asked(fitter), status=422)
        self.assertEqual(refused["code"], "passkey.wrong")
        device = Device(ORIGIN)
        self.added(device)
        mine = {**self.asked(), "rpId": "water.example"}
        self.entered(device.sign(mine), 401)
        own = {"user": {"id": text(b"x")}, "rp": {"id": "water.example"}, **self.options()}
        self.assertEqual(
            self.added(Device(ORIGIN), options=own, status=422)["code"], refused["code"]
        )

    def test_what_does_not_hold_opens_nothing(self):
        device = Device(ORIGIN)
        self.added(device)
        self.entered(Device(ORIGIN).sign(self.options()), 401)  # a key nobody kept
        elsewhere = Device("https://water-example.test")
        elsewhere.id, elsewhere.key = device.id, device.key
        self.entered(elsewhere.sign(self.options()), 401)  # signed on another page
        self.entered(device.sign({**self.options(), "rpId": "example"}), 401)
        device.flags = PRESENT  # had, and its owner not recognised
        self.entered(device.sign(self.options()), 401)
        device.flags |= 4
        forged = device.sign(self.options())
        signature = bytearray(data(forged["response"]["signature"]))
        signature[-1] ^= 1
        forged["response"]["signature"] = text(bytes(signature))
        self.entered(forged, 401)
        self.entered(device.sign(self.options()))

    def test_a_copy_that_lags_behind_is_noticed(self):
        device = Device(ORIGIN)
        self.added(device)
        for _ in range(3):
            self.entered(device.sign(self.options()))
        device.uses = 1
        self.entered(device.sign(self.options()), 401)

    def test_a_count_of_32_bits_is_kept(self):
        device = Device(ORIGIN)
        device.uses = 2**32 - 3
        self.added(device)
        for _ in range(2):
            self.entered(device.sign(self.options()))
        self.assertEqual(device.uses, 2**32 - 1)

    def test_a_key_whose_owner_is_not_recognised_is_not_kept(self):
        device = Device(ORIGIN)
        device.flags = PRESENT
        self.assertEqual(self.added(device, status=422)["code"], "passkey.wrong")
        self.assertEqual(self.added(Device(ORIGIN), name=" ", status=422)["code"], "passkey.name")
        self.assertEqual(self.get(KEYS), [])

    def test_the_password_comes_first(self):
        r = self.client.post(f"{KEYS}/options", json={"password": "not this one"})
        self.assertEqual((r.status_code, r.json()["code"]), (422, "session.wrong"))
        with self.app.state.sessions.begin() as db:
            self.assertEqual(db.query(Challenge).filter(Challenge.user_id.isnot(None)).all(), [])

    def test_a_device_is_told_which_keys_there_are(self):
        device = Device(ORIGIN)
        self.added(device)
        options = self.asked()
        self.assertEqual([x["id"] for x in options["excludeCredentials"]], [text(device.id)])
        self.assertEqual(options["rp"]["id"], "water.example")
        self.assertEqual(options["authenticatorSelection"]["userVerification"], "required")
        self.assertEqual(self.options()["userVerification"], "required")
        again = self.added(device, options=options, status=422)
        self.assertEqual(again["code"], "passkey.twice")

    def test_a_key_is_removed_by_its_owner_alone(self):
        device = Device(ORIGIN)
        key = self.added(device)["id"]
        other = self.manager()
        self.assertEqual(other.get(KEYS).json(), [])
        self.assertEqual(other.delete(f"{KEYS}/{key}").status_code, 204)
        self.entered(device.sign(self.options()))
        for _ in range(2):
            self.send("DELETE", f"{KEYS}/{key}", None, 204)
        self.entered(device.sign(self.options()), 401)
        with self.app.state.sessions.begin() as db:
            me = signing.user_by_email(db, EMAIL).id
            actions = [a.action for a in db.query(Audit).filter(Audit.target == me)]
        self.assertEqual(actions.count("passkey removed"), 1)
        self.assertGreaterEqual(actions.count("passkey added"), 1)

    def test_whoever_left_has_no_key(self):
        with self.app.state.sessions.begin() as db:
            firm = signing.user_by_email(db, EMAIL).firm_id
            signing_in.add_user(db, firm, "left@example.example", "Left", "consultant", PASSWORD)
        device, left = Device(ORIGIN), self.signed_in("left@example.example")
        self.added(device, left)
        with self.app.state.sessions.begin() as db:
            db.query(User).filter(User.email == "left@example.example").one().active = False
        self.entered(device.sign(self.options()), 401)

    def test_nobody_has_more_than_enough(self):
        with patch.object(passkeys, "MOST_KEYS", 1):
            begun = self.asked()
            self.added(Device(ORIGIN))
            late = self.added(Device(ORIGIN), options=begun, status=422)
            self.assertEqual(late["code"], "passkey.many")
            r = self.client.post(f"{KEYS}/options", json={"password": PASSWORD})
        self.assertEqual((r.status_code, r.json()["code"]), (422, "passkey.many"))

    def test_whatever_is_sent_is_refused_and_nothing_breaks(self):
        deep = text(b"[" * 100_000)
        for answer in (
            {},
            {"response": "x", "rawId": 3},
            {"response": {"clientDataJSON": 5}, "rawId": []},
            {"response": {"clientDataJSON": deep}, "rawId": "a"},
            {"response": {"clientDataJSON": text(b'{"challenge": 7}')}, "rawId": "é"},
        ):
            self.entered(answer, 401)
            r = self.client.post(KEYS, json={"name": "Tablet", "credential": answer})
            self.assertEqual(r.status_code, 422, answer)
        broken = Device(ORIGIN).make(self.asked())
        broken["response"]["attestationObject"] = text(b"\xff" * 200)
        r = self.client.post(KEYS, json={"name": "Tablet", "credential": broken})
        self.assertEqual((r.status_code, r.json()["code"]), (422, "passkey.wrong"))

    def test_guessing_is_slowed_down(self):
        statuses = set()
        with patch.object(signing_in, "MOST_FAILURES", 1):
            for _ in range(14):
                r = self.client.post("/api/session/passkey", json={"credential": {}})
                statuses.add(r.status_code)
        self.assertEqual(statuses, {401, 429})

    def test_old_questions_are_forgotten(self):
        with self.app.state.sessions.begin() as db:
            old = signing_in.now() - timedelta(hours=1)
            db.add(Challenge(asked=b"old", user_id=None, until=old))
        self.options()
        with self.app.state.sessions.begin() as db:
            self.assertIsNone(db.get(Challenge, b"old"))

    def test_on_the_machine_itself_the_place_is_localhost(self):
        here = {"Host": "localhost:8123"}
        r = self.client.post(f"{KEYS}/options", json={"password": PASSWORD}, headers=here)
        self.assertEqual(r.json()["options"]["rp"]["id"], "localhost")
        made = Device("http://localhost:8123").make(r.json()["options"])
        body = {"name": "Desk", "credential": made}
        elsewhere = self.client.post(KEYS, json=body)
        self.assertEqual(elsewhere.json()["code"], "passkey.wrong")
        r = self.client.post(f"{KEYS}/options", json={"password": PASSWORD}, headers=here)
        made = Device("http://localhost:8123").make(r.json()["options"])
        r = self.client.post(KEYS, json={"name": "Desk", "credential": made}, headers=here)
        self.assertEqual(r.status_code, 201, r.text)

    def test_ids_are_of_their_own(self):
        first, second = (self.added(Device(ORIGIN))["id"] for _ in range(2))
        self.assertNotEqual(UUID(first), UUID(second))
        self.assertEqual([k["id"] for k in self.get(KEYS)], [second, first])
