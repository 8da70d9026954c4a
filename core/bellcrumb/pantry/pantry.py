"""What a kitchen has: the table that ships and its own entries, found by what a cook calls them.

Data: ``data/names.csv`` (further kitchen names). A kitchen can add or correct rows.
"""

import csv
import re
from collections.abc import Iterable, Mapping
from dataclasses import KW_ONLY, dataclass
from functools import cache
from importlib.resources import files
from typing import Literal

from bellcrumb.pantry.ingredients import Ingredient, table
from bellcrumb.pantry.names import STEMMED_IGNORED, stem
from bellcrumb.words import say

Sureness = Literal["sure", "likely", "doubtful"]

# "70 %", "à 70 %", "al 70%", "mit 70 % Kakao", "70% cocoa": how much of it, however it is said.
# What differs by its percentage, and by which: kinds that are told apart by it.
_SHELVES: dict[str, tuple[str, tuple[tuple[str, ...], ...]]] = {
    "chocolate": (
        "cocoa_solids_pct",
        (
            ("choc_dark_55", "choc_dark_60", "choc_dark_65", "choc_dark_70", "choc_dark_75",
             "choc_dark_80", "choc_dark_85", "choc_dark_90", "choc_semisweet", "choc_bittersweet"),
            ("choc_milk", "choc_milk_40"),
        ),
    ),
    "cream": (
        "fat_pct",
        (("cream_15", "cream_light", "cream_single", "cream_cooking_20", "cream_30", "cream_35",
          "cream_heavy", "cream_double"),),
    ),
    "milk": ("fat_pct", (("milk_skim", "milk_1", "milk_2", "milk_whole"),)),
}  # fmt: skip
# How many points the nearest kind may be off, by its shelf; our estimates.
_FARTHEST_SHARE = {"chocolate": 6.0, "cream": 6.0, "milk": 1.0}
_OF = frozenset({"of", "de", "d", "di", "von"})
LONGEST_NAME = 60  # a name longer than this is compared by its beginning


@dataclass(frozen=True)
class Match:
    """What a name was taken for, and how surely.

    ``before`` are words in front of it that nobody knows; ``in_part`` that words of it were set
    aside.
    """

    ingredient: Ingredient
    sureness: Sureness
    note: str = ""
    _: KW_ONLY
    before: str = ""
    in_part: bool = False


