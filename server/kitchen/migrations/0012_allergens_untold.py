"""An ingredient of the kitchen's own may have allergens nobody has told.

Until now an empty text stood both for "none" and for "nobody asked", and the form did not ask.
"""

from django.db import migrations, models
from django.db.backends.base.schema import BaseDatabaseSchemaEditor
from django.db.migrations.state import StateApps


def untold(apps: StateApps, editor: BaseDatabaseSchemaEditor) -> None:
    """Take every empty text as not told: a card that says so is corrected, a silent one is not."""
    apps.get_model("kitchen", "PantryItem").objects.filter(allergens="").update(allergens=None)


def emptied(apps: StateApps, editor: BaseDatabaseSchemaEditor) -> None:
    """Back to an empty text, which the column before had for both."""
    apps.get_model("kitchen", "PantryItem").objects.filter(allergens=None).update(allergens="")


class Migration(migrations.Migration):

    dependencies = [("kitchen", "0011_a_ring_loses")]

    operations = [
        migrations.AlterField(
            model_name="pantryitem",
            name="allergens",
            field=models.CharField(blank=True, max_length=120, null=True),
        ),
        migrations.RunPython(untold, emptied),
    ]
