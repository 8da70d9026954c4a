"""A kitchen: its people, its equipment, its own pantry. Everything else belongs to one."""

import uuid

from django.db import models
from django.db.models import Q

from accounts.models import User
from bellcrumb.contract.open.cooking import Ring as CoreRing
from bellcrumb.contract.open.food import ALLERGENS, Allergen, Ingredient, from_label
from bellcrumb.contract.open.vessels import Vessel as CoreVessel
from bellcrumb.contract.open.vessels import vessel_from_measures


class Kitchen(models.Model):
    """One kitchen. ``pantry_rev`` is another whenever its own pantry changes."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    name = models.CharField(max_length=80)
    egg_grade = models.CharField(max_length=40, default="US large")
    egg_spare_pct = models.PositiveSmallIntegerField(default=5)
    measures = models.CharField(max_length=2, default="us")
    currency = models.CharField(max_length=8, default="€")
    altitude_m = models.SmallIntegerField(default=0)
    cool_rule = models.JSONField(default=dict, help_text="empty: the usual two-stage rule")
    pantry_rev = models.PositiveIntegerField(default=0)
    mixers = models.PositiveSmallIntegerField(default=1)
    bowl_ml = models.PositiveIntegerField(default=8000, help_text="of the largest mixer")
    pot_g = models.PositiveIntegerField(default=4000, help_text="of a starch cream in one pot")

    class Meta:
        constraints = (
            models.CheckConstraint(
                condition=Q(altitude_m__gte=-400, altitude_m__lte=5000), name="kitchen_altitude"
            ),
            models.CheckConstraint(
                condition=Q(measures__in=("us", "uk", "au")), name="kitchen_measures"
            ),
        )

    def __str__(self) -> str:
        return self.name


class Member(models.Model):
    """Somebody's place in a kitchen: chef does everything, cook cooks and records, viewer reads."""

    class Role(models.TextChoices):
        CHEF = "chef"
        COOK = "cook"
        VIEWER = "viewer"

    class Units(models.TextChoices):
        METRIC = "metric"
        US = "us"

    kitchen = models.ForeignKey(Kitchen, models.CASCADE, related_name="members")
    user = models.ForeignKey(User, models.CASCADE, related_name="memberships")
    role = models.CharField(max_length=8, choices=Role)
    units = models.CharField(max_length=8, choices=Units, default=Units.METRIC)

    class Meta:
        constraints = (
            models.UniqueConstraint(fields=("kitchen", "user"), name="one_place_in_a_kitchen"),
            models.CheckConstraint(
                condition=Q(role__in=("chef", "cook", "viewer")), name="member_role"
            ),
            models.CheckConstraint(condition=Q(units__in=("metric", "us")), name="member_units"),
        )


