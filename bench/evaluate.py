"""How long an evaluation takes: in the core, and asked for over HTTP.

    python bench/evaluate.py                          the core alone
    python bench/evaluate.py --url http://127.0.0.1:8080 --user marla --password …

Each case is worked out as the server does it, with a memory of what was worked out before, and by an alternative in the
same run: with none. The other alternative is the same answer from a fresh interpreter (`python -m keel evaluate`).
"""

import argparse
import gc
import http.cookiejar
import json
import statistics
import subprocess
import sys
import tempfile
import time
import urllib.request
from collections.abc import Callable, Iterator
from functools import partial
from itertools import islice
from pathlib import Path
from typing import Any

sys.path.insert(0, str(Path(__file__).resolve().parent.parent))

from keel.analysis.memory import Memory
from keel.analysis.showing import Showing
from keel.design.document import Design
from keel.design.workshop import Workshop
from keel.evaluation import evaluate
from keel.formats.document import design_json, read_design
from keel.warm import warm_answers
from server.demo import saltmarsh

KEEP_OUT = {"length_mm": 120, "width_mm": 90, "height_mm": 60}
PLACES = [(0, 0, 0), (700, 0, 0), (0, 400, 200), (600, 380, 250), (300, 0, 300)]
BUSY: dict[str, Any] = {
    "brief": {"target_l": 160},
    "bay": {
        "length_mm": 900,
        "width_mm": 500,
        "height_mm": 400,
        "keep_outs": [
            {"id": f"k{n}", "name": f"k{n}", "x_mm": x, "y_mm": y, "z_mm": z} | KEEP_OUT
            for n, (x, y, z) in enumerate(PLACES)
        ],
    },
    "shell": {"length_mm": 820, "width_mm": 420, "height_mm": 360, "x_mm": 20, "y_mm": 20, "z_mm": 10},
}
WELLS = [
    {"kind": "well", "id": f"w{n}", "name": f"well {n}", "a_mm": 20 + 78 * (n % 10), "b_mm": 30 + 130 * (n // 10)}
    | {"long_mm": 44, "wide_mm": 60, "deep_mm": 20 + 2 * n, "slope_mm": 3 * (n % 2)}
    for n in range(29)
]
BEHIND = [
    {"id": f"k{n}", "name": f"k{n}", "x_mm": x, "y_mm": 455, "z_mm": 0} | KEEP_OUT | {"width_mm": 40}
    for n, x in enumerate((0, 700))
]
LOADED: dict[str, Any] = {
    "brief": {"target_l": 100},
    "bay": {"length_mm": 900, "width_mm": 500, "height_mm": 400, "keep_outs": BEHIND},
    "shell": BUSY["shell"]
    | {
        "features": [
            *WELLS,
            {
                "kind": "sump",
                "id": "s",
                "name": "sump",
                "a_mm": 60,
                "b_mm": 120,
                "long_mm": 160,
                "wide_mm": 140,
                "deep_mm": 50,
            },
        ]
    },
    "ports": [
        {"id": "p", "name": "pickup", "role": "pickup", "x_mm": 140, "y_mm": 190, "z_mm": -44},
        {"id": "v", "name": "vent", "role": "vent", "x_mm": 10, "y_mm": 10, "z_mm": 356},
    ],
}
PORTED: dict[str, Any] = saltmarsh.JOBS[0]["designs"][0][1]
AT_SHELL = ("shell", "bay.gaps")
"""What the interface asks for at Shell."""
DRAG = {"remedies": False, "results": AT_SHELL}
QUIET = {"shell": {"length_mm": 800, "width_mm": 400, "height_mm": 350}}


WARMING = 25
"""So often, that every process and thread of a server has its connections."""


def timed(what: Callable[[], object], times: int, warming: int = 5) -> list[float]:
    """Milliseconds of each call, after a few to warm up."""
    for _ in range(warming):
        what()
    taken = []
    for _ in range(times):
        start = time.perf_counter()
        what()
        taken.append((time.perf_counter() - start) * 1e3)
    return taken


def dragged(document: dict[str, Any]) -> Iterator[Design]:
    """The design again and again, each time a little longer: nothing that was worked out before serves."""
    size = "length_mm" if "length_mm" in document["shell"] else "run_mm"
    for step in range(1000):
        shell = document["shell"] | {size: document["shell"][size] + 0.01 * step}
        yield read_design(json.dumps(document | {"shell": shell}))


def report(name: str, taken: list[float]) -> None:
    """One line: median and 95th percentile."""
    p95 = statistics.quantiles(taken, n=20)[-1]
    print(f"{name:44} median {statistics.median(taken):8.2f} ms   p95 {p95:8.2f} ms   n {len(taken)}")


def _post_next(post: Callable[[str, dict[str, object]], bytes], bodies: Iterator[Any]) -> bytes:
    return post("/api/evaluate", next(bodies))


def signed_in(url: str, user: str, password: str) -> Callable[[str, dict[str, object]], bytes]:
    """A function that posts JSON as that person."""
    jar = http.cookiejar.CookieJar()
    opener = urllib.request.build_opener(urllib.request.HTTPCookieProcessor(jar))

    def post(path: str, body: dict[str, object]) -> bytes:
        token = next((c.value for c in jar if c.name == "csrftoken"), "") or ""
        request = urllib.request.Request(
            url + path, json.dumps(body).encode(), {"Content-Type": "application/json", "X-CSRFToken": token}
        )
        answer: bytes = opener.open(request).read()
        return answer

    try:
        opener.open(url + "/api/session")
    except urllib.error.HTTPError as error:
        error.close()
    post("/api/session", {"username": user, "password": password})
    return post


REAR: dict[str, Any] = dict(saltmarsh.JOBS[1]["designs"])["Rear tank"]
CASES = (
    ("shell of 30 features, during a drag", LOADED, Showing(remedies=False, results=AT_SHELL)),
    ("saddle, 7 ports, 2 senders, during a drag", PORTED, Showing(remedies=False, results=AT_SHELL)),
    ("rear tank, remedies at rest", REAR, Showing(results=AT_SHELL)),
    ("rear tank, remedies and the fit at rest", REAR, Showing(results=(*AT_SHELL, "bay.fit"))),
    ("bay of 5 keep-outs, remedies at rest", BUSY, Showing(results=AT_SHELL)),
    ("box, no bay, everything", QUIET, Showing()),
)


def against_nothing_remembered(name: str, document: dict[str, Any], workshop: Workshop, showing: Showing) -> float:
    """A case both ways, turn by turn: what was asked live is remembered at rest, as on the page. The median [ms]."""
    memory, designs = Memory(), dragged(document)
    taken: dict[bool, list[float]] = {True: [], False: []}
    live = showing.model_copy(update={"remedies": False})
    for turn in range(44):
        design = next(designs)
        if showing.remedies:
            evaluate(design, workshop, live, memory=memory)
        for remembering in (turn % 2 == 0, turn % 2 == 1):
            start = time.perf_counter()
            evaluate(design, workshop, showing, memory=memory if remembering else None)
            taken[remembering].append((time.perf_counter() - start) * 1e3)
    report(f"core: {name}", taken[True][4:])
    report("  alternative: nothing remembered", taken[False][4:])
    found, run = sum(memory.recalled.values()), sum(memory.worked_out.values())
    ratio = statistics.median(taken[False][4:]) / statistics.median(taken[True][4:])
    print(f"  {found} of {found + run} studies came out of memory; {ratio:.2f} x as fast")
    return float(statistics.median(taken[True][4:]))


def main() -> None:
    """Measure and print."""
    parser = argparse.ArgumentParser(description=__doc__, formatter_class=argparse.RawDescriptionHelpFormatter)
    parser.add_argument("--url")
    parser.add_argument("--user", default="marla")
    parser.add_argument("--password", default="tide-and-tinplate")
    options = parser.parse_args()
    if options.url:
        over_http(options.url, options.user, options.password)
    else:
        in_process()


def in_process() -> None:
    """The core by itself, and what a fresh interpreter a design would take."""
    workshop = Workshop()
    warm_answers()
    gc.collect()
    gc.freeze()
    plain = 0.0
    for name, document, showing in CASES:
        plain = against_nothing_remembered(name, document, workshop, showing)
    with tempfile.NamedTemporaryFile(suffix=".json") as file:
        file.write(design_json(read_design(json.dumps(QUIET))))
        file.flush()
        command = [sys.executable, "-m", "keel", "evaluate", file.name]
        fresh = timed(lambda: subprocess.run(command, check=True, capture_output=True), 5)
        report("alternative: a fresh interpreter a design", fresh)
        print(f"the core in a running process is {statistics.median(fresh) / plain:.0f} x faster")


def over_http(url: str, user: str, password: str) -> None:
    """What the interface waits for, from a server that runs already."""
    post = signed_in(url, user, password)
    for name, document, showing in (
        ("box, no bay", QUIET, {}),
        ("box, bay, remedies", BUSY, {"results": AT_SHELL}),
        ("30 features, during a drag", LOADED, DRAG),
        ("saddle, 7 ports, 2 senders, during a drag", PORTED, DRAG),
    ):
        designs = islice(dragged(document), WARMING + 100)
        bodies = iter([{"design": design.model_dump(mode="json"), "showing": showing} for design in designs])
        report(f"HTTP: {name}", timed(partial(_post_next, post, bodies), 100, WARMING))


if __name__ == "__main__":
    main()
