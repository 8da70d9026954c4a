"""Validation errors in a cook's words, for the command line and the API alike."""

from collections.abc import Mapping
from typing import Any

from bellcrumb.words import say
from bellcrumb.words.measures import TAGS, quantity

# pydantic error type -> code; its values are the error's context.
_CODES = {
    "missing": "contract.this_is_missing",
    "extra_forbidden": "contract.there_is_no_such_field_here",
    "string_too_short": "contract.this_cannot_be_empty",
    "string_too_long": "contract.at_most_characters",
    "too_long": "contract.at_most_of_these",
    "greater_than": "contract.more_than_please",
    "greater_than_equal": "contract.at_least_please",
    "less_than": "contract.less_than_please",
    "less_than_equal": "contract.at_most_please",
    "finite_number": "contract.this_is_no_number",
    "float_parsing": "contract.this_is_no_number",
    "float_type": "contract.this_is_no_number",
    "int_parsing": "contract.this_is_no_whole_number",
    "int_type": "contract.this_is_no_whole_number",
    "int_from_float": "contract.this_is_no_whole_number",
    "string_type": "contract.this_has_to_be_text",
    "uuid_parsing": "contract.this_is_no_id",
    "uuid_type": "contract.this_is_no_id",
    "timezone_aware": "contract.this_is_no_time_send_iso",
    "timezone_naive": "contract.this_is_the_kitchens_own_time",
    "datetime_from_date_parsing": "contract.this_is_no_time_send_iso",
    "datetime_parsing": "contract.this_is_no_time_send_iso",
    "datetime_type": "contract.this_is_no_time_send_iso",
    "int_parsing_size": "contract.this_is_no_whole_number",
    "literal_error": "contract.one_of",
    "model_type": "contract.this_has_to_be_an_object",
    "model_attributes_type": "contract.this_has_to_be_an_object",
    "dict_type": "contract.this_has_to_be_an_object",
    "list_type": "contract.this_has_to_be_a_list",
    "too_short": "contract.at_least_of_these",
    "bool_type": "contract.this_is_true_or_false",
    "bool_parsing": "contract.this_is_true_or_false",
}


def sentence(error: Mapping[str, Any]) -> str:
    """One pydantic error as a sentence; a limit has the unit its field's name says."""
    if error["type"] == "value_error":  # one of our own checks, in our own words
        return str(error["ctx"]["error"])
    code = _CODES.get(str(error["type"]))
    if code is None:
        return f"{error['msg']}."
    field = str(next((p for p in reversed(error.get("loc", ())) if isinstance(p, str)), ""))
    unit = field.rpartition("_")[2]

    def limit(value: object) -> object:
        if not isinstance(value, int | float):
            return value
        if unit in TAGS:
            return quantity(value, unit)
        return int(value) if float(value).is_integer() else value

    return say(code, **{key: limit(value) for key, value in error.get("ctx", {}).items()})
