"""How long an evaluation takes: in the core, and asked for over HTTP.

    python bench/evaluate.py                          the core alone
    python bench/evaluate.py --url http://127.0.0.1:8080 --user marla --password …

The alternative that the core's figure is set against, in the same run, is the same
answer from a fresh interpreter (`python -m keel evaluate`).
"""

import argparse
import http.cookiejar
import json
import statistics
import subprocess
import sys
import tempfile
import time
import urllib.request
from collections.abc import Callable
from pathlib import Path

sys.path.insert(0, str(Path(__file__).resolve().parent.parent))

from keel.design.workshop import Workshop
from keel.evaluate import evaluate
from keel.formats.document import design_json, read_design

KEEP_OUT = {"length_mm": 120, "width_mm": 90, "height_mm": 60}
PLACES = [(0, 0, 0), (700, 0, 0), (0, 400, 200), (600, 380, 250), (300, 0, 300)]
BUSY = {
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
QUIET = {"shell": {"length_mm": 800, "width_mm": 400, "height_mm": 350}}


def timed(what: Callable[[], object], times: int) -> list[float]:
    """Milliseconds of each call, after a few to warm up."""
    for _ in range(5):
        what()
    taken = []
    for _ in range(times):
        start = time.perf_counter()
        what()
        taken.append((time.perf_counter() - start) * 1e3)
    return taken


def report(name: str, taken: list[float]) -> None:
    """One line: median and 95th percentile."""
    p95 = statistics.quantiles(taken, n=20)[-1]
    print(f"{name:44} median {statistics.median(taken):8.2f} ms   p95 {p95:8.2f} ms   n {len(taken)}")


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


def main() -> None:
    """Measure and print."""
    parser = argparse.ArgumentParser(description=__doc__, formatter_class=argparse.RawDescriptionHelpFormatter)
    parser.add_argument("--url")
    parser.add_argument("--user", default="marla")
    parser.add_argument("--password", default="tide-and-tinplate")
    options = parser.parse_args()
    workshop, medians = Workshop(), {}
    for name, document in (("box, no bay", QUIET), ("box, bay of 5 keep-outs, findings priced", BUSY)):
        design = read_design(json.dumps(document))
        taken = timed(lambda design=design: evaluate(design, workshop), 200)
        medians[name] = statistics.median(taken)
        report(f"core: {name}", taken)
    with tempfile.NamedTemporaryFile(suffix=".json") as file:
        file.write(design_json(read_design(json.dumps(QUIET))))
        file.flush()
        command = [sys.executable, "-m", "keel", "evaluate", file.name]
        fresh = timed(lambda: subprocess.run(command, check=True, capture_output=True), 5)
        report("alternative: a fresh interpreter a design", fresh)
        print(f"the core in a running process is {statistics.median(fresh) / medians['box, no bay']:.0f} x faster")
    if options.url:
        post = signed_in(options.url, options.user, options.password)
        for name, document in (("box, no bay", QUIET), ("box, bay, findings", BUSY)):
            report(f"HTTP: {name}", timed(lambda document=document: post("/api/evaluate", {"design": document}), 100))


if __name__ == "__main__":
    main()
