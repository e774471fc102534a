"""Leak tests in the log: what begins, what is taken, what counts, what voids."""

from datetime import timedelta
from typing import Any
from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st

from keel.analysis.tank import Asked, TankAnalysis
from keel.design.document import Design
from keel.design.workshop import HouseRules, Workshop
from keel.log.entries import ENTRY, Received
from keel.log.facts import facts
from keel.log.proof_checks import leak_test_of, read_by_hand, why_not_begun, why_not_of_proof
from keel.log.proof_entries import ProofBegun
from keel.log.proofs import CellProof
from keel.log.standing import standing
from keel.log.state import BuildState, build_state
from keel.studies.build.traveller import TRAVELLER
from keel.studies.proof.plan import PROOF_PLAN
from keel.tests.samples import box
from keel.tests.test_log import START

WALL: dict[str, Any] = {"kind": "partition", "id": "wall", "name": "wall", "at_mm": 500.0}
TWO = Design.model_validate(
    {"shell": box().model_dump() | {"thickness_mm": 3.0, "metal": "mild steel", "features": [WALL]}}
)
ASKED = TankAnalysis(Asked(TWO, Workshop()))
WORK, PLAN = ASKED[TRAVELLER], ASKED[PROOF_PLAN]
REAR, FRONT = PLAN.cells
SEAMS = {test.cell: test.seams for test in WORK.tests}
NEW: dict[str, Any] = {"kind": "checked", "subject": "vapour", "check": "never held fuel"}
PASSED = {"verdict": "pass", "readings": 61, "minutes": 60.0, "leak_sccm": 0.1, "uncertainty_sccm": 0.2}
PASSED |= {"uncorrected_sccm": 3.0, "uncorrected_verdict": "fail", "least_min": 20.0}
PASSED |= {"start_kpa": 6.0, "end_kpa": 5.9, "corrected_kpa": 5.99}


def begun(cell: str = "rear cell", method: str = "pressure decay", **more: Any) -> dict[str, Any]:
    """A test as it is begun, all as it should be."""
    of = REAR if cell == "rear cell" else FRONT
    return {
        "kind": "proof begun",
        "subject": cell,
        "method": method,
        "pressure_kpa": of.pressure_kpa,
        "limiter": "relief valve",
        "limiter_kpa": of.limiter_kpa,
        "minutes": 120.0,
        "neighbours_open": of.neighbours,
        "gauge": {"name": "gauge"},
    } | more


def tested(proof: str, cell: str = "rear cell", verdict: str = "pass", **more: Any) -> list[dict[str, Any]]:
    """A test from beginning to end."""
    ended = {"kind": "proof ended", "of": proof, "found": PASSED | {"verdict": verdict}}
    return [begun(cell, id=proof, **more), ended]


def log(*lines: dict[str, Any]) -> list[Received]:
    """A minute between one entry and the next, or as many as `wait` says."""
    found, minute = [], 0.0
    for n, line in enumerate(lines, start=1):
        minute += line.get("wait", 1.0)
        when = START + timedelta(minutes=minute)
        said = {"id": f"e{n}"} | {name: value for name, value in line.items() if name != "wait"}
        found.append(Received(n, "somebody", when, when, ENTRY.validate_python(said)))
    return found


def state(*lines: dict[str, Any]) -> BuildState:
    """How far the tank is."""
    entries = log(*lines)
    now = entries[-1].happened if entries else START
    return build_state(WORK, entries, now + timedelta(minutes=1))


def cell(*lines: dict[str, Any], name: str = "rear cell") -> CellProof:
    """How far the tests of a cell are."""
    return next(one for one in state(*lines).proofs if one.cell == name)


