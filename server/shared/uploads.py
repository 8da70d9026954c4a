"""Files from outside: capped, and told apart from what only looks like text."""

import re

from ninja.files import UploadedFile

from bellcrumb.errors import CraftError

# What begins like this is a packed or a written-out something else, never a list of lines.
_HEADS = {
    b"PK": "a packed file (zip or a spreadsheet)", b"\x1f\x8b": "a packed file (gzip)",
    b"%PDF": "a PDF", b"\x89PNG": "a picture", b"\xff\xd8": "a picture",
    b"\xd0\xcf\x11\xe0": "a spreadsheet or letter", b"{\\rtf": "a letter (RTF)",
    b"SQLite": "a database",
}  # fmt: skip
_CONTROLS = re.compile(r"[\x00-\x08\x0e-\x1f]")


def text_of(file: UploadedFile, most_bytes: int) -> str:
    """The text of an uploaded file with plain line ends.

    Raises CraftError at ``file`` for one that is too large or is no text.
    """
    if (file.size or 0) > most_bytes:
        raise CraftError("file", f"At most {most_bytes // 1_000_000} MB at once: cut it in two.")
    raw: bytes = file.read()
    for head, what in _HEADS.items():
        if raw.startswith(head):
            raise CraftError("file", f"This is {what}, not text. Save it as text or CSV first.")
    if raw.startswith((b"\xff\xfe", b"\xfe\xff")) or b"\x00" in raw[:4000]:
        raise CraftError("file", "This is UTF-16 or no text at all. Save it as UTF-8 first.")
    try:
        text = raw.decode("utf-8-sig")
    except UnicodeDecodeError:
        text = raw.decode("cp1252", errors="replace")
    odd = len(_CONTROLS.findall(text[:20_000]))
    if odd > 2 or text[:20_000].count("\ufffd") > 20:
        raise CraftError("file", "This is no text. Save it as text or CSV first.")
    return text.replace("\r\n", "\n").replace("\r", "\n")
