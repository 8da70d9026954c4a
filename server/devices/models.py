"""Devices of a kitchen. A stand-in and a real one are the same row but for ``simulated``."""

import hashlib
import secrets
import uuid

from django.db import models
from django.db.models import Q

from kitchen.models import Kitchen


class Device(models.Model):
    """A device that sends readings. Its token is shown once and kept only as a hash.
    ``refused`` is why the last reading that was not taken was not."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4)
    kitchen = models.ForeignKey(Kitchen, models.CASCADE, related_name="devices")
    name = models.CharField(max_length=60)
    kind = models.CharField(max_length=10, default="probe")
    simulated = models.BooleanField(default=False)
    token_hash = models.CharField(max_length=64, unique=True)
    last_seen_at = models.DateTimeField(null=True, blank=True)
    refused = models.CharField(max_length=120, blank=True)
    refused_at = models.DateTimeField(null=True, blank=True)

    class Meta:
        ordering = ("name",)
        constraints = (
            models.UniqueConstraint(fields=("kitchen", "name"), name="one_device_of_a_name"),
            models.CheckConstraint(
                condition=Q(kind__in=("probe", "scale", "oven")), name="device_kind"
            ),
        )

    @staticmethod
    def hash_of(token: str) -> str:
        """The stored form of a token. Tokens are random, so a plain hash is enough."""
        return hashlib.sha256(token.encode()).hexdigest()

    @staticmethod
    def new_token() -> str:
        """A fresh token: 32 random bytes."""
        return secrets.token_urlsafe(32)
