"""Reading desserts from a file of our own or from elsewhere. No row is lost: what cannot be made
sense of stays as a line, or in the note, and is said."""

import csv
import html
import io
import json
import re
from collections.abc import Iterator
from typing import Any

from bellcrumb.errors import CraftError
from bellcrumb.quantities.amount import plain_text, read_amount
from bellcrumb.travel.cells import bare_cell
from bellcrumb.travel.written import (
    PART_KINDS,
    Written,
    WrittenPart,
    heading_of,
    kind_of,
    names_a_part,
    parts_of,
)
from bellcrumb.words import say

MOST = 5_000
_LONGEST_HEADING = 50
_TAG = re.compile(r"<script\b([^<>]{0,500})>|</script", re.IGNORECASE)
_RULE = re.compile(r"^[ \t]*(?:-{3,}|={3,}|\*{3,}|_{3,}|~{3,})[ \t]*$", re.MULTILINE)
_METHOD = re.compile(
    r"^\s*(?:method|instructions?|directions|steps|preparation|notes?|tips?|méthode|préparation|"
    r"étapes|preparazione|procedimento|passaggi|(?:modo de )?preparaci[óo]n|elaboraci[óo]n"
    r"|instrucciones|pasos|zubereitung|anleitung)"
    r"\s*:?\s*$",
    re.IGNORECASE,
)
_FOR = r"(?:for|pour|per|para|für)"
_INGREDIENTS = re.compile(
    r"^\s*(?:ingredients?|ingrédients|ingredienti|ingredientes|zutaten)"
    rf"(?:\s*\(?{_FOR}\s+(?P<makes>[^():]+)\)?|\s*\((?P<people>\d[^():]*)\))?\s*:?\s*$",
    re.IGNORECASE,
)
_MAKES = re.compile(
    r"^\s*(?:(?:makes|yields?|serves|servings|rendement|resa|dosi per|porzioni|raciones|ergibt"
    r"|portionen)\s*:?\s+(?P<some>.+)"
    rf"|{_FOR}\s+(?P<people>\d.*))$",
    re.IGNORECASE,
)
# What a page says of itself among its lines; it goes with the note.
_ABOUT = re.compile(
    r"^\s*(?:(?:prep(?:aration)?|cook(?:ing)?|total|chill(?:ing)?|rest(?:ing)?|active|additional"
    r"|bak(?:e|ing)) time\b|temps de\b|(?:course|cuisine|keywords?|author|calories|difficulty"
    r"|difficulté|equipment|koch-?zeit|arbeitszeit|schwierigkeitsgrad)\s*:|us customary\b"
    r"|(?:\d+x\s*)+$"
    r"|[^\W\d][\w -]{2,24}:\s*(?:ca\.? )?\d+\s*(?:min|h\b|hours?|hrs?\b|std|stunden))",
    re.IGNORECASE,
)
# How hot, as a method says it: no "170 C" there is cups.
_HOW_HOT = re.compile(
    r"\b(?:(?:at|to|until|à|a|auf|bei) \d{2,3} ?[°º]? ?[cf]|\d{2,3} ?[°º] ?[cf])\b", re.IGNORECASE
)
_TELLS = re.compile(r"^[^\W\d][^.!?]{8,}[.!?]\s+[^\W\d]\w+ ")  # a sentence, then another one
_STEP = re.compile(r"^\s*\d+\s*[.)]\s+\S")
# Column names taken for the same thing, in lower case without accents or blanks.
_COLUMNS = {
    "dessert": say("travel.dessert_recipe_name_title_recipename_receta"),
    "part": say("travel.part_component_section"),
    "kind": say("travel.kind_partkind"),
    "line": say("travel.line_ingredientline_row_text"),
    "amount": say("travel.amount_quantity_qty_grams_weight_cantidad"),
    "unit": say("travel.unit_units_measure"),
    "ingredient": say("travel.ingredient_item_product_ingrediente"),
    "many": say("travel.ingredients_recipeingredient_ingredientlist"),
    "note": say("travel.note_notes_instructions_method_directions_recipeinstructions"),
    "egg_grade": "egggrade",
    "family": "family",
    "makes": say("travel.makes_yield_servings_recipeyield"),
}


def read(text: str) -> list[Written]:
    """Every dessert in a file's text, whatever of our formats it is in.

    Raises CraftError when it is empty, no format we read, or holds more than 5 000 desserts.
    """
    text = text.lstrip("\ufeff")
    if not text.strip():
        raise CraftError("text", say("travel.this_file_is_empty"))
    first = text.lstrip()[:1]
    scripts = _scripts(text)
    if first in "{[":
        try:
            found = list(_from_json(_json(text)))
        except CraftError:
            raise
        except RecursionError:
            raise CraftError("text", say("shared.this_lies_too_deep_to_be")) from None
        except (TypeError, AttributeError, ValueError):
            raise CraftError("text", say("travel.this_json_is_not_laid_out")) from None
    elif scripts:
        found = [d for script in scripts for d in _from_script(script)]
    elif first == "<":
        raise CraftError("text", say("travel.this_page_holds_no_recipe_that"))
    else:
        header = _header(text)
        found = _from_csv(text, *header) if header else _from_text(text)
    if not found:
        raise CraftError("text", say("travel.no_recipe_was_found_in_it"))
    if len(found) > MOST:
        raise CraftError(
            "text", say("travel.recipes_at_once_at_most_please", found=len(found), most=MOST)
        )
    return found


