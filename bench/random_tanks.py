"""How long whole random designs take with their remedies, and whether each is worked out or refused by name.

python bench/random_tanks.py [how many] [first seed]
"""

import json
import statistics
import sys
import time
from pathlib import Path

sys.path.insert(0, str(Path(__file__).resolve().parent.parent))

from pydantic import ValidationError

from keel.design.workshop import Workshop
from keel.evaluation import evaluate
from keel.formats.document import UnreadableDesignError, read_design
from keel.solid.faults import GeometryError
from keel.tests.wild import Wild
from server.demo import saltmarsh
from server.jobs.patience import Patience


def main(count: int, first: int) -> None:
    """Evaluate so many and say what came of them."""
    shop = Workshop.model_validate(saltmarsh.RULES)
    took: list[tuple[float, int]] = []
    refused: list[str] = []
    broken: list[str] = []
    untried = 0
    for seed in range(first, first + count):
        begun = time.perf_counter()
        try:
            patience = Patience()
            answer = evaluate(read_design(json.dumps(Wild(seed).document())), shop, enough=patience.is_over)
            took.append((time.perf_counter() - begun, seed))
            untried += answer.untried
        except (GeometryError, ValidationError, UnreadableDesignError) as error:
            refused.append(str(error))
        except Exception as error:
            broken.append(f"seed {seed}: {type(error).__name__} {error}")
    print(f"{len(took)} worked out, {len(refused)} refused by name, {len(broken)} broken")
    if took:
        middle, (longest, which) = statistics.median(seconds for seconds, _ in took), max(took)
        print(
            f"with remedies: median {middle:.2f} s, longest {longest:.2f} s (seed {which}); {untried} remedies untried"
        )
    for line in broken[:20]:
        print(line)


if __name__ == "__main__":
    main(*(int(given) for given in (sys.argv[1:] + ["437", "0"][len(sys.argv) - 1 :])))
