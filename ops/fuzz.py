"""Ask a throwaway kitchen nonsense, as chef, cook and reader, and count the failures of ours.

Schemathesis makes requests from the OpenAPI document, alone and in chains; ids of real rows are put
into it, so that it gets past “there is no such dessert”. Run inside ``checks.throwaway``.
"""

import copy
import json
import re
import subprocess
import sys
import tempfile
from pathlib import Path
from typing import Any

from ops.asker import Asker
from ops.base import HOME, VENV, Stop, as_command, say
from ops.demo_server import DemoServer, demo_server

# Signing out would end the rest; the door of devices has its own token.
_LEFT_OUT = ("DELETE /api/session", "POST /api/session/password")
SLOWEST_S = 3.0


def _rows(who: Asker) -> dict[str, list[str]]:
    """Ids of real rows by the name a path gives them."""
    k = f"/k/{who.kid}"
    cards = who.call("GET", f"{k}/desserts")["cards"]
    desserts = [who.call("GET", f"{k}/desserts/{c['id']}") for c in cards[:4]]
    parts = [part for d in desserts for part in d["parts"]]
    kitchen = who.call("GET", k)
    return {
        "kid": [who.kid],
        "dessert_id": [d["id"] for d in desserts],
        "part_id": [p["id"] for p in parts],
        "version_id": [v["id"] for p in parts for v in p["versions"]],
        "batch_id": [b["id"] for b in who.call("GET", f"{k}/batches")],
        "oven_id": [str(o["id"]) for o in kitchen["ovens"]],
        "vessel_id": [v["id"] for v in kitchen["vessels"]],
    }


def _with_rows(schema: dict[str, Any], rows: dict[str, list[str]]) -> dict[str, Any]:
    """The document with real ids among those to try, and without what would end the run."""
    made = copy.deepcopy(schema)
    for path, operations in made["paths"].items():
        for method in list(operations):
            if f"{method.upper()} {path}" in _LEFT_OUT:
                del operations[method]
                continue
            for parameter in operations[method].get("parameters", []):
                name = parameter["name"]
                known = rows.get("version_id" if name in ("left", "right") else name)
                if known:
                    whole = parameter["schema"].get("type") == "integer"
                    parameter["schema"] = {"enum": [int(k) if whole else k for k in known]}
    for shape in made["components"]["schemas"].values():
        for name, field in shape.get("properties", {}).items():
            known = rows.get("version_id" if name in ("left", "right") else name)
            if known and field.get("format") == "uuid":
                field["enum"] = known
    return made


def _as(server: DemoServer, email: str, role: str, minutes: float) -> int:
    """Fuzz in one role; returns how many operations failed us."""
    who = Asker(server.url, email, server.password)
    with who.open(f"{server.url}/api/openapi.json", timeout=30) as answer:
        schema = json.loads(answer.read())
    with tempfile.NamedTemporaryFile("w", suffix=".json", dir=HOME) as file:
        json.dump(_with_rows(schema, _rows(who)), file)
        file.flush()
        done = subprocess.run(
            [
                str(VENV / "bin" / "schemathesis"), "run", file.name, "--url", server.url,
                "-H", f"Cookie:{who.cookies}", "-H", f"X-CSRFToken:{who.csrf}",
                "--checks", "not_a_server_error", "--max-response-time", str(SLOWEST_S),
                "--phases", "examples,coverage,fuzzing,stateful",
                "--max-time", str(round(60 * minutes)),
                "--max-examples", "60", "--continue-on-failure", "--no-color", "--workers", "1",
                "--suppress-health-check", "all", "--warnings", "off", "--no-shrink",
                "--seed", "11", "--request-timeout", "20",
            ],
            capture_output=True, text=True, check=False, cwd=HOME,
        )  # fmt: skip
    (HOME / f"fuzz-{role}.log").write_text(done.stdout + done.stderr)
    if not re.search(r"\d+ generated|\d+ passed", done.stdout):
        raise Stop(f"The fuzzer did not run:\n{(done.stdout + done.stderr)[-1500:]}")
    failures = re.findall(r"^_+ (.+?) _+$", done.stdout, re.M)
    cases = re.search(r"(\d[\d,]*) generated", done.stdout)
    say(f"| {role:<7} | {cases.group(1) if cases else '?':>8} | {len(failures):>8} |")
    if failures:
        start = done.stdout.find("= FAILURES =")
        say(done.stdout[start : start + 6000])
    return len(failures)


def main() -> None:
    """Fuzz in three roles and print the table."""
    minutes = float(sys.argv[1]) / 3 if len(sys.argv) > 1 else 2.0
    with demo_server() as server:
        from demo import kitchen as demo

        roles = {role: email for email, _, role in demo.PEOPLE}
        say("| role    | requests | failures |")
        say("|---------|---------:|---------:|")
        failed = sum(_as(server, roles[r], r, minutes) for r in ("viewer", "cook", "chef"))
        log = (Path(HOME) / "demo.log").read_text(errors="replace")
        failed += log.count("failed, reference")
        say(f"Failures of ours in the server's log: {log.count('failed, reference')}")
    sys.exit(1 if failed else 0)


if __name__ == "__main__":
    as_command(main)
