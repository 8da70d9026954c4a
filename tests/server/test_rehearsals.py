from datetime import timedelta
from unittest.mock import patch

from rehearsals.api import _replayed
from rehearsals.models import Rehearsal
from tests.server.base import KitchenCase, new_id


class RehearsalTest(KitchenCase):
    def begin(self, key="scald", **more):
        body = {"id": new_id(), "exercise": key, "seed": 3, "speed": 60, **more}
        for _ in range(2):  # twice is once
            status, run = self.k("POST", "/rehearsals", body)
            self.assertEqual(status, 200, run)
        return run

    def act(self, run, *acts):
        body = {"acts": [{"id": new_id(), "at_s": t, "kind": k, "value": v} for t, k, v in acts]}
        status, out = self.k("POST", f"/rehearsals/{run['id']}/acts", body)
        self.assertEqual(status, 200, out)
        again = self.k("POST", f"/rehearsals/{run['id']}/acts", body)[1]
        self.assertEqual(len(again["acts"]), len(out["acts"]))
        return out

    def later(self, run, seconds):
        row = Rehearsal.objects.get(pk=run["id"])
        row.started_at -= timedelta(seconds=seconds)
        row.save()

    def test_milk_left_on_the_heat_boils_over_and_the_debrief_says_when(self):
        run = self.begin()
        self.later(run, 1)
        self.act(run, (1, "heat", 9))
        self.later(run, 20)
        now = self.k("GET", f"/rehearsals/{run['id']}")[1]
        self.assertGreater(now["temp_c"], 97)
        self.assertEqual(now["moment"]["urgency"], "wrong")
        over = self.act(run, (now["now_s"], "end", 0))
        self.assertEqual((over["ended"], over["result"]), (True, "spoiled"))
        self.assertTrue(any("boiled over" in slip["what"] for slip in over["slips"]))
        after = self.act(run, (0, "heat", 0))
        self.assertEqual(after["acts"], over["acts"], "what is over is over")
        mine = self.k("GET", "/rehearsals")[1]
        self.assertEqual((len(mine), mine[0]["tried"], mine[0]["done"]), (9, 1, 0))

    def test_everybody_rehearses_and_nobody_in_anothers_pot(self):
        run = self.begin()
        self.sign_in("weir viewer")
        self.assertEqual(self.k("GET", f"/rehearsals/{run['id']}")[0], 404)
        self.assertEqual(self.begin("syrup")["exercise"], "syrup")
        body = {"id": new_id(), "exercise": "soup"}
        status, answer = self.k("POST", "/rehearsals", body)
        self.assertEqual((status, answer["field"]), (422, "exercise"))

    def test_one_taken_away_while_somebody_looks_stays_away_and_fails_nobody(self):
        run = self.begin()
        self.act(run, (1, "end", 0))
        Rehearsal.objects.update(ended_at_s=None, result="")

        def gone(row):
            Rehearsal.objects.filter(pk=row.pk).delete()
            return _replayed(row)

        with patch("rehearsals.api._replayed", gone):
            status, seen = self.k("GET", f"/rehearsals/{run['id']}")
        self.assertEqual((status, seen["ended"]), (200, True))
        self.assertFalse(Rehearsal.objects.exists())