class Pantry:
    """Finds ingredients by name; a kitchen's ``own`` entries come before the shipped table."""

    def __init__(
        self,
        own: Iterable[Ingredient] = (),
        words: Mapping[str, str] | None = None,
        weights: Mapping[tuple[str, str], float] | None = None,
    ) -> None:
        """``words`` are the kitchen's own names by what they mean (a key), ``weights`` what one
        can, pack or piece of a key weighs here, g."""
        self._by_key: dict[str, Ingredient] = {}
        self._by_name: dict[str, tuple[Ingredient, Sureness, str]] = {}
        for ingredient in table():
            self._add(ingredient, shipped_row=True)
        text = files("bellcrumb.pantry").joinpath("data/names.csv").read_text("utf8")
        for row in csv.DictReader(text.splitlines()):
            sureness: Sureness = "doubtful" if row["sureness"] == "doubtful" else "likely"
            if row["sureness"] == "sure":
                sureness = "sure"
            self._by_name[stem(row["name"])] = (
                self._by_key[row["key"]],
                sureness,
                say(row["note"]),
            )
        for ingredient in own:
            self._add(ingredient)
        self._weights = dict(weights or {})
        for said, key in (words or {}).items():
            meant = self._by_key.get(key)
            if meant and stem(said):
                self._by_name[stem(said)] = (meant, "sure", say("pantry.as_this_kitchen_calls_it"))

    def own_g(self, key: str, unit: str) -> float | None:
        """What one can, pack or piece weighs in this kitchen; None where nobody said."""
        return self._weights.get((key, unit))

    def _add(self, ingredient: Ingredient, *, shipped_row: bool = False) -> None:
        self._by_key[ingredient.key] = ingredient
        for name in (ingredient.name, ingredient.key.replace("_", " "), *ingredient.aliases):
            bare = re.sub(r"\(.*?\)", " ", name)
            for form in {stem(name), stem(bare)} - {""}:
                taken = self._by_name.get(form)
                if shipped_row and taken and taken[0] is not ingredient:
                    # One name, two things, by country: the first is taken, and the other said.
                    note = say(
                        "pantry.could_also_be",
                        ingredient=ingredient.name[0].lower(),
                        ingredient_2=ingredient.name[1:],
                    )
                    self._by_name[form] = (taken[0], "doubtful", note)
                else:
                    self._by_name[form] = (ingredient, "sure", "")

    def key(self, key: str) -> Ingredient:
        """The ingredient with this key. Raises KeyError."""
        return self._by_key[key]

    def named(self, name: str) -> Ingredient | None:
        """The ingredient with this key, or called this; None when nothing is near enough."""
        match = None if name in self._by_key else self.find(name)
        return self._by_key.get(name) or (match.ingredient if match else None)

    def called(self, name: str) -> Ingredient | None:
        """The ingredient that surely has exactly this name, or None."""
        hit = self._by_name.get(stem(name))
        return hit[0] if hit and hit[1] == "sure" else None

    def find(self, name: str) -> Match | None:
        """The ingredient a cook means by ``name``, or None when nothing is near enough."""
        whole = stem(name)
        if not whole:
            return None
        hit = self._by_name.get(whole)
        if hit:
            return Match(*hit)
        rest = whole  # "coarsely ground coffee" is ground coffee before it is coffee
        while (first := rest.partition(" "))[2] and first[0] in STEMMED_IGNORED:
            rest = first[2]
            if rest in self._by_name:
                return Match(*self._by_name[rest])
        kept = " ".join(w for w in whole.split() if w not in STEMMED_IGNORED)
        hit = self._by_name.get(kept)
        if hit:
            return Match(hit[0], hit[1], hit[2])
        words = kept.split()
        by_share = self._by_share(words)
        if by_share:
            return by_share
        # A known name at the start or end: "whole milk from the dairy", "garden honey". Never in
        # the middle, where it is part of another thing ("malted milk powder").
        for size in range(len(words) - 1, 0, -1):
            for start in sorted({0, len(words) - size}, reverse=True):
                run = " ".join(words[start : start + size])
                hit = self._by_name.get(run)
                if hit and (size > 1 or len(words) <= 3) and len(run) > 3:
                    left = words[:start] + words[start + size :]
                    flavoured = start == 0 and left[0] in _OF  # "miel de lavande"
                    others = (" ".join(left), *left)
                    if not flavoured and any(self._other(word, hit[0]) for word in others):
                        continue  # "sugar and salt" is neither
                    as_typed = {stem(word): word for word in name.split()}
                    said = " ".join(as_typed.get(word, word) for word in left)
                    before = said if start else ""
                    note = say("pantry.was_set_aside", said=said)
                    return Match(hit[0], "doubtful", note, before=before, in_part=True)
        near = self._nearest(kept, 1)
        if near and near[0][1] >= 88 and kept[:1] == near[0][2][:1]:
            return Match(near[0][0], "likely", say("pantry.spelled_like", near=near[0][0].name))
        return None

    def _other(self, name: str, than: Ingredient) -> bool:
        """Whether a word is the name of another kind of thing."""
        hit = self._by_name.get(name)
        return hit is not None and hit[0].category != than.category

    def _by_share(self, words: list[str]) -> Match | None:
        """A chocolate or cream by a percentage that the table does not have: the nearest one."""
        if not words or not words[-1].endswith("%") or not words[-1][:-1].isdigit():
            return None
        hit = self._by_name.get(" ".join(words[:-1]))
        shelf = _SHELVES.get(hit[0].category) if hit else None
        if not hit or not shelf:
            return None
        wanted, part, keys = float(words[-1][:-1]), *shelf
        row = next((row for row in keys if hit[0].key in row), ())
        known = [self._by_key[key] for key in row]
        if not known:
            return None
        best = min(known, key=lambda i: abs(float(getattr(i, part)) - wanted))
        off = abs(float(getattr(best, part)) - wanted)
        if off > _FARTHEST_SHARE[hit[0].category]:
            return None
        return Match(
            best, "sure" if off < 1 else "likely", say("pantry.taken_as", best=best.name.lower())
        )

    def _nearest(self, said: str, limit: int) -> list[tuple[Ingredient, float, str]]:
        from rapidfuzz import fuzz, process

        said = said[:LONGEST_NAME]
        if not said:
            return []
        found: dict[str, tuple[Ingredient, float, str]] = {}
        for form, score, _ in process.extract(
            said, self._by_name.keys(), scorer=fuzz.WRatio, limit=limit * 6
        ):
            ingredient = self._by_name[form][0]
            exact = fuzz.ratio(said, form)
            best = max(exact, score * 0.9)
            if ingredient.key not in found or found[ingredient.key][1] < best:
                found[ingredient.key] = (ingredient, best, form)
        return sorted(found.values(), key=lambda item: -item[1])[:limit]

    def suggest(self, name: str, limit: int = 3) -> list[Ingredient]:
        """The ingredients whose names are nearest to ``name``, nearest first."""
        return [item[0] for item in self._nearest(stem(name), limit) if item[1] >= 66]


@cache
def shipped() -> Pantry:
    """The pantry without any kitchen's own entries."""
    return Pantry()
