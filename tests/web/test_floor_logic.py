"""What the bench shows before the workshop has answered; how far a part is; entries in words."""

from typing import Any
from unittest import TestCase

from tests.web.node import call


def step(name: str, kind: str = "fit", **more: Any) -> dict[str, Any]:
    """An operation that is open."""
    operation = {"id": name, "kind": kind, "title": {"text": name, "values": {}}, "parts": [], "pieces": []}
    state = {"standing": "open", "waits_for": [], "shut": [], "away": [], "when": None}
    return {"operation": operation | {key: more.pop(key) for key in ("parts", "pieces") if key in more}, **state, **more}


LOOK = {"condition": {"kind": "looked", "check": "tab", "photo": True}, "lacks": {"text": "not looked at yet"}}
COUNT = {"condition": {"kind": "counts match", "kinds": ["plugs"]}, "lacks": {"text": "not counted yet"}}


def build(*gates: dict[str, Any], steps: list[dict[str, Any]]) -> dict[str, Any]:
    """How far a tank is."""
    return {"state": {"operations": steps, "gates": list(gates), "next": None}, "photos": []}


def gate(name: str, *conditions: dict[str, Any]) -> dict[str, Any]:
    """A gate that is shut."""
    return {"gate": {"id": name, "before": ["close"]}, "standing": "shut", "conditions": conditions, "override": None}


def entry(kind: str, number: int = 1, **more: Any) -> dict[str, Any]:
    """An entry that waits."""
    return {"id": f"w{number}", "kind": kind, "design": 1, "photos": []} | more


def overlaid(built: dict[str, Any], *entries: dict[str, Any], refused: bool = False) -> dict[str, Any]:
    """What is shown."""
    found: dict[str, Any] = call("floor.ts", [("overlaid", built, list(entries), refused)])[0]
    return found


class Waiting(TestCase):
    """What waits on the device is shown as if it had arrived."""

    def test_done_there(self) -> None:
        """The next one comes, what waited for it waits no longer; another design's entry is none of it."""
        steps = [step("cut"), step("bend", waits_for=["cut"])]
        self.assertEqual(overlaid(build(steps=steps))["operations"], {"cut": "open", "bend": "open"})
        seen = overlaid(build(steps=steps), entry("started", subject="cut"), entry("done", 2, subject="cut"))
        self.assertEqual((seen["operations"]["cut"], seen["next"]), ("done", "bend"))
        other = overlaid(build(steps=steps), entry("done", subject="cut", design=2))
        self.assertEqual(other["operations"]["cut"], "open")

    def test_refused(self) -> None:
        """What the workshop didn't take isn't shown as done."""
        seen = overlaid(build(steps=[step("cut")]), entry("done", subject="cut"), refused=True)
        self.assertEqual(seen["operations"]["cut"], "open")

    def test_a_look_with_its_photo(self) -> None:
        """Met by a look that has the photo that is asked for; not by one without, nor by one that found it not so."""
        steps = [step("close", shut=["tab"])]
        built = build(gate("tab", LOOK), steps=steps)
        for more, standing in (
            ({"passed": True, "photos": ["p"]}, "open"),
            ({"passed": True}, "shut"),
            ({"passed": False, "photos": ["p"]}, "shut"),
        ):
            seen = overlaid(built, entry("checked", subject="tab", check="tab", **more))
            self.assertEqual(seen["gates"]["tab"], standing, more)
            self.assertEqual(seen["next"], "close" if standing == "open" else None)

    def test_what_the_workshop_judges(self) -> None:
        """Counts are judged there alone: until then the gate stays shut; passed unmet it is passed here too."""
        built = build(gate("plugs", COUNT), steps=[step("close", shut=["plugs"])])
        count = entry("count", subject="plugs", way="in", value=4)
        self.assertEqual(overlaid(built, count)["gates"]["plugs"], "shut")
        over = overlaid(built, entry("override", subject="plugs", name="M", reason="r"))
        self.assertEqual((over["gates"]["plugs"], over["next"]), ("overridden", "close"))


