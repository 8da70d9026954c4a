"""What comes from outside and is no kitchen's: refused with a sentence, never a failure of ours."""

import io
import json
import tracemalloc
import uuid

from django.core.cache import cache
from django.core.files.uploadedfile import SimpleUploadedFile
from django.test import Client, SimpleTestCase

from accounts.models import SecurityEvent
from bellcrumb.errors import CraftError
from bellcrumb.work import guarded
from formulas.models import Version
from shared.heavy import stop_after
from tests.server.base import PASTRY, KitchenCase, new_id

VALUES = (
    None,
    True,
    -1,
    0,
    10**18,
    1e308,
    "",
    "x" * 5000,
    [],
    {},
    [[]],
    "9" * 400,
    "é\u0000",
    "NaN",
)


class NonsenseTest(KitchenCase):
    def said(self, answer):
        body = answer.json()
        self.assertIn("message", body, answer.content[:200])
        self.assertGreater(len(body["message"]), 8)
        return answer.status_code

    def raw(self, method, path, text):
        return self.client.generic(
            method, f"/api/k/{self.kid}{path}", text, content_type="application/json"
        )

    def test_every_field_of_every_body_takes_nonsense_without_a_failure_of_ours(self):
        """Each field of each JSON body in turn gets each of a dozen odd values."""
        schema = self.client.get("/api/openapi.json").json()
        shapes = schema["components"]["schemas"]
        tried = 0
        for path, methods in schema["paths"].items():
            for method, operation in methods.items():
                content = operation.get("requestBody", {}).get("content", {})
                name = content.get("application/json", {}).get("schema", {}).get("$ref", "")
                if not name or "{secret}" in path or path in ("/api/session", "/api/device"):
                    continue
                filled = path.replace("{kid}", str(self.kid))
                while "{" in filled:
                    filled = filled[: filled.index("{")] + "1" + filled[filled.index("}") + 1 :]
                shape = shapes[name.rsplit("/", 1)[1]]
                for field in shape.get("properties", {}):
                    for value in VALUES:
                        body = json.dumps({field: value})
                        answer = self.client.generic(
                            method.upper(), filled, body, content_type="application/json"
                        )
                        tried += 1
                        self.assertNotIn("Input should", answer.content.decode(), (path, field))
                        if answer.status_code >= 500:
                            self.fail(f"{method} {path} {body[:80]}: {answer.content[:200]}")
        self.assertGreater(tried, 400)

    def test_every_field_of_a_formula_takes_nonsense_without_a_failure_of_ours(self):
        content = self.client.get("/api/openapi.json").json()["components"]["schemas"]["Content"]
        baking = self.client.get("/api/openapi.json").json()["components"]["schemas"]["Baking"]
        for place in ("answer", "plan", "bake", "cool"):
            for fields, wrap in (
                (content["properties"], lambda f: f),
                (baking["properties"], lambda f: {"baking": f}),
            ):
                for field in fields:
                    for value in (10**9, -5, 0, "x" * 300, None, [1]):
                        given = {"lines_text": PASTRY, **wrap({field: value})}
                        answer = self.raw("POST", f"/{place}", json.dumps({"content": given}))
                        self.assertLess(answer.status_code, 500, (place, field, value))

    def test_numbers_that_are_none_and_json_that_is_none_are_said(self):
        for text in ("NaN", "Infinity", "-Infinity", "1e308", "1e999", "9" * 5000):
            body = f'{{"content": {{"lines_text": "1 l milk", "hot_c": {text}}}}}'
            self.assertEqual(self.said(self.raw("POST", "/plan", body)), 400, text[:9])
        for text in ("{", "[" * 3000, '{"a":' * 2000, "\xff\xfe", ""):
            self.assertIn(self.said(self.raw("POST", "/answer", text)), (400, 422), text[:9])

    def test_what_stands_in_the_way_of_a_body_is_said_in_our_words(self):
        for text, word in (
            ("{", "not JSON"),
            ("[" * 90 + "]" * 90, "too deep"),
            ("[1e99]", "1e99"),
        ):
            answer = self.raw("POST", "/answer", text)
            self.assertEqual((self.said(answer), word in answer.json()["message"]), (400, True))

    def test_what_is_too_large_is_read_off_the_line_all_the_same(self):
        """Else the next request on this connection finds it in its way."""
        body = io.BytesIO(b'{"content": {"lines_text": "' + b"a" * 3_000_000 + b'"}}')
        answer = self.client.generic(
            "POST", f"/api/k/{self.kid}/answer", content_type="application/json",
            **{"wsgi.input": body, "CONTENT_LENGTH": str(len(body.getvalue()))},
        )  # fmt: skip
        self.assertEqual((self.said(answer), body.read()), (413, b""))

    def test_lines_beyond_any_formula_are_answered_as_such(self):
        dashes = "-" * 19_900
        for text in (dashes, "9" * 5000, "½" * 300, "(" * 9000, "1 l milk\n" * 300):
            body = json.dumps({"content": {"lines_text": text}})
            for place in ("answer", "plan"):
                answer = self.raw("POST", f"/{place}", body)
                self.assertIn(answer.status_code, (200, 422), (place, text[:9]))
        found = self.raw("POST", "/answer", json.dumps({"content": {"lines_text": dashes}})).json()
        self.assertIn("At most 300 characters", found["lines"][0]["message"])
        many = self.raw("POST", "/answer", json.dumps({"content": {"lines_text": "\n" * 300}}))
        self.assertEqual((self.said(many), many.json()["field"]), (422, "lines_text"))

    def test_more_than_a_kitchen_cooks_is_not_simulated_and_takes_no_room(self):
        tracemalloc.start()
        self.addCleanup(tracemalloc.stop)
        body = json.dumps({"content": {"lines_text": "1000000 l milk\n9 yolks"}})
        answer = self.raw("POST", "/plan", body)
        self.assertEqual((self.said(answer), answer.json()["field"]), (422, "lines_text"))
        self.assertLess(tracemalloc.get_traced_memory()[1], 50e6)
        lines = "\n".join(f"{n + 1} g sugar" for n in range(100)) + "\n1 l milk\n9 yolks"
        wish = {"content": {"lines_text": lines}, "wishes": {"set_class": "slice"}}
        self.assertIn("60", self.raw("POST", "/solve", json.dumps(wish)).json()["message"])

    def test_ids_pages_and_rings_that_are_none_are_said(self):
        for path in (
            f"/desserts?skip={'9' * 20}", "/desserts?take=0", f"/desserts?search={'a' * 5000}",
            f"/batches?before={'9' * 30}", "/batches?before=2026-11-25T10:00:00",
            "/export?form=zip", f"/batches/{new_id()}/live?after_ms={'9' * 30}",
        ):  # fmt: skip
            self.assertIn(self.said(self.client.get(f"/api/k/{self.kid}{path}")), (404, 422), path)
        edit = {"revision": 1, "content": self.content(ring_id=0)}
        answer = self.raw("PUT", f"/versions/{self.version.id}", json.dumps(edit))
        self.assertEqual((self.said(answer), answer.json()["field"]), (422, "ring_id"))

    def test_files_that_are_no_text_are_refused_by_what_they_are(self):
        batch = self.start()
        files = (
            b"PK\x03\x04rest", b"\x1f\x8bxx", "1 l milk".encode("utf-16"), b"%PDF-1.7",
            b"\x89PNG\r\n", bytes(range(256)) * 4, b"",
        )  # fmt: skip
        for raw in files:
            for path in ("/import/read", f"/batches/{batch}/curve"):
                answer = self.client.post(
                    f"/api/k/{self.kid}{path}", {"file": SimpleUploadedFile("f.csv", raw)}
                )
                self.assertEqual(self.said(answer), 422, (path, raw[:8]))

    def test_logger_files_with_odd_rows_are_read_as_far_as_they_go(self):
        batch = self.start()
        good = "".join(f"{n},{50 + n}\n" for n in range(20))
        for odd, code in (
            ("time,temp\r" + good.replace("\n", "\r"), 200),
            ("time,temp\n1e308,50\n-1e308,51\n" + good, 422),
            ("time,temp\n" + good + "5," + "x" * 9000 + "\n", 200),
        ):
            answer = self.client.post(
                f"/api/k/{self.kid}/batches/{batch}/curve",
                {"file": SimpleUploadedFile("f.csv", odd.encode())},
            )
            self.assertEqual(answer.status_code, code, odd[:30])

    def test_an_import_with_an_id_twice_is_refused_whole(self):
        one = {"id": new_id(), "name": "x", "parts": [
            {"kind": "cream", "name": "c", "versions": [self.content()]}]}  # fmt: skip
        status, said = self.k("POST", "/import/keep", {"desserts": [one, one]})
        self.assertEqual((status, "twice" in said["message"]), (422, True))

    def test_cells_a_spreadsheet_would_run_are_defused_and_come_back_unchanged(self):
        odd = "=1+1\n+5 g salt\n-3 g salt\n@home\n'=quoted\n200 g sugar"
        Version.objects.filter(pk=self.version.pk).update(lines_text=odd, note="=HYPERLINK()")
        out = self.client.get(f"/api/k/{self.kid}/export?form=csv").getvalue()
        self.assertNotIn(b",=", out)
        self.assertNotIn(b"\n=", out)
        answer = self.client.post(
            f"/api/k/{self.kid}/import/read", {"file": SimpleUploadedFile("f.csv", out)}
        )
        (dessert,) = answer.json()["desserts"]
        content = dessert["parts"][0]["versions"][-1]
        self.assertEqual((content["lines_text"], content["note"]), (odd, "=HYPERLINK()"))


