import json
import random
import tempfile
import unittest
from datetime import UTC, datetime, timedelta
from pathlib import Path

import httpx

from standins.gateway import Gateway, Spool
from standins.probe import Probe, SimulatedPot
from standins.scale import Scale

HEAT = {
    "kind": "pot",
    "sugar_g": 0,
    "water_g": 0,
    "bath_w_k": 6,
    "mass_g": 1000,
    "cp_j_per_gk": 3.9,
    "boil_c": 100.4,
    "thickens_c": 200,
    "from_c": 6,
    "power_w": 600,
    "fuel": "gas",
    "stirring": "whisk",
    "pot_mm": 180,
    "pot_g": 1100,
}


def scene(step, pot=None, **more):
    return {
        "batch_id": "b",
        "step": step,
        "step_entered_s": 0,
        "scene": pot,
        "bowl_c": None,
        "bowl_g": None,
        "rungs_g": [],
        "time_scale": 1,
        "started_at": datetime.now(UTC).isoformat(),
        **more,
    }


class SimulatedPotTest(unittest.TestCase):
    def pot(self, seed=1):
        return SimulatedPot(random.Random(seed))

    def test_it_warms_to_the_boil_and_no_further(self):
        pot = self.pot()
        temps = [pot.read(scene("heat", HEAT), t) for t in range(0, 3600, 10)]
        self.assertLess(temps[0], 8)
        self.assertGreater(max(temps), 99)
        self.assertLess(max(temps), 101.5)

    def test_the_same_seed_gives_the_same_cook_and_rings_differ(self):
        def cook(seed):
            pot = self.pot(seed)
            return [round(pot.read(scene("heat", HEAT), t), 3) for t in range(0, 300, 5)]

        self.assertEqual(cook(4), cook(4))
        self.assertNotEqual(cook(4), cook(5))

    def test_a_pan_of_syrup_climbs_past_the_boil_and_a_bath_never_reaches_its_water(self):
        syrup = {**HEAT, "kind": "syrup", "sugar_g": 300, "water_g": 90, "from_c": 20}
        pan = self.pot()
        temps = [pan.read(scene("cook", syrup), t) for t in range(0, 1500, 10)]
        self.assertGreater(max(temps), 118)
        bowl = self.pot()
        bath = {**HEAT, "kind": "bath", "from_c": 20}
        temps = [bowl.read(scene("cook", bath), t) for t in range(0, 3600, 10)]
        self.assertTrue(85 < max(temps) < 97)

    def test_a_careful_cook_keeps_a_pan_of_syrup_at_its_mark(self):
        syrup = {**HEAT, "kind": "syrup", "sugar_g": 300, "water_g": 90, "from_c": 20}
        pan = SimulatedPot(random.Random(1), careful=True)
        where = scene("cook", syrup, wanted_c=118.0)
        temps = [pan.read(where, t) for t in range(0, 3600, 10)]
        self.assertTrue(all(116 < temp < 121 for temp in temps[-60:]), temps[-60:])

    def test_in_the_bowl_it_follows_the_ladder_and_after_the_cook_it_cools(self):
        pot = self.pot()
        pot.read(scene("heat", HEAT), 0)
        pot.read(scene("heat", HEAT), 600)
        bowl = [pot.read(scene("temper", bowl_c=40), 600 + t) for t in range(0, 60, 2)]
        self.assertAlmostEqual(bowl[-1], 40, delta=1)
        warm = pot.read(scene("cool"), 700)
        self.assertLess(pot.read(scene("cool"), 1400), warm)


class SpoolTest(unittest.TestCase):
    def test_what_was_not_delivered_is_there_after_a_restart(self):
        with tempfile.TemporaryDirectory() as folder:
            path = Path(folder) / "spool.jsonl"
            first = Spool(path)
            for n in range(3):
                first.add({"id": str(n), "at": "t"})
            first.delivered(1)
            second = Spool(path)
            second.load()
            self.assertEqual([r["id"] for r in second.waiting], ["1", "2"])

    def test_a_half_written_line_costs_that_reading_and_no_other(self):
        with tempfile.TemporaryDirectory() as folder:
            path = Path(folder) / "spool.jsonl"
            path.write_text(
                '{"id": "a", "at": "t"}\n{"id": "b", "a\n17\n{"id": "c", "at": "t"}\n{"i'
            )
            spool = Spool(path)
            spool.load()
            spool.add({"id": "d", "at": "t"})
            again = Spool(path)
            again.load()
        self.assertEqual([r["id"] for r in again.waiting], ["a", "c", "d"])


