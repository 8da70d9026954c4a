"""Who may do what: every operation of a kitchen, in one table.

An operation that is not in it is refused to everybody; a test walks the table in full.
"""

import re
from typing import Literal

Role = Literal["viewer", "cook", "chef"]
RANK: dict[str, int] = {"viewer": 0, "cook": 1, "chef": 2}

_TABLE: dict[Role, str] = {
    # Reads, asks what stores nothing, and rehearses.
    "viewer": """
        GET /k/{kid}
        PATCH /k/{kid}/me
        POST /k/{kid}/answer
        POST /k/{kid}/bake
        POST /k/{kid}/bake/choose
        POST /k/{kid}/bake/convert
        GET /k/{kid}/batches
        GET /k/{kid}/batches/{batch_id}
        GET /k/{kid}/batches/{batch_id}/live
        GET /k/{kid}/batches/{batch_id}/file
        GET /k/{kid}/batches/{batch_id}/photos/{photo_id}
        GET /k/{kid}/batches/{batch_id}/why
        GET /k/{kid}/book/file
        POST /k/{kid}/compare
        POST /k/{kid}/cool
        POST /k/{kid}/crust
        POST /k/{kid}/day/file
        POST /k/{kid}/day/plan
        POST /k/{kid}/day/read
        GET /k/{kid}/day/usual
        GET /k/{kid}/days
        GET /k/{kid}/days/{day_id}
        GET /k/{kid}/days/{day_id}/calendar
        GET /k/{kid}/days/{day_id}/file
        GET /k/{kid}/days/{day_id}/times
        GET /k/{kid}/desserts
        GET /k/{kid}/desserts/{dessert_id}
        GET /k/{kid}/desserts/{dessert_id}/build
        POST /k/{kid}/desserts/{dessert_id}/build
        GET /k/{kid}/desserts/{dessert_id}/chart
        GET /k/{kid}/desserts/{dessert_id}/curves
        GET /k/{kid}/record
        GET /k/{kid}/record/file
        GET /k/{kid}/desserts/{dessert_id}/siblings
        GET /k/{kid}/desserts/{dessert_id}/total
        GET /k/{kid}/devices
        GET /k/{kid}/export
        GET /k/{kid}/learned
        POST /k/{kid}/ledger
        POST /k/{kid}/plan
        GET /k/{kid}/rehearsals
        POST /k/{kid}/rehearsals
        GET /k/{kid}/rehearsals/{rehearsal_id}
        POST /k/{kid}/rehearsals/{rehearsal_id}/acts
        POST /k/{kid}/scale
        POST /k/{kid}/solve
    """,
    # Cooks, records and judges, and describes what stands on the shelf.
    "cook": """
        POST /k/{kid}/batches
        POST /k/{kid}/batches/{batch_id}/curve
        POST /k/{kid}/batches/{batch_id}/events
        PUT /k/{kid}/batches/{batch_id}/mended
        POST /k/{kid}/batches/{batch_id}/photos/{photo_id}
        DELETE /k/{kid}/batches/{batch_id}/photos/{photo_id}
        PUT /k/{kid}/batches/{batch_id}/verdict
        POST /k/{kid}/days
        POST /k/{kid}/days/{day_id}/again
        POST /k/{kid}/days/{day_id}/end
        POST /k/{kid}/days/{day_id}/ticks
        PUT /k/{kid}/pantry/{item_id}
        PUT /k/{kid}/words
        DELETE /k/{kid}/words/{word_id}
        PUT /k/{kid}/weights
        DELETE /k/{kid}/weights/{weight_id}
        PUT /k/{kid}/day/usual/{usual_id}
        DELETE /k/{kid}/day/usual/{usual_id}
    """,
    # Changes formulas, equipment, prices and people.
    "chef": """
        PATCH /k/{kid}
        GET /k/{kid}/backups
        POST /k/{kid}/colds
        POST /k/{kid}/desserts
        PATCH /k/{kid}/desserts/{dessert_id}
        PUT /k/{kid}/desserts/{dessert_id}/build
        POST /k/{kid}/desserts/{dessert_id}/build/scale
        POST /k/{kid}/desserts/{dessert_id}/parts
        POST /k/{kid}/devices
        DELETE /k/{kid}/devices/{device_id}
        POST /k/{kid}/import/keep
        POST /k/{kid}/import/read
        GET /k/{kid}/invites
        POST /k/{kid}/invites
        DELETE /k/{kid}/invites/{invite_id}
        POST /k/{kid}/ovens
        POST /k/{kid}/ovens/{oven_id}/walk
        DELETE /k/{kid}/parts/{part_id}
        PATCH /k/{kid}/parts/{part_id}
        PATCH /k/{kid}/learned
        POST /k/{kid}/parts/{part_id}/versions
        PATCH /k/{kid}/people/{person_id}
        DELETE /k/{kid}/people/{person_id}
        DELETE /k/{kid}/prices/{price_id}
        PUT /k/{kid}/prices/{price_id}
        POST /k/{kid}/rings
        GET /k/{kid}/security
        PUT /k/{kid}/versions/{version_id}
        PUT /k/{kid}/vessels/{vessel_id}
    """,
}
NEEDS: dict[str, Role] = {
    line.strip(): role for role, text in _TABLE.items() for line in text.split("\n") if line.strip()
}


def operation(method: str, route: str) -> str:
    """An operation as the table writes it, from a request's method and matched route."""
    path = re.sub(r"<(?:\w+:)?(\w+)>", r"{\1}", route).removeprefix("api")
    return f"{'GET' if method == 'HEAD' else method} {path if path.startswith('/') else '/' + path}"
