"""Tests of the whole. What is drawn at random is drawn the same each time: a run that fails, fails again."""

from hypothesis import settings

settings.register_profile("the same each time", derandomize=True, deadline=None)
settings.load_profile("the same each time")
