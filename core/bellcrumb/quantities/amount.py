"""Reading the amount at the head (or tail) of a line: "3/4 cup", "1½ l", "4-5", "half a stick".

A small grammar of our own: the known library for ingredient lines needs a download at run time.
"""

import re
import unicodedata
from dataclasses import KW_ONLY, dataclass, replace

from bellcrumb.quantities.units import SPELLINGS, Measures, Unit, unit
from bellcrumb.words import say

LONGEST_NUMBER = 20
NUMBER_WORDS = {
    "a": 1.0, "an": 1.0, "one": 1.0, "two": 2.0, "three": 3.0, "four": 4.0, "five": 5.0,
    "six": 6.0, "seven": 7.0, "eight": 8.0, "nine": 9.0, "ten": 10.0, "eleven": 11.0,
    "twelve": 12.0, "dozen": 12.0, "half": 0.5, "quarter": 0.25, "un": 1.0, "une": 1.0,
    "deux": 2.0, "trois": 3.0, "quatre": 4.0, "cinq": 5.0, "dos": 2.0, "tres": 3.0, "due": 2.0,
    "tre": 3.0,
    "una": 1.0,
    "uno": 1.0,
    "media": 0.5,
    "medio": 0.5,
    "mezza": 0.5,
    "mezzo": 0.5,
    "demi": 0.5, "demie": 0.5, "ein": 1.0, "eine": 1.0, "einen": 1.0, "einem": 1.0, "einer": 1.0,
    "zwei": 2.0, "drei": 3.0, "vier": 4.0, "fünf": 5.0, "sechs": 6.0, "sieben": 7.0, "acht": 8.0,
    "neun": 9.0, "zehn": 10.0, "zwölf": 12.0, "halbe": 0.5, "halber": 0.5, "halbes": 0.5,
    "halben": 0.5, "quattro": 4.0, "cinque": 5.0, "sei": 6.0, "sette": 7.0, "otto": 8.0,
    "nove": 9.0, "dieci": 10.0, "cuatro": 4.0, "cinco": 5.0, "seis": 6.0, "siete": 7.0,
    "ocho": 8.0, "nueve": 9.0, "diez": 10.0, "sept": 7.0, "huit": 8.0, "neuf": 9.0, "dix": 10.0,
    "douze": 12.0, "couple": 2.0,
}  # fmt: skip
_DECIMAL = r"\d+(?:[.,]\d+)*"
_PLAIN = rf"(?:{_DECIMAL}\s+\d+/\d+|\d+/\d+|{_DECIMAL})"
_NUMBER = re.compile(rf"(-?\s*{_PLAIN})(?:\s*(?:-|to|à|or|bis|oder|ou|o)\s*({_PLAIN}))?(?![\d/])")
_WORD_NUMBER = re.compile(
    rf"(?:(half|quarter)\s+(?:a|an|of\s+a)|({'|'.join(NUMBER_WORDS)}))\b(?:\s+(dozen)\b)?"
)
_UNIT = re.compile(
    rf"\s*(fl\.?\s?oz\.?|{'|'.join(sorted(map(re.escape, SPELLINGS), key=len, reverse=True))})"
    r"(?![\w'])\.?"
)
_BARE = re.compile(
    r"(?:pinch|dash|splash|glug|capful|squeeze|filet|trait|schuss|spritzer|spruzzo|chorrito|knob|drop|pincée|pizzico|pizca|noix)\b"
)
_PLUS = re.compile(r"(?:plus|\+|and|&|et|e|più|y|más|und)\s*(?=\d|½|a |one |half )")
_LESS = re.compile(r"(?:minus|less|moins|meno|menos|weniger)\s*(?=\d|a |one )")
_OF = re.compile(
    r"\s*(?:of the|of|de la|de l'|del|della|dello|dei|degli|de|du|des|di|von|vom|an)\s+|\s*d['’]\s*"
)
_DRAINED = (
    r"drained(?: weight)?|abtropfgewicht|abtr\.?-?gew\.?|égouttée?s?|sgocciolat[oaie]"
    r"|escurrid[oa]s?"
)
_PAREN_MASS = re.compile(
    r"\(\s*(?:about|approx\.?|approximately|circa|ca\.?|environ|env\.?|etwa|unos|soit"
    rf"|(?P<per>à|je|zu je|cada una? de)|{_DRAINED})?:?\s*"
    rf"({_PLAIN})[\s-]*(g|grams?|kg|ml|fl oz|oz\.?|ounces?|lb|pounds?|cl|dl|l)\s*"
    r"(?P<each>each|l'un[ao]|(?:pièce|chacune?s?)|cada un[ao]|c/u|jeweils)?"
    r"(?P<all>(?:in )?total|en tout|in totale|en total|insgesamt)?"
    rf"(?:peeled|net|netto|{_DRAINED}|de pulpe|pulp|shelled|pitted"
    r"|(?:size )?(?:tins?|cans?|packs?|packets?|tubs?|jars?|bars?|blocks?|bottles?|cartons?))?\s*\)"
)
# The amount behind a name: "sugar: 200 g". Found from its last gap, so that a line of dashes costs
# no more than any other.
_TAIL = re.compile(rf"[\s:,-](-?\s*{_PLAIN}\s*[^\W\d]{{0,20}}\.?)$")
# A size behind the name of what was counted or measured: "1 pack butter, 250 g", "2 tubs mascarpone
# 250 g each". The gap is bounded, so that a line of spaces costs no more than any other.
_BEHIND = re.compile(
    r"(?P<gap>[\s,;:–-]{1,4})(?P<per>each |je |à |at |of )?(?:(?:about|approx|ca|circa|env)\.? )?"
    rf"(?P<size>{_PLAIN}) ?(?P<unit>kg|g|ml|cl|dl|l|oz|lb)\b\.?"
    r"(?: (?:peeled|net|netto|drained|shelled|pitted)\b)?"
    r"(?P<each>[ ,]{1,2}(?:each|chacune?|(?:la )?pièce|c/u|cada un[ao]|l'un[ao]|ciascun[ao]"
    r"|jeweils|pro stück))?(?P<how>, [^\d,()]{1,60})?$"
)
_LOOSE = 0.3  # a unit that says so little of how much that a size behind it is what is meant
_METRIC = ("g", "kg", "ml", "cl", "dl", "l")
_CONTAINER = re.compile(
    r"\s*(?:cans?|tins?|pack(?:et|age)?s?|blocks?|sticks?|cartons?|jars?|bottles?|pots?|tubs?|containers?)\b"
)
_TIMES = re.compile(rf"({_PLAIN})\s*(?:x|×|\*)\s*(?={_PLAIN}\s*(?:g|kg|ml|oz|lb|cl|l)\b)")


