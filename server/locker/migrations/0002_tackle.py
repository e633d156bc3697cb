"""Tackle out of the outfits into a locker of its own, with how many are aboard each boat."""

from typing import Any

import django.db.models.deletion
from django.conf import settings
from django.db import migrations, models

LISTS = {"lines": "line", "attractors": "attractor", "lures": "lure"}


def to_locker(apps: Any, schema_editor: Any) -> None:
    """Move every outfit's tackle to its owner's locker; the same key is the same piece."""
    outfits, pieces = apps.get_model("locker", "Outfit"), apps.get_model("locker", "TacklePiece")
    aboard = apps.get_model("locker", "Aboard")
    for outfit in outfits.objects.all():
        for name, kind in LISTS.items():
            for item in outfit.data.pop(name, []):
                key, count = item.pop("id"), item.pop("count", 1)
                piece, _ = pieces.objects.get_or_create(
                    owner_id=outfit.owner_id, kind=kind, key=key,
                    defaults={"name": item.get("name", key)[:60], "data": item},
                )
                aboard.objects.create(outfit=outfit, piece=piece, count=max(count, 1))
        outfit.save()


def to_outfits(apps: Any, schema_editor: Any) -> None:
    """Put it back where it was."""
    for row in apps.get_model("locker", "Aboard").objects.select_related("outfit", "piece"):
        for name, kind in LISTS.items():
            if row.piece.kind == kind:
                outfit = apps.get_model("locker", "Outfit").objects.get(pk=row.outfit_id)
                outfit.data.setdefault(name, []).append({**row.piece.data, "id": row.piece.key})
                outfit.save()


class Migration(migrations.Migration):
    """Add pieces and what is aboard."""

    dependencies = [
        ("locker", "0001_initial"),
        migrations.swappable_dependency(settings.AUTH_USER_MODEL),
    ]

    operations = [
        migrations.AlterField(
            "outfit", "data",
            models.JSONField(
                help_text="boat_name, boat_length_m, rods and places of coldwake_core's Outfit, "
                "SI units"
            ),
        ),
        migrations.CreateModel(
            name="TacklePiece",
            fields=[
                ("id", models.BigAutoField(
                    auto_created=True, primary_key=True, serialize=False, verbose_name="ID")),
                ("kind", models.CharField(max_length=20)),
                ("key", models.CharField(help_text="the core's id of the piece", max_length=40)),
                ("name", models.CharField(max_length=60)),
                ("data", models.JSONField(
                    help_text="a piece of coldwake_core.gear as JSON, SI units")),
                ("is_retired", models.BooleanField(default=False)),
                ("owner", models.ForeignKey(
                    on_delete=django.db.models.deletion.CASCADE, related_name="pieces",
                    to=settings.AUTH_USER_MODEL)),
            ],
            options={"ordering": ("kind", "name", "key")},
        ),
        migrations.AddConstraint(
            "tacklepiece",
            models.UniqueConstraint(fields=("owner", "kind", "key"), name="one_key_a_kind"),
        ),
        migrations.CreateModel(
            name="Aboard",
            fields=[
                ("id", models.BigAutoField(
                    auto_created=True, primary_key=True, serialize=False, verbose_name="ID")),
                ("count", models.PositiveSmallIntegerField()),
                ("outfit", models.ForeignKey(
                    on_delete=django.db.models.deletion.CASCADE, related_name="aboard",
                    to="locker.outfit")),
                ("piece", models.ForeignKey(
                    on_delete=django.db.models.deletion.CASCADE, related_name="aboard",
                    to="locker.tacklepiece")),
            ],
        ),
        migrations.AddConstraint(
            "aboard",
            models.UniqueConstraint(fields=("outfit", "piece"), name="one_row_a_piece"),
        ),
        migrations.RunPython(to_locker, to_outfits),
    ]
