"""The bench at Sheet: parts picked from a row or off the tank, folding up under a slider."""

import io

from PIL import Image, ImageChops
from selenium.webdriver import ActionChains, Keys
from selenium.webdriver.common.by import By

from tests.browser.test_slice import SliceTestCase


class Bench(SliceTestCase):
    """A box in a browser that draws in three dimensions."""

    solid = True

    def picture(self) -> Image.Image:
        """The tank that folds, as it is seen."""
        return Image.open(io.BytesIO(self.find("[aria-label='Folding up'] canvas").screenshot_as_png)).convert("RGB")

    def share_changed(self, before: Image.Image, after: Image.Image) -> float:
        """How much of a picture is another."""
        grey = ImageChops.difference(before, after).convert("L").point(lambda value: 255 if value > 24 else 0)
        return grey.histogram()[255] / (grey.width * grey.height)

    def until_drawn(self, other_than: Image.Image, least: float) -> Image.Image:
        """Wait until the picture is another, and give it."""
        return self.until(
            lambda: (now := self.picture()) and self.share_changed(other_than, now) > least and now, "drawn anew"
        )

    def test_a_part_at_hand_and_folding(self) -> None:
        """Picked from the row a part is large over its bends; the slider unfolds all, a play folds them again."""
        self.open_tank("sheet")
        self.find("[aria-label='Folding up'] canvas")
        self.find("[aria-label='Ways to make it']")
        self.click("button[data-part=wrapper]")
        self.find("[aria-label='Bends of the wrapper'] li")
        self.assertEqual(len(self.browser.find_elements(By.CSS_SELECTOR, "svg [data-part]")), 1)
        self.assertEqual(self.browser.find_elements(By.CSS_SELECTOR, "[aria-label='Ways to make it']"), [])
        folded = self.picture()
        slider = self.find("[aria-label='How far it is folded']", hidden=True)
        slider.send_keys(*[Keys.PAGE_DOWN] * 10)
        self.until(lambda: slider.get_attribute("aria-valuenow") == "0", "flat")
        flat = self.until_drawn(folded, 0.05)
        self.press("Fold up")
        self.until(lambda: slider.get_attribute("aria-valuenow") == "100", "folded up")
        again = self.until_drawn(flat, 0.05)
        self.assertLess(self.share_changed(folded, again), 0.01, "it isn't as it was")
        self.assert_accessible("a part at hand")

    def test_picked_off_the_tank(self) -> None:
        """A press in the middle of the tank takes the part that is there; all parts are a press away."""
        self.open_tank("sheet")
        canvas = self.find("[aria-label='Folding up'] canvas")
        self.until(lambda: len(set(self.picture().resize((60, 60)).getdata())) > 20, "drawn")
        ActionChains(self.browser).move_to_element(canvas).click().perform()
        self.find("button[data-part][aria-pressed=true]:not([data-part=''])")
        self.press("All parts")
        self.find("[aria-label='Ways to make it']")
        self.assertGreater(len(self.browser.find_elements(By.CSS_SELECTOR, "svg [data-part]")), 1)
