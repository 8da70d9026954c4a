"""A store that is away is said in one sentence, so that the browser keeps what was typed."""

from collections.abc import Callable

from django.db import InterfaceError, OperationalError
from django.http import HttpRequest, HttpResponse, JsonResponse

from bellcrumb.words import say
from shared.edge import problem

AWAY = say("shared.the_kitchens_store_is_not_answering")
LOCKED = say("shared.too_many_wrong_passwords_wait_six")
AT_ONCE = say("shared.somebody_did_the_same_at_the")
# MariaDB: lock wait timeout, deadlock, record has changed since last read.
_BESIDE = {1205, 1213, 1020}


def away() -> JsonResponse:
    """503 with the sentence and when to try again."""
    response = problem(503, AWAY)
    response["Retry-After"] = "2"
    return response


def is_beside(error: Exception) -> bool:
    """Whether the store only could not do this beside something else."""
    return bool(error.args) and error.args[0] in _BESIDE


def at_once() -> JsonResponse:
    """503 for two who did the same at once; the middleware has tried again before this is seen."""
    response = problem(503, AT_ONCE)
    response["Retry-After"] = "1"
    response.again = True  # type: ignore[attr-defined]
    return response


def locked_out(request: HttpRequest, credentials: object, *args: object) -> JsonResponse:
    """429 for an address that guessed too often; called by axes."""
    return problem(429, LOCKED)


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
