"""The laws' own examples, and that none of their constants is written a second time."""

import ast
import doctest
import importlib
import pkgutil
import unittest
from collections import defaultdict
from dataclasses import fields, is_dataclass
from pathlib import Path

import bellcrumb
import bellcrumb.laws
from bellcrumb.laws import water

CORE = Path(bellcrumb.__file__).parent
# Numbers that can only be one thing: whoever writes one outside the laws writes a law again.
TELLING = {
    8.07131: "Antoine", 1730.63: "Antoine", 233.426: "Antoine", 2.501e6: "latent heat",
    2501.0: "latent heat", 2361.0: "latent heat", 2.361: "latent heat", 8.314: "gas constant",
    0.018015: "molar mass", 0.018: "molar mass", 5.670e-8: "Stefan and Boltzmann",
    2.25577e-5: "standard atmosphere", 5.25588: "standard atmosphere", 101325.0: "pressure",
    133.322: "mmHg", 4.18: "water's heat capacity", 4190.0: "water's heat capacity",
    4180.0: "water's heat capacity", 334.0: "melting ice", 0.1586: "yolk protein",
    0.109: "white protein", 0.40: "the wobble", 71.1: "the house line", 57.0: "cooling",
    3.2e-3: "setting", 5.2e-4: "weeping",
}  # fmt: skip
# The same figure for something else.
OTHERWISE = {
    ("quantities/units.py", 0.4),
    ("pantry/ingredients.py", 0.4),
    ("formula/solve.py", 0.4),
    ("formula/cautions.py", 0.4),
    ("dessert/works.py", 0.4),
    ("stove/works.py", 0.4),
    ("stove/syrup.py", 0.4),
    ("stove/whip.py", 0.4),
    ("oven/crust.py", 0.4),
    ("rehearse/exercises.py", 0.4),
    ("rehearse/stove.py", 0.4),
    ("texture/endpoint.py", 0.4),
    ("texture/how_set.py", 0.4),
}


def load_tests(loader, tests, pattern):
    """Every example that stands in a docstring of the core is run."""
    for path in sorted(CORE.rglob("*.py")):
        if ">>>" in path.read_text("utf8"):
            name = ".".join(("bellcrumb", *path.relative_to(CORE).with_suffix("").parts))
            tests.addTests(doctest.DocTestSuite(importlib.import_module(name)))
    return tests


def by_place(modules):
    """Dataclasses of the modules that take more than three of their fields by their place."""
    found = []
    for module in modules:
        for name, item in vars(module).items():
            if isinstance(item, type) and is_dataclass(item) and item.__module__ == module.__name__:
                placed = [f.name for f in fields(item) if f.init and not f.kw_only]
                if len(placed) > 3:
                    found.append(f"{module.__name__}.{name}: {placed}")
    return found


class HouseTest(unittest.TestCase):
    def test_beyond_three_fields_each_is_given_by_its_name(self):
        names = (m.name for m in pkgutil.walk_packages(bellcrumb.__path__, "bellcrumb."))
        modules = [importlib.import_module(n) for n in names if not n.endswith("__main__")]
        self.assertGreater(len(modules), 100)
        self.assertEqual(by_place(modules), [])

    def test_a_public_name_of_a_type_stands_for_one_thing(self):
        places = defaultdict(list)
        for path in sorted(CORE.rglob("*.py")):
            for node in ast.parse(path.read_text("utf8")).body:
                alias = isinstance(node, ast.Assign) and ast.unparse(node.value).startswith(
                    "Literal["
                )
                name = node.targets[0].id if alias else getattr(node, "name", "_")
                if (alias or isinstance(node, ast.ClassDef)) and not name.startswith("_"):
                    places[name].append(path.relative_to(CORE).as_posix())
        self.assertEqual({name: at for name, at in places.items() if len(at) > 1}, {})


class OneLawOnePlace(unittest.TestCase):
    def test_a_laws_constant_is_written_nowhere_else(self):
        twice = []
        for path in sorted(CORE.rglob("*.py")):
            where = path.relative_to(CORE).as_posix()
            if where.startswith("laws/"):
                continue
            for node in ast.walk(ast.parse(path.read_text("utf8"))):
                if not isinstance(node, ast.Constant) or not isinstance(node.value, float):
                    continue
                if node.value in TELLING and (where, node.value) not in OTHERWISE:
                    twice.append(f"{where}:{node.lineno} {node.value} ({TELLING[node.value]})")
        self.assertEqual(twice, [])

    def test_every_law_shows_an_example(self):
        bare = []
        for found in pkgutil.iter_modules(bellcrumb.laws.__path__, "bellcrumb.laws."):
            module = importlib.import_module(found.name)
            for name, item in vars(module).items():
                mine = callable(item) and getattr(item, "__module__", "") == module.__name__
                public = mine and not name.startswith("_") and not isinstance(item, type)
                if public and ">>>" not in (item.__doc__ or ""):
                    bare.append(f"{found.name}.{name}")
        self.assertEqual(bare, [])

    def test_a_probe_at_the_boil_reads_no_more_than_it(self):
        self.assertAlmostEqual(water.BOILS_FROM_C + water.AT_BOIL_K, water.boils_c(0), places=1)
