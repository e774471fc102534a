"""Handing a tank over: what is open, written down and closed, let stay; read empty, poured, no more than it holds."""

from typing import Any

from server.floor.models import LogEntry
from tests.web.test_build_page import SHELL, AtTheBuild

SENDER: dict[str, Any] = {"id": "sender", "name": "sender", "x_mm": 400.0, "y_mm": 200.0, "ohms_empty": 240.0, "ohms_full": 33.0}
SENDER |= {"action": {"kind": "tube"}}
POURED = "[data-pour='tank-2']"


class HandingOver(AtTheBuild):
    """A box with a sender."""

    document: dict[str, Any] = {"shell": SHELL, "gauge": {"senders": [SENDER]}}

    def test_left_open_and_closed(self) -> None:
        """It stands before its step until somebody says how it was closed; another stays, with a name and a reason."""
        self.open_station("handover")
        self.shows("steps of the build are open", "aside")
        self.press("Write down something open", "aside")
        self.type_into("What", "cap on the return", "aside")
        self.press("Add to the open items", "aside")
        self.shows("cap on the return", "section[aria-label='Before hand-over']")
        self.press("Closed", "section[aria-label='Before hand-over']")
        self.type_into("How it was closed", "joined to its hose")
        self.press("Record as closed", "[role=dialog]")
        self.until(lambda: "cap on the return" not in self.text("aside section"), "closed")
        self.press("Let it stay", "section[aria-label='Before first fuel']")
        self.type_into("Reason", "the yard builds it")
        self.press("I answer for it", "[role=dialog]")
        self.shows("Stays as it is, 1", "aside")

    def test_read_empty_then_poured(self) -> None:
        """Ohms before fuel; more than it holds is said at the field, and isn't taken."""
        self.open_station("handover")
        self.press("First fuel and fill", "aside")
        self.do("clicked", "[data-line='commission:pour-tank-1']")
        self.shows("Nothing in it yet", "aside")
        self.assertFalse(self.do("isEnabled", "Record as read empty", "aside"))
        self.type_into("sender reads", "238", "aside")
        self.press("Record as read empty", "aside")
        self.shows("sender read 238", "aside")
        self.do("clicked", "[data-line='commission:pour-tank-2']")
        self.type_into("In the tank now, all that was poured", "5000", POURED)
        self.shows("The tank holds", POURED)
        self.assertFalse(self.do("isEnabled", "Record as poured", POURED))
        self.type_into("In the tank now, all that was poured", "10,2", POURED)
        self.press("Record as poured", POURED)
        self.until(lambda: LogEntry.objects.filter(document__litres=10.2).exists(), "poured")
