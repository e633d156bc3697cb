"""Everything of an account in one file, and back into a new account."""

from __future__ import annotations

import io
import json
import uuid
import zipfile
from pathlib import Path
from typing import Any

import pytest
from django.contrib.auth import get_user_model
from PIL import Image

from archive.pack import pack
from archive.unpack import ArchiveError, unpack
from instruments.models import Listening
from locker.models import Aboard, Outfit, TacklePiece
from practice.models import LessonProgress, PracticeDay
from seasons.models import NotedCatch
from trips.actions.keep_photo import KeepPhoto
from trips.models import Event, Photo, Trip
from waters.models import Survey, Water

pytestmark = pytest.mark.django_db


@pytest.fixture(autouse=True)
def own_folder(settings: Any, tmp_path: Path) -> None:
    settings.PHOTOS = tmp_path / "photos"


def told(owner: Any) -> dict[str, Any]:
    """Everything that an account says, without the numbers that a database gives."""
    trips = Trip.objects.filter(owner=owner).order_by("pk")
    return {
        "trips": [
            (trip.document(), trip.is_ended, trip.boat and trip.boat.name,
             trip.water and trip.water.name, [e.document() for e in trip.events.order_by("seq")])
            for trip in trips
        ],
        "waters": sorted(
            (w.name, json.dumps([w.chart, w.features, w.rules, w.below_m, w.timezone]),
             [json.dumps(s.points) for s in w.surveys.order_by("pk")])
            for w in Water.objects.filter(owner=owner)
        ),
        "boats": sorted(
            (o.name, json.dumps(o.data), sorted((a.piece.key, a.count) for a in o.aboard.all()))
            for o in Outfit.objects.filter(owner=owner)
        ),
        "pieces": sorted(
            (p.kind, p.key, json.dumps(p.data), p.is_retired)
            for p in TacklePiece.objects.filter(owner=owner)
        ),
        "plans": sorted(json.dumps(p.document) for p in owner.plans.all()),
        "listening": [one.sources for one in Listening.objects.filter(owner=owner)],
        "photos": [
            (str(p.pk), str(p.trip_id), p.file.exists())
            for p in Photo.objects.filter(trip__owner=owner).order_by("pk")
        ],
    }


def jpeg() -> bytes:
    out = io.BytesIO()
    Image.new("RGB", (64, 48), "navy").save(out, "JPEG")
    return out.getvalue()


@pytest.fixture
def packed(user: Any, demo: Any, tmp_path: Path) -> Path:
    Listening.objects.create(owner=user, sources=[{"id": "a"}])
    KeepPhoto(trip=demo, photo_id=uuid.uuid4(), data=jpeg()).execute()
    path = tmp_path / "all.zip"
    pack(user, path)
    return path


def newcomer() -> Any:
    return get_user_model().objects.create_user("newcomer", password="a long secret 1")


def test_an_account_goes_out_and_comes_back_as_it_was(user: Any, packed: Path):
    before = told(user)
    assert len(before["trips"]) == 4
    assert before["plans"]
    assert before["photos"]
    counts = {model: model.objects.count() for model in (Event, Aboard, Survey)}
    for photo in Photo.objects.all():
        photo.file.unlink()
    user.delete()
    assert Trip.objects.count() == 0
    other = newcomer()
    Water.objects.create(
        owner=get_user_model().objects.create_user("third"), name="x", deepest_m=1.0,
        latitude_deg=0.0, longitude_deg=0.0, utc_offset_min=0,
    )
    unpack(other, packed)
    assert told(other) == before
    assert {model: model.objects.count() for model in counts} == counts


def test_a_practised_day_and_noted_fish_go_along(user: Any, demo: Trip, tmp_path: Path):
    PracticeDay.objects.create(trip=demo, seed=5, minutes=70, looked_s=0.0, path=[])
    NotedCatch.objects.create(
        owner=user, source="x.csv", key="k", day="2024-05-01", species="trout"
    )
    LessonProgress.objects.create(owner=user, lesson="marks", seed=4, asked=9, right=7, best=5)
    path = tmp_path / "all.zip"
    pack(user, path)
    user.delete()
    other = newcomer()
    unpack(other, path)
    learnt = LessonProgress.objects.get()
    assert (learnt.owner, learnt.lesson, learnt.asked, learnt.best) == (other, "marks", 9, 5)
    day = PracticeDay.objects.get()
    assert (day.trip.owner, day.seed, day.minutes) == (other, 5, 70)
    noted = NotedCatch.objects.get()
    assert (noted.owner, noted.day.isoformat()) == (other, "2024-05-01")