def _scripts(text: str) -> list[str]:
    """The JSON-LD scripts of a page, found in one walk from tag to tag."""
    found: list[str] = []
    begun: int | None = None
    for tag in _TAG.finditer(text):
        if tag.group(1) is None:
            if begun is not None:
                found.append(text[begun : tag.start()])
            begun = None
        elif begun is None and "application/ld+json" in tag.group(1).lower():
            begun = tag.end()
    return found


def _from_script(script: str) -> list[Written]:
    try:
        return list(_from_json(json.loads(html.unescape(script))))
    except (ValueError, RecursionError, TypeError, AttributeError):
        return []


def _json(text: str) -> Any:
    try:
        return json.loads(text)
    except ValueError as error:
        line = getattr(error, "lineno", 1)
        raise CraftError("text", say("travel.this_is_not_whole_json", line=line)) from None


def _from_json(data: Any) -> Iterator[Written]:
    if isinstance(data, list):
        for item in data:
            yield from _from_json(item)
    elif isinstance(data, dict):
        if "bell_crumb_formulas" in data:
            if data["bell_crumb_formulas"] != 1:
                raise CraftError("text", say("travel.this_was_written_by_a_later"))
            for number, item in enumerate(data.get("desserts") or []):
                yield _own(item, number)
        elif "@graph" in data:
            yield from _from_json(data["@graph"])
        elif "recipeIngredient" in data or "Recipe" in _texts(data.get("@type")):
            yield _recipe(data)
        elif isinstance(data.get("itemListElement"), list):
            for item in data["itemListElement"]:
                yield from _from_json(item.get("item", item) if isinstance(item, dict) else item)


def _own(item: Any, number: int) -> Written:
    if not isinstance(item, dict):
        return Written(
            say("travel.dessert", number=number + 1),
            [WrittenPart()],
            problems=[say("travel.not_readable", item=f"{item!r}")],
        )
    parts = []
    for raw in item.get("parts") or []:
        versions = [v for v in raw.get("versions") or [] if isinstance(v, dict)] or [{}]
        now = dict(versions[-1])
        kind = raw.get("kind")
        parts.append(
            WrittenPart(
                kind=kind if kind in PART_KINDS else "filling",
                name=str(raw.get("name") or ""),
                lines=[str(line) for line in now.pop("lines", [])],
                note=str(now.pop("note", "")),
                egg_grade=str(now.pop("egg_grade", "")),
                family=str(now.pop("family", "")),
                settings=now,
                earlier=versions[:-1],
            )
        )
    return Written(
        str(item.get("name") or say("travel.dessert", number=number + 1)), parts or [WrittenPart()]
    )


def _texts(value: Any) -> list[str]:
    """The strings in a schema.org value: a string, a list, steps or sections of steps."""
    if value is None:
        return []
    if isinstance(value, str):
        return [html.unescape(re.sub(r"<[^<>]{1,400}>", " ", value)).strip()]
    if isinstance(value, list):
        return [text for item in value for text in _texts(item)]
    if isinstance(value, dict):
        if "itemListElement" in value:
            head = [f"{value['name']}:"] if value.get("name") else []
            return head + _texts(value["itemListElement"])
        return _texts(value.get("text") or value.get("name"))
    return [str(value)]


def _recipe(data: dict[str, Any]) -> Written:
    lines = _texts(data.get("recipeIngredient") or data.get("ingredients"))
    if len(lines) == 1:  # one string with line breaks in it
        lines = [row.strip() for row in lines[0].split("\n") if row.strip()]
    note = "\n".join(filter(None, _texts(data.get("recipeInstructions"))))
    makes = ", ".join(dict.fromkeys(_texts(data.get("recipeYield"))))
    name = " ".join(_texts(data.get("name"))) or say("travel.without_a_name")
    problems = [] if lines else [say("travel.no_ingredient_in_it")]
    return Written(name, parts_of(lines, note), makes, problems=problems)


def _header(text: str) -> tuple[dict[str, int], str] | None:
    """Column number by meaning and the delimiter, when the first line is a header we know."""
    top = text.lstrip().split("\n", 1)[0]
    for mark in ",;\t":
        cells = [re.sub(r"[\s_-]", "", c.strip(' "\ufeff').lower()) for c in top.split(mark)]
        found = {
            meaning: i
            for meaning, names in _COLUMNS.items()
            for i, cell in enumerate(cells)
            if cell in names.split()
        }
        if len(cells) > 1 and "dessert" in found and found.keys() & {"line", "ingredient", "many"}:
            return found, mark
    return None


