"""What a job's log means: which entries stand, what is done, which gates are open."""

from datetime import UTC, datetime, timedelta
from typing import Any
from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st

from keel.formats.log import log_lines, read_log_lines
from keel.formats.table import UnreadableTableError
from keel.log.entries import ENTRY, Received
from keel.log.facts import CAPS, facts
from keel.log.gates import differing, gate_states
from keel.log.pictures import pictures
from keel.log.plan import in_the_way, planned, prerequisites
from keel.log.rates import rates_seen, taken
from keel.log.standing import standing
from keel.log.state import build_state
from keel.studies.build.operation import (
    AllDone,
    AllHere,
    Bought,
    CountsMatch,
    FlushedClean,
    Gate,
    Looked,
    MeasurementsAgree,
    NotShut,
    Operation,
    ReadingAtMost,
    Traveller,
)
from keel.studies.result import words

START = datetime(2026, 5, 4, 8, tzinfo=UTC)


def received(n: int, minute: float = 0, author: str = "somebody", **entry: Any) -> Received:
    """An entry that came in at a minute."""
    when = START + timedelta(minutes=minute)
    return Received(n, author, when, when, ENTRY.validate_python({"id": f"e{n}"} | entry))


def gate(name: str, *conditions: Any, before: tuple[str, ...] = ()) -> Gate:
    """A gate of conditions."""
    return Gate(name, words(name), list(before), list(conditions), words("it hurts"))


LOG: list[dict[str, Any]] = [
    {"id": "a1", "minute": 5, "kind": "done", "subject": "cut"},
    {"id": "a2", "minute": 40, "kind": "done", "subject": "deburr"},
    {"id": "b1", "minute": 50, "kind": "count", "subject": "shot", "way": "in", "value": 300},
    {"id": "a3", "minute": 52, "kind": "count", "subject": "chain", "way": "in", "value": 24},
    {"id": "a2", "minute": 55, "kind": "done", "subject": "bend"},
    {"id": "a4", "minute": 90, "kind": "done", "subject": "bend"},
    {"id": "b2", "minute": 100, "kind": "reading", "subject": "gas", "value": 4.0},
    {"id": "b3", "minute": 130, "kind": "count", "subject": "shot", "way": "out", "value": 298},
    {"id": "a5", "minute": 131, "kind": "correction", "of": "a4"},
    {"id": "b4", "minute": 140, "kind": "count", "subject": "chain", "way": "out", "value": 24},
    {"id": "a6", "minute": 150, "kind": "done", "subject": "clean inside"},
    {"id": "b5", "minute": 155, "kind": "override", "subject": "media", "name": "M. Oduya", "reason": " "},
    {"id": "a7", "minute": 160, "kind": "correction", "of": "a5"},
    {"id": "b6", "minute": 170, "kind": "count", "subject": "shot", "way": "out", "value": 300},
    {"id": "b7", "minute": 172, "kind": "correction", "of": "b3"},
    {"id": "a8", "minute": 175, "kind": "done", "subject": "look inside"},
    {"id": "b8", "minute": 180, "kind": "reading", "subject": "gas", "value": 0.0},
    {"id": "b3", "minute": 181, "kind": "count", "subject": "shot", "way": "out", "value": 111},
]
GATES = [
    gate("media", CountsMatch()),
    gate("hot work", ReadingAtMost("gas", 1.0, 30)),
    gate("last panel", AllDone(("clean inside", "look inside")), NotShut("media")),
]


def read(lines: list[dict[str, Any]]) -> list[Received]:
    """A log as it came in."""
    return [received(n, **line) for n, line in enumerate(lines, start=1)]


