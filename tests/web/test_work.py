"""The store behind the page, its saving and its evaluating, without a page."""

from random import Random
from unittest import TestCase

from tests.web.node import call


Act = tuple[str] | tuple[str, int]


class Steps:
    """What changes, drags, undo and redo come to: a list of what stood there, and where in it one is."""

    def __init__(self) -> None:
        self.stood, self.at = [0], 0
        self.dragged: int | None = None

    @property
    def now(self) -> int:
        """What stands there."""
        return self.stood[self.at] if self.dragged is None else self.dragged

    def act(self, name: str, to: int = 0) -> int:
        """Do one thing; what stands there then."""
        if name == "begin":
            self.dragged = self.now
        elif name == "move":
            self.dragged = to
        elif name in ("keep", "leave"):
            end, self.dragged = self.now, None
            if name == "keep":
                self.step(end)
        elif name == "make":
            self.step(to)
        else:
            self.at = max(0, self.at - 1) if name == "undo" else min(len(self.stood) - 1, self.at + 1)
        return self.now

    def step(self, to: int) -> None:
        """One more step, unless it changes nothing; what was undone is gone then."""
        if to != self.now:
            self.stood = [*self.stood[: self.at + 1], to]
            self.at += 1


def any_acts(chance: Random) -> list[Act]:
    """A while of work: values typed, drags kept and let go of, steps back and forth."""
    acts = list[Act]()
    for _ in range(40):
        kind = chance.choice(["make", "make", "drag", "undo", "undo", "redo"])
        if kind == "drag":
            moves: list[Act] = [("move", chance.randint(1, 9)) for _ in range(chance.randint(0, 4))]
            acts += [("begin",), *moves, (chance.choice(["keep", "keep", "leave"]),)]
        else:
            acts.append((kind, chance.randint(1, 9)) if kind == "make" else (kind,))
    return acts


class Store(TestCase):
    """Changes, drags, undo."""

    def test_a_drag_is_one_step(self) -> None:
        """What changes nothing is no step, a drag is one, one let go of is none; a reader changes nothing."""
        (seen,) = call("work.ts", [("changes",)])
        self.assertEqual(seen, [200, 400, 200, 100, 100, 400, 400, 50])


    def test_any_while_of_work(self) -> None:
        """Whatever was typed, dragged, undone and done again, what stands there is what a plain list says."""
        chance = Random(13)
        whiles = [any_acts(chance) for _ in range(60)]
        for acts, seen in zip(whiles, call("work.ts", [("acted", acts) for acts in whiles]), strict=True):
            steps = Steps()
            self.assertEqual(seen, [steps.act(*act) for act in acts], acts)


class Evaluating(TestCase):
    """What the core is asked."""

    def test_figures_first_then_remedies(self) -> None:
        """Remedies only once the hand rests; those of before stay meanwhile; results not asked for stay; faults, away."""
        (seen,) = call("work.ts", [("evaluating",)])
        self.assertEqual(
            seen["asked"][:6],
            [
                [100, False, True],
                [100, True, True],
                [110, False, True],
                [110, True, True],
                [110, False, False],
                [110, True, False],
            ],
        )
        self.assertEqual((seen["during"], seen["reaches"], seen["upToDate"]), (["r"], [1], True))
        self.assertEqual((seen["faults"], seen["away"], seen["back"]), (["too long"], True, True))


class Saving(TestCase):
    """What is kept."""

    def test_conflicts_and_a_server_that_is_away(self) -> None:
        """A drag is saved when it ends. Mine over theirs, theirs after mine was put by, a draft that a reload takes up again; nothing typed is lost."""
        (seen,) = call("work.ts", [("saving",)])
        self.assertEqual(
            seen["states"],
            [
                ["unsaved", 1, 200],
                ["saved", 2, 200],
                ["saved", 2, 250],
                ["saved", 3, 250],
                ["conflict", 3, 300],
                ["saved", 10, 300],
                ["saved", 22, 777],
                ["away", 22, 500],
                ["unsaved", 22, 500],
                ["saved", 99, 500],
            ],
        )
        self.assertEqual(seen["bases"][:6], [1, 2, 3, 9, 10, 20])
        self.assertTrue(seen["draft"])
        self.assertIsNone(seen["after"])
