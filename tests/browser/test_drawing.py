"""The drawing's labels, on every demo design."""

from unittest.mock import patch

from django.core.management import call_command

from keel.stations.pricing import Pricing
from server.demo.saltmarsh import PEOPLE
from server.jobs.models import TankDesign
from server.workshop.models import Person
from tests.browser.driver import BrowserTestCase

STATIONS = {
    "mm_l": ("bay", "shell", "inside", "ports", "gauge", "mount"),
    "in_usgal": ("shell", "ports", "gauge", "mount"),
}
"""Those that draw; in inches those whose labels have figures."""
OVERLAPS = """
const seen = [...document.querySelectorAll('section[aria-label=Drawing] svg[role=group] text')]
  .filter((t) => getComputedStyle(t).visibility !== 'hidden' && t.textContent.trim())
  .map((t) => [t.textContent.trim(), t.getBoundingClientRect()])
const met = []
for (let i = 0; i < seen.length; i++) for (let j = 0; j < i; j++) {
  const [a, p] = seen[i], [b, q] = seen[j]
  const apart = p.left >= q.right - 0.5 || q.left >= p.right - 0.5 || p.top >= q.bottom - 0.5 || q.top >= p.bottom - 0.5
  if (!apart) met.push(`${a} / ${b}`)
}
return [seen.length, met]
"""
UNPAINTED = """
const sheet = document.createElement('style')
sheet.textContent = 'section[aria-label=Drawing], aside, [aria-label=Inputs] { opacity: 0 }'
document.head.append(sheet)
"""
READY = """
const station = document.querySelector('[data-station][aria-current=step]')?.dataset.station
const drawn = document.querySelectorAll('section[aria-label=Drawing] [data-view] text').length
return station === arguments[0] && drawn > 3
"""


class Labels(BrowserTestCase):
    """No text lies on another."""

    def test_no_label_lies_on_another(self) -> None:
        """Every flat view of every demo design at every station that draws, on two screens, in both unit sets."""
        call_command("load_demo", verbosity=0)
        # What remedies are offered lies beside the drawing: they aren't looked for here.
        self.enterContext(patch.object(Pricing, "with_remedies", lambda pricing: pricing.findings))
        name = PEOPLE[0][0]
        met, count, sizes = [], 0, [(1024, 768), (1280, 800)]
        for units, stations in STATIONS.items():
            Person.objects.filter(username=name).update(units=units)
            self.be(name)
            for tank in TankDesign.objects.filter(revision__gt=0):
                self.go(f"/designs/{tank.pk}/{stations[0]}?flat")
                # It is laid out but not painted: without a graphics card that takes longer than all the rest.
                self.browser.execute_script(UNPAINTED)
                for station in stations:
                    if station != stations[0]:
                        self.click(f"[data-station={station}]")
                    self.turn_to_the_tank()
                    self.until(lambda at=station: self.browser.execute_script(READY, at), f"{tank} at {station}")
                    sizes.reverse()  # each station starts at the size that the one before ended at
                    for width, height in sizes:
                        self.browser.set_window_size(width, height)
                        seen, found = self.settled()
                        count += seen
                        met += [f"{units} {width} {tank} {station}: {pair}" for pair in found]
            self.browser.delete_all_cookies()
        self.assertGreater(count, 1000)
        self.assertEqual(met, [])

    def turn_to_the_tank(self) -> None:
        """Away from a station's board."""
        for button in self.browser.find_elements("xpath", "//button[normalize-space()='Show the tank']"):
            button.click()

    def settled(self) -> tuple[int, list[str]]:
        """How many texts there are and which lie on another, once the drawing has come to rest."""
        before = None
        for _ in range(20):
            now = self.browser.execute_async_script(
                "const done = arguments[0]; setTimeout(() => requestAnimationFrame(() => done((() => {"
                + OVERLAPS
                + "})())), 70)"
            )
            if now == before:
                break
            before = now
        return now[0], now[1]