class WorkedCase(TestCase):
    """A log with doubles, a correction and its correction, a recount, a blank override."""

    def states(self, lines: list[dict[str, Any]], minute: float) -> tuple[Any, dict[str, str], Any]:
        """What stands, and the gates then."""
        sorted_out = standing(read(lines))
        known = facts(sorted_out.entries)
        found = gate_states(GATES, known, START + timedelta(minutes=minute))
        return sorted_out, {one.gate.id: one.standing for one in found}, known

    def test_all_of_it(self) -> None:
        """At the end."""
        sorted_out, gates, known = self.states(LOG, 205)
        self.assertEqual(set(known.done), {"bend", "clean inside", "cut", "deburr", "look inside"})
        self.assertEqual((sorted_out.void, sorted_out.ignored), ({8, 9}, {5, 18}))
        self.assertEqual(
            known.counts, {("shot", "in"): 300, ("chain", "in"): 24, ("chain", "out"): 24, ("shot", "out"): 300}
        )
        self.assertEqual(gates, dict.fromkeys(("media", "hot work", "last panel"), "open"))
        self.assertEqual(differing((), known), [])

    def test_twelve_of_it(self) -> None:
        """A blank reason overrides nothing; a reading grows old."""
        sorted_out, gates, known = self.states(LOG[:12], 155)
        self.assertEqual(set(known.done), {"clean inside", "cut", "deburr"})
        self.assertEqual(sorted_out.void, {6})
        self.assertEqual(gates, dict.fromkeys(("media", "hot work", "last panel"), "shut"))
        self.assertEqual(differing((), known), ["shot"])


class Standings(TestCase):
    """Corrections of corrections, against a log that is replayed from its beginning."""

    @given(st.lists(st.tuples(st.integers(0, 9), st.integers(-1, 9)), max_size=10))
    def test_as_replayed(self, drawn: list[tuple[int, int]]) -> None:
        """What stands is what stands when each chain of corrections is followed to its end."""
        lines = [
            {"id": f"i{name}"} | ({"kind": "note"} if of < 0 else {"kind": "correction", "of": f"i{of}"})
            for name, of in drawn
        ]
        log = read(lines)
        first: dict[str, int] = {}
        counts = []
        for one in log:
            known = one.entry.id in first
            there = one.entry.kind != "correction" or one.entry.of in first
            counts.append(not known and there)
            first.setdefault(one.entry.id, one.n)

        def stands(n: int) -> bool:
            against = [o.n for o in log if counts[o.n - 1] and o.entry.kind == "correction" and first[o.entry.of] == n]
            return counts[n - 1] and not any(stands(one) for one in against)

        kept = [one.n for one in log if one.entry.kind != "correction" and stands(one.n)]
        self.assertEqual([one.n for one in standing(log).entries], kept)


class Gates(TestCase):
    """Conditions of each kind, and overriding them."""

    def stands(self, one: Gate, *lines: dict[str, Any], minute: float = 0) -> tuple[str, list[str]]:
        """How a gate stands after entries, and what it lacks."""
        found = gate_states([one], facts(standing(read(list(lines))).entries), START + timedelta(minutes=minute))[0]
        return found.standing, [lack.plain() for lack in found.lacks]

    def test_looked_at(self) -> None:
        """The last look stands; a place that is hidden afterwards takes a photo."""
        look = gate("tab", Looked("tab", words("tab in its notch"), photo=True))
        seen = {"kind": "checked", "subject": "tab", "check": "tab"}
        self.assertEqual(self.stands(look), ("shut", ["not looked at yet"]))
        self.assertEqual(self.stands(look, seen), ("shut", ["no photo of it yet"]))
        self.assertEqual(self.stands(look, seen | {"photos": ["p1"]}), ("open", []))
        refused = seen | {"photos": ["p1"], "passed": False}
        self.assertEqual(self.stands(look, seen | {"photos": ["p1"]}, refused)[0], "shut")

    def test_measured_twice(self) -> None:
        """Two that agree with each other and with the drawing; a third takes the place of the first."""
        depth = gate("depth", MeasurementsAgree("depth", 200, 1))

        def took(mm: float) -> dict[str, Any]:
            return {"kind": "measured", "subject": "depth", "value_mm": mm}

        self.assertEqual(self.stands(depth, took(200)), ("shut", ["1 of 2 measurements"]))
        self.assertIn("differ by 2 mm, 1 mm at most", self.stands(depth, took(200), took(202))[1][0])
        self.assertEqual(self.stands(depth, took(204), took(200), took(201))[0], "open")
        self.assertIn("measured 203.5 mm, drawn 200 mm", self.stands(depth, took(203), took(204))[1][0])
        tape, stick = ({"by_way": way} for way in ("tape", "stick"))
        same = self.stands(depth, took(200) | tape, took(200) | tape)
        self.assertEqual(same[1], ["both by tape: take the second another way"])
        self.assertEqual(self.stands(depth, took(200) | tape, took(200) | stick)[0], "open")

    def test_flushed(self) -> None:
        """Until nothing comes out; something that comes afterwards shuts it again."""
        wash = gate("wash", FlushedClean("wash"))
        dirty = {"kind": "flushed", "subject": "wash", "caught": "swarf", "clean": False}
        clean = dirty | {"caught": "nothing", "clean": True}
        self.assertEqual(self.stands(wash, dirty)[0], "shut")
        self.assertEqual(self.stands(wash, dirty, clean)[0], "open")
        self.assertEqual(self.stands(wash, dirty, clean, dirty)[1], ["round 3 brought swarf"])

    def test_overridden(self) -> None:
        """With a name and a reason; once it is met it is open, and the override is still told."""
        plugs = gate("plugs", CountsMatch(("plug",)))
        over = {"kind": "override", "subject": "plugs", "name": "M. Quent", "reason": "the sixth is in my hand"}
        self.assertEqual(self.stands(plugs, over), ("overridden", ["not counted yet: plug"]))
        self.assertEqual(self.stands(plugs, over | {"name": ""})[0], "shut")
        counts = [{"kind": "count", "subject": "plug", "way": way, "value": 6} for way in ("in", "out")]
        log = read([over, *counts])
        met = gate_states([plugs], facts(standing(log).entries), START)[0]
        self.assertEqual((met.standing, met.override and met.override.reason), ("open", "the sixth is in my hand"))