@dataclass(frozen=True)
class Amount:
    """How much a line asks for: ``low`` to ``high`` of ``unit`` (None: just a count).

    ``stated_g`` and ``stated_ml`` hold a weight or volume given in brackets, already for the
    whole line; ``per_pack`` marks that it was taken as the size of each of several packs where it
    may be that of all ("2 sachets (15 g)", "1/2 pack (125 g)"). ``doubt`` says what could be read
    another way, or is empty.
    """

    low: float
    high: float
    unit: Unit | None
    _: KW_ONLY
    stated_g: float | None = None
    stated_ml: float | None = None
    doubt: str = ""
    per_pack: bool = False

    @property
    def value(self) -> float:
        """The middle of the range."""
        return (self.low + self.high) / 2


# French spoons are several words: made one before anything else is read.
_SPOONS = (
    (
        re.compile(
            r"\b(?:cuill[eè]r(?:e|ée)s?|cuil\.?|c\.?)\s*[àa]\.?\s*(?:soupe|s\b)\.?|\bcs(?= d[e'])"
        ),
        "tbsp",
    ),
    (
        re.compile(
            r"\b(?:cuill[eè]r(?:e|ée)s?|cuil\.?|c\.?)\s*[àa]\.?\s*(?:caf[ée]|th[ée]|c\b)\.?"
            r"|\bcc(?= d[e'])"
        ),
        "tsp",
    ),
    (
        re.compile(r"\bcucharadas? soperas?\b|\bcdas?\.? soperas?\b|\bsoup ?spoons?(?:fuls?)?\b"),
        "tbsp",
    ),
    (re.compile(r"\bcoffee ?spoons?(?:fuls?)?\b"), "tsp"),
    (re.compile(r"\bcucharad(?:it)?as? de caf[ée]\b|\bcucharaditas? de postre\b"), "tsp"),
    (re.compile(r"\bcucharadas? de postre\b|\bcuill[eè]r(?:e|ée)s? à dessert\b"), "dessertspoon"),
)


_FLUID = re.compile(r"\bfl(?:uid|\.)?[- ]?(?:ounces?|oz\.?)(?![a-z])")
_BARE_POINT = re.compile(r"(?<![\d.,])\.(?=\d)")  # ".25 oz"
# Of a list: "- 2 cups", "1) 200 g", "1. 500 ml", "☐ 3 eggs", "- [ ] 100 g"
_BULLET = re.compile(
    r"^(?:[-·+☐□▢◦▪‣] ?(?=\D)|[-·+☐□▢◦▪‣] (?=\S)|\[ ?x?\] ?|\d{1,2}\) (?=\S)"
    r"|\d{1,2}\. (?=\d))+"
)
_LEADERS = re.compile(r"[.…_]{3,}")  # "milk ........ 500 g"
# "two thirds of a cup", "one-third cup", "three quarters"; "one and a half", "1 & 1/2".
_PARTS_OF_ONE = {"half": 2, "third": 3, "quarter": 4, "fourth": 4, "eighth": 8}
_PART_IN_WORDS = re.compile(
    rf"\b(an?|one|two|three|[1-7])[- ]({'|'.join(_PARTS_OF_ONE)})s?(?: of an?)?(?= )"
)
_AND_A_PART = re.compile(rf"\b(\d+|{'|'.join(NUMBER_WORDS)}) (?:and|&) (\d/\d)(?!\d)")


