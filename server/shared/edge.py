"""The outermost layer: what no view should ever see, and what every answer carries."""

import json
import math
import random
import re
import time
from collections.abc import Callable, Mapping
from typing import Any

from django.conf import settings
from django.core.exceptions import RequestDataTooBig
from django.http import HttpRequest, HttpResponse, JsonResponse
from ninja.errors import HttpError
from ninja.parser import Parser
from ninja.renderers import JSONRenderer
from ninja.types import DictStrAny

from bellcrumb.words import say

_METHODS = {"GET", "HEAD", "POST", "PUT", "PATCH", "DELETE", "OPTIONS"}
_SAID = {
    400: say("shared.this_request_cannot_be_read"),
    403: say("shared.this_did_not_come_from_our"),
    404: say("shared.there_is_nothing_here"),
    405: say("shared.there_is_no_such_method_here"),
    413: say("shared.this_is_too_large_to_be"),
}
# Numbers beyond this are no kitchen's, and no column's.
LARGEST = 1e15
DEEPEST = 40
TRIES = 4
MOST_THROWN_AWAY = 16 * 1024 * 1024


class AgainMiddleware:
    """Does an API request again when the store could not do it beside another one (a deadlock, or
    the same thing sent twice at once): the second time it finds what the other one made."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponse]) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        """Pass on, up to four times."""
        response = self.get_response(request)
        for n in range(1, TRIES):
            if not getattr(response, "again", False):
                break
            time.sleep(random.uniform(0.2, 1.0) * 0.02 * n)
            response = self.get_response(request)
        return response


class EdgeMiddleware:
    """Refuses methods nobody needs, finds the asker's address behind proxies of our own, says
    every problem as JSON, and keeps what the API says out of every cache."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponse]) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        """Pass on, or refuse."""
        if request.method not in _METHODS:
            return problem(405)
        if settings.PROXIES:
            said = request.headers.get("X-Forwarded-For", "").split(",")
            # The last so many were written by our own proxies; what stands before is hearsay.
            trusted = said[-settings.PROXIES].strip() if len(said) >= settings.PROXIES else ""
            request.META["REMOTE_ADDR"] = trusted or request.META["REMOTE_ADDR"]
        if not request.path.startswith("/api/"):
            return self.get_response(request)
        try:
            response = self.get_response(request)
        except RequestDataTooBig:
            response = problem(413)
        kind = response.headers.get("Content-Type", "")
        if response.status_code >= 400 and not kind.startswith("application/json"):
            response = problem(response.status_code)
        response["Cache-Control"] = "no-store"
        if response.status_code == 413:
            throw_away(request)
        return response


def throw_away(request: HttpRequest) -> None:
    """Read what was sent and is not wanted, up to 16 MB: what stays on the line stands in the way
    of the next request, and the server would hang up on whoever sends it."""
    left = MOST_THROWN_AWAY
    try:
        while left > 0 and (got := request.read(min(left, 65_536))):
            left -= len(got)
    except OSError:
        pass  # it hung up first


def problem(status: int, message: str | None = None, reference: str | None = None) -> JsonResponse:
    """What is wrong, as every part of the API says it."""
    said = message or _SAID.get(status, say("shared.this_did_not_work"))
    body = {"message": said, "field": None, "reference": reference}
    return JsonResponse(body, status=status, json_dumps_params={"ensure_ascii": False})


def _number(text: str) -> float | int:
    value = float(text)
    if not math.isfinite(value) or abs(value) > LARGEST:
        raise HttpError(400, say("shared.is_a_number_no_kitchen_means", text=text[:24]))
    return int(text) if re.fullmatch(r"-?\d+", text) else value


def read_json(raw: bytes) -> Any:
    """JSON from outside. Raises HttpError 400 for what is none, lies too deep, or holds numbers
    that are none or beyond any use."""
    try:
        text = raw.decode()
        depth = deepest = 0
        for mark in re.findall(r"[\[{\]}]", re.sub(r'"(?:[^"\\]|\\.)*"', "", text)):
            depth += 1 if mark in "[{" else -1
            deepest = max(deepest, depth)
        if deepest > DEEPEST:
            raise HttpError(400, say("shared.this_lies_too_deep_to_be"))
        return json.loads(text, parse_int=_number, parse_float=_number, parse_constant=_number)
    except (ValueError, RecursionError):
        raise HttpError(400, say("shared.this_is_not_json")) from None


class PlainRenderer(JSONRenderer):
    """JSON in UTF-8, nothing of it escaped that need not be: what is said is still open in it."""

    json_dumps_params: Mapping[str, Any] = {"ensure_ascii": False}


class KitchenParser(Parser):
    """Reads the body of every request with ``read_json``."""

    def parse_body(self, request: HttpRequest) -> DictStrAny:
        """The body as JSON."""
        found: DictStrAny = read_json(request.body)
        return found
