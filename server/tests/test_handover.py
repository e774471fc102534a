"""From first fuel to hand-over through the API: what is refused, what comes out of what was poured."""

from server.tests.test_floor import Floor


class HandedOver(Floor):
    """A tank on its way to the customer."""

    def test_more_than_it_holds(self) -> None:
        """Refused with both figures; what fits is taken, and can be seen."""
        fill = self.build()["fills"][-1]
        step = f"commission:pour-{fill['id']}"
        over = self.write(self.entry("poured", subject=step, litres=fill["holds_l"] + 0.5))[0]
        self.assertIn("holds", over["refused"])
        self.assertIsNone(self.write(self.entry("poured", subject=step, litres=fill["litres"]))[0]["refused"])
        poured = self.build()["state"]["commission"]["poured"]
        self.assertEqual([one["poured"]["litres"] for one in poured], [fill["litres"]])

    def test_nobody_passes_an_open_item(self) -> None:
        """The engine waits for the ledger: neither a name nor pressing Done gets past it; closing it does."""
        left = self.entry("left open", what="return capped with a plug", why="temporary", before="engine running")
        self.write(left)
        over = self.entry("override", subject="engine may run", name="Osric", reason="in a hurry")
        self.assertIn("nobody passes", self.write(over)[0]["refused"])
        self.assertIn("shut", self.write(self.entry("done", subject="commission:engine"))[0]["refused"])
        keys = [one["key"] for one in self.build()["state"]["ledger"]]
        self.assertIn(f"left {left['id']}", keys)
        unknown = self.entry("closed", subject="finding lines.open:p", reason="later", stays=True)
        self.assertIn("no such open item", self.write(unknown)[0]["refused"])
        self.write(self.entry("closed", subject=f"left {left['id']}", reason="joined"))
        self.assertNotIn(f"left {left['id']}", [one["key"] for one in self.build()["state"]["ledger"]])