class ProbeTest(unittest.TestCase):
    """The whole stand-in against a door that is open or shut."""

    def gateway(self, answer):
        gateway = Gateway("http://door", "token", None)
        gateway.http = httpx.Client(base_url="http://door", transport=httpx.MockTransport(answer))
        return gateway

    def probe(self, answer, channels=1):
        return Probe(self.gateway(answer), seed=2, channels=channels)

    def test_four_channels_are_sent_and_a_scale_fills_the_ladder(self):
        got = []
        began = datetime.now(UTC) - timedelta(seconds=30)
        rungs = [100.0, 200.0, 300.0]
        where = scene("temper", started_at=began.isoformat(), bowl_g=400.0, rungs_g=rungs)

        def answer(request):
            if request.method == "POST":
                got.extend(json.loads(request.content)["readings"])
            return httpx.Response(200, json=where)

        self.probe(answer, channels=4).tick()
        self.assertEqual(sorted({r.get("channel", 1) for r in got}), [1, 2, 3, 4])
        scale = Scale(self.gateway(answer), seed=1)
        weights = [scale.grams(where, t) for t in (0, 10, 20, 60)]
        for grams, expected in zip(weights, (400, 500, 600, 700), strict=True):
            self.assertAlmostEqual(grams, expected, delta=6)
        scale.tick()
        self.assertIn("grams", got[-1])

    def test_it_measures_on_while_the_server_is_away_and_delivers_each_reading_once(self):
        door = {"open": True, "got": []}
        began = datetime.now(UTC) - timedelta(seconds=30)
        where = scene("heat", HEAT, started_at=began.isoformat(), time_scale=20)

        def answer(request):
            if not door["open"]:
                raise httpx.ConnectError("away")
            if request.method == "POST":
                door["got"] += json.loads(request.content)["readings"]
            return httpx.Response(200, json=where)

        probe = self.probe(answer)
        probe.tick()
        delivered = len(door["got"])
        door["open"] = False
        for _ in range(3):
            probe.pot.at_s -= 20  # as if another second of a fast clock had passed
            probe.tick()
        self.assertEqual(len(door["got"]), delivered)
        self.assertGreater(len(probe.gateway.spool.waiting), 10)
        door["open"] = True
        probe.tick()
        ids = [r["id"] for r in door["got"]]
        self.assertEqual((len(ids), probe.gateway.spool.waiting), (len(set(ids)), []))

    def test_posts_get_smaller_while_the_server_is_slow_and_larger_again_when_it_is_not(self):
        sizes, slow = [], {"on": True}

        def answer(request):
            if request.method == "POST":
                sizes.append(len(json.loads(request.content)["readings"]))
                if slow["on"] and sizes[-1] > 60:
                    raise httpx.ReadTimeout("slow")
            return httpx.Response(200, json=scene("", batch_id=None))

        gateway = self.gateway(answer)
        for _ in range(900):
            gateway.keep(datetime.now(UTC), temp_c=20.0)
        for _ in range(5):
            gateway.deliver()
        self.assertEqual(sizes[:5], [400, 200, 100, 50, 100])
        slow["on"] = False
        while gateway.spool.waiting:
            gateway.deliver()
        self.assertEqual((gateway.spool.waiting, max(sizes[5:])), ([], 400))

    def test_a_token_nobody_knows_ends_it_with_a_sentence(self):
        probe = self.probe(lambda request: httpx.Response(401, json={}))
        with self.assertRaises(SystemExit) as caught:
            probe.tick()
        self.assertIn("token", str(caught.exception))

    def test_idle_it_measures_nothing(self):
        probe = self.probe(lambda request: httpx.Response(200, json=scene("", batch_id=None)))
        probe.tick()
        self.assertEqual(probe.gateway.spool.waiting, [])
