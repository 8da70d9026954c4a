"""Days that were begun: what was asked, what is planned now, and what has been ticked."""

import uuid

from django.db import models
from django.db.models import Q

from accounts.models import User
from kitchen.models import Kitchen


class RunningDay(models.Model):
    """One day of a kitchen, from the moment it was begun.

    ``asked`` is what the plan was made for, ``plan`` the newest one and ``begun_plan`` the one the
    day began with, which never changes. Times inside are the kitchen's own, without a zone.
    """

    id = models.UUIDField(primary_key=True, default=uuid.uuid4)
    kitchen = models.ForeignKey(Kitchen, models.CASCADE, related_name="days")
    by = models.ForeignKey(User, models.SET_NULL, null=True, related_name="+")
    asked = models.JSONField()
    pins = models.JSONField(default=list)
    plan = models.JSONField()
    begun_plan = models.JSONField()
    desserts = models.JSONField(default=dict)
    begun_at = models.DateTimeField()
    ended_at = models.DateTimeField(null=True, blank=True)
    revision = models.PositiveIntegerField(default=1)

    class Meta:
        ordering = ("-begun_at",)
        indexes = (models.Index(fields=("kitchen", "-begun_at")),)


class UsualDay(models.Model):
    """A day written down to be asked again: a ``DayFile``, which names its desserts."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4)
    kitchen = models.ForeignKey(Kitchen, models.CASCADE, related_name="usual_days")
    name = models.CharField(max_length=80)
    file = models.JSONField()

    class Meta:
        ordering = ("name",)
        constraints = (
            models.UniqueConstraint(fields=("kitchen", "name"), name="one_usual_day_of_a_name"),
        )


class Tick(models.Model):
    """A step begun, over, or taken back; ``client_id`` is made by the client, so twice is once."""

    client_id = models.UUIDField(unique=True)
    day = models.ForeignKey(RunningDay, models.CASCADE, related_name="ticks")
    key = models.CharField(max_length=300)
    kind = models.CharField(max_length=5)
    # On the kitchen's own clock, ISO 8601 to the second: it sorts as it stands.
    at = models.CharField(max_length=19)
    by = models.ForeignKey(User, models.SET_NULL, null=True, related_name="+")

    class Meta:
        ordering = ("at", "id")
        constraints = (
            models.CheckConstraint(
                condition=Q(kind__in=("begin", "done", "undo")), name="tick_kind"
            ),
        )