class EveryAnswerTest(KitchenCase):
    def test_the_api_is_never_kept_in_a_cache_and_says_problems_as_json(self):
        for path, code in (("/api/session", 200), ("/api/nowhere", 404), ("/api/craft", 200)):
            answer = self.client.get(path)
            self.assertEqual((answer.status_code, answer["Cache-Control"]), (code, "no-store"))
        for method, path, code in (("DELETE", "/api/craft", 405), ("TRACE", "/", 405),
                                   ("POST", f"/api/k/{uuid.uuid4()}/answer", 422)):  # fmt: skip
            answer = self.client.generic(method, path)
            self.assertEqual((answer.status_code, "message" in answer.json()), (code, True))

    def test_a_write_from_elsewhere_is_refused_in_json_too(self):
        client = Client(enforce_csrf_checks=True)
        client.force_login(
            self.people["weir chef"], backend="django.contrib.auth.backends.ModelBackend"
        )
        answer = client.patch(f"/api/k/{self.kid}", "{}", content_type="application/json")
        self.assertEqual(
            (answer.status_code, "Reload the page" in answer.json()["message"]), (403, True)
        )

    def test_behind_our_own_proxy_its_word_counts_and_nobody_elses(self):
        cache.clear()
        forged = {"X-Forwarded-For": "1.1.1.1, 2.2.2.2"}
        body = {"email": "nobody@weir.example", "password": "x"}
        for proxies, seen in ((0, "127.0.0.1"), (1, "2.2.2.2")):
            with self.settings(PROXIES=proxies):
                self.client.post(
                    "/api/session", body, content_type="application/json", headers=forged
                )
            self.assertEqual(SecurityEvent.objects.first().address, seen)


class WorkTest(SimpleTestCase):
    def test_work_beyond_its_time_ends_with_a_sentence_and_the_next_one_begins_anew(self):
        from bellcrumb.contract import compute

        ticks = iter(range(10**9))
        mix = {"lines": ["1 l milk"], "target": "boil", "ring": "high"}
        with self.assertRaises(CraftError) as caught, guarded(stop_after(20, lambda: next(ticks))):
            compute("pot", mix)
        self.assertIn("more work", caught.exception.message)
        with guarded(stop_after(10**9, lambda: next(ticks))):
            self.assertGreater(compute("pot", mix)["reaches_s"], 0)
