"""The command line prints the same figures as the server, without one."""

import contextlib
import io
import json
import tempfile
import unittest
from pathlib import Path

from tests.api.client import HOME_1, ApiCase, compared, in_decimals
from zesty_glass.cli import assess as command


def run(*arguments):
    out, err = io.StringIO(), io.StringIO()
    with contextlib.redirect_stdout(out), contextlib.redirect_stderr(err):
        status = command.main([str(a) for a in arguments])
    return status, out.getvalue(), err.getvalue()


class Same(ApiCase):
    def test_the_file_gives_the_server_s_figures(self):
        with tempfile.TemporaryDirectory() as d:
            file = Path(d, "visit.json")
            file.write_bytes(self.client.get(f"/api/visits/{HOME_1}/file").content)
            status, out, _ = run(file, "--years", "15")
        self.assertEqual(status, 0)
        self.assertEqual(
            compared(json.loads(out)),
            in_decimals(self.get(f"/api/visits/{HOME_1}/comparison?years=15")),
        )


class Errors(unittest.TestCase):
    def test_clear_and_with_status_2(self):
        with tempfile.TemporaryDirectory() as d:
            bad = Path(d, "bad.json")
            bad.write_text('{"format": "zesty-glass-visit", "version": 1')
            for file, words in ((bad, "file.cut_off"), (Path(d, "none.json"), "No such file")):
                status, out, err = run(file)
                self.assertEqual((status, out), (2, ""))
                self.assertIn(words, err)
