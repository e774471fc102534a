"""What the web is told of the document: the same defaults, choices and limits as the core's."""

import json
import re
from typing import get_args

from django.test import SimpleTestCase

from keel.design.document import Design
from keel.design.ports import Port, PortRole
from keel.reference.fuels import FuelName
from server.config.api import api
from server.config.declared import declarations


class DeclaredTest(SimpleTestCase):
    @classmethod
    def setUpClass(cls) -> None:
        super().setUpClass()
        text = declarations(api.get_openapi_schema(path_prefix="/api/"))
        cls.told = {
            name: json.loads(said) for name, said in re.findall(r"^export const (\w+): .*?> = (\{.*\})$", text, re.M)
        }

    def test_empty_design_is_the_cores(self) -> None:
        self.assertEqual(Design().model_dump(mode="json"), self.told["Design"]["defaults"])

    def test_choices_stand_in_the_cores_order_also_where_a_field_may_be_empty(self) -> None:
        self.assertEqual(list(get_args(PortRole)), self.told["Port"]["choices"]["role"])
        self.assertEqual(list(get_args(FuelName)), self.told["DemandCase"]["choices"]["fuel"])
        self.assertEqual(list(get_args(FuelName)), self.told["Pump"]["choices"]["fuels"])

    def test_an_empty_default_is_said_and_a_needed_field_has_none(self) -> None:
        defaults = self.told["Port"]["defaults"]
        self.assertIsNone(defaults["vent"])
        self.assertNotIn("x_mm", defaults)
        Port.model_validate({**defaults, "id": "vent-1", "name": "vent", "x_mm": 1.0, "y_mm": 1.0})

    def test_limits_and_most(self) -> None:
        self.assertEqual([-85, 85], self.told["Attitude"]["limits"]["pitch_deg"])
        self.assertEqual(40, self.told["Bay"]["most"]["keep_outs"])
        self.assertEqual(80, self.told["Port"]["most"]["name"])
