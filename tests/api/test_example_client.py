"""The example client of docs/scripts.md, against the application as it is served."""

import csv
import importlib.util
import io
import unittest
from pathlib import Path
from uuid import uuid4

from tests.api.client import ApiCase

FILE = Path(__file__).resolve().parents[2] / "docs" / "example_client.py"


class ExampleClient(ApiCase):
    def test_it_writes_the_readings_of_the_days_visits(self):
        manager = self.manager()
        body = {"id": str(uuid4()), "name": "export", "scopes": ["personal"], "days": 2}
        token = manager.post("/api/tokens", json=body).json()["token"]
        spec = importlib.util.spec_from_file_location("example_client", FILE)
        client = importlib.util.module_from_spec(spec)
        spec.loader.exec_module(client)
        out = io.StringIO()

        def get(base, path, token):
            r = self.client.get(path, headers={"Authorization": f"Bearer {token}"})
            self.assertEqual(r.status_code, 200, r.text[:200])
            return r.json()

        client.get = get
        client.main("", token, out)
        rows = list(csv.DictReader(io.StringIO(out.getvalue())))
        hardness = [r for r in rows if r["customer"] == "Ottoline Marrash"]
        found = next(r for r in hardness if r["analyte"] == "hardness")
        self.assertAlmostEqual(float(found["best"]), 19 * 17.1181, 1)
        self.assertLess(len(FILE.read_text().splitlines()), 45)


if __name__ == "__main__":
    unittest.main()
