"""Shapes every part of the API shares."""

from ninja import Schema


class Problem(Schema):
    """What is wrong, in a sentence, and the field it is about (null: the whole)."""

    message: str
    field: str | None = None


PROBLEMS = {401: Problem, 403: Problem, 404: Problem, 422: Problem, 429: Problem, 503: Problem}