class Rates(TestCase):
    """What work really takes."""

    def test_the_last_ten(self) -> None:
        """The median of the last ten timed ones, a unit; who ticked without beginning says nothing of time."""
        log = []
        for n in range(12):
            times = [(60 * n, "started"), (60 * n + 10 + n, "done")] if n != 5 else [(60 * n, "done")]
            for minute, kind in times:
                more = {"work": "weld", "amount": 2.0} if kind == "done" else {}
                log.append(received(len(log) + 1, minute, kind=kind, subject=f"weld:{n}", **more))
        found = rates_seen(taken(log))[0]
        minutes = [(10 + n) / 2 for n in range(12) if n != 5][-10:]
        self.assertEqual((found.work, found.count, found.least, found.most), ("weld", 10, min(minutes), max(minutes)))
        self.assertAlmostEqual(found.median, (minutes[4] + minutes[5]) / 2)


def any_entries() -> st.SearchStrategy[list[dict[str, Any]]]:
    """Entries of many kinds on a few subjects, sent twice and corrected now and then."""
    about = st.sampled_from(["cut", "bend", "wash", "close", "plugs"])
    words_ = st.text(st.characters(blacklist_characters="\x00", blacklist_categories=["Cs"]), max_size=12)
    one = st.one_of(
        st.fixed_dictionaries({"kind": st.sampled_from(["started", "paused", "done", "note"]), "subject": about}),
        st.fixed_dictionaries({"kind": st.just("skipped"), "subject": about, "reason": words_}),
        st.fixed_dictionaries(
            {
                "kind": st.just("count"),
                "subject": about,
                "way": st.sampled_from(["in", "out"]),
                "value": st.integers(0, 9),
            }
        ),
        st.fixed_dictionaries({"kind": st.just("flushed"), "subject": about, "caught": words_, "clean": st.booleans()}),
        st.fixed_dictionaries({"kind": st.just("override"), "subject": about, "name": words_, "reason": words_}),
        st.fixed_dictionaries({"kind": st.just("moved"), "subject": about, "after": st.none() | about}),
        st.fixed_dictionaries({"kind": st.just("correction"), "of": st.integers(0, 12).map("i{}".format)}),
    )
    named = st.tuples(st.integers(0, 20), one, words_)
    return st.lists(named.map(lambda it: it[1] | {"id": f"i{it[0]}", "note": it[2], "design": 1}), max_size=20)