class Rounds(TestCase):
    """What the last word on a cell is."""

    def test_cells_and_seams(self) -> None:
        """Each cell has its own seams; the wall between belongs to both."""
        self.assertEqual([test.neighbours for test in WORK.tests], [("front cell",), ("rear cell",)])
        self.assertIn("partition-wall", SEAMS["rear cell"])
        self.assertIn("rear-end", SEAMS["rear cell"])
        self.assertNotIn("rear-end", SEAMS["front cell"])

    def test_passed_and_not(self) -> None:
        """Not tested, running, failed, passed; too short changes nothing, simulated proves nothing."""
        self.assertEqual(cell().standing, "not tested")
        self.assertEqual(cell(begun(id="p")).standing, "running")
        self.assertEqual(cell(*tested("p", verdict="fail")).standing, "failed")
        passed = tested("p")
        self.assertEqual((cell(*passed).standing, cell(*passed).by), ("passed", "p"))
        for verdict in ("too short", "undecided"):
            self.assertEqual(cell(*passed, *tested("q", verdict=verdict)).standing, "passed")
            self.assertEqual(cell(*tested("q", verdict=verdict)).standing, "not tested")
        self.assertEqual(cell(*passed, *tested("q", verdict="contradiction")).standing, "failed")
        fake = cell(*tested("s", simulated=True))
        self.assertEqual(fake.standing, "not tested")
        assert fake.lacks is not None
        self.assertIn("simulated gauge, which proves nothing", fake.lacks.plain())
        self.assertEqual(cell(*passed, name="front cell").standing, "not tested")

    def test_broken_off(self) -> None:
        """A test that was broken off proves nothing, however its readings look."""
        ended = {"kind": "proof ended", "of": "p", "stopped": "hose came off", "found": PASSED}
        one = cell(begun(id="p"), ended)
        self.assertEqual((one.standing, one.rounds[0].verdict), ("not tested", "stopped"))

    def test_soap(self) -> None:
        """Every seam of the cell has to be walked; one leak, and it leaks."""
        start = begun(method="soap and low pressure", id="p", minutes=None, gauge=None)
        walked = [{"kind": "seam walked", "of": "p", "subject": seam} for seam in SEAMS["rear cell"]]
        end = {"kind": "proof ended", "of": "p"}
        self.assertEqual(cell(start, *walked[:-1], end).rounds[0].verdict, "not walked")
        self.assertEqual(cell(start, *walked, end).standing, "passed")
        leak = {"kind": "leak found", "id": "l", "of": "p", "subject": "rear-end", "at_mm": 10.0}
        leak |= {"x_mm": 0.0, "y_mm": 10.0, "z_mm": 0.0}
        found = cell(start, *walked, leak, end)
        assert found.lacks is not None
        self.assertEqual((found.standing, found.lacks.plain()), ("failed", "test 1 found 1 leak, 1 not mended"))
        mended = cell(start, *walked, leak, end, {"kind": "leak repaired", "of": "l", "how": "ground out"})
        assert mended.lacks is not None
        self.assertEqual(mended.lacks.plain(), "1 leak of test 1 mended, not tested again yet")
        assert mended.rounds[0].leaks[0].repaired is not None

    def test_time_under_water_and_on_paper(self) -> None:
        """What goes by time has to last it."""
        start = begun(method="submerged", id="p", minutes=5.0, gauge=None)
        end = {"kind": "proof ended", "of": "p"}
        self.assertEqual(cell(start, end | {"wait": 3.0}).rounds[0].verdict, "too short")
        self.assertEqual(cell(start, end | {"wait": 6.0}).standing, "passed")

    def test_heat_voids(self) -> None:
        """Heat, a hole, a repair after the test void it in every cell; work without heat doesn't."""
        both = [*tested("r"), *tested("f", "front cell")]
        for hot in ({"kind": "done", "subject": "weld:rear-pan"}, {"kind": "started", "subject": "seat:vent"}):
            for name in ("rear cell", "front cell"):
                self.assertEqual(cell(*both, hot, name=name).standing, "void")
        voided = cell(*both, {"kind": "done", "subject": "close:front-pan"}).lacks
        assert voided is not None
        self.assertEqual(voided.plain(), "passed in test 1, then “Close the tank: weld the front pan”: test it again")
        cold = {"kind": "done", "subject": "fit:vent"}
        self.assertEqual(cell(*both, cold).standing, "passed")
        own = {"kind": "added", "subject": "own:1", "title": "Drill for the plate", "hot": True}
        self.assertEqual(cell(*both, own, {"kind": "done", "subject": "own:1"}).standing, "void")
        again = cell(*both, {"kind": "done", "subject": "weld:rear-pan"}, *tested("r2"))
        self.assertEqual((again.standing, len(again.rounds)), ("passed", 2))

    def test_taken_back(self) -> None:
        """A correction takes a test's end back: it runs again."""
        end = {"kind": "proof ended", "id": "e", "of": "p", "found": PASSED}
        self.assertEqual(cell(begun(id="p"), end, {"kind": "correction", "of": "e"}).standing, "running")


EVENTS = st.lists(
    st.sampled_from(
        ("pass", "fail", "too short", "contradiction", "leak", "broken off", "simulated", "weld", "fit", "mend")
    ),
    max_size=9,
)


