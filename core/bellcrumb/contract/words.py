"""Validation errors in a cook's words, for the command line and the API alike."""

from collections.abc import Mapping
from typing import Any

# pydantic error type -> sentence; braces are filled from the error's context.
_SENTENCES = {
    "missing": "This is missing.",
    "extra_forbidden": "There is no such field here.",
    "string_too_short": "This cannot be empty.",
    "string_too_long": "At most {max_length} characters.",
    "too_long": "At most {max_length} of these.",
    "greater_than": "More than {gt}, please.",
    "greater_than_equal": "At least {ge}, please.",
    "less_than": "Less than {lt}, please.",
    "less_than_equal": "At most {le}, please.",
    "finite_number": "This is no number.",
    "float_parsing": "This is no number.",
    "float_type": "This is no number.",
    "int_parsing": "This is no whole number.",
    "int_type": "This is no whole number.",
    "int_from_float": "This is no whole number.",
    "string_type": "This has to be text.",
    "uuid_parsing": "This is no id.",
    "datetime_from_date_parsing": "This is no time. Send ISO 8601 with a zone.",
    "datetime_parsing": "This is no time. Send ISO 8601 with a zone.",
    "literal_error": "One of {expected}.",
}


def sentence(error: Mapping[str, Any]) -> str:
    """One pydantic error as a sentence."""
    said = _SENTENCES.get(str(error["type"]))
    if said is None:
        return f"{error['msg']}."
    return said.format(**error.get("ctx", {}))
