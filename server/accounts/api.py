"""Signing in and out."""

from datetime import UTC, datetime
from typing import Any, Literal, cast
from uuid import UUID

from django.conf import settings
from django.contrib.auth import authenticate, login, logout
from django.http import HttpRequest
from django.middleware.csrf import get_token
from ninja import Router, Schema
from ninja.errors import HttpError
from ninja.security import APIKeyCookie
from pydantic import Field

from accounts.models import User
from config.shapes import PROBLEMS
from kitchen.models import Member

router = Router(tags=["session"])


class SameSite(APIKeyCookie):
    """Lets anyone through who came from our own pages (CSRF), signed in or not."""

    param_name = settings.CSRF_COOKIE_NAME

    def authenticate(self, request: HttpRequest, key: str | None) -> Any:
        """The CSRF check has passed by now; that is all a sign-in needs."""
        return True


def anyone(request: HttpRequest) -> bool:
    """Reading the session is open to all; it says whether there is one."""
    return True


class SignIn(Schema):
    """An e-mail address and a password."""

    email: str = Field(max_length=254)
    password: str = Field(max_length=200)


Role = Literal["chef", "cook", "viewer"]


class KitchenRef(Schema):
    """A kitchen somebody belongs to."""

    id: UUID
    name: str
    role: Role


class SessionOut(Schema):
    """Who is signed in (null: nobody), their kitchens, and the server's clock."""

    name: str | None
    email: str | None
    kitchens: list[KitchenRef]
    server_now: datetime
    csrf: str


def _session(request: HttpRequest) -> SessionOut:
    user = request.user
    members: list[Member] = []
    if isinstance(user, User):
        members = list(Member.objects.filter(user=user).select_related("kitchen").order_by("id"))
    return SessionOut(
        name=user.name if isinstance(user, User) else None,
        email=user.email if isinstance(user, User) else None,
        kitchens=[
            KitchenRef(id=m.kitchen_id, name=m.kitchen.name, role=cast(Role, m.role))
            for m in members
        ],
        server_now=datetime.now(UTC),
        csrf=get_token(request),
    )


@router.get("/session", response={200: SessionOut, **PROBLEMS}, auth=anyone)
def read_session(request: HttpRequest) -> SessionOut:
    """Who is signed in."""
    return _session(request)


@router.post("/session", response={200: SessionOut, **PROBLEMS}, auth=SameSite())
def sign_in(request: HttpRequest, given: SignIn) -> SessionOut:
    """Sign in. After six wrong passwords an address waits six minutes."""
    user = authenticate(request, username=given.email.strip().lower(), password=given.password)
    if user is None:
        raise HttpError(401, "This address and password do not belong together.")
    login(request, user)
    return _session(request)


@router.delete("/session", response={200: SessionOut, **PROBLEMS})
def sign_out(request: HttpRequest) -> SessionOut:
    """Sign out."""
    logout(request)
    return _session(request)