class AnyOrder(TestCase):
    """The standing of a cell, whatever happens in whatever order."""

    def lines(self, events: list[str]) -> tuple[list[dict[str, Any]], str]:
        """Entries for some events, and what has to be known after them, event by event."""
        found: list[dict[str, Any]] = []
        known, leaks = "not tested", list[str]()
        for n, event in enumerate(events):
            proof = f"p{n}"
            if event in ("weld", "fit"):
                found.append({"kind": "done", "subject": f"{event}:lid"})
                known = "void" if event == "weld" and known == "passed" else known
            elif event == "mend":
                if leaks:
                    found.append({"kind": "leak repaired", "of": leaks.pop(), "how": "welded"})
                    known = "void" if known == "passed" else known
            else:
                found += self.whole(proof, event)
                leaks += [f"l{proof}"] if event == "leak" else []
                known = {"pass": "passed", "fail": "failed", "contradiction": "failed", "leak": "failed"}.get(
                    event, known
                )
        return found, known

    @staticmethod
    def whole(proof: str, event: str) -> list[dict[str, Any]]:
        """One test from beginning to end."""
        start = begun(id=proof, simulated=event == "simulated")
        verdict = event if event in ("pass", "fail", "too short", "contradiction") else "pass"
        end = {"kind": "proof ended", "of": proof, "found": PASSED | {"verdict": verdict}}
        end |= {"stopped": "hose came off"} if event == "broken off" else {}
        leak = {"kind": "leak found", "id": f"l{proof}", "of": proof, "subject": "rear-end", "at_mm": 1.0}
        leak |= {"x_mm": 0.0, "y_mm": 0.0, "z_mm": 0.0}
        return [start, *([leak] if event == "leak" else []), end]

    @given(EVENTS)
    def test_the_last_word(self, events: list[str]) -> None:
        """It is what somebody who follows along would say; nothing passes while a leak of the last test is open."""
        lines, known = self.lines(events)
        one = cell(*lines)
        self.assertEqual(one.standing, known, events)
        self.assertEqual(one.lacks is None, known == "passed")
        if known == "passed":
            self.assertFalse(next(r for r in one.rounds if r.begun.id == one.by).leaks)
        self.assertEqual([r.number for r in one.rounds], list(range(1, len(one.rounds) + 1)))


class Gates(TestCase):
    """What waits for the leak test."""

    def gate(self, name: str, *lines: dict[str, Any]) -> str:
        """How a gate stands."""
        return next(one.standing for one in state(*lines).gates if one.gate.id == name)

    def test_paint_waits(self) -> None:
        """Paint, and whatever people say covers seams, waits; void again, it waits again and the test is open again."""
        cover = {"kind": "added", "subject": "own:2", "title": "Box it in", "covers": True}
        both = [*tested("r"), *tested("f", "front cell")]

        def shut(*lines: dict[str, Any]) -> dict[str, list[str]]:
            return {one.operation.id: one.shut for one in state(cover, *lines).operations if one.operation.covers}

        self.assertEqual(shut(), {"cover:outside": ["proof"], "own:2": ["proof"]})
        self.assertEqual(shut(*tested("r")), {"cover:outside": ["proof"], "own:2": ["proof"]})
        self.assertEqual(shut(*both), {"cover:outside": [], "own:2": []})
        done = [{"kind": "done", "subject": f"prove:{name}-cell"} for name in ("rear", "front")]
        after = state(*both, *done, {"kind": "done", "subject": "dress:seams"})
        standings = {one.operation.id: one.standing for one in after.operations}
        self.assertNotEqual(standings["prove:rear-cell"], "done")
        self.assertEqual(
            {one.operation.id: one.standing for one in state(*both, *done).operations}["prove:rear-cell"], "done"
        )

    def test_vapour(self) -> None:
        """New, or a low reading that is young; a high one shuts it whatever was said; nobody passes it unmet."""
        self.assertEqual(self.gate("vapour"), "shut")
        self.assertEqual(self.gate("vapour", NEW), "open")

        def reading(share: float, **more: Any) -> dict[str, Any]:
            return {"kind": "reading", "subject": "vapour", "value": share} | more

        self.assertEqual(self.gate("vapour", reading(0.05)), "open")
        self.assertEqual(self.gate("vapour", NEW, reading(0.4)), "shut")
        self.assertEqual(self.gate("vapour", reading(0.05), NEW | {"wait": 45.0}), "shut")
        passed = {"kind": "override", "subject": "vapour", "name": "M. Q.", "reason": "smells of nothing"}
        self.assertEqual(self.gate("vapour", passed), "shut")


