"""Every figure of a design and of a workshop that has a limit: beyond it, it is refused by its own name."""

import json
from collections.abc import Iterator
from copy import deepcopy
from typing import Annotated, Any, NamedTuple, get_args, get_origin
from unittest import TestCase

from annotated_types import Ge, Gt, Le, Lt
from pydantic import BaseModel, ValidationError

from keel.design.document import Design
from keel.design.faults import fault_of
from keel.design.workshop import Workshop
from keel.formats.document import UnreadableDesignError, read_design
from keel.tests.test_analysis import RICH

MORE: dict[str, Any] = {
    "filling": {"supply": "jug", "head_mm": 300, "wanted_s": 90},
    "inside": {"foam": {"takes": 0.03, "kg": 1.0}, "lining": "epoxy"},
    "slosh": {"manoeuvre": {"kind": "hill"}, "draw_l_per_h": 50, "surge_l": 1.5, "lift_l_per_h": 120},
    "sheet": {"seam": "floor", "flange_mm": 20, "pan_gap_mm": 0.5},
}
PORT: dict[str, Any] = {
    "id": "all", "name": "all", "role": "fitting", "x_mm": 300, "y_mm": 200, "stands_mm": 30, "across_mm": 60,
    "bend": {"outer_mm": 20, "radius_mm": 60, "turns_deg": 90, "run_mm": 40},
    "seat": {"kind": "flange", "hole_mm": 60, "outer_mm": 110, "bolt_circle_mm": 86, "bolts": 6, "bolt_mm": 6,
             "torque_nm": 8, "plate_mm": 4},
    "hanger": {"made_for_mm": 200, "extend_mm": 5, "measured_mm": 201, "bracket_mm": 60, "pump_mm": 90},
    "vent": {"bore_mm": 8, "length_m": 1, "valves": [{"name": "flap", "opens_kpa": 0.4}]},
    "neck": {"bore_mm": 40, "valves": [{"name": "flap", "opens_kpa": 0.1}]},
}  # fmt: skip
PLATE: dict[str, Any] = {
    "kind": "baffle", "id": "all", "name": "all", "axis": "y", "at_mm": 200, "thickness_mm": 2, "flange_mm": 15,
    "notches": [{"at_mm": 200, "wide_mm": 40, "high_mm": 20}],
    "holes": [{"at_mm": 300, "up_mm": 120, "diameter_mm": 30, "count": 3, "pitch_mm": 60}],
    "doors": [{"at_mm": 450, "wide_mm": 60, "high_mm": 40}],
}  # fmt: skip


POT: dict[str, Any] = {
    "kind": "pot", "id": "pot", "name": "pot", "a_mm": 200, "b_mm": 60, "long_mm": 90, "wide_mm": 80, "high_mm": 60,
    "doors": [{"side": "rear", "wide_mm": 30, "high_mm": 20}],
}  # fmt: skip


class Bound(NamedTuple):
    """A figure, where it stands, and a value that is just too much."""

    path: tuple[str | int, ...]
    beyond: float

    @property
    def field(self) -> str:
        """As faults call it."""
        return ".".join(map(str, self.path))


def limits_of(annotation: Any, metadata: list[Any]) -> Iterator[Any]:
    """Limits in a field's own metadata, and in what it may be."""
    for found in metadata:
        yield from found.metadata if hasattr(found, "metadata") else [found]
    if get_origin(annotation) is Annotated:
        inner, *more = get_args(annotation)
        yield from limits_of(inner, more)
    else:
        for part in get_args(annotation):
            yield from limits_of(part, [])


def beyond(limit: Any, whole: bool) -> float | None:
    """A value just on the wrong side of a limit."""
    hair = 1 if whole else 1e-3
    match limit:
        case Ge(ge=least):
            return float(least) - hair
        case Gt(gt=least):
            return float(least)
        case Le(le=most):
            return float(most) + hair
        case Lt(lt=most):
            return float(most)
    return None


def bounds(part: BaseModel, path: tuple[str | int, ...] = ()) -> Iterator[Bound]:
    """Every limit of every figure that a document has."""
    for name, field in type(part).model_fields.items():
        value, here = getattr(part, name), (*path, name)
        if isinstance(value, BaseModel):
            yield from bounds(value, here)
        elif isinstance(value, list | tuple):
            for place, item in enumerate(value):
                if isinstance(item, BaseModel):
                    yield from bounds(item, (*here, place))
        elif isinstance(value, int | float) and not isinstance(value, bool):
            for limit in limits_of(field.annotation, list(field.metadata)):
                if (wrong := beyond(limit, isinstance(value, int))) is not None:
                    yield Bound(here, int(wrong) if isinstance(value, int) else wrong)


def put(document: Any, path: tuple[str | int, ...], value: float) -> Any:
    """A copy of a document with one figure otherwise."""
    changed = deepcopy(document)
    place = changed
    for step in path[:-1]:
        place = place[step]
    place[path[-1]] = value
    return changed


class Bounds(TestCase):
    """One figure at a time."""

    def check(self, said: list[Any], bound: Bound) -> None:
        """It is named with what was typed and what is allowed."""
        found = [fault for fault in said if fault.field == bound.field]
        self.assertTrue(found, f"{bound.field}: {[fault.field for fault in said]}")
        self.assertEqual(float(found[0].value), bound.beyond)
        self.assertRegex(str(found[0].limit), r"\d|above|below")
        self.assertRegex(found[0].message, r"must be|above|below|at most|at least|or more|or less")

    def test_of_a_design(self) -> None:
        """With everything in it that a design can have."""
        features = [*RICH["shell"]["features"], PLATE, POT]
        rich = RICH | MORE | {"shell": RICH["shell"] | {"features": features}, "ports": [*RICH["ports"], PORT]}
        document = json.loads(read_design(json.dumps(rich)).model_dump_json())
        found = list(bounds(Design.model_validate(document)))
        for bound in found:
            with self.subTest(field=bound.field, value=bound.beyond):
                with self.assertRaises(UnreadableDesignError) as refused:
                    read_design(json.dumps(put(document, bound.path, bound.beyond)))
                self.check(list(refused.exception.faults), bound)
        self.assertGreater(len(found), 250)

    def test_of_a_workshop(self) -> None:
        """Rules, machines, stock and prices."""
        prices = {"weld_per_m": 30.0, "hours_per_m": 0.5, "per_hour": 60.0, "minutes_per_bend": 5.0}
        document = json.loads(Workshop.model_validate({"prices": prices}).model_dump_json())
        found = list(bounds(Workshop.model_validate(document, strict=False)))
        for bound in found:
            with self.subTest(field=bound.field, value=bound.beyond):
                with self.assertRaises(ValidationError) as refused:
                    Workshop.model_validate(put(document, bound.path, bound.beyond), strict=False)
                self.check([fault_of(error) for error in refused.exception.errors(include_url=False)], bound)
        self.assertGreater(len(found), 60)
