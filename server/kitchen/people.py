"""People of a kitchen: invited by a link that ends, given roles, removed; and what a chef may read
of who came in."""

import hashlib
import secrets
from datetime import datetime, timedelta
from typing import Annotated, cast
from uuid import UUID

from django.conf import settings
from django.core.exceptions import ValidationError
from django.core.validators import validate_email
from django.db import IntegrityError, transaction
from django.db.models import Q
from django.http import HttpRequest
from ninja import Query, Router, Schema
from ninja.errors import HttpError
from pydantic import Field

from accounts.log import Kind, note
from accounts.models import SecurityEvent, User
from bellcrumb.errors import CraftError
from bellcrumb.words import say
from kitchen.access import member_of
from kitchen.models import Invite, Kitchen, Member
from kitchen.roles import Role
from kitchen.session import (
    SameSite,
    SessionOut,
    anyone,
    enter,
    good_password,
    proven,
    session_out,
)
from ops.ring import BackupLimits, ring
from shared.now import now as clock_now
from shared.shapes import PROBLEMS

router = Router(tags=["people"])
LASTS = timedelta(days=7)
MOST_OPEN = 50
_GONE = say("kitchen.this_invitation_has_ended_or_was")


def hash_of(secret: str) -> str:
    """The stored form of an invitation's secret. It is random, so a plain hash is enough."""
    return hashlib.sha256(secret.encode()).hexdigest()


class InviteIn(Schema):
    """Somebody to invite."""

    id: UUID
    name: str = Field(min_length=1, max_length=80)
    role: Role = "cook"


class InviteOut(Schema):
    """An open invitation."""

    id: UUID
    name: str
    role: Role
    ends_at: datetime


class InviteMade(InviteOut):
    """One just made: the only time its secret is shown. The link is /join/SECRET."""

    secret: str


def _open(kitchen: Kitchen) -> list[Invite]:
    return list(kitchen.invites.filter(used_at__isnull=True, ends_at__gt=clock_now()))


@router.get("/k/{kid}/invites", response={200: list[InviteOut], **PROBLEMS})
def invites(request: HttpRequest, kid: UUID) -> list[InviteOut]:
    """Invitations that are open."""
    return [InviteOut.from_orm(i) for i in _open(member_of(request, kid).kitchen)]


@router.post("/k/{kid}/invites", response={200: InviteMade, **PROBLEMS})
def invite(request: HttpRequest, kid: UUID, given: InviteIn) -> InviteMade:
    """Make a link that lets one person in, once, within a week. No mail is sent: pass it on.
    Sent again, as after an answer that was lost, it is the same invitation by its newest link."""
    member = member_of(request, kid)
    secret = secrets.token_urlsafe(24)
    again = member.kitchen.invites.filter(
        pk=given.id, used_at__isnull=True, ends_at__gt=clock_now()
    )
    if again.update(secret_hash=hash_of(secret)):
        return InviteMade(**InviteOut.from_orm(again.get()).dict(), secret=secret)
    if len(_open(member.kitchen)) >= MOST_OPEN:
        raise HttpError(
            422, say("kitchen.invitations_are_open_already_take_some", most_open=MOST_OPEN)
        )
    try:
        with transaction.atomic():
            made = Invite.objects.create(
                id=given.id,
                kitchen=member.kitchen,
                role=given.role,
                name=given.name,
                secret_hash=hash_of(secret),
                made_by=member.user,
                ends_at=clock_now() + LASTS,
            )
    except IntegrityError:
        raise HttpError(422, say("kitchen.this_invitation_was_made_already_make")) from None
    note(
        request,
        Kind.INVITED,
        kitchen_id=kid,
        detail=say("kitchen.log_as", who=given.name, role=given.role),
    )
    return InviteMade(**InviteOut.from_orm(made).dict(), secret=secret)


@router.delete("/k/{kid}/invites/{invite_id}", response={200: list[InviteOut], **PROBLEMS})
def take_back(request: HttpRequest, kid: UUID, invite_id: UUID) -> list[InviteOut]:
    """Take an invitation back."""
    member_of(request, kid).kitchen.invites.filter(pk=invite_id, used_at__isnull=True).delete()
    return invites(request, kid)


class InvitationOut(Schema):
    """What an invitation says to whoever holds its link."""

    kitchen: str
    name: str
    role: Role
    ends_at: datetime


def _invitation(secret: str, *, lock: bool = False) -> Invite:
    rows = Invite.objects.select_for_update() if lock else Invite.objects.all()
    found = rows.filter(secret_hash=hash_of(secret)).first()
    if not found or found.used_at or found.ends_at <= clock_now():
        raise HttpError(404, _GONE)
    return found


@router.get("/join/{secret}", response={200: InvitationOut, **PROBLEMS}, auth=anyone)
def read_invitation(request: HttpRequest, secret: str) -> InvitationOut:
    """What this invitation is to."""
    found = _invitation(secret)
    return InvitationOut(
        kitchen=found.kitchen.name,
        name=found.name,
        role=cast(Role, found.role),
        ends_at=found.ends_at,
    )


class Join(Schema):
    """Who joins. Somebody who has an account already gives the password of that."""

    email: str = Field(max_length=254)
    name: str = Field(min_length=1, max_length=80)
    password: str = Field(max_length=200)


