"""A browser, and what a person does with it."""

import json
import shutil
import tempfile
import time
from collections.abc import Callable
from functools import cache, partial
from pathlib import Path
from typing import Any

from django.conf import settings
from django.contrib.staticfiles.testing import StaticLiveServerTestCase
from selenium.common.exceptions import StaleElementReferenceException
from selenium.webdriver import ActionChains, Chrome, ChromeOptions, ChromeService, Keys
from selenium.webdriver.common.by import By
from selenium.webdriver.remote.webelement import WebElement

from keel.warm import warm_answers
from server.config.runner import CountingRunner
from server.workshop.models import Person
from tests.waiting import waited

FLAGS = (
    "--headless=new",
    "--no-sandbox",
    "--disable-quic",
    "--no-first-run",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
    "--use-angle=swiftshader",
    "--enable-unsafe-swiftshader",
    "--ignore-gpu-blocklist",
    "--window-size=1280,800",
)
PATIENCE_S = 25.0
WITHOUT_WEBGL = """
const asked = HTMLCanvasElement.prototype.getContext
HTMLCanvasElement.prototype.getContext = function (kind, ...more) {
  return kind === 'webgl2' ? null : asked.call(this, kind, ...more)
}
"""
BY_PASSWORD = "django.contrib.auth.backends.ModelBackend"
warmed_up = cache(warm_answers)
AXE = settings.BASE_DIR / "web" / "node_modules" / "axe-core" / "axe.min.js"


@cache
def downloads() -> Path:
    """Where the browser puts files."""
    return Path(tempfile.mkdtemp(prefix="keel-downloads-"))


@cache
def chromium(solid: bool) -> Chrome:
    """A browser with a profile of its own, kept for all tests of its kind."""
    profile = tempfile.mkdtemp(prefix="keel-profile-")
    options = ChromeOptions()
    options.binary_location = "/usr/bin/chromium"
    for flag in (*FLAGS, f"--user-data-dir={profile}"):
        options.add_argument(flag)
    options.add_experimental_option("prefs", {"download.default_directory": str(downloads())})
    options.set_capability("goog:loggingPrefs", {"browser": "ALL"})
    browser = Chrome(options=options, service=ChromeService("/usr/bin/chromedriver"))
    browser.set_script_timeout(60)
    if not solid:
        browser.execute_cdp_cmd("Page.addScriptToEvaluateOnNewDocument", {"source": WITHOUT_WEBGL})
    CountingRunner.to_close.append(partial(left, browser, profile))
    return browser


def left(browser: Chrome, profile: str) -> None:
    """Close a browser, and delete what it kept."""
    browser.quit()
    for folder in (profile, str(downloads())):
        shutil.rmtree(folder, ignore_errors=True)


