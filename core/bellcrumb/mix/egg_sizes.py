"""Sizes of eggs as they are written: in words, by a letter, in every country's way."""

import re

from bellcrumb.pantry.eggs import EggGrade, egg_grade, grade_of_size
from bellcrumb.pantry.ingredients import Ingredient
from bellcrumb.quantities.amount import Amount

# "6 œufs (4 entiers + 2 jaunes)", "5 eggs (3 whole, 2 yolks)": what is in the brackets counts.
_WHOLE_AND_PART = re.compile(
    r"^\d+ (?:œufs?|oeufs?|eggs?|uova|huevos|eier) ?\((\d+) (?:entiers?|whole(?: eggs?)?|inter[eio]"
    r"|enteros?|ganze(?: eier)?|œufs?|oeufs?|eggs?)(?: et | and | e | y | und |, ?| ?\+ ?)"
    r"(\d+) ([^\W\d]+)\)$"
)


# "3 whole + 3 yolks"
_WHOLE_BESIDE = re.compile(r"^(\d+) whole(?= (?:\+|and|plus|&) \d+ (?:egg )?(?:yolks?|whites?)\b)")
_AMERICAN = ("us", "usa", "american")
# "2 size L eggs", "6 M yolks": the letter in front.
_LETTER_FIRST = re.compile(
    r"^(\d+) (?:size (s|m|l|xl)|(s|m|xl)) ((?:egg )?(?:yolks?|whites?)|eggs?)\b"
)
# "2 US large eggs", "3 large UK eggs": of which country the word is.
_COUNTRY = re.compile(
    r"\b(us|usa|american|uk|british|eu)[- ](?=(?:\S+[- ])?(?:eggs?|yolks?|whites?)\b"
    r"|extra)"
)


def whole_and_part(plain: str) -> str:
    """Eggs of which some go in whole and of some a part, and sizes by a letter, the plain way.

    >>> whole_and_part("6 œufs (4 entiers + 2 jaunes)")
    '4 eggs + 2 jaunes'
    >>> whole_and_part("2 size l eggs")
    '2 eggs l'
    """
    return _LETTER_FIRST.sub(
        lambda found: f"{found[1]} {found[4]} {found[2] or found[3]}",
        _WHOLE_BESIDE.sub(r"\1 eggs", _WHOLE_AND_PART.sub(r"\1 eggs + \2 \3", plain)),
    )


LARGE_EGGS = re.compile(
    r"^(\d+) ?l (eggs?|egg yolks?|yolks?|œufs?|oeufs?|uova|tuorli|huevos?|yemas?|eier|eigelb)\b",
    re.IGNORECASE,
)
_EGG_WORD = re.compile(
    r"\b(?:œufs?|oeufs?|uova|uovo|tuorl[io]|album[ei]|huevos?|yemas?|claras?|eier|eiern|eigelbe?"
    r"|eiweiße?|eggs?)\b"
)
_YOLKS = re.compile(r"\b(yolks|jaunes|tuorli|yemas)\b")
_SIZE_WORDS = {
    "small": "small petits petit pequeños pequeñas piccole piccoli kleine",
    "medium": "medium moyens moyen medianos medianas medie medi mittelgroße mittelgrosse mittlere",
    "large": "large gros grandes grandi große grosse großen",
    "extra large": "xl extra-large",
    "jumbo": "jumbo",
}  # fmt: skip
_SIZE_GRADE = {word: size for size, words in _SIZE_WORDS.items() for word in words.split()}
_SIZES = re.compile(rf"\b(extra large|{'|'.join(_SIZE_GRADE)})\b")
# "4 huevos L", "3 Eier (Größe M)", "6 œufs calibre M": the letters of the EU and the UK.
_EGG_LETTER = re.compile(
    r"^(?P<egg>.*\b(?:eggs?|yolks?|whites?|œufs?|oeufs?|jaunes?|uova|uovo|tuorli|huevos?|yemas?"
    r"|eier|eiern?|ei|eigelb)\b[^(,]*?)[\s(,]+"
    r"(?:size|größe|gr\.|gr|taille|calibre|talla|taglia|tamaño)?\s*"
    r"(?P<letter>s|m|l|xl)(?: size)?\)?$"
)


def of_size(name: str, grade: EggGrade) -> tuple[str, EggGrade]:
    """A name with its size in plain words, and the grade that a letter behind it says."""
    country = _COUNTRY.search(name)
    if country:
        name = f"{name[: country.start()]}{name[country.end() :]}"
        grade = egg_grade("us large" if country.group(1) in _AMERICAN else "eu/uk m")
    letter = _EGG_LETTER.match(name)
    if letter:
        return letter.group("egg").strip(), egg_grade(f"EU/UK {letter.group('letter')}")
    size = _SIZES.search(name)
    if size and size.group(1) not in _SIZE_WORDS and _EGG_WORD.search(name):
        return name.replace(size.group(1), _SIZE_GRADE[size.group(1)]), grade
    return name, grade


def no_yolk(ingredient: Ingredient, amount: Amount, name: str, grade: EggGrade) -> bool:
    """Whether "8 g yolks" is written, which is less than one and so hardly meant."""
    grammed = amount.unit is not None and amount.unit.name == "g"
    yolks = ingredient.key == "egg_yolk" and bool(_YOLKS.search(name))
    return grammed and yolks and amount.value < 0.75 * grade.yolk_g


def grade_in(name: str, ingredient: Ingredient, grade: EggGrade) -> EggGrade:
    """The grade that a size in words says of eggs; what it was where none does."""
    size = _SIZES.search(name)
    if size is None or ingredient.category != "egg":
        return grade
    return grade_of_size(_SIZE_GRADE.get(size.group(1), size.group(1)), grade)