def plain_text(text: str) -> str:
    """``text`` in lower case with vulgar fractions spelled out (1½ -> 1 1/2) and tidy spaces."""
    spelled = "".join(
        " " + unicodedata.normalize("NFKC", ch).replace("\u2044", "/") + " "
        if unicodedata.category(ch) == "No"
        else ch
        for ch in text
    )
    spelled = unicodedata.normalize("NFC", spelled).replace("–", "-").replace("—", "-").lower()
    spelled = _LEADERS.sub(" ", spelled)
    for spoon, short in _SPOONS:
        spelled = spoon.sub(short, spelled)
    spelled = _FLUID.sub("fl oz", _BARE_POINT.sub("0.", spelled.replace("\u2019", "'")))
    spelled = _BULLET.sub("", re.sub(r"\s+", " ", spelled).strip(" \t•*"))
    spelled = re.sub(r"(?<=\d) ?~ ?(?=\d)", "-", spelled.replace("[", "(").replace("]", ")"))
    return _AND_A_PART.sub(_mixed, _PART_IN_WORDS.sub(_part, spelled.lstrip("~ ")))


def _part(found: re.Match[str]) -> str:
    over = NUMBER_WORDS.get(found[1]) or float(found[1])
    return f"{over:g}/{_PARTS_OF_ONE[found[2]]}"


def _mixed(found: re.Match[str]) -> str:
    whole = NUMBER_WORDS.get(found[1]) or float(found[1])
    return f"{whole:g} {found[2]}"


def _number(text: str) -> tuple[float, str]:
    """The value of ``text`` ("1 1/2", "0,5", "1,000") and what is doubtful about it."""
    text, doubt, sign = text.strip(), "", 1.0
    if len(text) > LONGEST_NUMBER:
        raise ValueError(say("quantities.no_kitchen_writes_such_a_number"))
    if text.startswith("-"):
        sign, text = -1.0, text[1:].strip()
    total = 0.0
    for piece in text.split():
        if "/" in piece:
            over, under = piece.split("/")
            if float(under) == 0:
                raise ZeroDivisionError
            total += float(over) / float(under)
        elif re.fullmatch(r"\d{1,3}(,\d{3})+(\.\d+)?", piece):
            total += float(piece.replace(",", ""))
            doubt = say("quantities.read_as", piece=piece, number=piece.replace(",", ""))
        else:
            total += float(piece.replace(",", "."))
    return sign * total, doubt


def read_amount(text: str, measures: Measures = "us") -> tuple[Amount | None, str]:
    """Split a line (from ``plain_text``) into its amount and the rest.

    Returns (None, text) when the line has no amount. Raises ValueError for a number that cannot
    be read ("1/0", "1.2.3").
    """
    head, rest = _read_head(text, measures)
    if head is None:
        # "butter (60 g)", "sugar, 1 cup (200 g)": the brackets stay for what is read below.
        stated = _PAREN_MASS.search(text)
        bare = (text[: stated.start()] + text[stated.end() :]).strip() if stated else text
        bare, how = _without_how(bare)
        tail = _TAIL.search(bare)
        name = bare[: tail.start()].strip(" ,:-") if tail else ""
        if tail and name:
            head, left = _read_head(tail.group(1), measures)
            if head is None or left:
                return None, text
            rest = f"{name}{how} {stated.group()}" if stated else name + how
        elif stated and bare and not (stated.group("per") or stated.group("each")):
            size = _number(stated.group(2))[0]
            head, rest = Amount(size, size, unit(stated.group(3).rstrip("."))), bare + how
    if head is None:
        return None, text
    head, rest = _with_more(head, rest, measures)
    rest = _in_brackets(head, rest)
    stated = _PAREN_MASS.search(rest)
    per = unit(stated.group(3).rstrip(".")) if stated else None
    if stated and per:
        size = _number(stated.group(2))[0] * per.size
        each = bool(stated.group("per") or stated.group("each"))
        sized = head.unit is not None and head.unit.name in ("can", "pack")
        times = head.value if each or (sized and not stated.group("all")) else 1.0
        packs = head.unit is not None and head.unit.name == "pack" and times > 1
        part = 0 < times < 1 and stated.start() > 0  # "1/2 pack butter (125 g)"
        rest = (rest[: stated.start()] + rest[stated.end() :]).strip()
        mass = per.kind == "mass"
        if head.unit and head.unit.name in _METRIC and per.name not in _METRIC:
            return head, _tidy(rest)  # "500 g (17.6 oz)": grams are what was weighed
        head = Amount(
            head.low,
            head.high,
            head.unit,
            stated_g=size * times if mass else None,
            stated_ml=None if mass else size * times,
            doubt=head.doubt,
            per_pack=sized and not each and (packs or part),
        )
    return head, _tidy(rest)


