"""Files from outside: capped, and told apart from what only looks like text."""

import re

from ninja.files import UploadedFile

from bellcrumb.errors import CraftError
from bellcrumb.words import say

# What begins like this is a packed or a written-out something else, never a list of lines.
_HEADS = {
    b"PK": say("shared.a_packed_file_zip_or_a"),
    b"\x1f\x8b": say("shared.a_packed_file_gzip"),
    b"%PDF": say("shared.a_pdf"),
    b"\x89PNG": say("shared.a_picture"),
    b"\xff\xd8": say("shared.a_picture"),
    b"\xd0\xcf\x11\xe0": say("shared.a_spreadsheet_or_letter"),
    b"{\\rtf": say("shared.a_letter_rtf"),
    b"SQLite": say("shared.a_database"),
}
_CONTROLS = re.compile(r"[\x00-\x08\x0e-\x1f]")


def text_of(file: UploadedFile, most_bytes: int) -> str:
    """The text of an uploaded file with plain line ends.

    Raises CraftError at ``file`` for one that is too large or is no text.
    """
    if (file.size or 0) > most_bytes:
        raise CraftError(
            "file", say("shared.at_most_mb_at_once_cut", most_bytes=most_bytes // 1000000)
        )
    raw: bytes = file.read()
    for head, what in _HEADS.items():
        if raw.startswith(head):
            raise CraftError("file", say("shared.this_is_not_text_save_it", what=what))
    if raw.startswith((b"\xff\xfe", b"\xfe\xff")) or b"\x00" in raw[:4000]:
        raise CraftError("file", say("shared.this_is_utf_16_or_no"))
    try:
        text = raw.decode("utf-8-sig")
    except UnicodeDecodeError:
        text = raw.decode("cp1252", errors="replace")
    odd = len(_CONTROLS.findall(text[:20_000]))
    if odd > 2 or text[:20_000].count("\ufffd") > 20:
        raise CraftError("file", say("shared.this_is_no_text_save_it"))
    return text.replace("\r\n", "\n").replace("\r", "\n")
