"""The parts of a dessert as they are asked for, bought or folded together, understood."""

from dataclasses import KW_ONLY, dataclass, replace

from bellcrumb.asked.lines import NOT_CUSTARD, read_lines
from bellcrumb.dessert.layers import Layer, Made
from bellcrumb.dessert.works import FACTS, PartWork, kind_of_part
from bellcrumb.errors import CraftError
from bellcrumb.formula.answer import Answer, answer, mix_of
from bellcrumb.mix.composition import Mix
from bellcrumb.mix.lines import Line
from bellcrumb.pantry.eggs import EggGrade, egg_grade
from bellcrumb.pantry.pantry import Pantry
from bellcrumb.shapes import LineIn
from bellcrumb.shapes import build as shapes
from bellcrumb.stove.finish import Folded, TempWindow, fold_window
from bellcrumb.texture.families import Family
from bellcrumb.words import say

# Of the two volumes, what is left once they are folded. Source: practice, 0.85-0.92; medium.
FOLD_KEEPS = 0.88


@dataclass(frozen=True)
class PartBuilt:
    """A part understood: its lines, mix, eggs, and how it is made and lies."""

    lines: list[Line | None]
    texts: list[str]
    mix: Mix
    _: KW_ONLY
    grade: EggGrade
    made: Made
    beaten: bool
    family: Family | None = None
    bought: bool = False


@dataclass(frozen=True)
class Fold:
    """Two parts folded into one: grams of each, what both give, and how warm the base may be."""

    name: str
    base: str
    light: str
    _: KW_ONLY
    base_g: float
    light_g: float
    part: PartBuilt
    found: Answer
    volume_ml: float
    window: TempWindow


@dataclass(frozen=True)
class Understood:
    """Everything a build names."""

    parts: dict[str, PartBuilt]
    folds: dict[str, Fold]
    layers: list[Layer]

    def laid(self, name: str) -> PartBuilt:
        """What a layer is of. It is one of the two: ``layers`` name nothing else."""
        return self.folds[name].part if name in self.folds else self.parts[name]


def understood(given: shapes.BuildIn, pantry: Pantry | None) -> Understood:
    """Every part, bought thing and fold by its name, and the layers that name them. Raises
    CraftError at the field that stands in the way."""
    names = [*(part.name for part in given.parts), *(fold.name for fold in given.folds)]
    if len(set(names)) < len(names):
        twice = next(n for n in names if names.count(n) > 1)
        raise CraftError("parts", say("planner.two_parts_are_called_give_one", twice=twice))
    parts: dict[str, PartBuilt] = {}
    in_shell = any(part.kind == "crust" for part in given.parts)
    for n, part in enumerate(given.parts):
        parts[part.name] = _part(n, part, given, pantry, in_shell=in_shell)
    folds = {f.name: _fold(n, f, parts) for n, f in enumerate(given.folds)}
    folded = {name for f in folds.values() for name in (f.base, f.light)}
    asked = given.layers or [
        shapes.LayerIn(part=name) for name in names if name not in folded
    ]  # fmt: skip
    layers = []
    for n, layer in enumerate(asked):
        if (layer.part is None) == (layer.item is None):
            raise CraftError(f"layers[{n}]", say("planner.a_layer_is_of_a_part"))
        name = layer.part or ""
        if layer.item is not None:
            found = _bought(n, layer, given, pantry)
            name = found.made.name
            if name in parts and parts[name].texts != found.texts:
                name = layer.item.strip()
            parts.setdefault(name, replace(found, made=replace(found.made, name=name)))
        layers.append(Layer(name, layer.lies, layer.value, walls=layer.walls))
    return Understood(parts, folds, layers)


def _part(
    n: int, part: shapes.BuildPartIn, given: shapes.BuildIn, pantry: Pantry | None, *,
    in_shell: bool,
) -> PartBuilt:  # fmt: skip
    grade = egg_grade(part.egg_grade)
    lines = read_lines(part.lines, grade, pantry, f"parts[{n}].lines", given.measures)
    custard = part.kind not in NOT_CUSTARD
    found = answer(lines, grade, part.family, custard=custard, beaten=part.beaten)
    if not found.mix.mass_g:
        raise CraftError(f"parts[{n}].lines", say("planner.has_nothing_in_it_yet", part=part.name))
    kind: PartWork = part.work or kind_of_part(
        part.kind, found.mix, found.family, method=part.method, beaten=part.beaten,
        baked=part.baking, in_shell=in_shell,
    )  # fmt: skip
    facts = FACTS[kind]
    lost = facts.lost if part.lost_pct is None else part.lost_pct / 100
    own = found.mix.mass_g / found.mix.volume_ml
    grams = found.mix.mass_g * given.batches
    made = Made(part.name, kind, grams, density=facts.density or own, lost=lost)
    usually = bool(found.family and found.family.usually_beaten)
    return PartBuilt(
        lines, texts_of(part.lines), found.mix, grade=grade, made=made,
        beaten=usually if part.beaten is None else part.beaten, family=found.family,
    )  # fmt: skip


