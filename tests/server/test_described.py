import re
import sys
from pathlib import Path

from django.test import SimpleTestCase
from ninja import NinjaAPI

import config.api
from config.api import api
from config.described import describe, meanings
from tests.core.test_laws import by_place

SERVER = Path(config.api.__file__).parents[1]


class DescribedTest(SimpleTestCase):
    def test_beyond_three_fields_each_is_given_by_its_name(self):
        modules = [
            module for module in list(sys.modules.values())
            if SERVER in Path(getattr(module, "__file__", None) or "/").parents
        ]  # fmt: skip
        self.assertGreater(len(modules), 50)
        self.assertEqual(by_place(modules), [])

    def test_every_field_and_parameter_of_the_api_says_what_it_is(self):
        document = api.get_openapi_schema()
        silent = [
            f"{name}.{field}"
            for name, shape in document["components"]["schemas"].items()
            for field, of in shape.get("properties", {}).items()
            if not of.get("description")
        ]
        silent += [
            f"{path} {parameter['name']}"
            for path, methods in document["paths"].items()
            for operation in methods.values()
            for parameter in operation.get("parameters", [])
            if not parameter.get("description")
        ]
        self.assertEqual(silent, [])

    def test_no_row_of_the_table_is_about_nothing(self):
        bare = NinjaAPI.get_openapi_schema(api)
        self.assertEqual(set(meanings()) - describe(bare), set())

    def test_an_answer_has_every_field_and_who_asks_may_leave_out_what_has_a_default(self):
        shapes = api.get_openapi_schema()["components"]["schemas"]
        for answer in ("Step", "Cue", "Finding", "PlanOut", "DayOut"):
            self.assertEqual(set(shapes[answer]["required"]), set(shapes[answer]["properties"]))
        for question in ("Content", "Baking", "PantryIn"):
            self.assertLess(
                set(shapes[question].get("required", ())), set(shapes[question]["properties"])
            )

    def test_a_unit_in_a_name_is_in_its_meaning(self):
        units = {"_c": "degC", "_g": "g", "_ml": "ml", "_mm": "mm", "_pct": "%", "_w": "W"}
        wrong = [
            name
            for name, meaning in meanings().items()
            for end, unit in units.items()
            if name.endswith(end)
            and "_per_" not in name
            and unit not in re.split("[ ,;:]+", meaning)
        ]
        self.assertEqual(wrong, [])
