"""Somebody who asks a served kitchen: what the measurements and the fuzzer sign in as."""

import http.cookiejar
import json
import urllib.request
import uuid
from typing import Any


class Asker:
    """Somebody signed in to the demo kitchen."""

    def __init__(self, base: str, email: str, password: str) -> None:
        self.base = base
        self.jar = http.cookiejar.CookieJar()
        handler = urllib.request.HTTPCookieProcessor(self.jar)
        self.open = urllib.request.build_opener(handler).open
        self.csrf = ""
        self.csrf = self.call("GET", "/session")["csrf"]
        signed = self.call("POST", "/session", {"email": email, "password": password})
        self.csrf, self.kid = signed["csrf"], signed["kitchens"][0]["id"]

    def upload(self, path: str, text: str) -> Any:
        """One file, as a form sends it."""
        mark = uuid.uuid4().hex
        head = 'Content-Disposition: form-data; name="file"; filename="f.csv"'
        body = f"--{mark}\r\n{head}\r\n\r\n{text}\r\n--{mark}--\r\n"
        return self._asked("POST", path, f"multipart/form-data; boundary={mark}", body.encode())

    def call(self, method: str, path: str, body: object = None) -> Any:
        """One call of the API."""
        data = None if body is None else json.dumps(body).encode()
        return self._asked(method, path, "application/json", data)

    def _asked(self, method: str, path: str, kind: str, data: bytes | None) -> Any:
        headers = {"Content-Type": kind, "X-CSRFToken": self.csrf}
        url = f"{self.base}/api{path}"
        request = urllib.request.Request(url, method=method, data=data, headers=headers)
        with self.open(request, timeout=120) as answer:
            return json.loads(answer.read())

    @property
    def cookies(self) -> str:
        """The cookies as a header."""
        return "; ".join(f"{c.name}={c.value}" for c in self.jar)
