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
from bellcrumb.travel.written import PART_KINDS, Written, WrittenPart, heading_of, kind_of, parts_of

MOST = 5_000
_TAG = re.compile(r"<script\b([^<>]{0,500})>|</script", re.IGNORECASE)
_RULE = re.compile(r"^[ \t]*(?:-{3,}|={3,}|\*{3,}|_{3,}|~{3,})[ \t]*$", re.MULTILINE)
_METHOD = re.compile(
    r"^\s*(?:method|instructions?|directions|steps|preparation|notes?|méthode|préparation|"
    r"preparazione|procedimento|preparación|elaboración)\s*:?\s*$",
    re.IGNORECASE,
)
_INGREDIENTS = re.compile(
    r"^\s*(?:ingredients?|ingrédients|ingredienti|ingredientes)\s*:?\s*$", re.I
)
_MAKES = re.compile(r"^\s*(?:makes|yields?|serves|pour|per)\s*:?\s+(.+)$", re.IGNORECASE)
_STEP = re.compile(r"^\s*\d+\s*[.)]\s+\S")
# Column names taken for the same thing, in lower case without accents or blanks.
_COLUMNS = {
    "dessert": "dessert recipe name title recipename receta ricetta recette",
    "part": "part component section",
    "kind": "kind partkind",
    "line": "line ingredientline row text",
    "amount": "amount quantity qty grams weight cantidad quantita quantite",
    "unit": "unit units measure",
    "ingredient": "ingredient item product ingrediente",
    "many": "ingredients recipeingredient ingredientlist",
    "note": "note notes instructions method directions recipeinstructions",
    "egg_grade": "egggrade",
    "family": "family",
    "makes": "makes yield servings recipeyield",
}


def read(text: str) -> list[Written]:
    """Every dessert in a file's text, whatever of our formats it is in.

    Raises CraftError when it is empty, no format we read, or holds more than 5 000 desserts.
    """
    text = text.lstrip("\ufeff")
    if not text.strip():
        raise CraftError("text", "This file is empty.")
    first = text.lstrip()[:1]
    scripts = _scripts(text)
    if first in "{[":
        try:
            found = list(_from_json(json.loads(text)))
        except (ValueError, RecursionError) as error:
            raise CraftError("text", f"This is not whole JSON: {str(error)[:120]}.") from None
        except (TypeError, AttributeError):
            raise CraftError("text", "This JSON is not laid out as a list of desserts.") from None
    elif scripts:
        found = [d for script in scripts for d in _from_script(script)]
    elif first == "<":
        raise CraftError("text", "This page holds no recipe that a program can read.")
    else:
        header = _header(text)
        found = _from_csv(text, *header) if header else _from_text(text)
    if not found:
        raise CraftError("text", "No recipe was found in it.")
    if len(found) > MOST:
        raise CraftError("text", f"{len(found)} recipes at once: at most {MOST:,}, please.")
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


def _from_json(data: Any) -> Iterator[Written]:
    if isinstance(data, list):
        for item in data:
            yield from _from_json(item)
    elif isinstance(data, dict):
        if "bell_crumb_formulas" in data:
            if data["bell_crumb_formulas"] != 1:
                raise CraftError("text", "This was written by a later Bell Crumb than this one.")
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
            f"Dessert {number + 1}", [WrittenPart()], problems=[f"Not readable: {item!r}"]
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
    return Written(str(item.get("name") or f"Dessert {number + 1}"), parts or [WrittenPart()])


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
    name = " ".join(_texts(data.get("name"))) or "Without a name"
    problems = [] if lines else ["No ingredient in it."]
    return Written(name, parts_of(lines, note), makes, problems)


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
        raise CraftError("text", f"This table cannot be read: {error}.") from None
    for row in rows:

        def cell(meaning: str, row: list[str] = row) -> str:
            at = columns.get(meaning, -1)
            return bare_cell(row[at]) if 0 <= at < len(row) else ""

        if not any(c.strip() for c in row):
            continue
        name = cell("dessert") or last or "Without a name"
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
            dessert.problems.append(f"More cells than the header has: {mark.join(row)}")
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
        name = "Without a name"
    for row in rows:
        bare = row.strip().lstrip("•*-– ").strip()
        made = _MAKES.match(bare)
        if telling:
            note.append(row.strip())
        elif not bare or _INGREDIENTS.match(bare):
            continue
        elif _METHOD.match(bare):
            telling = True
        elif made and not lines:
            makes = made.group(1)
        elif _STEP.match(row) or (_is_prose(bare) and not _is_line(bare)):
            telling = True
            note.append(row.strip())
        else:
            lines.append(bare)
    problems = [] if lines else ["No ingredient in it."]
    return Written(name, parts_of(lines, "\n".join(note).strip()), makes, problems)


def _is_line(text: str) -> bool:
    try:
        return read_amount(plain_text(text))[0] is not None and len(text) < 120
    except (ValueError, ZeroDivisionError):
        return False


def _is_prose(text: str) -> bool:
    return heading_of(text) is None and (len(text) > 70 or (text.endswith(".") and " " in text))
