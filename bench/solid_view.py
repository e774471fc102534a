"""How many pictures a second the solid view gives while it is turned, in a browser that draws in software.

    python bench/solid_view.py --url http://127.0.0.1:8080

It makes a customer, a job and a design of some 200 faces, turns the solid for a few seconds with
steady pointer moves, and counts frames that came after each other; set against the same browser
with an empty page, which gives the most it can do.
"""

import argparse
import json
import sys
import tempfile
import time
from pathlib import Path

from selenium.webdriver import Chrome, ChromeOptions, ChromeService
from selenium.webdriver.common.by import By
from selenium.webdriver.support.ui import WebDriverWait

sys.path.insert(0, str(Path(__file__).resolve().parent.parent))

from bench.evaluate import BEHIND, WELLS
from keel.analysis.showing import Showing
from keel.evaluation import evaluate
from keel.formats.document import read_design

FLAGS = ["--headless=new", "--no-sandbox", "--disable-quic", "--no-first-run", "--disable-background-networking"]
FLAGS += ["--disable-component-update", "--disable-sync", "--use-angle=swiftshader", "--enable-unsafe-swiftshader"]
FLAGS += ["--ignore-gpu-blocklist", "--window-size=1280,800"]
SECONDS = 5

DESIGN = {
    "brief": {"target_l": 100},
    "bay": {"length_mm": 900, "width_mm": 500, "height_mm": 400, "keep_outs": BEHIND},
    "shell": {"length_mm": 820, "width_mm": 420, "height_mm": 360, "features": WELLS[:2]},
}

CALL = """
const [method, path, body, done] = arguments
const token = document.cookie.split('; ').find((c) => c.startsWith('csrftoken='))?.slice(10) ?? ''
const headers = {'X-CSRFToken': token, 'Content-Type': 'application/json'}
fetch('/api/' + path, {method, body: JSON.stringify(body), headers})
  .then(async (answer) => done(await answer.json()))"""

TURN = """
const [seconds, done] = arguments
const canvas = document.querySelector('[data-solid] canvas')
const box = canvas?.getBoundingClientRect()
const held = {bubbles: true, pointerId: 1, pointerType: 'mouse', buttons: 1}
const at = (type, x, y) => canvas?.dispatchEvent(new PointerEvent(type, {...held,
  button: type === 'pointermove' ? -1 : 0, clientX: x, clientY: y}))
if (canvas) {
  canvas.setPointerCapture = canvas.releasePointerCapture = () => {}
  at('pointerdown', box.x + 300, box.y + 200)
}
const start = performance.now(); let last = start; const gaps = []
const step = (now) => {
  gaps.push(now - last); last = now
  const angle = (now - start) / 500
  at('pointermove', box ? box.x + 300 + 200 * Math.sin(angle) : 0, box ? box.y + 200 + 60 * Math.cos(angle) : 0)
  if (now - start < seconds * 1000) requestAnimationFrame(step)
  else { at('pointerup', 0, 0); done(gaps.slice(1)) }
}
requestAnimationFrame(step)"""


def report(name: str, gaps: list[float]) -> None:
    """Pictures a second on the whole, and at the slowest twentieth."""
    slow = sorted(gaps)[int(0.95 * len(gaps))]
    print(f"{name:34} {1000 * len(gaps) / sum(gaps):5.1f} a second; slowest twentieth {1000 / slow:5.1f}")


def main() -> None:
    """Measure and print."""
    parser = argparse.ArgumentParser(description=__doc__, formatter_class=argparse.RawDescriptionHelpFormatter)
    parser.add_argument("--url", default="http://127.0.0.1:8080")
    parser.add_argument("--user", default="marla")
    parser.add_argument("--password", default="tide-and-tinplate")
    options = parser.parse_args()
    shape = evaluate(read_design(json.dumps(DESIGN)), None, Showing(remedies=False)).shell.geometry
    assert shape is not None
    print(f"{len(shape.surface.triangles) // 3} triangles")
    chrome = ChromeOptions()
    chrome.binary_location = "/usr/bin/chromium"
    with tempfile.TemporaryDirectory() as profile:
        for flag in (*FLAGS, f"--user-data-dir={profile}"):
            chrome.add_argument(flag)
        browser = Chrome(options=chrome, service=ChromeService("/usr/bin/chromedriver"))
        browser.set_script_timeout(60)
        try:
            measure(browser, options)
        finally:
            browser.quit()


def measure(browser: Chrome, options: argparse.Namespace) -> None:
    """Open the design large and turn it."""
    browser.get(options.url)
    report("empty page", browser.execute_async_script(TURN, SECONDS))
    session = {"username": options.user, "password": options.password}
    browser.execute_async_script(CALL, "POST", "session", session)
    customer = browser.execute_async_script(CALL, "POST", "customers", {"name": f"bench {time.time_ns()}"})
    job = browser.execute_async_script(CALL, "POST", "jobs", {"title": "bench", "customer_id": customer["id"]})
    made = browser.execute_async_script(CALL, "POST", f"jobs/{job['id']}/designs", {"name": "bench", "design": DESIGN})
    browser.get(f"{options.url}/designs/{made['id']}/shell")
    drawn = (
        "const c = document.querySelector('[data-solid] canvas'); return c && c.width !== 300 ? [c.width, c.height] : 0"
    )
    for large in (False, True):
        if large:
            next(b for b in browser.find_elements(By.TAG_NAME, "button") if b.text == "Enlarge").click()
            time.sleep(1)
        size = WebDriverWait(browser, 20).until(lambda it: it.execute_script(drawn))
        for turn in ("first", "second"):
            report(f"{size[0]} × {size[1]} px, {turn} turn", browser.execute_async_script(TURN, SECONDS))
        simple = "Shown simpler" in browser.find_element(By.CSS_SELECTOR, "[data-solid]").text
        print("  says it shows a simpler picture" if simple else "  whole picture")


if __name__ == "__main__":
    main()
