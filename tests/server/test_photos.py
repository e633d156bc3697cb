"""Photos of a trip: kept once, made small, with nothing in them but the picture."""

from __future__ import annotations

import io
import struct
import uuid
import zlib
from typing import Any

import pytest
from PIL import Image

from trips.actions import keep_photo
from trips.models import Photo

pytestmark = pytest.mark.django_db


@pytest.fixture(autouse=True)
def own_folder(settings: Any, tmp_path: Any) -> None:
    settings.PHOTOS = tmp_path / "photos"


def picture(kind: str = "JPEG", size: tuple[int, int] = (300, 200), **how: Any) -> bytes:
    out = io.BytesIO()
    Image.linear_gradient("L").resize(size).convert("RGB").save(out, kind, **how)
    return out.getvalue()


def with_place() -> bytes:
    """A picture that says where it was taken, by what, and that it lies on its side."""
    exif = Image.Exif()
    exif[0x010F] = "Some maker"
    exif[0x0112] = 6  # to be turned a quarter to the right
    exif.get_ifd(0x8825)[2] = (44.0, 0.0, 38.2)
    return picture(exif=exif.tobytes(), comment=b"secret spot")


def bomb() -> bytes:
    """A PNG of a few hundred bytes that says it is 60 000 by 60 000."""
    def chunk(kind: bytes, data: bytes) -> bytes:
        check = struct.pack(">I", zlib.crc32(kind + data))
        return struct.pack(">I", len(data)) + kind + data + check

    head = struct.pack(">IIBBBBB", 60_000, 60_000, 8, 2, 0, 0, 0)
    return b"\x89PNG\r\n\x1a\n" + chunk(b"IHDR", head) + chunk(
        b"IDAT", zlib.compress(b"\0" * 100_000)
    ) + chunk(b"IEND", b"")


def path(trip: Any, photo: str | uuid.UUID) -> str:
    return f"/api/trips/{trip.pk}/photos/{photo}/"


def put(client: Any, trip: Any, data: bytes, photo: Any = None, kind: str = "image/jpeg") -> Any:
    return client.put(path(trip, photo or uuid.uuid4()), data, content_type=kind)


def test_a_photo_is_kept_once_and_given_back(client_in: Any, demo: Any):
    key = uuid.uuid4()
    for data in (picture(), picture(size=(900, 900))):
        answer = put(client_in, demo, data, key)
        assert answer.status_code == 200
        # What is kept stays: a second sending of the same is no other picture.
        assert (answer.json()["width_px"], answer.json()["height_px"]) == (300, 200)
    assert Photo.objects.count() == 1
    seen = client_in.get(path(demo, key))
    assert (seen.status_code, seen["Content-Type"]) == (200, "image/jpeg")
    assert seen["X-Content-Type-Options"] == "nosniff"
    assert Image.open(io.BytesIO(seen.getvalue())).size == (300, 200)
    assert Photo.objects.get().file.stat().st_mode & 0o777 == 0o600


@pytest.mark.parametrize("kind", ["PNG", "WEBP", "JPEG"])
def test_other_kinds_and_large_ones_become_a_small_jpeg(client_in: Any, demo: Any, kind: str):
    answer = put(client_in, demo, picture(kind, (5000, 2500)), kind=f"image/{kind.lower()}")
    assert (answer.json()["width_px"], answer.json()["height_px"]) == (2048, 1024)
    assert Image.open(Photo.objects.get().file).format == "JPEG"


def test_place_camera_and_comment_are_dropped_and_it_stands_upright(client_in: Any, demo: Any):
    data = with_place()
    assert Image.open(io.BytesIO(data)).getexif()
    put(client_in, demo, data)
    kept = Photo.objects.get()
    seen = Image.open(kept.file)
    assert seen.size == (200, 300)
    assert not seen.getexif()
    assert b"secret" not in kept.file.read_bytes()
    assert b"maker" not in kept.file.read_bytes()