class Invite(models.Model):
    """A link that lets one person in, once, until it ends. Only the hash of its secret is kept."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4)
    kitchen = models.ForeignKey(Kitchen, models.CASCADE, related_name="invites")
    role = models.CharField(max_length=8, choices=Member.Role)
    name = models.CharField(max_length=80)
    secret_hash = models.CharField(max_length=64, unique=True)
    made_by = models.ForeignKey(User, models.SET_NULL, null=True, related_name="+")
    ends_at = models.DateTimeField()
    used_at = models.DateTimeField(null=True, blank=True)

    class Meta:
        ordering = ("ends_at",)
        constraints = (
            models.CheckConstraint(
                condition=Q(role__in=("chef", "cook", "viewer")), name="invite_role"
            ),
        )


class Ring(models.Model):
    """A ring of the stove."""

    kitchen = models.ForeignKey(Kitchen, models.CASCADE, related_name="rings")
    name = models.CharField(max_length=60)
    fuel = models.CharField(max_length=10)
    rated_w = models.PositiveSmallIntegerField()

    class Meta:
        ordering = ("id",)
        constraints = (
            models.UniqueConstraint(fields=("kitchen", "name"), name="one_ring_of_a_name"),
            models.CheckConstraint(
                condition=Q(fuel__in=("gas", "induction", "ceramic")), name="ring_fuel"
            ),
            models.CheckConstraint(
                condition=Q(rated_w__gte=200, rated_w__lte=10000), name="ring_rated_w"
            ),
        )

    def core(self) -> CoreRing:
        """The ring as the core knows it."""
        return CoreRing(self.name, self.fuel, float(self.rated_w))  # type: ignore[arg-type]


class Oven(models.Model):
    """An oven and how its dial lies (kelvin added to what it shows), how hard its air blows and
    how fast its steam leaves (factors of an ordinary one), and whether that was measured by a walk
    with a pan of water or only guessed."""

    kitchen = models.ForeignKey(Kitchen, models.CASCADE, related_name="ovens")
    name = models.CharField(max_length=60)
    kind = models.CharField(max_length=10)
    dial_error_k = models.DecimalField(max_digits=4, decimal_places=1, default=0)
    measured = models.BooleanField(default=False)
    film = models.DecimalField(max_digits=4, decimal_places=2, default=1)
    vent = models.DecimalField(max_digits=4, decimal_places=2, default=1)
    shelves = models.PositiveSmallIntegerField(default=2)
    shelf_length_mm = models.PositiveSmallIntegerField(default=600)
    shelf_width_mm = models.PositiveSmallIntegerField(default=400)

    class Meta:
        ordering = ("id",)
        constraints = (
            models.UniqueConstraint(fields=("kitchen", "name"), name="one_oven_of_a_name"),
            models.CheckConstraint(condition=Q(kind__in=("static", "fan")), name="oven_kind"),
        )


class Cold(models.Model):
    """A refrigerator or chiller, and the air it really has."""

    kitchen = models.ForeignKey(Kitchen, models.CASCADE, related_name="colds")
    name = models.CharField(max_length=60)
    kind = models.CharField(max_length=12)
    air_c = models.DecimalField(max_digits=4, decimal_places=1, default=3)
    trays = models.PositiveSmallIntegerField(default=12)

    class Meta:
        ordering = ("id",)
        constraints = (
            models.UniqueConstraint(fields=("kitchen", "name"), name="one_cold_of_a_name"),
            models.CheckConstraint(
                condition=Q(kind__in=("fridge", "still_fridge", "blast")), name="cold_kind"
            ),
            models.CheckConstraint(condition=Q(air_c__gte=-40, air_c__lte=15), name="cold_air"),
        )


class Vessel(models.Model):
    """A vessel of the kitchen's own, by its inside measures in tenths of a millimetre.

    A round one has its diameters in ``top_dmm`` and ``bottom_dmm`` and may be fluted; one with
    corners its length in ``top_dmm`` and its width in ``width_dmm``.
    """

    id = models.UUIDField(primary_key=True, default=uuid.uuid4)
    kitchen = models.ForeignKey(Kitchen, models.CASCADE, related_name="vessels")
    name = models.CharField(max_length=80)
    kind = models.CharField(max_length=10, default="glass")
    shape = models.CharField(max_length=5, default="round")
    top_dmm = models.PositiveSmallIntegerField()
    bottom_dmm = models.PositiveSmallIntegerField()
    depth_dmm = models.PositiveSmallIntegerField()
    width_dmm = models.PositiveSmallIntegerField(default=0)
    flute_dmm = models.PositiveSmallIntegerField(default=0)
    wall_dmm = models.PositiveSmallIntegerField(default=30)
    # What it is made of, a name the core knows; empty: nobody said.
    material = models.CharField(max_length=10, default="", blank=True)
    brim_ml = models.PositiveIntegerField(null=True, blank=True)
    # How many there are; null: nobody counted, and there are always enough.
    count = models.PositiveSmallIntegerField(null=True, blank=True)

    class Meta:
        ordering = ("name",)
        constraints = (
            models.UniqueConstraint(fields=("kitchen", "name"), name="one_vessel_of_a_name"),
            models.CheckConstraint(
                condition=Q(
                    top_dmm__gte=100, top_dmm__lte=9000, depth_dmm__gte=10, depth_dmm__lte=4000
                ),
                name="vessel_measures",
            ),
            models.CheckConstraint(
                condition=Q(kind__in=("glass", "ring", "shell", "mould", "pan")),
                name="vessel_kind",
            ),
            models.CheckConstraint(
                condition=Q(shape__in=("round", "rect", "oval")), name="vessel_shape"
            ),
        )

    def core(self) -> CoreVessel:
        """The vessel as the core knows it."""
        is_round = self.shape == "round"
        return vessel_from_measures(
            self.shape,  # type: ignore[arg-type]
            self.depth_dmm / 10,
            top_mm=self.top_dmm / 10 if is_round else 0.0,
            bottom_mm=self.bottom_dmm / 10 if is_round else 0.0,
            length_mm=0.0 if is_round else self.top_dmm / 10,
            width_mm=0.0 if is_round else self.width_dmm / 10,
            flute_mm=self.flute_dmm / 10,
            wall_mm=self.wall_dmm / 10,
            material=self.material,
            brim_ml=self.brim_ml,
            key=str(self.id),
            name=self.name,
        )


class PantryItem(models.Model):
    """An ingredient the kitchen describes itself, percentages by mass from its label."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4)
    kitchen = models.ForeignKey(Kitchen, models.CASCADE, related_name="pantry")
    name = models.CharField(max_length=80)
    category = models.CharField(max_length=20, default="own")
    fat_pct = models.DecimalField(max_digits=4, decimal_places=1)
    sugars_pct = models.DecimalField(max_digits=4, decimal_places=1)
    protein_pct = models.DecimalField(max_digits=4, decimal_places=1)
    starch_pct = models.DecimalField(max_digits=4, decimal_places=1, default=0)
    water_pct = models.DecimalField(max_digits=4, decimal_places=1, null=True, blank=True)
    g_per_us_cup = models.DecimalField(max_digits=5, decimal_places=1, null=True, blank=True)
    g_per_piece = models.DecimalField(max_digits=6, decimal_places=2, null=True, blank=True)
    allergens = models.CharField(max_length=120, null=True, blank=True)  # null: nobody has said

    class Meta:
        ordering = ("name",)
        constraints = (
            models.UniqueConstraint(fields=("kitchen", "name"), name="one_item_of_a_name"),
            models.CheckConstraint(
                condition=Q(
                    fat_pct__gte=0, sugars_pct__gte=0, protein_pct__gte=0, starch_pct__gte=0
                ),
                name="pantry_not_negative",
            ),
        )

    @property
    def contains(self) -> list[Allergen] | None:
        """Its allergens; None where nobody has said."""
        if self.allergens is None:
            return None
        return [key for key in ALLERGENS if key in self.allergens.split("|")]

    def core(self) -> Ingredient:
        """The entry as the core knows it. Raises CraftError when it does not add up."""
        return from_label(
            f"own_{self.id.hex[:12]}",
            self.name,
            category=self.category,
            fat_pct=float(self.fat_pct),
            sugars_pct=float(self.sugars_pct),
            protein_pct=float(self.protein_pct),
            starch_pct=float(self.starch_pct),
            water_pct=None if self.water_pct is None else float(self.water_pct),
            g_per_us_cup=None if self.g_per_us_cup is None else float(self.g_per_us_cup),
            g_per_piece=None if self.g_per_piece is None else float(self.g_per_piece),
            allergens=self.contains,
        )


