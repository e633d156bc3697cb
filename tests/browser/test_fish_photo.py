"""A photo with a fish: taken without a link, made small, delivered later, seen in Review."""

from __future__ import annotations

import io
from pathlib import Path
from typing import Any

from opening import open_demo
from PIL import Image
from playwright.sync_api import expect

from running import ApiUser, RunningServer


def camera_picture(folder: Path) -> Path:
    exif = Image.Exif()
    exif[0x010F] = "Some maker"
    path = folder / "fish.jpg"
    Image.linear_gradient("L").resize((3200, 1600)).convert("RGB").save(path, exif=exif.tobytes())
    return path


def test_a_photo_waits_for_a_link_and_is_seen_in_review(
    make_context: Any, server: RunningServer, tmp_path: Path
):
    context = make_context(390, 844)
    page = context.new_page()
    open_demo(page, server.url)
    context.set_offline(True)
    page.get_by_test_id("strip-rod-3").click()
    page.get_by_test_id("hooked-rod-3").click()
    page.get_by_test_id("landed-rod-3").click()
    page.get_by_test_id("photo-file").set_input_files(
        files=[{"name": "x.jpg", "mimeType": "image/jpeg", "buffer": b"no picture"}]
    )
    expect(page.get_by_test_id("landed-dialog")).to_contain_text("cannot read it as a picture")
    page.get_by_test_id("photo-file").set_input_files(camera_picture(tmp_path))
    expect(page.get_by_test_id("photo-thumb")).to_be_visible()
    page.get_by_test_id("length-16").click()
    page.get_by_test_id("kept").click()
    page.get_by_test_id("landed-dialog").wait_for(state="hidden")
    context.set_offline(False)
    user = ApiUser(server.url)
    trip = next(t["id"] for t in user.get("/api/trips/")["trips"] if t["name"] == "April morning")
    for _ in range(100):
        listed = user.get(f"/api/trips/{trip}/photos/")["photos"]
        if listed and listed[0]["is_here"]:
            break
        page.wait_for_timeout(200)
    assert [(p["rod_id"], p["kept"], p["is_here"]) for p in listed] == [("rod-3", True, True)]
    raw = user.opener.open(f"{server.url}/api/trips/{trip}/photos/{listed[0]['photo_id']}/").read()
    kept = Image.open(io.BytesIO(raw))
    assert kept.size == (1600, 800)
    assert not kept.getexif()
    page.get_by_role("link", name="Review").click()
    picture = page.get_by_test_id("photos").get_by_role("img")
    expect(page.get_by_test_id("photos")).to_contain_text("trout, 16 in, kept, Rod 3")
    expect(picture).to_have_js_property("naturalWidth", 1600)
