"""A temperature curve from any logger's file: which column is the time, which the temperature, and
in which units."""

import csv
import io
import math
import re
from dataclasses import KW_ONLY, dataclass
from datetime import datetime
from itertools import pairwise
from typing import Literal

from bellcrumb.errors import CraftError
from bellcrumb.words import say
from bellcrumb.work import checkpoint

MOST_ROWS = 20_000
LONGEST_CELL = 200
LONGEST_S = 7 * 86_400.0  # no cook is longer than a week
LOW_C, HIGH_C = -40.0, 300.0
_TIME = re.compile(r"time|zeit|date|elapsed|temps\b|tiempo|ora\b|heure|sec|min|^t$|^s$", re.I)
_TEMP = re.compile(r"temp|°|deg|celsius|fahrenheit|probe|channel|ch\s?\d|core|sonde|^[cf]$", re.I)
_FAHRENHEIT = re.compile(r"fahrenheit|°\s?f|deg\s?f|\bf\b|\(f\)|_f$", re.I)
_CELSIUS = re.compile(r"celsius|°\s?c|deg\s?c|\(c\)|_c$", re.I)
_CLOCK = re.compile(r"^\d{1,3}:\d{2}(:\d{2}([.,]\d+)?)?$")
_STAMPS = ("%d/%m/%Y %H:%M:%S", "%d.%m.%Y %H:%M:%S", "%m/%d/%Y %I:%M:%S %p", "%d/%m/%Y %H:%M",
           "%Y/%m/%d %H:%M:%S")  # fmt: skip


@dataclass(frozen=True)
class CurveFile:
    """A curve of (s from its first row, degC), how its columns were read, and the rows left out."""

    points: list[tuple[float, float]]
    began: datetime | None
    time_column: str
    _: KW_ONLY
    temp_column: str
    unit: Literal["C", "F"]
    said: list[str]


def read_curve(text: str) -> CurveFile:
    """Read a logger's file. Raises CraftError when no time or no temperature is found in it."""
    rows = _rows(text)
    if not rows:
        raise CraftError("file", say("book.this_file_is_empty"))
    header, body = _split_header(rows)
    width = max(len(r) for r in body) if body else 0
    if not body or width < 1:
        raise CraftError("file", say("book.there_is_no_row_with_numbers"))
    names = [header[i] if i < len(header) else say("book.column", i=i + 1) for i in range(width)]
    time_at = _find_time(names, body)
    temp_at = _find_temp(names, body, time_at)
    if temp_at is None:
        raise CraftError("file", say("book.no_column_looks_like_a_temperature"))
    said: list[str] = []
    points: list[tuple[float, float]] = []
    left_out = 0
    began: datetime | None = None
    first: float | None = None
    per = _per_unit(names[time_at]) if time_at is not None else 1.0
    unit = _unit(names[temp_at], body, temp_at)
    for n, row in enumerate(body):
        checkpoint()
        temp = _number(row[temp_at]) if temp_at < len(row) else None
        at, stamp = (float(n), None) if time_at is None else _time(row, time_at, per)
        if temp is None or at is None:
            left_out += 1
            continue
        celsius = (temp - 32) / 1.8 if unit == "F" else temp
        if not LOW_C <= celsius <= HIGH_C:
            left_out += 1
            continue
        if first is None:
            first, began = at, stamp
        if not -LONGEST_S <= at - first <= LONGEST_S:
            left_out += 1
            continue
        points.append((at - first, celsius))
    if len(points) < 2:
        raise CraftError("file", say("book.fewer_than_two_rows_could_be"))
    if any(b[0] < a[0] for a, b in pairwise(points)):
        points.sort(key=lambda p: p[0])
        said.append(say("book.rows_were_out_of_order_sorted"))
    if left_out:
        said.append(say("book.rows_were_left_out_no_number", left_out=left_out))
    if time_at is None:
        said.append(say("book.no_time_in_it_a_row"))
    return CurveFile(
        points,
        began,
        names[time_at] if time_at is not None else "row",
        temp_column=names[temp_at],
        unit=unit,
        said=said,
    )


def _rows(text: str) -> list[list[str]]:
    text = text.lstrip("\ufeff").strip()
    lines = [line[:2_000] for line in text.split("\n")[: MOST_ROWS + 50]]
    sample = "\n".join(lines[:40])
    mark = max(";\t,", key=lambda m: min(sample.count(m), 10_000) * (1.5 if m != "," else 1))
    if mark not in sample:
        mark = ","
    try:
        rows = [r for r in csv.reader(io.StringIO("\n".join(lines)), delimiter=mark) if any(r)]
    except csv.Error as error:
        raise CraftError("file", say("book.this_table_cannot_be_read", error=error)) from None
    return [[cell[:LONGEST_CELL] for cell in row[:60]] for row in rows]


