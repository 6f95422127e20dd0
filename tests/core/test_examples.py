"""The worked examples in the core's docstrings."""

import doctest
import importlib
import pkgutil
import unittest

import zesty_glass.core


def load_tests(loader, tests, pattern):
    for module in pkgutil.walk_packages(zesty_glass.core.__path__, "zesty_glass.core."):
        tests.addTests(doctest.DocTestSuite(importlib.import_module(module.name)))
    return tests


class Examples(unittest.TestCase):
    def test_there_are_some(self):
        loader = unittest.TestLoader()
        found = load_tests(loader, unittest.TestSuite(), None)
        self.assertGreaterEqual(found.countTestCases(), 60)
