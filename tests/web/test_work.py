"""The store behind the page, its saving and its evaluating, without a page."""

from unittest import TestCase

from tests.web.node import call


class Store(TestCase):
    """Changes, drags, undo."""

    def test_a_drag_is_one_step(self) -> None:
        """What changes nothing is no step, a drag is one, one let go of is none; a reader changes nothing."""
        (seen,) = call("work.ts", [("changes",)])
        self.assertEqual(seen, [200, 400, 200, 100, 100, 400, 400, 50])


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
