"""A book of twenty thousand batches and five million readings: how fast it is listed and opened.

Run inside ``checks.throwaway``. The rows are made by the store itself from the demo kitchen's own.
"""

import sys
import time
import urllib.parse
from collections.abc import Callable

from ops.asker import Asker
from ops.base import say
from ops.demo_server import demo_server

BATCHES, READINGS_EACH = 20_000, 250


def fill(batches: int = BATCHES, readings_each: int = READINGS_EACH) -> None:
    """So many more of the latest batch, an hour apart, each with a curve, some of them judged."""
    from django.db import connection

    from batches.models import Batch

    its_own = ("id", "started_at", "ended_at")
    every = [str(f.column) for f in Batch._meta.concrete_fields]
    columns = ", ".join(name for name in every if name not in its_own)
    with connection.cursor() as store:
        store.execute("SELECT id FROM batches_batch ORDER BY started_at DESC LIMIT 1")
        (one,) = store.fetchone()
        store.execute(
            f"INSERT INTO batches_batch (id, started_at, ended_at, {columns}) "
            "SELECT REPLACE(UUID(), '-', ''), b.started_at - INTERVAL seq HOUR, "
            f"b.started_at - INTERVAL seq HOUR + INTERVAL 20 MINUTE, {columns} "
            f"FROM batches_batch b JOIN seq_1_to_{batches} WHERE b.id = %s",
            [one],
        )
        store.execute(
            "INSERT INTO batches_reading (batch_id, client_id, at, cook_ms, temp_cc, channel) "
            "SELECT b.id, REPLACE(UUID(), '-', ''), b.started_at + INTERVAL 4 * seq SECOND, "
            "4000 * seq, 2000 + 30 * seq, 1 "
            f"FROM batches_batch b JOIN seq_1_to_{readings_each} "
            "WHERE NOT EXISTS (SELECT 1 FROM batches_reading r WHERE r.batch_id = b.id)"
        )
        # Every fourth was judged, every twentieth with a fault.
        store.execute(
            "INSERT INTO batches_verdict (batch_id, texture, faults, note, at, revision) "
            "SELECT b.id, 'pipe', IF(MOD(CRC32(b.id), 20) = 0, '[\"lumps\"]', '[]'), '', "
            "b.ended_at, 1 FROM batches_batch b WHERE MOD(CRC32(b.id), 4) = 0 "
            "AND NOT EXISTS (SELECT 1 FROM batches_verdict v WHERE v.batch_id = b.id)"
        )


def _row(what: str, job: Callable[[], object], times: int = 40) -> float:
    job()
    took = []
    for _ in range(times):
        began = time.perf_counter()
        job()
        took.append((time.perf_counter() - began) * 1000)
    took.sort()
    p95 = took[int(0.95 * len(took))]
    say(f"| {what} | {took[len(took) // 2]:.0f} | {p95:.0f} |")
    return p95


def main() -> None:
    """Fill it and measure."""
    with demo_server() as server:
        from django.db import connection

        from batches.models import Batch, Reading
        from demo import kitchen as demo

        began = time.monotonic()
        fill()
        with connection.cursor() as store:
            store.execute("ANALYZE TABLE batches_batch, batches_reading, batches_verdict")
        say(f"{Batch.objects.count()} batches, {Reading.objects.count()} readings, "
            f"made in {time.monotonic() - began:.0f} s\n")  # fmt: skip
        who = Asker(server.url, demo.CHEF, demo.PASSWORD)
        k = f"/k/{who.kid}"
        batches = who.call("GET", f"{k}/batches?take=200")
        deep = str(Batch.objects.order_by("started_at")[500].started_at.isoformat())
        dessert = batches[0]["dessert_id"]
        say("| what | median ms | p95 ms |\n|---|---:|---:|")
        slow = [
            _row("the first page of 60", lambda: who.call("GET", f"{k}/batches?take=60")),
            _row("two hundred at once", lambda: who.call("GET", f"{k}/batches?take=200")),
            _row("the far end", lambda: who.call(
                "GET", f"{k}/batches?take=60&before={urllib.parse.quote(deep)}")),
            _row("one dessert", lambda: who.call("GET", f"{k}/batches?take=60&dessert={dessert}")),
            _row("found by a word", lambda: who.call(
                "GET", f"{k}/batches?take=60&search=quince")),
            _row("found by a word that is nowhere", lambda: who.call(
                "GET", f"{k}/batches?take=60&search=gooseberry%20fool")),
            _row("found by a fault", lambda: who.call(
                "GET", f"{k}/batches?take=60&fault=lumps")),
            _row("not judged yet", lambda: who.call("GET", f"{k}/batches?take=60&judged=no")),
            _row("a dessert's chart", lambda: who.call(
                "GET", f"{k}/desserts/{dessert}/chart")),
            _row("cooks going on", lambda: who.call("GET", f"{k}/batches?going=true")),
            _row("a batch page", lambda: who.call("GET", f"{k}/batches/{batches[7]['id']}")),
            _row("the shelf", lambda: who.call("GET", f"{k}/desserts")),
            _row("devices", lambda: who.call("GET", f"{k}/devices")),
        ]  # fmt: skip
    sys.exit(1 if max(slow) > 300 else 0)


if __name__ == "__main__":
    main()
