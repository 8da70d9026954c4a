"""The API as one OpenAPI document: people by session cookie, devices by token."""

import logging
import secrets
from typing import Any

from django.core.exceptions import (
    ObjectDoesNotExist,
    RequestDataTooBig,
    SuspiciousOperation,
)
from django.core.exceptions import ValidationError as ModelError
from django.db import DataError, IntegrityError, InterfaceError, OperationalError
from django.http import HttpRequest, HttpResponse
from django.http.multipartparser import MultiPartParserError
from ninja.errors import AuthenticationError, HttpError, ValidationError
from ninja.security import django_auth
from pydantic import ValidationError as CoreShapeError

import batches.api  # (adds the cook to the router of the book)
import batches.listing  # noqa: F401 (and the list)
from batches.book import router as batches_router
from batches.door import door
from batches.door import router as devices_router
from batches.learned import router as learned_router
from batches.photos import router as photos_router
from batches.records import router as records_router
from batches.why import router as why_router
from bellcrumb.contract.words import sentence
from bellcrumb.errors import CraftError
from bellcrumb.words import say
from config.described import DescribedAPI
from days.api import router as running_router
from formulas.api import router as formulas_router
from formulas.asks import router as asks_router
from formulas.bakes import router as bakes_router
from formulas.builds import router as builds_router
from formulas.travel import router as travel_router
from kitchen.api import router as kitchen_router
from kitchen.craft import craft_router
from kitchen.equipment import router as equipment_router
from kitchen.people import router as people_router
from kitchen.session import router as session_router
from kitchen.words import router as words_router
from rehearsals.api import router as rehearsals_router
from shared.edge import KitchenParser, PlainRenderer, problem
from shared.failures import at_once, away, is_beside

api = DescribedAPI(
    title="Bell Crumb",
    version="1",
    auth=django_auth,
    parser=KitchenParser(),
    renderer=PlainRenderer(),
    docs_url=None,
    openapi_url="/openapi.json",
)
api.add_router("", session_router)
api.add_router("", craft_router)
api.add_router("", kitchen_router)
api.add_router("", equipment_router)
api.add_router("", words_router)
api.add_router("", people_router)
api.add_router("", formulas_router)
api.add_router("", asks_router)
api.add_router("", builds_router)
api.add_router("", running_router)
api.add_router("", bakes_router)
api.add_router("", travel_router)
api.add_router("", photos_router)
api.add_router("", records_router)
api.add_router("", batches_router)
api.add_router("", why_router)
api.add_router("", learned_router)
api.add_router("", devices_router)
api.add_router("", rehearsals_router)
api.add_router("/device", door)


def _error(request: HttpRequest, message: str, field: str | None, status: int) -> HttpResponse:
    said = {"message": message, "field": field, "reference": None}
    return api.create_response(request, said, status=status)


@api.exception_handler(CraftError)
def craft_error(request: HttpRequest, error: CraftError) -> HttpResponse:
    """Input that makes no sense, said at its field."""
    return _error(request, error.message, error.field, 422)


@api.exception_handler(ValidationError)
def shape_error(request: HttpRequest, error: ValidationError) -> HttpResponse:
    """Input of the wrong shape: the first thing wrong, at its field."""
    first: dict[str, Any] = error.errors[0]
    where = ".".join(str(p) for p in first["loc"] if p not in ("body", "data", "given"))
    return _error(request, sentence(first), where or None, 422)


@api.exception_handler(CoreShapeError)
def inner_shape_error(request: HttpRequest, error: CoreShapeError) -> HttpResponse:
    """What the core's own shapes refuse of something made from what was sent."""
    first = error.errors(include_url=False)[0]
    return _error(request, sentence(first), str(first["loc"][0]) if first["loc"] else None, 422)


@api.exception_handler(ModelError)
def model_error(request: HttpRequest, error: ModelError) -> HttpResponse:
    """A model that refused a value."""
    return _error(request, " ".join(error.messages), None, 422)


@api.exception_handler(AuthenticationError)
def signed_out(request: HttpRequest, error: AuthenticationError) -> HttpResponse:
    """No session, or a token nobody knows."""
    return _error(request, say("config.please_sign_in_again_nothing_you"), None, 401)


@api.exception_handler(HttpError)
def refused(request: HttpRequest, error: HttpError) -> HttpResponse:
    """Anything refused with a sentence: ours, also where the library has put its own over it."""
    said = error.__cause__ if isinstance(error.__cause__, HttpError) else error
    if str(said) == "CSRF check Failed":
        return problem(403)
    return _error(request, str(said), None, said.status_code)


@api.exception_handler(OperationalError)
@api.exception_handler(InterfaceError)
def database_away(request: HttpRequest, error: Exception) -> HttpResponse:
    """The database is gone for a moment, or could not do this beside something else."""
    return at_once() if is_beside(error) else away()


@api.exception_handler(IntegrityError)
def done_at_once(request: HttpRequest, error: Exception) -> HttpResponse:
    """Two did the same at the same moment."""
    return at_once()


@api.exception_handler(ObjectDoesNotExist)
def removed_meanwhile(request: HttpRequest, error: Exception) -> HttpResponse:
    """A row that was found, and gone when it was read: somebody removed it in between."""
    return problem(404, say("config.removed_meanwhile"))


@api.exception_handler(DataError)
def out_of_range(request: HttpRequest, error: Exception) -> HttpResponse:
    """A value the store has no room for."""
    return problem(422, say("config.this_is_more_than_the_book"))


@api.exception_handler(MultiPartParserError)
@api.exception_handler(SuspiciousOperation)
def unreadable(request: HttpRequest, error: Exception) -> HttpResponse:
    """A body that is not what it says it is, or larger than a form may be."""
    return problem(413 if isinstance(error, RequestDataTooBig) else 400)


@api.exception_handler(Exception)
def failure(request: HttpRequest, error: Exception) -> HttpResponse:
    """A failure of ours: in the log under a reference that whoever met it can pass on."""
    reference = secrets.token_hex(4)
    logging.getLogger("bellcrumb").exception(
        "%s %s failed, reference %s", request.method, request.path, reference
    )
    return problem(
        500, say("config.this_failed_on_our_side_reference", reference=reference), reference
    )
