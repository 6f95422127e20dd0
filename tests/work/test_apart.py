"""Long work in a process of its own: over its time or memory it is ended, and more than may wait is
turned away.
"""

import sys
import threading
import time
import unittest

from zesty_glass.core.errors import RuleError
from zesty_glass.work.apart import MOST_BYTES, Apart, Busy, TooMuch


def for_ever():
    while True:
        time.monotonic()


def spent(seconds):
    """Waits without using the processor; the seconds that it did use before it ended."""
    threading.Event().wait(seconds)
    return time.process_time()


def huge():
    return len(bytearray(MOST_BYTES))


def refuse():
    raise RuleError("a.code", "What.", "where", "Remedy.")


def knows(name):
    return name in sys.modules


def plus(a, b):
    return a + b


def until(path):
    """Ends when the file is there."""
    from pathlib import Path

    while not Path(path).exists():
        threading.Event().wait(0.01)
    return "ended"


class Limits(unittest.TestCase):
    @classmethod
    def setUpClass(cls):
        cls.apart = Apart(seconds=3, most_waiting=2)
        cls.addClassCleanup(cls.apart.stop)

    def test_what_it_needs_is_imported_before_its_time_counts(self):
        apart = Apart(seconds=5, modules=("colorsys",))
        self.addCleanup(apart.stop)
        apart.warm()
        self.assertTrue(apart.run(knows, "colorsys"))

    def test_what_is_worked_out_comes_back(self):
        self.assertEqual(self.apart.run(plus, 2, 3), 5)

    def test_an_error_comes_back_whole(self):
        with self.assertRaises(RuleError) as caught:
            self.apart.run(refuse)
        e = caught.exception
        self.assertEqual(
            (e.code, e.what, e.where, e.remedy), ("a.code", "What.", "where", "Remedy.")
        )

    def test_over_its_time_it_is_ended_and_the_next_goes_on(self):
        with self.assertRaises(TooMuch):
            self.apart.run(for_ever)
        self.assertEqual(self.apart.run(plus, 1, 1), 2)

    def test_waiting_for_a_busy_machine_is_not_its_own_time(self):
        apart = Apart(seconds=1)
        self.addCleanup(apart.stop)
        self.assertGreater(apart.run(spent, 1.5), 0)

    def test_one_that_does_nothing_for_long_is_ended_too(self):
        apart = Apart(seconds=0.3)
        self.addCleanup(apart.stop)
        with self.assertRaises(TooMuch):
            apart.run(spent, 60)

    def test_over_its_memory_it_is_refused(self):
        with self.assertRaises(TooMuch):
            self.apart.run(huge)
        self.assertEqual(self.apart.run(plus, 1, 1), 2)

    def test_more_than_may_wait_is_turned_away(self):
        import tempfile
        from pathlib import Path

        with tempfile.TemporaryDirectory() as folder:
            go = Path(folder) / "go"
            began = threading.Barrier(3)

            def ask():
                began.wait()
                self.apart.run(until, str(go))

            asked = [threading.Thread(target=ask) for _ in range(2)]
            for t in asked:
                t.start()
            began.wait()
            deadline = time.monotonic() + 20
            while self.apart._places._value and time.monotonic() < deadline:
                threading.Event().wait(0.005)
            with self.assertRaises(Busy):
                self.apart.run(plus, 1, 1)
            go.touch()
            for t in asked:
                t.join()
        self.assertEqual(self.apart.run(plus, 1, 1), 2)
