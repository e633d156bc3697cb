"""Review as a person looks back: a trip minute by minute, its pictures, and the season."""

from __future__ import annotations

import io

from PIL import Image
from playwright.sync_api import Page, expect

from running import ApiUser, RunningServer


def test_the_season_is_counted_charted_and_read_as_a_table(signed_in: Page, server: RunningServer):
    signed_in.goto(f"{server.url}/review/season")
    expect(signed_in.get_by_test_id("season")).to_have_attribute("data-state", "ready")
    expect(signed_in.get_by_test_id("days-sentence")).to_contain_text("Most landed")
    expect(signed_in.locator("[data-test=trend-depth] canvas")).to_be_visible()
    signed_in.get_by_test_id("table-depth").click()
    expect(signed_in.locator("[data-test=trend-depth] table")).to_contain_text("ft")
    signed_in.get_by_test_id("sheet-file").set_input_files({
        "name": "before.csv", "mimeType": "text/csv",
        "buffer": b"date,lake,depth\n2024-05-13,Made-up Mere,12\nsoon,Made-up Mere,12\n",
    })
    expect(signed_in.get_by_test_id("sheet-sum")).to_contain_text("1 rows understood, 1 not")
    expect(signed_in.get_by_test_id("sheet")).to_contain_text("Guessed: depth taken as ft")
    signed_in.get_by_test_id("sheet-take").click()
    expect(signed_in.get_by_test_id("sheet-sum")).to_contain_text("1 kept now")
    signed_in.get_by_test_id("days-table").click()
    expect(signed_in.locator(".days table")).to_contain_text("Made-up Mere")


def test_a_trip_is_pushed_through_and_what_was_missed_is_told_late(
    signed_in: Page, server: RunningServer
):
    user = ApiUser(server.url)
    past = next(
        trip for trip in user.get("/api/trips/")["trips"] if trip["name"] == "Cold March morning"
    )
    hits = [e for e in user.get(f"/api/trips/{past['id']}/events/")["events"] if e["type"] == "hit"]
    signed_in.goto(f"{server.url}/review?trip={past['id']}")
    at = signed_in.get_by_test_id("scrub-at")
    expect(signed_in.get_by_test_id("scrub-said")).to_contain_text(f"{len(hits)} hits so far")
    expect(signed_in.get_by_test_id("bites").locator("tbody tr")).to_have_count(len(hits))
    expect(signed_in.get_by_test_id("bites")).to_contain_text("sun")
    # From above too: the lines that were out then, and none before the first.
    above = signed_in.get_by_test_id("scrub-above").locator("[data-test^=line-]")
    expect(above).not_to_have_count(0)
    at.fill("0")
    expect(above).to_have_count(0)
    expect(signed_in.get_by_test_id("scrub-said")).to_contain_text("0 hits so far")
    first = int((hits[0]["at_s"] - past["started_at_s"]) // 60) + 1
    at.fill(str(first))
    expect(signed_in.get_by_test_id("scrub-said")).to_contain_text("1 hit so far")
    signed_in.get_by_test_id("late-open").click()
    signed_in.get_by_test_id("late-tell").click()
    expect(signed_in.get_by_text("Told at")).to_be_visible()
    expect(signed_in.get_by_test_id("scrub-said")).to_contain_text("2 hits so far")
    expect(signed_in.get_by_test_id("bites").locator("tbody tr")).to_have_count(len(hits) + 1)
    told = user.get(f"/api/trips/{past['id']}/events/")["events"]
    assert len([e for e in told if e["type"] == "hit"]) == len(hits) + 1
    # What never was is taken back with all that was told of it: it stands no more, its events do.
    row = signed_in.get_by_test_id("bites").locator("tbody tr").first
    first_bite = user.get(f"/api/seasons/bites/{past['id']}/")[0]["told"]
    row.get_by_test_id("bite-undo").click()
    expect(row.get_by_test_id("bite-undo")).to_contain_text("Press again")
    row.get_by_test_id("bite-undo").click()
    expect(signed_in.get_by_test_id("bites").locator("tbody tr")).to_have_count(len(hits))
    after = user.get(f"/api/trips/{past['id']}/events/")["events"]
    undone = {e["payload"]["event_id"] for e in after if e["type"] == "undone"}
    assert undone == {one["event_id"] for one in first_bite}
    assert {e["id"] for e in told} <= {e["id"] for e in after}


def test_the_season_is_given_away_as_a_picture_and_a_page_without_places(
    signed_in: Page, server: RunningServer
):
    signed_in.goto(f"{server.url}/review/season")
    share = signed_in.get_by_test_id("share")
    share.locator("summary").click()
    expect(share.locator("svg")).to_be_visible()
    with signed_in.expect_download() as saved:
        signed_in.get_by_test_id("share-picture").click()
    image = Image.open(saved.value.path())
    assert image.size == (1600, 1120)
    # Drawn on: dark figures stand on its pale ground.
    colours = image.convert("L").getextrema()
    assert colours[0] < 40 < 230 < colours[1]
    waters = [row["name"] for row in ApiUser(server.url).get("/api/trips/")["waters"]]
    for chosen in (False, True):
        signed_in.get_by_test_id("share-places").set_checked(chosen)
        with signed_in.expect_download() as saved:
            signed_in.get_by_test_id("share-page").click()
        page = saved.value.path().read_text("utf-8")
        assert "landed" in page
        assert any(name in page for name in waters) == chosen


def picture(taken: str) -> bytes:
    image = Image.new("RGB", (640, 480), (90, 120, 140))
    exif = image.getexif()
    exif.get_ifd(0x8769)[0x9003] = taken
    out = io.BytesIO()
    image.save(out, "JPEG", exif=exif)
    return out.getvalue()


def test_pictures_of_another_camera_stand_at_their_own_moment(
    signed_in: Page, server: RunningServer
):
    user = ApiUser(server.url)
    past = next(
        trip for trip in user.get("/api/trips/")["trips"] if trip["name"] == "Cold March morning"
    )
    signed_in.goto(f"{server.url}/review?trip={past['id']}")
    signed_in.get_by_test_id("scrub").wait_for()
    signed_in.get_by_test_id("add-photo").set_input_files([
        {"name": "fish.jpg", "mimeType": "image/jpeg", "buffer": picture("2026:03:28 08:41:10")},
        {"name": "other.jpg", "mimeType": "image/jpeg", "buffer": picture("2025:03:28 08:41:10")},
    ])
    expect(signed_in.get_by_test_id("photos").locator("img")).to_have_count(1)
    expect(signed_in.get_by_test_id("photos")).to_contain_text("08:41")
    expect(signed_in.get_by_test_id("review")).to_contain_text("other.jpg: It was taken on another")
    (photo,) = user.get(f"/api/trips/{past['id']}/photos/")["photos"]
    # 8:41:10 by the clock at the water, seven hours behind UTC.
    local = (photo["at_s"] + 60.0 * past["utc_offset_min"]) % 86400.0
    assert local == 8 * 3600 + 41 * 60 + 10
