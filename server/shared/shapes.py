"""Shapes every part of the API shares."""

from ninja import Schema


class Problem(Schema):
    """What is wrong, in a sentence, and the field it is about (null: the whole). ``reference``
    names a failure of ours in the server's log."""

    message: str
    field: str | None = None
    reference: str | None = None


PROBLEMS = dict.fromkeys((400, 401, 403, 404, 413, 422, 429, 500, 503), Problem)