def _tidy(name: str) -> str:
    return re.sub(r"\s+", " ", name).strip(" ,.;:-")


def _without_how(text: str) -> tuple[str, str]:
    """A line that ends with its amount and how it is worked ("milk 1 litre, warm"), in two."""
    name, comma, how = text.rpartition(", ")
    amount = _TAIL.search(name) if comma and not re.search(r"\d", how) else None
    return (name, comma + how) if amount else (text, "")


def _in_brackets(head: Amount, rest: str) -> str:
    """The rest of a line with a size that stands behind its name in brackets, where the amount
    before it is none in grams or litres; without a comma only of what comes in packs or pinches."""
    packed = head.unit is not None and head.unit.name in ("can", "pack", "glass")
    loose = head.unit is not None and head.unit.spread >= _LOOSE  # "a pinch of salt, 1 g"
    exact = head.unit is not None and (head.unit.kind == "mass" or head.unit.name in _METRIC)
    found = None if (exact and not loose) or _PAREN_MASS.search(rest) else _BEHIND.search(rest)
    if not found or not (packed or loose or re.search(r"[,;:–-]", found["gap"])):
        return rest
    name = rest[: found.start()]
    if not re.search(r"[^\W\d]", name):
        return rest
    each = " each" if found["per"] or found["each"] else " total" if head.value < 1 else ""
    return f"{name}{found['how'] or ''} ({found['size']} {found['unit']}{each})"


def _with_more(head: Amount, rest: str, measures: Measures) -> tuple[Amount, str]:
    """A sum in a line ("1/4 cup plus 1 tablespoon", "1 lb 2 oz", "1 cup less 1 tablespoon") as one
    amount in g or ml."""
    if head.unit is None or head.unit.kind == "count":
        return head, rest
    plus, less = _PLUS.match(rest), _LESS.match(rest)
    told = plus or less
    more, left = _read_head(rest[told.end() :] if told else rest, measures)
    if not (more and more.unit and more.unit.kind == head.unit.kind):
        return head, rest
    if not plus and (
        more.unit.size >= head.unit.size or more.high * more.unit.size >= head.low * head.unit.size
    ):
        return head, rest  # "1 lb 2 oz" is a sum; two amounts of which the second is more are none
    base = unit("g" if head.unit.kind == "mass" else "ml")
    sign = -1 if less else 1
    low, high = (a * head.unit.size + sign * b * more.unit.size for a, b in
                 ((head.low, more.low), (head.high, more.high)))  # fmt: skip
    spread = max(head.unit.spread, more.unit.spread)
    return Amount(low, high, replace(base, spread=spread), doubt=head.doubt or more.doubt), left


def _read_head(text: str, measures: Measures) -> tuple[Amount | None, str]:
    times = 1.0
    many = _TIMES.match(text)
    if many:
        times = _number(many.group(1))[0]
        text = text[many.end() :]
    number = _NUMBER.match(text)
    doubt = ""
    if number:
        low, doubt = _number(number.group(1))
        high = _number(number.group(2))[0] if number.group(2) else low
        rest = text[number.end() :]
    elif _BARE.match(text):
        low = high = 1.0
        rest = text
    else:
        word = _WORD_NUMBER.match(text)
        if not word:
            return None, text
        low = NUMBER_WORDS[word.group(1) or word.group(2)] * (12 if word.group(3) else 1)
        high = low
        rest = text[word.end() :]
    if high < low:
        low, high = high, low
    found = _UNIT.match(rest)
    the_unit = None
    if found:
        the_unit = unit(re.sub(r"\s+", " ", found.group(1)), measures)
        rest = rest[found.end() :]
        if the_unit.kind == "count" and many:
            rest = text[number.end() if number else 0 :]
        container = _CONTAINER.match(rest)
        if container and the_unit.kind != "count":
            rest = rest[container.end() :]
    of = _OF.match(rest)
    if of:
        rest = rest[of.end() :]
    return Amount(low * times, high * times, the_unit, doubt=doubt), rest.strip()
