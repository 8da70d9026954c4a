"""Desserts, their parts, and each part's formula in versions."""

import uuid

from django.db import models
from django.db.models import Q

from accounts.models import User
from bellcrumb.contract.open.cooking import usual
from kitchen.models import Kitchen, Ring


class Dessert(models.Model):
    """One dessert of the kitchen."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4)
    kitchen = models.ForeignKey(Kitchen, models.CASCADE, related_name="desserts")
    name = models.CharField(max_length=120)
    archived = models.BooleanField(default=False)
    build = models.JSONField(default=dict)
    build_revision = models.PositiveIntegerField(default=0)
    created_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ("name", "id")


class Part(models.Model):
    """One part of a dessert, in the order they are made."""

    class Kind(models.TextChoices):
        CRUST = "crust"
        FILLING = "filling"
        CARAMEL = "caramel"
        MERINGUE = "meringue"
        CREAM = "cream"
        GLAZE = "glaze"
        GARNISH = "garnish"

    id = models.UUIDField(primary_key=True, default=uuid.uuid4)
    dessert = models.ForeignKey(Dessert, models.CASCADE, related_name="parts")
    position = models.PositiveSmallIntegerField(default=0)
    kind = models.CharField(max_length=10, choices=Kind, default=Kind.FILLING)
    name = models.CharField(max_length=80, default="Filling")

    class Meta:
        ordering = ("position", "id")
        constraints = (
            models.UniqueConstraint(fields=("dessert", "position"), name="one_part_a_place"),
            models.CheckConstraint(
                condition=Q(
                    kind__in=(
                        "crust",
                        "filling",
                        "caramel",
                        "meringue",
                        "cream",
                        "glaze",
                        "garnish",
                    )
                ),
                name="part_kind",
            ),
        )


class Version(models.Model):
    """One version of a part's formula and method.

    The lines as typed are the truth; masses are always computed from them. ``revision`` counts
    saves, so that a stale edit is refused. Once ``cooked_at`` is set nothing changes any more.
    """

    id = models.UUIDField(primary_key=True, default=uuid.uuid4)
    part = models.ForeignKey(Part, models.CASCADE, related_name="versions")
    number = models.PositiveSmallIntegerField()
    revision = models.PositiveIntegerField(default=1)
    cooked_at = models.DateTimeField(null=True, blank=True)
    created_by = models.ForeignKey(User, models.SET_NULL, null=True, related_name="+")
    saved_by = models.ForeignKey(User, models.SET_NULL, null=True, related_name="+")
    saved_at = models.DateTimeField(auto_now=True)
    note = models.TextField(max_length=8_000, blank=True)

    lines_text = models.TextField(max_length=20_000, blank=True)
    egg_grade = models.CharField(max_length=40, default="US large")
    family = models.CharField(max_length=40, blank=True)
    beaten = models.CharField(max_length=3, blank=True)
    vessel_key = models.CharField(max_length=60, blank=True)
    vessel_count = models.PositiveSmallIntegerField(default=8)
    fill_by = models.CharField(max_length=10, default="share")
    fill_pct = models.PositiveSmallIntegerField(default=90)
    below_rim_mm = models.PositiveSmallIntegerField(default=5)
    portion_g = models.PositiveIntegerField(default=100)
    rest_vessel_key = models.CharField(max_length=60, blank=True)
    portions_per_vessel = models.PositiveSmallIntegerField(default=1)
    overrun_pct = models.PositiveSmallIntegerField(default=0)
    tray_key = models.CharField(max_length=60, blank=True)
    bath_level = models.CharField(max_length=6, default="none")
    bath_mm = models.PositiveSmallIntegerField(default=20)

    school = models.CharField(max_length=20, default="hot_into_eggs")
    ring = models.ForeignKey(Ring, models.SET_NULL, null=True, blank=True, related_name="+")
    heat_setting_pct = models.PositiveSmallIntegerField(default=round(100 * usual.HEAT_SETTING))
    cook_setting_pct = models.PositiveSmallIntegerField(default=round(100 * usual.COOK_SETTING))
    ladle_ml = models.PositiveSmallIntegerField(default=round(usual.LADLE_ML))
    hot_c = models.DecimalField(max_digits=4, decimal_places=1, default=usual.HOT_C)
    eggs_c = models.DecimalField(max_digits=4, decimal_places=1, default=usual.EGGS_C)
    held_back_ml = models.PositiveSmallIntegerField(default=round(usual.HELD_BACK_ML))
    method = models.CharField(max_length=10, blank=True)
    target_c = models.DecimalField(max_digits=4, decimal_places=1, default=0)
    baking = models.JSONField(default=dict)

    class Meta:
        ordering = ("number",)
        constraints = (
            models.UniqueConstraint(fields=("part", "number"), name="one_version_of_a_number"),
            models.CheckConstraint(condition=Q(number__gte=1), name="version_number"),
            models.CheckConstraint(
                condition=Q(fill_pct__gte=1, fill_pct__lte=100), name="version_fill"
            ),
            models.CheckConstraint(
                condition=Q(fill_by__in=("all", "share", "below_rim", "weight")),
                name="version_fill_by",
            ),
            models.CheckConstraint(
                condition=Q(bath_level__in=("none", "half", "rim", "mm", "beside")),
                name="version_bath",
            ),
            models.CheckConstraint(
                condition=Q(school__in=("hot_into_eggs", "eggs_after_boil", "held_back_liquid")),
                name="version_school",
            ),
            models.CheckConstraint(
                condition=Q(
                    cook_setting_pct__gte=1,
                    cook_setting_pct__lte=100,
                    heat_setting_pct__gte=1,
                    heat_setting_pct__lte=100,
                ),
                name="version_settings",
            ),
        )


class Brief(models.Model):
    """What a formula's numbers decide in brief, remembered by the hash of its inputs."""

    key = models.CharField(max_length=64, primary_key=True)
    data = models.JSONField()
