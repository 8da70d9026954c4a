from django.db import migrations

_NAME = "LEFT(COALESCE(JSON_UNQUOTE(JSON_EXTRACT(prediction, '$.plan.{key}')), ''), {most})"


class Migration(migrations.Migration):
    """What older batches were of and where they were, from their frozen predictions."""

    dependencies = (("batches", "0007_looked_at"),)
    operations = (
        migrations.RunSQL(
            "UPDATE batches_batch SET "
            f"family_name = {_NAME.format(key='family', most=80)}, "
            f"place_name = {_NAME.format(key='ring', most=60)}",
            migrations.RunSQL.noop,
        ),
    )
