"""Django's test runner, closing with a plain count of what passed and what failed."""

from typing import Any
from unittest import TextTestResult

from django.test.runner import DiscoverRunner


class CountingRunner(DiscoverRunner):
    """Prints `N passed, N failed, N skipped` as the very last line."""

    def suite_result(self, suite: Any, result: TextTestResult, **kwargs: Any) -> int:
        """Count, and remember the count for the end of the run."""
        wrong = len(result.failures) + len(result.errors) + len(result.unexpectedSuccesses)
        skipped = len(result.skipped)
        self._count = f"{result.testsRun - wrong - skipped} passed, {wrong} failed, {skipped} skipped"
        return super().suite_result(suite, result, **kwargs)

    def run_tests(self, *args: Any, **kwargs: Any) -> int:
        """Run, tear down, then print the count."""
        failed = super().run_tests(*args, **kwargs)
        print(self._count, flush=True)
        return failed
