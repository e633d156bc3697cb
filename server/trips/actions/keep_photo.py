"""Keep a picture of a trip: read with care, made smaller, with nothing in it but the picture."""

from __future__ import annotations

import io
import os
import warnings
from dataclasses import dataclass
from typing import Final
from uuid import UUID

from PIL import Image, ImageOps, UnidentifiedImageError

from coldwake_core.errors import InvalidInputError
from common.errors import ConflictError, TooLargeError

from ..models import Photo, Trip

MOST_BYTES: Final = 8_000_000
MOST_PIXELS: Final = 40_000_000
"""More than any phone's camera makes of a picture that is meant to be seen."""
SIDE_PX: Final = 2048
QUALITY: Final = 85
MOST_PHOTOS: Final = 200
FORMATS: Final = ("JPEG", "PNG", "WEBP")
REMEDY: Final = "a JPEG, PNG or WebP picture"


@dataclass(frozen=True, kw_only=True)
class KeepPhoto:
    """Keep a picture under the id that the record names it by."""

    trip: Trip
    photo_id: UUID
    data: bytes

    def execute(self) -> Photo:
        """Return the photo; one that is kept already is left as it is.

        Raises InvalidInputError for what is no picture, TooLargeError and ConflictError.
        """
        kept = Photo.objects.filter(pk=self.photo_id).first()
        if kept is not None and kept.trip_id != self.trip.pk:
            raise ConflictError({"photo_id": [f"{self.photo_id} must be new: make another UUID."]})
        if kept is not None and kept.file.exists():
            return kept
        if self.trip.photos.count() >= MOST_PHOTOS:
            raise InvalidInputError("photo", MOST_PHOTOS, f"one of at most {MOST_PHOTOS} of a trip")
        picture = opened(self.data)
        photo = kept or Photo(
            pk=self.photo_id, trip=self.trip, width_px=picture.width, height_px=picture.height
        )
        photo.file.parent.mkdir(parents=True, exist_ok=True, mode=0o700)
        # Whole or not at all, readable by its owner alone.
        half = photo.file.with_suffix(".half")
        with open(os.open(half, os.O_WRONLY | os.O_CREAT | os.O_TRUNC, 0o600), "wb") as out:
            picture.save(out, "JPEG", quality=QUALITY)
            out.flush()
            os.fsync(out.fileno())
        half.replace(photo.file)
        photo.save()
        return photo


def opened(data: bytes) -> Image.Image:
    """Return a picture, upright and small enough, without place, camera or anything else.

    Its size is looked at before it is unpacked: a few bytes may unpack to more than there is room.
    """
    if len(data) > MOST_BYTES:
        raise TooLargeError(f"The photo is larger than {MOST_BYTES // 10**6} MB: send a smaller.")
    if not data:
        raise InvalidInputError("photo", "nothing", REMEDY)
    try:
        with warnings.catch_warnings():
            warnings.simplefilter("error", Image.DecompressionBombWarning)
            found = Image.open(io.BytesIO(data), formats=FORMATS)
            if found.width * found.height > MOST_PIXELS:
                raise InvalidInputError(
                    "photo", f"{found.width} by {found.height} points",
                    f"a picture of at most {MOST_PIXELS // 1_000_000} million points",
                )
            found.draft("RGB", (SIDE_PX, SIDE_PX))
            picture = ImageOps.exif_transpose(found).convert("RGB")
    except (Image.DecompressionBombWarning, Image.DecompressionBombError):
        raise InvalidInputError("photo", "a bomb", "a picture of a usual size") from None
    except (UnidentifiedImageError, OSError, ValueError, SyntaxError, EOFError):
        raise InvalidInputError("photo", "what came", REMEDY) from None
    picture.thumbnail((SIDE_PX, SIDE_PX))
    # Only the points go on: no place, no camera, no comment, no preview.
    bare = Image.new("RGB", picture.size)
    bare.paste(picture)
    return bare
