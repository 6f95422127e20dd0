"""Zesty Glass: the working tool of a water treatment sales consultant."""

__version__ = "0.1.0"