class Assembly(TestCase):
    """How far a piece is drawn."""

    STEPS = (
        step("prepare", "prepare", parts=["pan"]),
        step("cut", "cut", parts=["pan", "lid"]),
        step("bend", "bend", parts=["pan"]),
        step("weld rear", "weld", parts=["pan"], pieces=["rear"]),
        step("look", "look", parts=["pan", "lid"]),
        step("weld front", "close", parts=["pan"], pieces=["front"]),
    )

    def far(self, part: str, piece: str) -> list[str]:
        """After none, one, two of the operations."""
        found: list[str] = call("floor.ts", [("far", list(self.STEPS), {"part": part, "piece": piece})])[0]
        return found

    def test_a_pan_at_either_end(self) -> None:
        """Flat once it is cut, made once it is bent, in its place once its own seam is welded."""
        rear = ["planned", "planned", "flat", "made", "in place", "in place", "in place"]
        self.assertEqual(self.far("pan", "rear"), rear)
        self.assertEqual(self.far("pan", "front"), [*rear[:4], "made", "made", "in place"])

    def test_what_isn_t_bent(self) -> None:
        """A flat part is made once it is cut; nothing places it, so it stays so."""
        self.assertEqual(self.far("lid", "lid"), ["planned"] * 2 + ["made"] * 5)

    def test_what_is_lit(self) -> None:
        """The piece at hand alone; where all of it is looked over, none."""
        pieces = [{"part": "pan", "piece": "rear"}, {"part": "pan", "piece": "front"}, {"part": "lid", "piece": "lid"}]
        lit = call("floor.ts", [("lit", one, pieces) for one in self.STEPS])
        self.assertEqual(lit, [[], ["rear", "front", "lid"], ["rear", "front"], ["rear"], [], ["front"]])


class Said(TestCase):
    """Entries as they are read."""

    def test_in_words(self) -> None:
        """Each kind says what it is about by its title, with its own figures."""
        told = {
            "Done: Cut the wrapper": entry("done", subject="cut"),
            "Started: bend": entry("started", subject="bend"),
            "Skipped: Cut the wrapper, because came cut": entry("skipped", subject="cut", reason="came cut"),
            "Counted in: 6 plugs": entry("count", subject="plugs", way="in", value=6),
            "Measured 312 mm: depth, by tape": entry("measured", subject="depth", value_mm=312, by_way="tape"),
            "Flushed inside: swarf came out": entry("flushed", subject="inside", caught="swarf", clean=False),
            "Looked at, not so: tab": entry("checked", subject="tab", check="tab", passed=False),
            "Passed unmet: tab, by M, because r": entry("override", subject="tab", name="M", reason="r"),
            "Arrived: 2 boss, 1 caps, damaged": entry("arrived", subject="boss", value=2, caps=1, whole=False),
            "Moved: Cut the wrapper, after nothing": entry("moved", subject="cut", after=None),
            "Agreed, extra: a stud, by telephone": entry("agreed", about="extra", what="a stud", consent="telephone"),
            "Learnt: too tight. Next: wider": entry("learnt", what="too tight", next="wider"),
            "Note on the job": entry("note", subject=None),
        }
        self.assertEqual(call("floor.ts", [("inWords", list(told.values()))])[0], list(told))


ELBOW = [{"x": 0.0, "y": 0.0, "z": 0.0}, {"x": 100.0, "y": 0.0, "z": 0.0}, {"x": 100.0, "y": 50.0, "z": 0.0}]
APART = [{"x": 0.0, "y": 0.0, "z": 200.0}, {"x": 0.0, "y": 40.0, "z": 200.0}]


class AlongASeam(TestCase):
    """Where a finger is on a seam of two stretches."""

    def test_there_and_back(self) -> None:
        """Along the first, round its corner, on the second; what lies beyond the end is at the end."""
        found = call("floor.ts", [("along", {"lines": [ELBOW, APART]}, [0, 60, 120, 150, 170, 500])])[0]
        places = [tuple(one["place"][axis] for axis in "xyz") for one in found]
        self.assertEqual(places[1:3], [(60.0, 0.0, 0.0), (100.0, 20.0, 0.0)])
        self.assertEqual(places[4:], [(0.0, 20.0, 200.0), (0.0, 40.0, 200.0)])
        self.assertEqual([round(one["back"]["atMm"]) for one in found], [0, 60, 120, 150, 170, 190])
        self.assertTrue(all(one["back"]["offMm"] < 1e-9 for one in found))

    def test_verdicts(self) -> None:
        """Only a pass is good; what proves nothing is no failure, and is not shown as one."""
        names = ["pass", "fail", "too short", "undecided", "contradiction", "running", "stopped", "not walked"]
        shown = dict(zip(names, call("floor.ts", [("tones", names)])[0], strict=True))
        self.assertEqual([name for name, (_, tone) in shown.items() if tone == "good"], ["pass"])
        self.assertEqual({name for name, (_, tone) in shown.items() if tone == "stop"}, {"fail", "stopped"})
        self.assertEqual(shown["too short"][0], "Too short to prove anything")
