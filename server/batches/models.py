"""Batches: one run of a version, with what was predicted, done, measured and judged."""

import uuid

from django.db import models
from django.db.models import Q

from accounts.models import User
from devices.models import Device
from formulas.models import Version
from kitchen.models import Kitchen


class Batch(models.Model):
    """One run of a version.

    ``prediction`` is frozen when the cook starts. ``time_scale`` is how many seconds of cooking
    pass in one real second (more than 1 only with a simulated probe).
    """

    id = models.UUIDField(primary_key=True, default=uuid.uuid4)
    kitchen = models.ForeignKey(Kitchen, models.CASCADE, related_name="batches")
    version = models.ForeignKey(Version, models.PROTECT, related_name="batches")
    cook = models.ForeignKey(User, models.SET_NULL, null=True, related_name="+")
    device = models.ForeignKey(Device, models.SET_NULL, null=True, blank=True, related_name="+")
    scale = models.ForeignKey(Device, models.SET_NULL, null=True, blank=True, related_name="+")
    started_at = models.DateTimeField()
    ended_at = models.DateTimeField(null=True, blank=True)
    time_scale = models.PositiveSmallIntegerField(default=1)
    prediction = models.JSONField()
    # A dessert put together: its version is that of the main part, and these are the cooks and
    # bakes that its parts came from.
    whole = models.BooleanField(default=False)
    made_of = models.ManyToManyField("self", symmetrical=False, related_name="built_into")
    # What the book shows of it, kept here so that a list reads neither curves nor predictions.
    cook_name = models.CharField(max_length=80, blank=True)
    predicted_class = models.CharField(max_length=10, blank=True)
    peak_cc = models.SmallIntegerField(null=True, blank=True)
    family_name = models.CharField(max_length=80, blank=True)
    place_name = models.CharField(max_length=60, blank=True)
    # The step of a running day that it is; that day's clock is so many seconds ahead of UTC.
    for_day = models.UUIDField(null=True, blank=True, db_index=True)
    for_step = models.CharField(max_length=300, blank=True)
    day_ahead_s = models.IntegerField(default=0)
    # What it teaches of ring, oven and set, worked out when it ends or is judged (teaching.py).
    taught = models.JSONField(null=True, blank=True)
    # What a food-safety plan asks of it, worked out when it ends (records.py), and what was done
    # where it missed.
    record = models.JSONField(null=True, blank=True)
    mended = models.CharField(max_length=300, blank=True)

    class Meta:
        ordering = ("-started_at",)
        indexes = (models.Index(fields=("kitchen", "-started_at")),)
        constraints = (
            models.CheckConstraint(
                condition=Q(time_scale__gte=1, time_scale__lte=60), name="batch_time_scale"
            ),
            models.CheckConstraint(
                condition=Q(ended_at__isnull=True) | Q(ended_at__gte=models.F("started_at")),
                name="batch_ends_after_it_starts",
            ),
        )


class Event(models.Model):
    """Something a cook did. ``id`` is made by the client, so that sending twice counts once."""

    id = models.UUIDField(primary_key=True)
    batch = models.ForeignKey(Batch, models.CASCADE, related_name="events")
    kind = models.CharField(max_length=10)
    step = models.CharField(max_length=20, blank=True)
    cook_ms = models.PositiveIntegerField()
    value = models.DecimalField(max_digits=8, decimal_places=2, null=True, blank=True)
    by = models.ForeignKey(User, models.SET_NULL, null=True, related_name="+")

    class Meta:
        ordering = ("cook_ms", "id")
        constraints = (
            models.CheckConstraint(
                condition=Q(kind__in=("step", "ladle", "typed", "end", "pause", "resume", "mark")),
                name="event_kind",
            ),
        )


class Reading(models.Model):
    """One temperature on the cook's clock, in hundredths of a degree.

    ``client_id`` is made by the device; the same one again is the same reading.
    """

    batch = models.ForeignKey(Batch, models.CASCADE, related_name="readings")
    device = models.ForeignKey(Device, models.SET_NULL, null=True, related_name="+")
    client_id = models.UUIDField(unique=True)
    at = models.DateTimeField()
    cook_ms = models.PositiveIntegerField()
    temp_cc = models.SmallIntegerField()
    channel = models.PositiveSmallIntegerField(default=1)

    class Meta:
        ordering = ("cook_ms", "id")
        indexes = (models.Index(fields=("batch", "cook_ms")),)
        constraints = (
            models.CheckConstraint(
                condition=Q(temp_cc__gte=-4000, temp_cc__lte=30000), name="reading_is_physical"
            ),
        )


class Weight(models.Model):
    """What a scale under the bowl showed, in tenths of a gram."""

    batch = models.ForeignKey(Batch, models.CASCADE, related_name="weights")
    client_id = models.UUIDField(unique=True)
    cook_ms = models.PositiveIntegerField()
    dg = models.IntegerField()

    class Meta:
        ordering = ("cook_ms", "id")


class Photo(models.Model):
    """A picture of the cut face, made anew from what came in: a JPEG of a known size and nothing
    else of the file. It lives in the store, so that a backup has it."""

    id = models.UUIDField(primary_key=True)
    batch = models.ForeignKey(Batch, models.CASCADE, related_name="photos")
    jpeg = models.BinaryField()
    width = models.PositiveSmallIntegerField()
    height = models.PositiveSmallIntegerField()
    at = models.DateTimeField()
    by = models.ForeignKey(User, models.SET_NULL, null=True, related_name="+")

    class Meta:
        ordering = ("at", "id")


class Verdict(models.Model):
    """What came of a batch. ``faults`` are keys of the core's short list; ``weighs_g`` is all of
    it, without its pot, where somebody weighed it."""

    batch = models.OneToOneField(Batch, models.CASCADE, related_name="verdict")
    texture = models.CharField(max_length=10)
    faults = models.JSONField(default=list)
    note = models.TextField(max_length=2000, blank=True)
    weighs_g = models.FloatField(null=True, blank=True)
    by = models.ForeignKey(User, models.SET_NULL, null=True, related_name="+")
    at = models.DateTimeField(auto_now=True)
    revision = models.PositiveIntegerField(default=1)

    class Meta:
        constraints = (
            models.CheckConstraint(
                condition=Q(texture__in=("pour", "nappe", "spoon", "pipe", "slice", "unmould")),
                name="verdict_texture",
            ),
        )