class AnyLog(TestCase):
    """Whatever people write."""

    MOVES = st.lists(st.tuples(st.sampled_from("abcdefx"), st.none() | st.sampled_from("abcdefx")), max_size=12)
    NEEDS = st.lists(st.tuples(st.integers(0, 5), st.integers(0, 5)), max_size=8)

    @given(NEEDS, MOVES)
    def test_what_is_needed_stays_before(
        self, pairs: list[tuple[int, int]], moves: list[tuple[str, str | None]]
    ) -> None:
        """However the order is changed, nothing comes before what it needs, and no operation is lost."""
        needs: dict[str, set[str]] = {name: set() for name in "abcdef"}
        for first, second in pairs:
            if first < second:
                needs["abcdef"[second]].add("abcdef"[first])
        work = Traveller([operation(name, *sorted(needs[name])) for name in "abcdef"], [])
        lines = [{"kind": "moved", "subject": name, "after": after} for name, after in moves]
        lines.insert(len(lines) // 2, {"kind": "added", "subject": "x", "title": "own", "after": "c"})
        order = [one.operation.id for one in build_state(work, read(lines), START).operations]
        self.assertEqual(sorted(order), list("abcdefx"))
        for name, before in needs.items():
            self.assertTrue(all(order.index(one) < order.index(name) for one in before), (order, name, before))

    @given(any_entries())
    def test_all_taken_back(self, lines: list[dict[str, Any]]) -> None:
        """When every entry that counts is corrected, and its correction isn't, nothing has happened."""
        log = [received(n, n, **line) for n, line in enumerate(lines, start=1)]
        kept = [one.entry.id for one in log if one.n not in standing(log).ignored]
        undone = [{"id": f"u{n}", "kind": "correction", "of": name} for n, name in enumerate(reversed(kept))]
        whole = [*log, *(received(len(log) + n, 99, **line) for n, line in enumerate(undone, start=1))]
        self.assertEqual(standing(whole).entries, [])
        self.assertEqual(build_state(WORK, whole, START, 1), build_state(WORK, [], START, 1))

    @given(any_entries(), st.integers(0, 20))
    def test_what_comes_later(self, lines: list[dict[str, Any]], cut: int) -> None:
        """Of what stood, only what is corrected later stands no more; only what was void comes to stand again."""
        log = [received(n, n, **line) for n, line in enumerate(lines, start=1)]
        before, after = standing(log[:cut]), standing(log)
        early = {one.n for one in before.entries}
        late = {one.n for one in after.entries if one.n <= cut}
        self.assertLessEqual(early - late, after.void)
        self.assertLessEqual(late - early, before.void)
        self.assertEqual(before.ignored, {n for n in after.ignored if n <= cut})

    @given(st.lists(st.tuples(st.sampled_from("ab"), st.sampled_from(["started", "paused", "done"])), max_size=12))
    def test_time_is_never_more_than_passed(self, drawn: list[tuple[str, str]]) -> None:
        """Two people take no more than twice the time between first and last; nobody takes less than none."""
        log = [received(n, 10 * n, who, kind=kind, subject="cut") for n, (who, kind) in enumerate(drawn)]
        spent = build_state(WORK, log, START).operations[0].spent_min
        self.assertTrue(spent is None or 0 < spent <= 2 * 10 * (len(drawn) - 1))


class Files(TestCase):
    """A log as lines, and back."""

    @given(any_entries())
    def test_the_same_state(self, lines: list[dict[str, Any]]) -> None:
        """Whatever was written, the file that it becomes says the same."""
        log = [received(n, n, author=f"née {n % 3}", **line) for n, line in enumerate(lines, start=1)]
        back = read_log_lines(log_lines(log))
        self.assertEqual(back, log)
        now = START + timedelta(days=1)
        self.assertEqual(build_state(WORK, back, now, 1), build_state(WORK, log, now, 1))

    def test_what_is_no_log(self) -> None:
        """The line, what stands there, what was expected."""
        good = log_lines(read([{"kind": "note"}])).decode()
        for bad, said in (
            ("{", "line 2 isn't an entry"),
            ("[]", "line 2 isn't an entry"),
            (good.replace('"note"', '"nonsense"'), "line 2:"),
            (good.replace("2026-05-04T08:00:00+00:00", "yesterday"), "line 2 isn't an entry"),
        ):
            with self.subTest(bad=bad), self.assertRaisesRegex(UnreadableTableError, said):
                read_log_lines((good + bad).encode())
        with self.assertRaises(UnreadableTableError):
            read_log_lines(b"\xff\xfe")


class Outside(TestCase):
    """What comes in, what goes out, what makers ask for."""

    def state(self, *lines: dict[str, Any]) -> Any:
        """How far the tank is."""
        item = Bought("seat:vent", words("Boss of vent"), 2, ("vent",))
        needed = AllHere((("seat:vent", "Boss of vent", 2),))
        work = Traveller([operation("seat", parts=["vent"])], [gate("goods", needed, before=("seat",))], [item])
        return build_state(work, read(list(lines)), START)

    def test_counted_in(self) -> None:
        """Damaged pieces don't count; deliveries add up; their caps are pieces in."""
        came = {"kind": "arrived", "subject": "seat:vent", "value": 1}
        short = self.state(came, came | {"whole": False, "caps": 2})
        self.assertEqual([lack.plain() for lack in short.gates[0].lacks], ["not here yet: 1 × Boss of vent"])
        self.assertEqual((short.goods[0].whole, short.goods[0].damaged, short.goods[0].caps), (1, 1, 2))
        self.assertEqual(short.operations[0].shut, ["goods"])
        self.assertEqual(self.state(came, came).gates[0].standing, "open")
        known = facts(standing(read([came | {"caps": 2}, came | {"caps": 1}])).entries)
        self.assertEqual(known.counts, {(CAPS, "in"): 3})

    def test_maker(self) -> None:
        """What a maker asks for stands at the operation, and at the item."""
        asks = {
            "kind": "maker",
            "subject": "seat:vent",
            "asks": "rest after welding",
            "before": "seat",
            "wait_min": 30.0,
        }
        state = self.state(asks)
        self.assertEqual(state.operations[0].asks, ["rest after welding (wait 30 min)"])
        self.assertEqual(state.goods[0].asks, state.operations[0].asks)

    def test_sent_out(self) -> None:
        """Nothing is done on what is with somebody else; until it is back and right."""
        sent = {"kind": "sent", "subject": "vent", "parts": ["vent"], "to": "The platers", "work": "zinc"}
        away = self.state(sent)
        self.assertEqual((away.operations[0].away, away.out[0].back), (["vent"], None))
        wrong = self.state(sent, {"kind": "back", "of": "e1", "whole": False})
        self.assertEqual((wrong.out[0].whole, wrong.operations[0].away), (False, ["vent"]))
        self.assertEqual(self.state(sent, {"kind": "back", "of": "e1"}).operations[0].away, [])

    def test_agreed(self) -> None:
        """What the customer agreed to, until it is taken back."""
        agreed = {"kind": "agreed", "about": "extra", "what": "an earth stud", "consent": "by telephone", "price": 45.0}
        self.assertEqual(self.state(agreed).agreed[0].agreed.price, 45.0)
        self.assertEqual(self.state(agreed, {"kind": "correction", "of": "e1"}).agreed, [])

    def test_learnt(self) -> None:
        """What a revision taught stays with it."""
        learnt = {"kind": "learnt", "what": "the well fouled the clamp", "next": "turn it", "revision": 3}
        self.assertEqual(self.state(learnt).learnt[0].learnt.revision, 3)


class Pictures(TestCase):
    """What the log says of photos."""

    def test_of_what_where_and_drawn_on(self) -> None:
        """The first entry says what it is of; the last pin and drawing stand; what is void says nothing."""
        spot = {"x_mm": 1.0, "y_mm": 2.0, "z_mm": 3.0}
        log = read(
            [
                {"kind": "note", "subject": "bend:wrapper", "photos": ["p1"], "note": "second bend"},
                {"kind": "note", "subject": "cut:shear", "photos": ["p1"]},
                {"kind": "pinned", "photo": "p1", **spot},
                {"kind": "drawn", "photo": "p1", "strokes": [[[0.1, 0.2], [0.3, 0.4]]]},
                {"kind": "drawn", "photo": "p1", "strokes": []},
                {"kind": "correction", "of": "e5"},
            ]
        )
        found = pictures(standing(log).entries)["p1"]
        self.assertEqual((found.subject, found.note, found.spot_mm), ("bend:wrapper", "second bend", (1.0, 2.0, 3.0)))
        self.assertEqual(found.strokes, (((0.1, 0.2), (0.3, 0.4)),))


def operation(name: str, *needs: str, **more: Any) -> Operation:
    """An operation that needs others."""
    return Operation(name, "fit", words(name), needs=list(needs), **more)


WORK = Traveller(
    [operation("cut", basis={"wrapper": "1"}), operation("bend", "cut"), operation("wash"), operation("close", "bend")],
    [gate("clean", AllDone(("wash",)), before=("close",))],
)


class States(TestCase):
    """Operations by the log."""

    def state(self, *lines: dict[str, Any], minute: float = 100) -> Any:
        """How far the tank is."""
        return build_state(WORK, read(list(lines)), START + timedelta(minutes=minute), design=1)

    def test_next(self) -> None:
        """The first that is open and waits for nothing; another design's entries are not about this one."""
        self.assertEqual(self.state().next, "cut")
        self.assertEqual(self.state({"kind": "done", "subject": "cut", "design": 2}).next, "cut")
        after = self.state(*({"kind": "done", "subject": name, "design": 1} for name in ("cut", "bend")))
        self.assertEqual(after.next, "wash")
        close = after.operations[-1]
        self.assertEqual((close.waits_for, close.shut), (["wash"], ["clean"]))

    def test_time(self) -> None:
        """From beginning to end, pauses left out, two people added up."""
        log = [
            received(n, minute, author, id=f"t{n}", kind=kind, subject="cut")
            for n, (minute, author, kind) in enumerate(
                [
                    (0, "a", "started"),
                    (10, "b", "started"),
                    (20, "a", "paused"),
                    (30, "a", "started"),
                    (40, "b", "paused"),
                    (45, "a", "done"),
                ]
            )
        ]
        cut = build_state(WORK, log, START).operations[0]
        self.assertEqual((cut.standing, cut.by, cut.spent_min), ("done", ["a", "b"], 20 + 15 + 30))

    def test_changed_since(self) -> None:
        """A done operation says what of it has changed; accepted with a reason, it is content, until it changes on."""
        done = {"kind": "done", "subject": "cut", "basis": {"wrapper": "0", "end": "1"}}
        self.assertEqual(self.state(done).operations[0].changed, ["wrapper", "end"])
        accepted = {"kind": "accepted", "subject": "cut", "basis": {"wrapper": "1"}, "reason": "cut long, trimmed"}
        self.assertEqual(self.state(done, accepted).operations[0].changed, [])
        self.assertEqual(self.state(done, accepted | {"reason": " "}).operations[0].changed, ["wrapper", "end"])

    def test_gone(self) -> None:
        """What was done on a part that is no longer there is kept and told."""
        self.assertEqual(self.state({"kind": "done", "subject": "bend:lid"}).gone, ["bend:lid"])

    def test_added_moved_skipped(self) -> None:
        """People change the order; what an operation needs stays before it."""
        log = [
            {"kind": "added", "subject": "own:1", "title": "Stamp the number", "after": "bend", "minutes": 5.0},
            {"kind": "moved", "subject": "wash", "after": "cut"},
            {"kind": "moved", "subject": "bend", "after": None},
            {"kind": "skipped", "subject": "wash", "reason": "bought clean"},
        ]
        state = self.state(*log)
        self.assertEqual([one.operation.id for one in state.operations], ["cut", "wash", "bend", "own:1", "close"])
        self.assertEqual(state.gates[0].standing, "open")
        order, needs = planned(WORK, []), prerequisites(WORK)
        self.assertEqual(str(in_the_way(order, needs, "bend", None).plain()), "cut has to come before it")
        self.assertEqual(str(in_the_way(order, needs, "wash", "close").plain()), "close has to come after it")
        self.assertIsNone(in_the_way(order, needs, "wash", None))