def _bought(
    n: int, layer: shapes.LayerIn, given: shapes.BuildIn, pantry: Pantry | None
) -> PartBuilt:  # fmt: skip
    """Something bought, given as a line for all of it; peel, stone and breakage are its loss."""
    text = (layer.item or "").strip()
    grade = egg_grade("US large")
    lines = read_lines([text], grade, pantry, f"layers[{n}].item", given.measures)
    mix = mix_of(lines)
    if not mix.mass_g:
        said = next(
            (line.message for line in lines if line), say("planner.write_it_as_200_g_digestives")
        )
        raise CraftError(f"layers[{n}].item", said)
    kind = kind_of_part("garnish", mix, None)
    facts = FACTS[kind]
    density = mix.mass_g / mix.volume_ml if facts.density is None else facts.density
    name = mix.portions[0].ingredient.name.split(",")[0]
    made = Made(
        name, kind, mix.mass_g * given.batches, density=density, lost=(layer.lost_pct or 0.0) / 100
    )
    return PartBuilt(lines, [text], mix, grade=grade, made=made, beaten=False, bought=True)


def texts_of(lines: list[LineIn]) -> list[str]:
    """The lines as they were written."""
    return [t if isinstance(t, str) else f"{t.grams:g} g {t.ingredient}" for t in lines]


def _fold(n: int, fold: shapes.FoldIn, parts: dict[str, PartBuilt]) -> Fold:
    """A cream lightened with another part, its set asked of what both of them are."""
    for field in ("base", "light"):
        if getattr(fold, field) not in parts:
            raise CraftError(
                f"folds[{n}].{field}", say("planner.there_is_no_part", fold=getattr(fold, field))
            )
    if fold.base == fold.light:
        raise CraftError(f"folds[{n}].light", say("planner.a_part_is_not_folded_into"))
    base, light = parts[fold.base], parts[fold.light]
    grams = []
    for field, part, asked in (("base_g", base, fold.base_g), ("light_g", light, fold.light_g)):
        if asked is not None and asked > part.made.gives_g + 0.5:
            raise CraftError(
                f"folds[{n}].{field}",
                say(
                    "planner.gives_g_as_written_not",
                    made=part.made.name,
                    gives_g=part.made.gives_g,
                    asked=asked,
                ),
            )
        grams.append(part.made.gives_g if asked is None else asked)
    base_g, light_g = grams
    lines = [*_share(base, base_g, False), *_share(light, light_g, light.made.kind == "whipped")]
    family = "chiboust" if light.made.kind in ("italian", "swiss", "french") else None
    found = answer(lines, base.grade, family, beaten=True)
    volume = FOLD_KEEPS * (base_g / base.made.density + light_g / light.made.density)
    kind: PartWork = "butter" if light.mix.grams_of("fat") > 0.5 * light.mix.mass_g else "folded"
    what: Folded = "butter" if kind == "butter" else "meringue" if family else "cream"
    made = Made(
        fold.name,
        kind,
        base_g + light_g,
        density=(base_g + light_g) / volume,
        lost=FACTS[kind].lost,
    )
    part = PartBuilt(
        lines, [], found.mix, grade=base.grade, made=made, beaten=True, family=found.family
    )
    return Fold(fold.name, fold.base, fold.light, base_g=base_g, light_g=light_g, part=part,
    found=found, volume_ml=volume,
                window=fold_window(what))  # fmt: skip


def _share(part: PartBuilt, grams: float, whipped: bool) -> list[Line | None]:
    """The lines of so many grams of a part; cream that was whipped stays foam."""
    times = grams / part.mix.mass_g

    def scaled(line: Line) -> Line:
        text = f"{line.text}, whipped" if whipped else line.text
        grams = None if line.grams is None else line.grams * times
        return replace(line, text=text, grams=grams, spread_g=line.spread_g * times,
                       also=tuple(scaled(each) for each in line.also))  # fmt: skip

    return [scaled(line) for line in part.lines if line]