class Price(models.Model):
    """What the kitchen pays for an amount of something, in hundredths of its money."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4)
    kitchen = models.ForeignKey(Kitchen, models.CASCADE, related_name="prices")
    line = models.CharField(max_length=120)
    cents = models.PositiveIntegerField()
    ingredient = models.CharField(max_length=60)
    grams = models.DecimalField(max_digits=10, decimal_places=2)

    class Meta:
        ordering = ("line",)
        constraints = (
            models.UniqueConstraint(
                fields=("kitchen", "ingredient"), name="one_price_an_ingredient"
            ),
            models.CheckConstraint(condition=Q(grams__gt=0), name="price_for_something"),
        )


class OwnWord(models.Model):
    """What this kitchen calls an ingredient (its key)."""

    kitchen = models.ForeignKey(Kitchen, models.CASCADE, related_name="words")
    said = models.CharField(max_length=120)
    ingredient = models.CharField(max_length=60)

    class Meta:
        ordering = ("said",)
        constraints = (
            models.UniqueConstraint(fields=("kitchen", "said"), name="one_meaning_of_a_word"),
        )


class OwnWeight(models.Model):
    """What one can, pack or piece of an ingredient (its key) weighs in this kitchen."""

    kitchen = models.ForeignKey(Kitchen, models.CASCADE, related_name="weights")
    ingredient = models.CharField(max_length=60)
    unit = models.CharField(max_length=5)
    grams = models.FloatField()

    class Meta:
        ordering = ("ingredient", "unit")
        constraints = (
            models.UniqueConstraint(
                fields=("kitchen", "ingredient", "unit"), name="one_weight_of_a_pack"
            ),
            models.CheckConstraint(
                condition=Q(unit__in=("can", "pack", "piece"), grams__gt=0), name="weight_of_a_pack"
            ),
        )


LESSONS = ("ring", "loss", "pot", "oven", "film", "vent", "recovers", "set", "line")


class Lesson(models.Model):
    """What the kitchen's batches teach of a ring, what it loses, a pot, an oven and its figures, or
    its set: ``mean`` with ``sd`` from ``n`` batches. ``by_hand`` is put in its place by somebody
    who knows better; one that is not ``on`` is shown and not used; batches before ``since`` do not
    count (a ring was replaced)."""

    kitchen = models.ForeignKey(Kitchen, models.CASCADE, related_name="lessons")
    kind = models.CharField(max_length=8)
    name = models.CharField(max_length=120)
    mean = models.FloatField()
    sd = models.FloatField()
    n = models.PositiveIntegerField(default=0)
    seen = models.JSONField(default=list)
    on = models.BooleanField(default=True)
    by_hand = models.FloatField(null=True, blank=True)
    since = models.DateTimeField(null=True, blank=True)

    class Meta:
        ordering = ("kind", "name")
        constraints = (
            models.UniqueConstraint(fields=("kitchen", "kind", "name"), name="one_lesson"),
            models.CheckConstraint(condition=Q(kind__in=LESSONS), name="lesson_kind"),
        )

    @property
    def value(self) -> float | None:
        """What a prediction takes; None where there is nothing to take."""
        if not self.on:
            return None
        return self.by_hand if self.by_hand is not None else (self.mean if self.n else None)
