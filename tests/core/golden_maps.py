"""The set map in each plane: where a formula lies, its band, its classes' edges, its lines."""

from collections.abc import Iterator

from bellcrumb.texture.set_map import Plane, set_map
from tests.core.kitchen import ask

_FORMULAS: dict[str, tuple[str, list[str]]] = {
    "pastry cream": ("pastry_cream", ["1 l milk", "9 yolks", "150 g sugar", "85 g corn starch"]),
    "mousseline": ("mousseline", ["1 l milk", "9 yolks", "250 g sugar", "90 g corn starch",
                                  "250 g butter"]),
    "brulee": ("brulee_yolk", ["750 g cream 35%", "250 g milk", "9 yolks", "140 g sugar"]),
    "flan": ("creme_caramel", ["1 l milk", "6 eggs", "180 g sugar"]),
    "pudding": ("starch_pudding", ["1 l milk", "60 g corn starch", "120 g sugar"]),
    "cheesecake": ("cheesecake_tall", ["900 g cream cheese", "250 g sugar", "5 eggs",
                                     "200 g sour cream"]),
}  # fmt: skip
_PLANES: tuple[Plane, ...] = ("starch_egg", "sugar_fat", "egg_fat")


def maps() -> Iterator[dict[str, object]]:
    """Every plane of some formulas: the point and its band, five rows of edges, the lines."""
    for of, (kin, lines) in _FORMULAS.items():
        found = ask(*lines, family=kin)
        for plane in _PLANES:
            m = set_map(found.mix, found.family, found.style, found.set.low, found.set.high, plane)
            yield {"of": of, "plane": plane, "what": f"{m.x_word} by {m.y_word}", "x": m.x,
                   "y": m.y, "low": m.x_low, "high": m.x_high,
                   "x_max": m.x_max, "y_max": m.y_max}  # fmt: skip
            for n in range(0, len(m.rows), len(m.rows) // 4):
                for name, edge in zip(m.classes[1:], m.edges, strict=False):
                    yield {"of": of, "plane": plane, "what": f"edge of {name}", "x": edge[n],
                           "y": m.rows[n]}  # fmt: skip
            for g in m.guides:
                yield {"of": of, "plane": plane, "what": f"{g.below} | {g.above}", g.axis: g.at}