def test_an_archive_of_an_earlier_version_lacks_kinds_and_is_taken(
    user: Any, packed: Path, tmp_path: Path
):
    with zipfile.ZipFile(packed) as whole:
        manifest = json.loads(whole.read("manifest.json"))
    for name in ("noted", "practice", "lessons"):
        del manifest["counts"][name]
    old = changed(
        packed, tmp_path, noted=None, practice=None, lessons=None,
        manifest=json.dumps(manifest).encode(),
    )
    user.delete()
    unpack(newcomer(), old)
    assert Trip.objects.count() == 4


def test_what_is_packed_is_the_user_s_own_and_nothing_else(
    client_in: Any, stranger: Any, packed: Path
):
    answer = client_in.get("/api/archive/")
    assert answer["Content-Type"] == "application/zip"
    whole = zipfile.ZipFile(io.BytesIO(b"".join(answer.streaming_content)))
    manifest = json.loads(whole.read("manifest.json"))
    assert manifest["counts"]["trips"] == 4
    assert len(whole.read("events.jsonl").splitlines()) == manifest["counts"]["events"] > 50
    assert len([name for name in whole.namelist() if name.startswith("photos/")]) == 1
    # No secret of the account is in it.
    assert not any(b"password" in whole.read(name) for name in whole.namelist())
    theirs = zipfile.ZipFile(io.BytesIO(
        b"".join(stranger.get("/api/archive/").streaming_content)
    ))
    counts = json.loads(theirs.read("manifest.json"))["counts"]
    assert set(counts.values()) == {0}


def changed(path: Path, tmp_path: Path, **files: bytes | None) -> Path:
    """The archive with some files another, or left out."""
    made = tmp_path / "changed.zip"
    with zipfile.ZipFile(path) as old, zipfile.ZipFile(made, "w") as new:
        for name in old.namelist():
            key = name.split(".")[0]
            data = files[key] if key in files else old.read(name)
            if data is not None:
                new.writestr(name, data)
    return made


@pytest.mark.parametrize(("files", "said"), [
    ({"events": None}, "no whole archive"),
    ({"manifest": b'{"format": 99}'}, "newer version"),
    ({"manifest": b"[]"}, "newer version"),
    ({"trips": b"nonsense\n"}, "cannot be"),
    ({"trips": b"[1]\n"}, "no row"),
    ({"boats": b""}, "no whole archive"),
    ({"waters": b'{"pk": 1, "fields": {"name": "x", "deepest_m": "deep"}}\n'}, "cannot be"),
], ids=["no events", "newer", "no manifest", "no json", "no row", "no boats", "no depth"])
def test_an_archive_that_is_broken_leaves_nothing(
    user: Any, packed: Path, tmp_path: Path, files: dict[str, bytes | None], said: str
):
    user.delete()
    other = newcomer()
    with pytest.raises(ArchiveError, match=said):
        unpack(other, changed(packed, tmp_path, **files))
    assert all(not rows for rows in told(other).values())


def test_a_hostile_chart_and_a_picture_that_is_none_leave_nothing(
    user: Any, packed: Path, tmp_path: Path
):
    with zipfile.ZipFile(packed) as whole:
        rows = [json.loads(line) for line in whole.read("waters.jsonl").splitlines()]
        photo = next(name for name in whole.namelist() if name.startswith("photos/"))
    user.delete()
    other = newcomer()
    rows[0]["fields"]["chart"] = {"rows": "x"}
    text = "\n".join(json.dumps(row) for row in rows).encode()
    for files in ({"waters": text}, {photo.split(".")[0]: b"<svg/>"}):
        with pytest.raises(ArchiveError, match="cannot be"):
            unpack(other, changed(packed, tmp_path, **files))
        assert all(not kept for kept in told(other).values())


def test_an_account_that_has_something_and_a_file_that_is_no_archive_are_told(
    user: Any, packed: Path, tmp_path: Path
):
    with pytest.raises(ArchiveError, match="already"):
        unpack(user, packed)
    nothing = tmp_path / "x.zip"
    nothing.write_bytes(b"no archive")
    with pytest.raises(ArchiveError, match="no whole archive"):
        unpack(newcomer(), nothing)
