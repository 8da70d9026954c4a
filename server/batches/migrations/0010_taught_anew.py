from django.db import migrations


class Migration(migrations.Migration):
    """What older batches teach is worked out again: their heatings also tell what a ring loses."""

    dependencies = (("batches", "0009_weighed"),)
    operations = (
        migrations.RunSQL("UPDATE batches_batch SET taught = NULL", migrations.RunSQL.noop),
    )
