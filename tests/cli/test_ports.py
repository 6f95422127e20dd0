"""A port as somebody types it."""

import argparse
import socket
import unittest
from unittest import mock

from zesty_glass.cli import demo
from zesty_glass.cli.say import Stop


class Ports(unittest.TestCase):
    def test_the_first_and_the_last_that_are_ports(self):
        self.assertEqual([demo.port(t) for t in ("0", "1", "65535")], [0, 1, 65535])
        for text in ("65536", "-1", "x", "8420.5", ""):
            with self.subTest(text), self.assertRaises(argparse.ArgumentTypeError):
                demo.port(text)

    def test_somebody_who_listens_already_is_found(self):
        with socket.socket() as s:
            s.bind(("127.0.0.1", 0))
            s.listen()
            self.assertTrue(demo.port_in_use("127.0.0.1", s.getsockname()[1]))

    def test_a_port_for_root_alone_says_so(self):
        refused = mock.Mock(side_effect=PermissionError(13, "Permission denied"))
        with mock.patch.object(demo.socket, "socket") as made:
            made.return_value.__enter__.return_value.bind = refused
            with self.assertRaises(Stop) as e:
                demo.port_in_use("127.0.0.1", 80)
        self.assertIn("for root alone", str(e.exception))
