"""The API as one OpenAPI document: people by session cookie, devices by token."""

from typing import Any

from django.core.exceptions import ValidationError as ModelError
from django.db import InterfaceError, OperationalError
from django.http import HttpRequest, HttpResponse
from ninja import NinjaAPI
from ninja.errors import AuthenticationError, HttpError, ValidationError
from ninja.security import django_auth

from accounts.api import router as session_router
from batches.api import router as batches_router
from bellcrumb.contract.words import sentence
from bellcrumb.errors import CraftError
from config.failures import away
from devices.api import door
from devices.api import router as devices_router
from formulas.api import router as formulas_router
from formulas.asks import router as asks_router
from formulas.bakes import router as bakes_router
from formulas.travel import router as travel_router
from kitchen.api import craft_router
from kitchen.api import router as kitchen_router
from rehearsals.api import router as rehearsals_router

api = NinjaAPI(
    title="Bell Crumb",
    version="1",
    auth=django_auth,
    docs_url=None,
    openapi_url="/openapi.json",
)
api.add_router("", session_router)
api.add_router("", craft_router)
api.add_router("", kitchen_router)
api.add_router("", formulas_router)
api.add_router("", asks_router)
api.add_router("", bakes_router)
api.add_router("", travel_router)
api.add_router("", batches_router)
api.add_router("", devices_router)
api.add_router("", rehearsals_router)
api.add_router("/device", door)


def _error(request: HttpRequest, message: str, field: str | None, status: int) -> HttpResponse:
    return api.create_response(request, {"message": message, "field": field}, status=status)


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


@api.exception_handler(ModelError)
def model_error(request: HttpRequest, error: ModelError) -> HttpResponse:
    """A model that refused a value."""
    return _error(request, " ".join(error.messages), None, 422)


@api.exception_handler(AuthenticationError)
def signed_out(request: HttpRequest, error: AuthenticationError) -> HttpResponse:
    """No session, or a token nobody knows."""
    return _error(request, "Please sign in again. Nothing you typed is lost.", None, 401)


@api.exception_handler(HttpError)
def refused(request: HttpRequest, error: HttpError) -> HttpResponse:
    """Anything refused with a sentence."""
    return _error(request, str(error), None, error.status_code)


@api.exception_handler(OperationalError)
@api.exception_handler(InterfaceError)
def database_away(request: HttpRequest, error: Exception) -> HttpResponse:
    """The database is gone for a moment."""
    return away()
