"""An account out of its archive, into an account that has nothing yet: all of it or none."""

from __future__ import annotations

import json
import zipfile
from collections.abc import Callable, Iterator
from pathlib import Path
from typing import Any, Final

from django.core.exceptions import ValidationError
from django.db import DatabaseError, transaction
from django.db.models import ForeignKey, Model

from coldwake_core.errors import CoreError
from coldwake_core.record.old import read_trip
from locker.models import Outfit
from trips.actions.keep_photo import MOST_BYTES, KeepPhoto
from trips.models import Photo, Trip
from waters.chart_out import chart_of, features_of
from waters.models import Water

from .parts import FORMAT, PARTS

MOST_LINE: Final = 20_000_000
MOST_ALL: Final = 4_000_000_000
AT_ONCE: Final = 1000


class ArchiveError(Exception):
    """An archive that cannot be taken; the text says why and what to do."""


def unpack(owner: Any, path: Path, told: Callable[[str], None] = lambda _: None) -> None:
    """Put an archive's rows and pictures into an account; raises ArchiveError with nothing kept."""
    for name, _, mine in PARTS:
        if mine(owner.pk).exists():
            raise ArchiveError(f"{owner} has {name} already: take a new account for an archive.")
    try:
        with zipfile.ZipFile(path) as archive:
            parts = _check(archive)
            with transaction.atomic():
                keys: dict[tuple[type[Model], Any], Any] = {}
                for name, model, _ in PARTS:
                    # One of an earlier version has fewer kinds.
                    if model is not Photo and name in parts:
                        told(f"{name}: {_rows(archive, name, model, owner, keys)}")
                _look(owner)
                told(f"photos: {_photos(archive, owner)}")
    except (zipfile.BadZipFile, KeyError, OSError, UnicodeDecodeError) as error:
        raise ArchiveError(f"{path} is no whole archive ({error}): make it anew.") from None
    except (DatabaseError, ValidationError, ValueError, TypeError, CoreError) as error:
        raise ArchiveError(f"{path} holds what cannot be ({error}): make it anew.") from None


def _check(archive: zipfile.ZipFile) -> frozenset[str]:
    # By the directory's word; reading goes by its own bounds.
    if sum(item.file_size for item in archive.infolist()) > MOST_ALL:
        raise ArchiveError("The archive unpacks to more than 4 GB: it is none of ours.")
    with archive.open("manifest.json") as file:
        manifest = json.loads(file.read(100_000))
    if not isinstance(manifest, dict) or manifest.get("format") != FORMAT:
        raise ArchiveError("The archive was written by a newer version: upgrade first.")
    counts = manifest.get("counts")
    if not isinstance(counts, dict) or "trips" not in counts:
        raise ArchiveError("The archive does not say what is in it: make it anew.")
    return frozenset(counts)


def _lines(archive: zipfile.ZipFile, name: str) -> Iterator[dict[str, Any]]:
    with archive.open(f"{name}.jsonl") as lines:
        while line := lines.readline(MOST_LINE + 1):
            if len(line) > MOST_LINE:
                raise ArchiveError(f"{name}.jsonl has a line of over 20 MB: it is none of ours.")
            row = json.loads(line)
            if not isinstance(row, dict) or not isinstance(row.get("fields"), dict):
                raise ArchiveError(f"{name}.jsonl has a line that is no row: make it anew.")
            yield row


def _rows(
    archive: zipfile.ZipFile, name: str, model: type[Model], owner: Any,
    keys: dict[tuple[type[Model], Any], Any],
) -> int:
    """Make a kind's rows: their own keys anew where the database numbers them."""
    is_counted = model._meta.pk.get_internal_type().endswith("AutoField")
    count, waiting, before = 0, [], []
    for row in _lines(archive, name):
        made = _made(model, row, owner, keys, is_counted)
        waiting.append(made)
        before.append(str(row["pk"]))
        count += 1
        if len(waiting) == AT_ONCE:
            _keep(model, waiting, before, keys)
    _keep(model, waiting, before, keys)
    return count


def _keep(
    model: type[Model], waiting: list[Any], before: list[str],
    keys: dict[tuple[type[Model], Any], Any],
) -> None:
    model._default_manager.bulk_create(waiting)
    # Nothing stands on an event: its key need not be remembered.
    if model in {Outfit, Water, Trip} or model._meta.model_name == "tacklepiece":
        for old, row in zip(before, waiting, strict=True):
            keys[model, old] = row.pk
    waiting.clear()
    before.clear()


def _made(
    model: type[Model], row: dict[str, Any], owner: Any,
    keys: dict[tuple[type[Model], Any], Any], is_counted: bool,
) -> Model:
    made = model()
    for field in model._meta.concrete_fields:
        if field.primary_key:
            if not is_counted:
                setattr(made, field.attname, field.to_python(row["pk"]))
            continue
        if field.name not in row["fields"]:
            continue  # an archive of an earlier version: the default stands
        value = row["fields"][field.name]
        if isinstance(field, ForeignKey):
            if field.name == "owner":
                value = owner.pk
            elif value is not None:
                value = keys[field.related_model, str(value)]
            setattr(made, field.attname, value)
        else:
            setattr(made, field.attname, field.to_python(value))
    return made


def _look(owner: Any) -> None:
    """Read what was made as the program will; raises CoreError for what it could not."""
    for outfit in Outfit.objects.filter(owner_id=owner.pk):
        outfit.core()
    for water in Water.objects.filter(owner_id=owner.pk):
        chart_of(water)
        features_of(water)
    for trip in Trip.objects.filter(owner_id=owner.pk).iterator():
        read_trip(trip.document())


def _photos(archive: zipfile.ZipFile, owner: Any) -> int:
    trips = {str(trip.pk): trip for trip in Trip.objects.filter(owner_id=owner.pk)}
    names = set(archive.namelist())
    count = 0
    for row in _lines(archive, "photos"):
        photo_id = Photo._meta.pk.to_python(row["pk"])
        name = f"photos/{photo_id}.jpg"
        if name not in names:
            continue
        with archive.open(name) as file:
            data = file.read(MOST_BYTES + 1)
        KeepPhoto(trip=trips[str(row["fields"]["trip"])], photo_id=photo_id, data=data).execute()
        count += 1
    return count
