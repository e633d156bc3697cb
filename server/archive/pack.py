"""Everything of an account into one file: lines of JSON, a kind in each file, and the pictures."""

from __future__ import annotations

import io
import json
import zipfile
from collections.abc import Callable
from pathlib import Path
from typing import IO, Any

from django.core import serializers

from common.middleware import version
from trips.models import Photo

from .parts import FORMAT, PARTS


def pack(owner: Any, out: IO[bytes] | Path, told: Callable[[str], None] = lambda _: None) -> None:
    """Write an account's archive; ``told`` hears how far it is."""
    counts: dict[str, int] = {}
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED, compresslevel=1) as archive:
        for name, _, mine in PARTS:
            rows = mine(owner.pk).order_by("pk")
            counts[name] = rows.count()
            told(f"{name}: {counts[name]}")
            with archive.open(f"{name}.jsonl", "w", force_zip64=True) as raw:
                text = io.TextIOWrapper(raw, "utf-8", newline="\n")
                serializers.serialize("jsonl", rows.iterator(chunk_size=2000), stream=text)
                text.flush()
                text.detach()
        for photo in Photo.objects.filter(trip__owner_id=owner.pk).iterator():
            if photo.file.exists():
                archive.write(photo.file, f"photos/{photo.pk}.jpg", zipfile.ZIP_STORED)
        archive.writestr("manifest.json", json.dumps({
            "format": FORMAT, "version": version(), "account": owner.get_username(),
            "counts": counts,
        }))
