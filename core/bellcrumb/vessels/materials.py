"""What a vessel is made of, by the names kitchens and makers have for it."""

import re
from typing import Literal, get_args

Material = Literal[
    "porcelain", "stoneware", "glass", "steel", "tin", "aluminium", "foil", "cast_iron", "copper",
    "silicone", "plastic", "paper",
]  # fmt: skip
MATERIALS: tuple[Material, ...] = get_args(Material)

_ALSO: dict[str, Material] = {
    "stainless": "steel", "inox": "steel", "enamel": "steel", "enamelled": "steel",
    "nonstick": "steel", "non_stick": "steel", "tinplate": "tin", "tinned": "tin",
    "aluminum": "aluminium", "alu": "aluminium", "ceramic": "stoneware",
    "earthenware": "stoneware", "terracotta": "stoneware", "clay": "stoneware",
    "china": "porcelain", "iron": "cast_iron", "cardboard": "paper", "acrylic": "plastic",
    "polycarbonate": "plastic",
}  # fmt: skip


def material_named(text: str) -> Material | None:
    """The material a name means, by its first word that says one; None where none does.

    >>> material_named("Stainless steel"), material_named("cast iron"), material_named("oak")
    ('steel', 'cast_iron', None)
    """
    key = re.sub(r"[^a-z]+", "_", text.lower()).strip("_")
    known: dict[str, Material] = {name: name for name in MATERIALS} | _ALSO
    found = (known.get(word) for word in (key, *key.split("_")))
    if key.endswith("_foil"):
        return "foil"
    return next((material for material in found if material), None)
