"""Rehearsals: an exercise, a seed and what somebody did; everything else follows from them."""

import uuid

from django.db import models
from django.db.models import Q

from accounts.models import User
from kitchen.models import Kitchen


class Rehearsal(models.Model):
    """One run of an exercise. ``acts`` are [{"id", "at_s", "kind", "value"}] in order."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4)
    kitchen = models.ForeignKey(Kitchen, models.CASCADE, related_name="rehearsals")
    user = models.ForeignKey(User, models.SET_NULL, null=True, related_name="+")
    exercise = models.CharField(max_length=20)
    seed = models.PositiveIntegerField()
    speed = models.PositiveSmallIntegerField(default=10)
    started_at = models.DateTimeField()
    ended_at_s = models.FloatField(null=True, blank=True)
    result = models.CharField(max_length=10, blank=True)
    acts = models.JSONField(default=list)

    class Meta:
        ordering = ("-started_at",)
        constraints = (
            models.CheckConstraint(
                condition=Q(speed__gte=1, speed__lte=60), name="rehearsal_speed"
            ),
            models.CheckConstraint(
                condition=Q(result__in=("", "good", "usable", "spoiled")), name="rehearsal_result"
            ),
        )
