"""``python -m bellcrumb.contract KIND``: one JSON object in, one out. See ``./crumb compute``."""

import json
import sys

from bellcrumb.contract.kinds import KINDS, answers, compute
from bellcrumb.errors import CraftError
from bellcrumb.words import closed, say


def main(args: list[str]) -> int:
    """Run one computation from standard input; returns the exit code (2 for senseless input)."""
    kinds = [a for a in args if not a.startswith("--")]
    try:
        if len(kinds) != 1:
            raise CraftError("kind", say("contract.say_what_to_compute", kinds=", ".join(KINDS)))
        if kinds[0] not in KINDS:
            raise CraftError("kind", say("contract.one_of_2", kinds=", ".join(KINDS)))
        if "--schema" in args:
            chosen = KINDS[kinds[0]]
            result: object = {
                "input": chosen.given.model_json_schema(),
                "output": answers(kinds[0]).json_schema(mode="serialization"),
            }
        else:
            try:
                data = json.load(sys.stdin)
            except RecursionError:
                raise CraftError("input", say("shared.this_lies_too_deep_to_be")) from None
            except ValueError as error:
                raise CraftError(
                    "input", say("contract.this_is_not_json", error=str(error)[:120])
                ) from None
            result = compute(kinds[0], data)
    except CraftError as error:
        print(
            json.dumps(
                {"error": {"field": error.field, "message": closed(error.message)}},
                ensure_ascii=False,
            )
        )
        return 2
    print(json.dumps(result, ensure_ascii=False))
    return 0


if __name__ == "__main__":
    sys.exit(main(sys.argv[1:]))