@router.post("/join/{secret}", response={200: SessionOut, **PROBLEMS}, auth=SameSite())
def join(request: HttpRequest, secret: str, given: Join) -> SessionOut:
    """Take an invitation up: makes the account (or uses the one there is) and signs in."""
    email = given.email.strip().lower()
    try:
        validate_email(email)
    except ValidationError:
        raise CraftError("email", say("kitchen.this_is_no_e_mail_address")) from None
    _invitation(secret)  # nobody tries passwords without one
    known = User.objects.filter(email=email).exists()
    user = proven(request, email, given.password) if known else None
    if known and not user:
        raise CraftError("password", say("kitchen.there_is_an_account_of_this"))
    with transaction.atomic():
        found = _invitation(secret, lock=True)
        if not user:
            good_password(given.password, User(email=email, name=given.name), "password")
            user = User.objects.create_user(email, given.password, given.name)
        Member.objects.get_or_create(
            kitchen=found.kitchen, user=user, defaults={"role": found.role}
        )
        found.used_at = clock_now()
        found.save(update_fields=["used_at"])
    enter(request, user)
    note(
        request,
        Kind.JOINED,
        kitchen_id=found.kitchen_id,
        detail=say("kitchen.log_as", who=found.name, role=found.role),
    )
    return session_out(request)


class PersonOut(Schema):
    """Somebody in the kitchen."""

    id: int
    name: str
    email: str
    role: Role
    me: bool


class RoleChange(Schema):
    """Another role."""

    role: Role


def people_of(member: Member) -> list[PersonOut]:
    """Everybody in a member's kitchen; addresses are for the chef to see."""
    chef = member.role == Member.Role.CHEF
    return [
        PersonOut(id=m.id, name=m.user.name, email=m.user.email if chef else "",
                  role=cast(Role, m.role), me=m.id == member.id)
        for m in Member.objects.filter(kitchen=member.kitchen).select_related("user").order_by("id")
    ]  # fmt: skip


def _place(member: Member, person_id: int, becomes: str | None) -> Member:
    """Somebody's place, locked. Raises HttpError for the last chef and for nobody."""
    places = list(Member.objects.select_for_update().filter(kitchen=member.kitchen))
    place = next((p for p in places if p.id == person_id), None)
    if place is None:
        raise HttpError(404, say("kitchen.this_person_is_not_in_the"))
    chefs = [p for p in places if p.role == Member.Role.CHEF]
    if chefs == [place] and becomes != Member.Role.CHEF:
        raise HttpError(422, say("kitchen.a_kitchen_keeps_at_least_one"))
    return place


def _take_back_theirs(place: Member) -> None:
    """Who is no chef any more lets nobody in: the links they made end with their role."""
    place.kitchen.invites.filter(made_by=place.user, used_at__isnull=True).delete()


@router.patch("/k/{kid}/people/{person_id}", response={200: list[PersonOut], **PROBLEMS})
def change_role(
    request: HttpRequest, kid: UUID, person_id: int, given: RoleChange
) -> list[PersonOut]:
    """Give somebody another role."""
    member = member_of(request, kid)
    with transaction.atomic():
        place = _place(member, person_id, given.role)
        before, place.role = place.role, given.role
        place.save(update_fields=["role"])
        if given.role != "chef":
            _take_back_theirs(place)
    detail = say("kitchen.to", email=place.user.email, before=before, role=given.role)
    note(request, Kind.ROLE, kitchen_id=kid, detail=detail)
    member.refresh_from_db()
    return people_of(member)


@router.delete("/k/{kid}/people/{person_id}", response={200: list[PersonOut], **PROBLEMS})
def remove_person(request: HttpRequest, kid: UUID, person_id: int) -> list[PersonOut]:
    """Take somebody out of the kitchen. Their batches stay, with their name as long as their
    account does; an account that is in no kitchen any more goes."""
    member = member_of(request, kid)
    with transaction.atomic():
        place = _place(member, person_id, None)
        user = place.user
        _take_back_theirs(place)
        place.delete()
        note(request, Kind.REMOVED, kitchen_id=kid, detail=user.email)
        if not Member.objects.filter(user=user).exists():
            user.delete()
    return people_of(member)


class SecurityOut(Schema):
    """A line of the security log."""

    at: datetime
    kind: str
    who: str
    address: str
    detail: str


@router.get("/k/{kid}/security", response={200: list[SecurityOut], **PROBLEMS})
def security(
    request: HttpRequest, kid: UUID, take: Annotated[int, Query(ge=1, le=500)] = 100
) -> list[SecurityOut]:
    """Who signed in, was refused, changed roles, restored: the newest first. Of sign-ins, those of
    this kitchen's people."""
    kitchen = member_of(request, kid).kitchen
    mine = list(kitchen.members.values_list("user__email", flat=True))
    rows = SecurityEvent.objects.filter(
        Q(kitchen_id=kid)
        | Q(kitchen_id__isnull=True, who__in=mine)
        | Q(kind=SecurityEvent.Kind.RESTORED)
    )
    return [SecurityOut.from_orm(row) for row in rows[:take]]


class BackupsOut(Schema):
    """The ring of backups in the home: the last one's moment (null: none yet), how many, how big
    together, and how often one is made (0: never by itself)."""

    last_at: datetime | None
    count: int
    bytes: int
    every_hours: float
    keeps: int


@router.get("/k/{kid}/backups", response={200: BackupsOut, **PROBLEMS})
def backups(request: HttpRequest, kid: UUID) -> BackupsOut:
    """The backups that are made by themselves."""
    member_of(request, kid)
    there, limits = ring(settings.HOME / "backups"), BackupLimits.from_env()
    return BackupsOut(
        last_at=there[0].made_at if there else None,
        count=len(there),
        bytes=sum(kept.size_bytes for kept in there),
        every_hours=limits.every.total_seconds() / 3600,
        keeps=limits.most,
    )
