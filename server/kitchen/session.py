"""Signing in and out, the own password, and where one is signed in."""

from datetime import datetime, timedelta
from typing import Any, cast
from uuid import UUID

from axes.models import AccessAttempt
from django.conf import settings
from django.contrib.auth import authenticate, login, logout, update_session_auth_hash
from django.contrib.auth.password_validation import validate_password
from django.contrib.sessions.models import Session
from django.core.exceptions import ValidationError
from django.db import transaction
from django.http import HttpRequest
from django.middleware.csrf import get_token
from ninja import Router, Schema
from ninja.errors import HttpError
from ninja.security import APIKeyCookie
from pydantic import Field

from accounts.log import Kind, address_of, note
from accounts.models import SignedIn, User
from bellcrumb.errors import CraftError
from bellcrumb.words import say
from kitchen.models import Member
from kitchen.roles import Role
from shared.failures import LOCKED
from shared.now import now as clock_now
from shared.shapes import PROBLEMS

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


class KitchenRef(Schema):
    """A kitchen somebody belongs to."""

    id: UUID
    name: str
    role: Role


class SessionOut(Schema):
    """Who is signed in (null: nobody), their kitchens, and the server's clock. ``must_change``: the
    password was made up for them and is changed first."""

    name: str | None
    email: str | None
    must_change: bool
    kitchens: list[KitchenRef]
    server_now: datetime
    csrf: str


def session_out(request: HttpRequest) -> SessionOut:
    """The session of whoever asks."""
    user = request.user
    members: list[Member] = []
    if isinstance(user, User):
        members = list(Member.objects.filter(user=user).select_related("kitchen").order_by("id"))
    return SessionOut(
        name=user.name if isinstance(user, User) else None,
        email=user.email if isinstance(user, User) else None,
        must_change=isinstance(user, User) and user.must_change,
        kitchens=[
            KitchenRef(id=m.kitchen_id, name=m.kitchen.name, role=cast(Role, m.role))
            for m in members
        ],
        server_now=clock_now(),
        csrf=get_token(request),
    )


def enter(request: HttpRequest, user: User) -> None:
    """Sign somebody in and remember where."""
    login(request, user, backend="django.contrib.auth.backends.ModelBackend")
    if request.session.session_key is None:
        request.session.save()
    SignedIn.objects.create(
        user=user,
        session_key=request.session.session_key or "",
        address=address_of(request),
        browser=request.headers.get("User-Agent", "")[:200],
    )
    note(request, Kind.SIGNED_IN)


def _sprayed(request: HttpRequest) -> bool:
    """Whether this address has tried many accounts lately."""
    since = clock_now() - timedelta(hours=settings.AXES_COOLOFF_TIME)
    tried = AccessAttempt.objects.filter(ip_address=address_of(request), attempt_time__gte=since)
    most: int = settings.SPRAY_ACCOUNTS
    return bool(tried.values("username").distinct().count() >= most)


def proven(request: HttpRequest, email: str, password: str) -> User | None:
    """The account an address and password belong to. Wherever passwords can be tried, they are
    tried through here: guessing is written down, and slowed (HttpError 429).

    Call it outside a transaction, or what it wrote down goes with the refusal."""
    if _sprayed(request):
        note(request, Kind.SLOWED, who=email)
        raise HttpError(429, LOCKED)
    user = authenticate(request, username=email, password=password)
    if isinstance(user, User):
        return user
    note(request, Kind.REFUSED, who=email)
    return None


@router.get("/session", response={200: SessionOut, **PROBLEMS}, auth=anyone)
def read_session(request: HttpRequest) -> SessionOut:
    """Who is signed in."""
    return session_out(request)


@router.post("/session", response={200: SessionOut, **PROBLEMS}, auth=SameSite())
def sign_in(request: HttpRequest, given: SignIn) -> SessionOut:
    """Sign in. After six wrong passwords an address waits six minutes; so does one that tries many
    accounts."""
    user = proven(request, given.email.strip().lower(), given.password)
    if user is None:
        raise HttpError(401, say("kitchen.this_address_and_password_do_not"))
    enter(request, user)
    return session_out(request)


@router.delete("/session", response={200: SessionOut, **PROBLEMS})
def sign_out(request: HttpRequest) -> SessionOut:
    """Sign out."""
    SignedIn.objects.filter(session_key=request.session.session_key).delete()
    logout(request)
    return session_out(request)


class PasswordChange(Schema):
    """The password now and the one from now on."""

    old: str = Field(max_length=200)
    new: str = Field(max_length=200)


def good_password(new: str, user: User, field: str) -> None:
    """Raise CraftError at ``field`` for a password that is too short or soon guessed."""
    try:
        validate_password(new, user)
    except ValidationError as error:
        raise CraftError(field, " ".join(error.messages)) from None


@router.post("/session/password", response={200: SessionOut, **PROBLEMS})
def change_password(request: HttpRequest, given: PasswordChange) -> SessionOut:
    """Change my own password: twelve characters or more, and not soon guessed. Everywhere else
    I am signed in, I am signed out."""
    user = cast(User, request.user)
    if not user.check_password(given.old):
        note(request, Kind.REFUSED, detail="changing the password")
        raise CraftError("old", say("kitchen.this_is_not_your_password_now"))
    if given.new == given.old:
        raise CraftError("new", say("kitchen.this_is_the_same_password_again"))
    good_password(given.new, user, "new")
    user.set_password(given.new)
    user.must_change = False
    user.save(update_fields=["password", "must_change"])
    here = request.session.session_key
    update_session_auth_hash(request, user)  # a new key for this session; the others are void
    SignedIn.objects.filter(session_key=here).update(session_key=request.session.session_key)
    _end(SignedIn.objects.filter(user=user).exclude(session_key=request.session.session_key))
    note(request, Kind.PASSWORD)
    return session_out(request)


class SignedInOut(Schema):
    """One place I am signed in."""

    id: UUID
    at: datetime
    address: str
    browser: str
    here: bool


def _end(rows: Any) -> None:
    with transaction.atomic():
        Session.objects.filter(pk__in=list(rows.values_list("session_key", flat=True))).delete()
        rows.delete()


@router.get("/session/all", response={200: list[SignedInOut], **PROBLEMS})
def signed_in(request: HttpRequest) -> list[SignedInOut]:
    """Where I am signed in, the newest first."""
    rows = list(SignedIn.objects.filter(user=cast(User, request.user)))
    there = set(
        Session.objects.filter(
            pk__in=[row.session_key for row in rows], expire_date__gt=clock_now()
        ).values_list("session_key", flat=True)
    )
    return [
        SignedInOut(id=row.id, at=row.at, address=row.address, browser=row.browser,
                    here=row.session_key == request.session.session_key)
        for row in rows if row.session_key in there
    ]  # fmt: skip


@router.delete("/session/all/{signed_in_id}", response={200: list[SignedInOut], **PROBLEMS})
def end_session(request: HttpRequest, signed_in_id: UUID) -> list[SignedInOut]:
    """Sign me out in one of those places."""
    mine = SignedIn.objects.filter(user=cast(User, request.user), pk=signed_in_id)
    if not mine.exists():
        raise HttpError(404, say("kitchen.you_are_not_signed_in_there"))
    _end(mine)
    return signed_in(request)