class BrowserTestCase(StaticLiveServerTestCase):
    """A browser at a size of its own; each test starts signed out, with no file downloaded."""

    solid = False
    """Whether there is WebGL. Without a graphics card it takes most of the time; few tests are about it."""

    @classmethod
    def setUpClass(cls) -> None:
        """Have the kernels compiled and a browser open."""
        super().setUpClass()
        warmed_up()
        cls.browser, cls.downloads = chromium(cls.solid), downloads()
        cls.browser.set_window_size(1280, 800)

    def tearDown(self) -> None:
        """Nothing may have thrown on any page."""
        self.browser.execute_script("window.onbeforeunload = null; localStorage.clear()")
        self.browser.delete_all_cookies()
        self.browser.get("about:blank")
        thrown = [entry["message"] for entry in self.browser.get_log("browser") if "Uncaught" in entry["message"]]
        for file in self.downloads.iterdir():
            file.unlink()
        self.assertEqual(thrown, [])

    def until(self, what: Callable[[], Any], why: str = "") -> Any:
        """Wait for something to be true, and give it."""
        return waited(what, why, PATIENCE_S, lambda: time.sleep(0.05))

    def find(self, selector: str, hidden: bool = False) -> WebElement:
        """The first visible element for a CSS selector or an XPath; a hidden one where that is wanted."""
        by = By.XPATH if selector.startswith("//") else By.CSS_SELECTOR
        return self.until(
            lambda: next(e for e in self.browser.find_elements(by, selector) if hidden or e.is_displayed()), selector
        )

    def on(self, selector: str, act: Callable[[WebElement], Any], hidden: bool = False) -> Any:
        """Do something with an element, looked up anew where the page put another in its place meanwhile."""
        deadline = time.monotonic() + PATIENCE_S
        while True:
            try:
                return act(self.find(selector, hidden))
            except StaleElementReferenceException:
                if time.monotonic() > deadline:
                    raise

    def click(self, selector: str) -> None:
        """Click an element as soon as nothing lies over it."""
        self.until(lambda: self.find(selector).click() or True, f"click {selector}")

    def station(self, name: str) -> None:
        """Go to a station, and wait until its panel is the one that is there: stations share some of their parts."""
        self.click(f"[data-station={name}]")
        self.until(lambda: self.find(f"[data-station={name}][aria-current=step]"), f"station {name}")

    def keys(self, selector: str, *keys: str) -> None:
        """Send keys to an element; a path of a file to a hidden input."""
        self.on(selector, lambda e: e.send_keys(*keys), hidden="aria-label" in selector)

    def button(self, text: str, within: str = "body") -> WebElement:
        """A button or link by its words."""
        path = (
            f".//*[self::button or self::a or self::summary][normalize-space()={json.dumps(text, ensure_ascii=False)}]"
        )
        return self.until(
            lambda: next(e for e in self.find(within).find_elements(By.XPATH, path) if e.is_enabled()), f"button {text}"
        )

    def press(self, text: str, within: str = "body") -> None:
        """Press a button by its words."""
        self.until(lambda: self.button(text, within).click() or True, f"press {text}")

    def field(self, label: str) -> WebElement:
        """An input by its label."""
        path = f"//label[normalize-space(translate(., '*\u2009\u00a0', ''))={json.dumps(label, ensure_ascii=False)}]"

        def look() -> WebElement:
            name = self.browser.find_element(By.XPATH, path).get_attribute("for")
            return self.browser.find_element(By.ID, str(name))

        return self.until(look, f"field {label}")

    def type_into(self, label: str, text: str) -> None:
        """Type over a field and leave it."""
        self.until(lambda: self._typed(label, text), f"type into {label}")

    def _typed(self, label: str, text: str) -> bool:
        field = self.field(label)
        self.browser.execute_script("arguments[0].scrollIntoView({block: 'nearest'})", field)
        field.click()
        field.send_keys(Keys.CONTROL, "a")
        field.send_keys(text, Keys.TAB)
        return True

    def tick(self, label: str) -> None:
        """Turn a box on or off by its label."""
        path = f"//label[contains(., '{label}')]//input"
        self.until(lambda: self.browser.find_element(By.XPATH, path).click() or True, f"tick {label}")

    def choose(self, label: str, option: str) -> None:
        """Pick from a list by its label."""
        place = f"//*[contains(@class, 'MuiInputLabel')][normalize-space()='{label}']/..//*[@role='combobox']"
        self.click(place)
        self.click(f"//li[normalize-space()='{option}']")
        self.until(lambda: not self.browser.find_elements(By.CSS_SELECTOR, "[role=listbox]"), "list closed")

    def text(self, selector: str) -> str:
        """Text of an element."""
        return self.on(selector, lambda e: e.text)

    def tally(self, name: str) -> float:
        """A figure of the tally."""
        return float(self.text(f"[data-tally={name}] > :nth-child(2)").split()[0].replace("−", "-"))

    def delta(self, name: str) -> str:
        """How far a figure of the tally moved."""
        return self.on(f"[data-tally={name}] [data-delta]", lambda e: e.text, hidden=True)

    def drag(self, selector: str, right: int, down: int) -> None:
        """Drag something by so many pixels."""

        def dragged(handle: WebElement) -> None:
            steps = ActionChains(self.browser, duration=30).click_and_hold(handle)
            for _ in range(4):
                steps = steps.move_by_offset(right // 4, down // 4)
            steps.release().perform()

        self.on(selector, dragged)

    def saved(self) -> None:
        """Wait until the design on screen is in the store."""
        self.until(lambda: self.browser.find_element(By.CSS_SELECTOR, "[data-save=saved]"), "saved")

    def sign_in(self, username: str, password: str) -> None:
        """Sign in from the first page."""
        self.browser.get(self.live_server_url)
        self.type_into("Name", username)
        self.type_into("Password", password)
        self.press("Sign in")
        self.until(lambda: self.browser.find_elements(By.CSS_SELECTOR, "#header-slot"), "signed in")

    def be(self, username: str) -> None:
        """Be somebody from the next page on, without the page to sign in at."""
        self.client.force_login(Person.objects.get(username=username), backend=BY_PASSWORD)
        cookie = self.client.cookies[settings.SESSION_COOKIE_NAME]
        self.go("/healthz")
        self.browser.add_cookie({"name": cookie.key, "value": cookie.value, "httpOnly": True})

    def go(self, path: str) -> None:
        """Open an address of the application."""
        self.browser.get(self.live_server_url + path)

    def fetch(self, method: str, path: str, body: Any = None) -> Any:
        """Ask the API from within the page: status and body."""
        script = """
            const [method, path, body, done] = arguments
            const token = document.cookie.split('; ').find((c) => c.startsWith('csrftoken='))?.slice(10) ?? ''
            fetch('/api/' + path, {method, body: body && JSON.stringify(body),
                headers: {'X-CSRFToken': token, 'Content-Type': 'application/json'}})
              .then(async (r) => done([r.status, await r.json().catch(() => null)]))"""
        return self.browser.execute_async_script(script, method, path, body)

    def assert_accessible(self, where: str) -> None:
        """No violation of WCAG 2.2 A and AA that axe-core can see."""
        self.browser.execute_script(AXE.read_text())
        script = """
            const done = arguments[0], tags = ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa']
            const told = (n) => n.html.slice(0, 160) + ' | ' + n.failureSummary
            const ends = (a) => Number.isFinite(a.effect.getComputedTiming().endTime)
            document.getAnimations().filter(ends).forEach((a) => a.finish())
            axe.run(document, {runOnly: {type: 'tag', values: tags}})
               .then((r) => done(r.violations.map((v) => v.id + ': ' + v.nodes.slice(0, 4).map(told).join(' || '))))"""
        self.assertEqual(self.browser.execute_async_script(script), [], where)
