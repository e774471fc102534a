"""How long the state of a job takes from its log: 200 operations, 5 000 and 100 000 entries.

    python bench/log.py

The alternative in the same run: the same entries read from their stored documents first.
"""

import json
import random
import statistics
import sys
from datetime import UTC, datetime, timedelta
from pathlib import Path
from time import perf_counter

sys.path.insert(0, str(Path(__file__).resolve().parent.parent))

from keel.log.entries import ENTRY, Received
from keel.log.state import build_state
from keel.studies.build.operation import Operation, Traveller
from keel.studies.result import words

START = datetime(2026, 5, 4, 8, tzinfo=UTC)
NAMES = [f"op{n}" for n in range(200)]
KINDS = ("started", "paused", "done", "note", "correction")


def documents(many: int) -> list[str]:
    """Entries as they are stored."""
    chance = random.Random(3)
    lines = []
    for n in range(many):
        kind = chance.choice(KINDS)
        about = {"of": f"e{chance.randrange(max(1, n))}"} if kind == "correction" else {"subject": chance.choice(NAMES)}
        lines.append(json.dumps({"id": f"e{n}", "kind": kind} | about))
    return lines


def read(lines: list[str]) -> list[Received]:
    """Entries as they came in."""
    return [
        Received(n, "a", START + timedelta(minutes=n), START + timedelta(minutes=n), ENTRY.validate_json(line))
        for n, line in enumerate(lines, start=1)
    ]


def main() -> None:
    """Measure and print."""
    work = Traveller([Operation(name, "fit", words(name), basis={"part": "1"}) for name in NAMES], [])
    for many in (5_000, 100_000):
        lines = documents(many)
        log = read(lines)
        taken: dict[str, list[float]] = {"state": [], "state and reading": []}
        for _ in range(5):
            begun = perf_counter()
            build_state(work, log, START)
            half = perf_counter()
            build_state(work, read(lines), START)
            taken["state"].append(half - begun)
            taken["state and reading"].append(perf_counter() - half)
        state, reading = (statistics.median(ones) * 1e3 for ones in taken.values())
        print(
            f"{many:7} entries: state {state:7.1f} ms; alternative, read as well {reading:7.1f} ms, "
            f"{reading / state:.1f} x"
        )


if __name__ == "__main__":
    main()