@pytest.mark.parametrize(("data", "said"), [
    (b"", "nothing"),
    (b"<svg xmlns='http://www.w3.org/2000/svg' onload='alert(1)'/>", "picture"),
    (b"GIF89a" + bytes(40), "picture"),
    (picture()[:400], "picture"),
    (picture("PNG")[:200], "picture"),
    (bomb(), "picture"),
    (picture(size=(7000, 7000)), "million"),
], ids=["empty", "svg", "gif", "cut", "cut png", "bomb", "huge"])
def test_what_is_no_photo_is_told_and_leaves_nothing(
    client_in: Any, demo: Any, settings: Any, data: bytes, said: str
):
    answer = put(client_in, demo, data)
    assert (answer.status_code, answer.json()["field"]) == (422, "photo")
    assert said in answer.json()["message"]
    assert not Photo.objects.exists()
    assert not list(settings.PHOTOS.rglob("*.*"))


def test_too_many_bytes_a_wrong_type_and_too_many_photos_are_refused(
    client_in: Any, demo: Any, monkeypatch: Any
):
    assert put(client_in, demo, bytes(keep_photo.MOST_BYTES + 1)).status_code == 413
    assert put(client_in, demo, picture(), kind="application/json").status_code in (400, 415)
    monkeypatch.setattr(keep_photo, "MOST_PHOTOS", 1)
    assert put(client_in, demo, picture()).status_code == 200
    assert put(client_in, demo, picture()).status_code == 422
    assert Photo.objects.count() == 1


def test_an_id_of_another_trip_is_refused_and_nobody_else_sees_it(
    client_in: Any, stranger: Any, demo: Any, user: Any
):
    key = uuid.uuid4()
    put(client_in, demo, picture(), key)
    other = user.trips.exclude(pk=demo.pk).first()
    assert put(client_in, other, picture(), key).status_code == 409
    assert client_in.get(path(other, key)).status_code == 404
    assert stranger.get(path(demo, key)).status_code == 404
    assert put(stranger, demo, picture()).status_code == 404


def test_review_lists_what_the_record_tells_and_which_have_come_in(client_in: Any, demo: Any):
    fish, view = str(uuid.uuid4()), str(uuid.uuid4())
    at_s = demo.events.last().at_s
    landed = str(uuid.uuid4())
    sent = client_in.post(f"/api/trips/{demo.pk}/events/", {"events": [
        {"id": landed, "at_s": at_s + 1, "type": "landed",
         "payload": {"rod_id": "rod-3", "kept": True, "length_m": 0.4, "photo_id": fish}},
        {"id": str(uuid.uuid4()), "at_s": at_s + 2, "type": "noted",
         "payload": {"kind": "note", "text": "", "photo_id": view}},
    ]}, format="json")
    assert sent.status_code == 200
    put(client_in, demo, picture(), fish)
    listed = client_in.get(f"/api/trips/{demo.pk}/photos/").json()["photos"]
    assert [(p["photo_id"], p["rod_id"], p["kept"], p["is_here"]) for p in listed] == [
        (fish, "rod-3", True, True), (view, None, None, False),
    ]
    # A fish that is taken back takes its photo out of the list; the picture stays kept.
    undone = {"id": str(uuid.uuid4()), "at_s": at_s + 3, "type": "undone",
              "payload": {"event_id": landed}}
    client_in.post(f"/api/trips/{demo.pk}/events/", {"events": [undone]}, format="json")
    listed = client_in.get(f"/api/trips/{demo.pk}/photos/").json()["photos"]
    assert [p["photo_id"] for p in listed] == [view]
    assert Photo.objects.count() == 1


def test_a_photo_without_an_id_and_a_note_that_shows_nothing_are_refused(
    client_in: Any, demo: Any
):
    at_s = demo.events.last().at_s
    for payload, field in (
        ({"kind": "note", "text": "", "photo_id": "../../etc"}, "events[0].payload.photo_id"),
        ({"kind": "note", "text": ""}, "events[0].payload.text"),
    ):
        answer = client_in.post(f"/api/trips/{demo.pk}/events/", {"events": [
            {"id": str(uuid.uuid4()), "at_s": at_s + 1, "type": "noted", "payload": payload}
        ]}, format="json")
        assert (answer.status_code, answer.json()["field"]) == (422, field)
