"""Two application servers on one store carry one cook between them: no state is in a process."""

import os
import urllib.request
import uuid
from datetime import UTC, datetime
from pathlib import Path

from django.contrib.staticfiles.testing import StaticLiveServerTestCase
from django.core.cache import cache
from django.core.management import call_command
from django.db import connection

from batches.models import Batch
from demo import kitchen as demo
from ops.fuzz import Asker
from ops.mariadb import free_port
from ops.serve import await_served, gunicorn
from standins.gateway import Gateway

TOKEN = "a-token-that-both-servers-know"


class TwoServersTest(StaticLiveServerTestCase):
    """The servers are processes of their own, as they are really run."""

    def setUp(self):
        cache.clear()
        self.kitchen = demo.load(TOKEN)
        call_command("collectstatic", verbosity=0, interactive=False)
        self.urls = [self.serve(), self.serve()]

    def serve(self):
        env = {**os.environ, "CRUMB_DB_NAME": str(connection.settings_dict["NAME"])}
        port = free_port()
        log = Path(os.environ["CRUMB_HOME"]) / f"two-{port}.log"
        server = gunicorn(env, f"127.0.0.1:{port}", log, workers=1)
        self.addCleanup(server.wait)
        self.addCleanup(server.terminate)
        url = f"http://127.0.0.1:{port}"
        await_served(f"{url}/api/session", server, None, log)
        return url

    def test_a_cook_is_started_on_one_fed_through_the_other_and_read_alike_from_both(self):
        left = Asker(self.urls[0], demo.CHEF, demo.PASSWORD)
        right = Asker(self.urls[1], "early@weirhouse.example", demo.PASSWORD)
        k = f"/k/{left.kid}"
        card = left.call("GET", f"{k}/desserts?search=Bay")["cards"][0]
        version = left.call("GET", f"{k}/desserts/{card['id']}")["parts"][0]["versions"][-1]["id"]
        probe = next(d for d in left.call("GET", f"{k}/devices") if d["kind"] == "probe")
        batch = str(uuid.uuid4())
        start = {"id": batch, "version_id": version, "device_id": probe["id"]}
        left.call("POST", f"{k}/batches", start)

        def move(who, kind, **more):
            event = {"id": str(uuid.uuid4()), "kind": kind, "at": datetime.now(UTC).isoformat()}
            return who.call("POST", f"{k}/batches/{batch}/events", {"events": [event | more]})

        move(right, "step", step="heat")
        for n, url in enumerate(self.urls * 3):
            gateway = Gateway(url, TOKEN, None, patience_s=300)
            self.assertEqual(gateway.ask()["step"], "heat")
            gateway.keep(datetime.now(UTC), temp_c=60.0 + n)
            gateway.deliver()
        move(left, "step", step="temper")
        move(right, "ladle", step="temper", value=1)
        seen = [who.call("GET", f"{k}/batches/{batch}/live") for who in (left, right)]
        for key in ("step", "rungs", "readings", "ended"):
            self.assertEqual(seen[0][key], seen[1][key])
        self.assertEqual((seen[0]["step"], seen[0]["rungs"]), ("temper", 1))
        self.assertEqual([p["temp_c"] for p in seen[0]["readings"]], [60, 61, 62, 63, 64, 65])
        # A session of one is a session of the other.
        other = urllib.request.Request(
            f"{self.urls[1]}/api/session", headers={"Cookie": left.cookies}
        )
        self.assertIn(demo.CHEF, urllib.request.urlopen(other).read().decode())
        move(left, "end")
        self.assertTrue(right.call("GET", f"{k}/batches/{batch}")["ended_at"])
        self.assertEqual(Batch.objects.get(pk=batch).events.count(), 4)