class Refusals(TestCase):
    """What is not taken, with number and limit."""

    def why(self, entry: dict[str, Any], *lines: dict[str, Any]) -> str:
        """Why a test can't begin."""
        read = ENTRY.validate_python({"id": "x"} | entry)
        assert isinstance(read, ProofBegun)
        why = why_not_begun(read, PLAN, state(*lines), HouseRules())
        return "" if why is None else why.plain()

    def test_beginning(self) -> None:
        """Vapour first; then pressure, limiter, neighbours, gauge, length, another that runs, fuel before air."""
        self.assertIn("may hold vapour, which explodes", self.why(begun()))
        self.assertEqual(self.why(begun(), NEW), "")
        high = REAR.safe_kpa + 1
        self.assertIn(f"the rear cell bears {REAR.safe_kpa:.3f} kPa", self.why(begun(pressure_kpa=high), NEW))
        self.assertIn("relief valve opens at", self.why(begun(limiter_kpa=REAR.safe_kpa + 0.1), NEW))
        self.assertIn("below the test pressure", self.why(begun(limiter_kpa=REAR.pressure_kpa - 0.1), NEW))
        self.assertIn("front cell has to stand open", self.why(begun(neighbours_open=[]), NEW))
        self.assertIn("no gauge is named", self.why(begun(gauge=None), NEW))
        self.assertIn("too short to prove anything, at least", self.why(begun(minutes=4.0), NEW))
        self.assertIn("still running", self.why(begun("front cell"), NEW, begun(id="p")))
        paper = begun(method="filled, on dry paper", neighbours_open=[], minutes=600.0)
        self.assertIn("last check", self.why(paper, NEW))
        self.assertEqual(self.why(paper, NEW, *tested("p")), "")
        self.assertIn("no cell “attic”", self.why(begun() | {"subject": "attic"}, NEW))

    def test_bars_hold_more(self) -> None:
        """With a bar clamped on, what it bears with it."""
        enough = next(one for one in REAR.braced if one.safe_kpa > REAR.safe_kpa + 0.01)
        more = begun(pressure_kpa=enough.safe_kpa - 0.001, limiter_kpa=enough.safe_kpa, braces=enough.bars)
        self.assertEqual(self.why(more, NEW), "")
        self.assertIn("bears", self.why(more | {"braces": 0}, NEW))

    def test_entries_about_a_test(self) -> None:
        """No such test, over, no such seam, no such leak."""

        def why(entry: dict[str, Any], *lines: dict[str, Any]) -> str:
            said = facts(standing(log(*lines)).entries)
            found = why_not_of_proof(ENTRY.validate_python({"id": "x"} | entry), said, SEAMS)  # type: ignore[arg-type]
            return "" if found is None else found.plain()

        read = {"kind": "gauge read", "of": "p", "pressure_kpa": 6.0, "temperature_c": 20.0, "barometer_kpa": 101.0}
        self.assertIn("no such leak test", why(read))
        self.assertEqual(why(read, begun(id="p")), "")
        self.assertIn("is over", why(read, *tested("p")))
        walk = {"kind": "seam walked", "of": "p", "subject": "front-end"}
        self.assertIn("has no seam “front-end”", why(walk, begun(id="p")))
        self.assertIn("no such leak", why({"kind": "leak repaired", "of": "l", "how": "welded"}))

    def test_barometer(self) -> None:
        """A barometer in another unit is refused by name."""
        read = {"id": "x", "kind": "gauge read", "of": "p", "pressure_kpa": 6.0, "temperature_c": 20.0}
        with self.assertRaisesRegex(ValueError, "1013 hPa are 101.3 kPa"):
            ENTRY.validate_python(read | {"barometer_kpa": 1013.0})

    def test_by_hand(self) -> None:
        """Readings count from when the test began, by their typed minute where they have one."""
        read = {"kind": "gauge read", "of": "p", "pressure_kpa": 6.0, "temperature_c": 20.0, "barometer_kpa": 101.0}
        lines = [begun(id="p"), read | {"wait": 30.0}, read | {"minute": 90.0}]
        said = facts(standing(log(*lines)).entries)
        self.assertEqual([one.minute for one in read_by_hand("p", said)], [30.0, 90.0])
        known = ENTRY.validate_python(begun(id="p") | {"volume_l": 40.0, "limit_sccm": 1.0})
        assert isinstance(known, ProofBegun)
        test = leak_test_of(known)
        assert test is not None
        self.assertEqual((test.volume_l, test.resolution.gauge_kpa), (40.0, 0.01))
        self.assertIsNone(leak_test_of(known.model_copy(update={"gauge": None})))


class Calibration(TestCase):
    """Gauges go out of date."""

    def test_old_and_unknown(self) -> None:
        """Told with its age and the limit, from the day of the test on; a fresh one is not told of."""

        def told(**gauge: Any) -> list[str]:
            return [one.plain() for one in cell(begun(id="p", gauge={"name": "g"} | gauge)).rounds[0].cautions]

        self.assertEqual(told(calibrated="2026-01-10"), [])
        self.assertEqual(told(calibrated="2024-05-04"), ["Calibration of g 24 months old, limit 12 (house rule)"])
        self.assertIn("not known", told()[0])
