"""Tests of Zesty Glass. Hypothesis runs without a clock, so that a busy machine fails nothing."""

from hypothesis import settings

settings.register_profile("zesty", deadline=None, max_examples=60, derandomize=True)
settings.load_profile("zesty")
