"""What mixes read as that may be no custard, as each ingredient goes from none to five times."""

from collections.abc import Iterator

from bellcrumb.texture.no_custard import other_than_custard
from tests.core.kitchen import mix

_FACTORS = (0, 0.1, 0.25, 0.4, 0.55, 0.7, 0.8, 0.9, 1, 1.15, 1.3, 1.5, 1.8, 2.2, 3, 5)
_BASES: dict[str, dict[str, float]] = {
    "dough": dict(flour_plain=250, butter_82=125, egg_whole=50, milk_whole=300),
    "choux": dict(water=250, butter_82=110, flour_plain=150, egg_whole=240, sugar=20),
    "crumb": dict(digestive_crumb=220, butter_82=100, cream_cheese=40),
    "ready dough": dict(puff_raw=450, egg_yolk=40, sugar=60),
    "almond cream": dict(butter_82=100, sugar=110, egg_whole=100, almond_ground=110, milk_whole=40),
    "sponge": dict(egg_whole=200, sugar=120, flour_plain=125, milk_whole=45),
    "meringue": dict(egg_white=150, sugar=260, water=60, egg_yolk=3, lemon_juice=8, cream_35=10),
    "caramel": dict(sugar=200, water=90, cream_35=120, butter_82=60, salt_fine=3),
    "jam": dict(jam_apricot=200, water=90, cream_35=14),
    "fruit": dict(pear=320, sugar=150, water=350, cream_35=40),
    "ganache": dict(cream_35=300, choc_dark_65=240, sugar=30, butter_82=20),
    "mirror": dict(water=200, sugar=180, condensed_milk=90, choc_white=120, gelatine=5),
}
_SHORT = {None: "-", "a choux dough": "choux", "a dough": "dough", "a base": "base",
          "an almond cream": "almond", "a sponge": "sponge", "a meringue": "meringue",
          "sugar to be cooked": "sugar", "a glaze of jam": "jam", "fruit": "fruit",
          "a mirror glaze": "mirror", "a ganache": "ganache"}  # fmt: skip


def reads() -> Iterator[dict[str, object]]:
    """One row for each ingredient of each base: what it reads as by the factor."""
    for base, grams in _BASES.items():
        for key in grams:
            said = []
            for factor in _FACTORS:
                other = other_than_custard(mix(**(grams | {key: grams[key] * factor})))
                said.append(_SHORT[other.name if other else None])
            yield {"base": base, "varied": key, "reads": " ".join(said)}
