"""A station is registered once on the page's side too."""

from unittest import TestCase

from tests.web.node import call


class OneMore(TestCase):
    """A made-up station, rendered as the page would."""

    def test_by_one_registration(self) -> None:
        """Its link in the rail, its panel and board on the page, its layer in every view; gone when it is taken out."""
        (shown,) = call("made_up_station.tsx", [("shown",)])
        self.assertEqual(shown["found"], "Paint")
        self.assertIn('href="/designs/7/paint"', shown["rail"])
        for part in ("<h1", "Paint", "how many coats", "<b>Two coats</b>", "<table", "Show the tank"):
            self.assertIn(part, shown["page"])
        for view in ("plan", "elevation", "end"):
            self.assertIn(f'data-paint="{view}"', shown["drawing"])
        self.assertTrue(shown["gone"])
        self.assertNotIn("paint", shown["after"])
        self.assertIn('href="/designs/7/shell"', shown["after"])
