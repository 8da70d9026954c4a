"""People who sign in, where they are signed in, and what happened that a chef may want to know.

Passwords are hashed by Django, failed sign-ins throttled by axes.
"""

import uuid
from typing import ClassVar

from django.contrib.auth.models import AbstractBaseUser, BaseUserManager
from django.db import models
from django.db.models import Q


class UserManager(BaseUserManager["User"]):
    """Makes users by e-mail address."""

    def create_user(
        self, email: str, password: str, name: str, *, must_change: bool = False
    ) -> "User":
        """A new user; the address is kept in lower case. ``must_change`` for a made-up password."""
        user = self.model(email=email.strip().lower(), name=name, must_change=must_change)
        user.set_password(password)
        user.save(using=self._db)
        return user


class User(AbstractBaseUser):
    """One person. What they may do is said by their membership of a kitchen."""

    email = models.EmailField(unique=True)
    name = models.CharField(max_length=80)
    is_active = models.BooleanField(default=True)
    must_change = models.BooleanField(default=False)

    USERNAME_FIELD = "email"
    REQUIRED_FIELDS: ClassVar[list[str]] = ["name"]
    objects = UserManager()

    def __str__(self) -> str:
        return self.name


class SignedIn(models.Model):
    """Where somebody is signed in: one of their sessions, by what its browser says of itself."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4)
    user = models.ForeignKey(User, models.CASCADE, related_name="signed_in")
    session_key = models.CharField(max_length=40, unique=True)
    at = models.DateTimeField(auto_now_add=True)
    address = models.CharField(max_length=45, blank=True)
    browser = models.CharField(max_length=200, blank=True)

    class Meta:
        ordering = ("-at",)


class SecurityEvent(models.Model):
    """Something that happened to who may come in. ``kitchen_id`` empty: to all kitchens alike.

    Names are kept as text: the line stays when the person goes.
    """

    class Kind(models.TextChoices):
        SIGNED_IN = "signed_in"
        REFUSED = "refused"
        SLOWED = "slowed"
        PASSWORD = "password"
        INVITED = "invited"
        JOINED = "joined"
        ROLE = "role"
        REMOVED = "removed"
        RESTORED = "restored"

    at = models.DateTimeField(auto_now_add=True, db_index=True)
    kind = models.CharField(max_length=12, choices=Kind)
    kitchen_id = models.UUIDField(null=True, blank=True)
    who = models.CharField(max_length=254, blank=True)
    address = models.CharField(max_length=45, blank=True)
    detail = models.CharField(max_length=200, blank=True)

    class Meta:
        ordering = ("-at", "-id")
        indexes = (models.Index(fields=("kitchen_id", "-at")),)
        constraints = (
            models.CheckConstraint(
                condition=Q(kind__in=("signed_in", "refused", "slowed", "password", "invited",
                                      "joined", "role", "removed", "restored")),
                name="security_kind",
            ),
        )  # fmt: skip