def _from_csv(text: str, columns: dict[str, int], mark: str) -> list[Written]:
    desserts: dict[str, Written] = {}
    parts: dict[tuple[str, str], WrittenPart] = {}
    last = ""
    try:
        rows = list(csv.reader(io.StringIO(text.lstrip()), delimiter=mark))[1:]
    except csv.Error as error:
        raise CraftError("text", say("travel.this_table_cannot_be_read", error=error)) from None
    for row in rows:

        def cell(meaning: str, row: list[str] = row) -> str:
            at = columns.get(meaning, -1)
            return bare_cell(row[at]) if 0 <= at < len(row) else ""

        if not any(c.strip() for c in row):
            continue
        name = cell("dessert") or last or say("travel.without_a_name")
        last = name
        dessert = desserts.setdefault(name, Written(name, [], cell("makes")))
        at = (name, cell("part"))
        if at not in parts:
            kind = cell("kind") if cell("kind") in PART_KINDS else kind_of(cell("part"))
            parts[at] = WrittenPart(kind, cell("part"))
            dessert.parts.append(parts[at])
        part = parts[at]
        part.note = part.note or cell("note")
        part.egg_grade = part.egg_grade or cell("egg_grade")
        part.family = part.family or cell("family")
        if "many" in columns and cell("many"):
            part.lines += [r.strip() for r in re.split(r"\n|\||;", cell("many")) if r.strip()]
        else:
            spelled = " ".join(filter(None, (cell("amount"), cell("unit"), cell("ingredient"))))
            part.lines.append(cell("line") or spelled)
        if len(row) > max(columns.values()) + 1 and any(c.strip() for c in row[len(columns) :]):
            dessert.problems.append(
                say("travel.more_cells_than_the_header_has", row=mark.join(row))
            )
    return list(desserts.values())


def _from_text(text: str) -> list[Written]:
    pages = [page for page in _RULE.split(text) if page.strip()]
    return [_page(page.strip("\n")) for page in pages]


def _page(page: str) -> Written:
    """One recipe in plain text: its name, its lines, and the prose that follows."""
    rows = page.split("\n")
    while rows and not rows[0].strip():
        rows.pop(0)
    name = rows.pop(0).strip(" #*").strip()
    lines: list[str] = []
    note: list[str] = []
    makes, telling = "", False
    if name[:1].isdigit() and _is_line(name) and rows and rows[0].strip():
        # a bare list of lines has no name
        lines.append(name)
        name = say("travel.without_a_name")
    for at, row in enumerate(rows):
        bare = _bare(row)
        made, listed = _MAKES.match(bare), _INGREDIENTS.match(bare)
        if telling:
            note.append(row.strip())
        elif not bare:
            continue
        elif listed:
            makes = makes or (listed["makes"] or listed["people"] or "").strip()
        elif _METHOD.match(bare):
            telling = True
        elif made and not lines:
            makes = (made["some"] or made["people"]).rstrip(" :")
        elif _ABOUT.match(bare):
            note.append(bare)
        elif _STEP.match(row) or (_is_prose(bare) and not _is_line(bare)):
            telling = True
            note.append(row.strip())
        elif _heads(bare, rows[at + 1 :], alone=at > 0 and not rows[at - 1].strip()):
            lines.append(f"{bare.strip(' :[]')}:")
        else:
            lines.append(bare)
    problems = [] if lines else [say("travel.no_ingredient_in_it")]
    return Written(name, parts_of(lines, "\n".join(note).strip()), makes, problems=problems)


def _bare(row: str) -> str:
    """A row without what marks it in a list, or as bold."""
    return row.strip().strip("#*").lstrip("•*-–▢☐□ ").strip()


def _heads(bare: str, after: list[str], *, alone: bool) -> bool:
    """Whether a row names the part that follows it: "For the pastry", "Filling", "CUSTARD"; any
    words do ("Pâte sucrée") that a blank row parts from what is ``alone`` before them, and none
    from the line behind."""
    if heading_of(bare) or any(ch.isdigit() for ch in bare) or len(bare) > _LONGEST_HEADING:
        return False
    follows = next((bare for bare in map(_bare, after) if bare), "")
    if bare.isupper() and follows.isupper():  # on a page in capitals they tell nothing
        bare = bare.lower()
    told = alone and " " in bare and bool(after and _bare(after[0])) and not _is_line(bare)
    return (told or names_a_part(bare)) and _is_line(follows)


def _is_line(text: str) -> bool:
    if len(text) >= 120 or _TELLS.match(text):
        return False
    try:
        return read_amount(plain_text(_HOW_HOT.sub("", text)))[0] is not None
    except (ValueError, ZeroDivisionError):
        return False


def _is_prose(text: str) -> bool:
    return heading_of(text) is None and (len(text) > 70 or (text.endswith(".") and " " in text))
