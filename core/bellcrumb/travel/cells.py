"""Cells a spreadsheet would take for a formula: marked as text, and unmarked again.

A cell that begins with ``= + - @`` or a tab gets an apostrophe before it, as spreadsheets
themselves mark text (OWASP, CSV injection); reading takes exactly that one apostrophe off.
"""

import re

_FORMULA = re.compile(r"'*[=+\-@\t\r]")


def safe_cell(text: str) -> str:
    """A cell as it is written.

    >>> safe_cell("=1+1"), safe_cell("'=1"), safe_cell("200 g sugar")
    ("'=1+1", "''=1", '200 g sugar')
    """
    return f"'{text}" if _FORMULA.match(text) else text


def bare_cell(cell: str) -> str:
    """A cell as it was meant, without the blanks around it.

    >>> bare_cell("'=1+1"), bare_cell("''=1"), bare_cell(" 200 g sugar ")
    ('=1+1', "'=1", '200 g sugar')
    """
    if cell.startswith("'") and _FORMULA.match(cell):
        return cell[1:]
    return cell.strip()
