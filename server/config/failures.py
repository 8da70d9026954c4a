"""A database that is away is said in one sentence, so that the browser keeps what was typed."""

from collections.abc import Callable

from django.db import InterfaceError, OperationalError
from django.http import HttpRequest, HttpResponse, JsonResponse

AWAY = "The kitchen's store is not answering. Nothing you typed is lost; it is sent again shortly."


LOCKED = "Too many wrong passwords. Wait six minutes and try again."


def away() -> JsonResponse:
    """503 with the sentence and when to try again."""
    response = JsonResponse({"message": AWAY, "field": None}, status=503)
    response["Retry-After"] = "2"
    return response


def locked_out(request: HttpRequest, credentials: object, *args: object) -> JsonResponse:
    """429 for an address that guessed too often; called by axes."""
    return JsonResponse({"message": LOCKED, "field": None}, status=429)


class DatabaseAwayMiddleware:
    """Turns a lost database into 503 for the API (the views' own errors are handled there too)."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponse]) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        """Pass on, or answer 503."""
        try:
            return self.get_response(request)
        except (OperationalError, InterfaceError):
            return away()

    def process_exception(self, request: HttpRequest, exception: Exception) -> HttpResponse | None:
        """Answer 503 when a view lost the database."""
        if isinstance(exception, OperationalError | InterfaceError):
            return away()
        return None