def _measured(row: list[str]) -> bool:
    return any(
        _number(c) is not None or _CLOCK.match(c.strip()) or _stamp(c) for c in row if c.strip()
    )


def _split_header(rows: list[list[str]]) -> tuple[list[str], list[list[str]]]:
    """Numbers begin where the next rows are all measured and as wide; the row before names them."""
    for n, row in enumerate(rows[:40]):
        block = rows[n : n + 4]
        if all(len(r) == len(row) and _measured(r) for r in block):
            return ([c.strip() for c in rows[n - 1]] if n else []), rows[n:]
    return [], []


def _number(cell: str) -> float | None:
    bare = re.sub(r"[°\s]*[CF]?$", "", cell.strip())
    if re.fullmatch(r"[-+]?\d+,\d+", bare):
        bare = bare.replace(",", ".")
    try:
        number = float(bare)
    except ValueError:
        return None
    return number if math.isfinite(number) else None


def _stamp(cell: str) -> datetime | None:
    try:
        return datetime.fromisoformat(cell.strip().replace("Z", "+00:00"))
    except ValueError:
        pass
    for form in _STAMPS:
        try:
            return datetime.strptime(cell.strip(), form)
        except ValueError:
            continue
    return None


def _find_time(names: list[str], body: list[list[str]]) -> int | None:
    def looks(i: int) -> int:
        cells = [r[i] for r in body[:50] if i < len(r)]
        if cells and all(_CLOCK.match(c.strip()) or _stamp(c) for c in cells):
            return 3
        numbers = [_number(c) for c in cells]
        named = bool(_TIME.search(names[i])) and not _CELSIUS.search(names[i])
        if not cells or any(v is None for v in numbers):
            return 0
        rising = all(b >= a for a, b in pairwise(numbers))  # type: ignore[operator]
        return 2 if named else (1 if rising and len(names) > 1 and i == 0 else 0)

    best = max(range(len(names)), key=looks)
    return best if looks(best) else None


def _find_temp(names: list[str], body: list[list[str]], time_at: int | None) -> int | None:
    def looks(i: int) -> int:
        if i == time_at:
            return -1
        numbers = [_number(r[i]) for r in body[:200] if i < len(r)]
        good = [v for v in numbers if v is not None and LOW_C <= v <= 600]
        if len(good) < 0.5 * max(1, len(numbers)):
            return -1
        return 2 if _TEMP.search(names[i]) else 1

    best = max(range(len(names)), key=looks)
    return best if looks(best) > 0 else None


def _per_unit(name: str) -> float:
    """Seconds in a unit of the time column."""
    lower = name.lower()
    if re.search(r"\bms\b|millis", lower):
        return 0.001
    if "min" in lower:
        return 60.0
    return 3600.0 if re.search(r"\bh\b|hour", lower) else 1.0


def _time(row: list[str], at: int, per: float) -> tuple[float | None, datetime | None]:
    cell = row[at].strip() if at < len(row) else ""
    if _CLOCK.match(cell):
        parts = [float(p.replace(",", ".")) for p in cell.split(":")]
        seconds = parts[0] * 60 + parts[1] if len(parts) == 2 else 0.0
        if len(parts) == 3:
            seconds = parts[0] * 3600 + parts[1] * 60 + parts[2]
        return seconds, None
    number = _number(cell)
    if number is not None:
        return number * per, None
    stamp = _stamp(cell)
    return (stamp.timestamp(), stamp) if stamp else (None, None)


def _unit(name: str, body: list[list[str]], at: int) -> Literal["C", "F"]:
    """By the name, by a letter in the cells, else by what a kitchen can be: 212 boils."""
    if _FAHRENHEIT.search(name) and not _CELSIUS.search(name):
        return "F"
    if _CELSIUS.search(name):
        return "C"
    cells = [r[at] for r in body[:100] if at < len(r)]
    if any(c.strip().upper().endswith("F") for c in cells):
        return "F"
    if any(c.strip().upper().endswith("C") for c in cells):
        return "C"
    top = max((v for c in cells if (v := _number(c)) is not None), default=0.0)
    return "F" if 130 < top <= 230 else "C"
