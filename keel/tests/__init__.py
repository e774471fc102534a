"""Tests of the core. Hypothesis runs without deadlines: machines differ, speed is measured in bench/."""

from hypothesis import settings

settings.register_profile("keel", deadline=None)
settings.load_profile("keel")
