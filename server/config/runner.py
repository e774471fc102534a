"""Django's test runner, closing with a plain count of what passed and what failed."""

import time
from collections.abc import Callable
from typing import Any, ClassVar
from unittest import TestCase, TextTestResult

from django.conf import settings
from django.contrib.auth.hashers import Argon2PasswordHasher
from django.test.runner import DiscoverRunner

SLOWEST = 8


class QuickHasher(Argon2PasswordHasher):
    """The same digest for a fraction of the work: every test makes its own people."""

    time_cost, memory_cost, parallelism = 1, 8, 1


class _Timed(TextTestResult):
    """Keeps how long each test took."""

    def __init__(self, *args: Any, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        self.took: list[tuple[float, str]] = []

    def startTest(self, test: TestCase) -> None:  # noqa: N802 (unittest's name)
        self._begun = time.perf_counter()
        super().startTest(test)

    def stopTest(self, test: TestCase) -> None:  # noqa: N802 (unittest's name)
        self.took.append((time.perf_counter() - self._begun, test.id()))
        super().stopTest(test)


class CountingRunner(DiscoverRunner):
    """Prints the slowest tests, and `N passed, N failed, N skipped` as the very last line."""

    to_close: ClassVar[list[Callable[[], None]]] = []
    """What tests keep open for each other, and has to be gone before the databases are."""

    def setup_test_environment(self, **kwargs: Any) -> None:
        """As for Django's runner; passwords cost less."""
        super().setup_test_environment(**kwargs)
        settings.PASSWORD_HASHERS = [f"{QuickHasher.__module__}.{QuickHasher.__qualname__}"]

    def teardown_databases(self, old_config: Any, **kwargs: Any) -> None:
        """As Django's, once nothing asks any more."""
        for close in self.to_close:
            close()
        super().teardown_databases(old_config, **kwargs)

    def get_resultclass(self) -> Any:
        """The timed one."""
        return super().get_resultclass() or _Timed

    def suite_result(self, suite: Any, result: TextTestResult, **kwargs: Any) -> int:
        """Count, and remember the count for the end of the run."""
        failures = [test for test, _ in (*result.failures, *result.errors)] + list(result.unexpectedSuccesses)
        wrong = len({getattr(test, "test_case", test).id() for test in failures})
        skipped = len(result.skipped)
        for took, name in sorted(getattr(result, "took", []), reverse=True)[:SLOWEST]:
            if took > 1:
                print(f"{took:7.1f} s  {name}")
        self._count = f"{result.testsRun - wrong - skipped} passed, {wrong} failed, {skipped} skipped"
        return super().suite_result(suite, result, **kwargs)

    def run_tests(self, *args: Any, **kwargs: Any) -> int:
        """Run, tear down, then print the count."""
        failed = super().run_tests(*args, **kwargs)
        print(self._count, flush=True)
        return failed
