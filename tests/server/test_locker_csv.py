"""The locker's CSV: read by pandas, read back by us, and hostile until checked."""

from __future__ import annotations

import csv
import io
from typing import Any

import pandas
import pytest

from coldwake_core.gear.tackle import Outfit as CoreOutfit
from locker.models import TacklePiece

pytestmark = pytest.mark.django_db
URL = "/api/locker/import/?rows="
HEAD = "kind,key,name,colour,lure_kind,length_in,width_in,weight_oz,low_mph,high_mph,own_action"
GOOD = "lure,test-spoon,Test spoon,copper,spoon,2.2,0.9,0.18,1.5,3.5,yes"


def send(client: Any, body: str | bytes, rows: str = "all", **extra: Any) -> Any:
    raw = body.encode() if isinstance(body, str) else body
    return client.generic("POST", URL + rows, raw, content_type="text/csv", **extra)


def spoon(**cells: str) -> str:
    """The good row with some of its cells changed."""
    values = dict(zip(HEAD.split(","), GOOD.split(","), strict=True))
    values.update(cells)
    out = io.StringIO()
    csv.writer(out).writerow(values.values())
    return out.getvalue().strip()


def problems(answer: Any) -> list[tuple[int, str]]:
    return [(item["row"], item["field"]) for item in answer.json()["problems"]]


def mine(user: Any) -> Any:
    return TacklePiece.objects.filter(owner=user)


def test_export_is_read_by_pandas_and_read_back_without_a_change(client_in: Any, user: Any):
    before = {(p.kind, p.key): p.data for p in mine(user)}
    text = client_in.get("/api/locker/pieces.csv").content.decode()
    table = pandas.read_csv(io.StringIO(text))
    assert len(table) == len(before) >= 60
    row = table[table.key == "dodger-4"].iloc[0]
    # A 4 in dodger is 4 in long: 0.1016 m by the definition of the inch.
    assert row.length_in == pytest.approx(4.0)
    answer = send(client_in, text).json()
    assert (answer["added"], answer["bad"], answer["imported"]) == (0, 0, True)
    after = {(p.kind, p.key): p.data for p in mine(user)}
    assert after.keys() == before.keys()
    for key, data in before.items():
        assert flat(after[key]) == pytest.approx(flat(data), rel=1e-9), key


def flat(data: Any, name: str = "") -> dict[str, Any]:
    """Numbers of nested data by their path; all other values must be the same anyway."""
    if isinstance(data, dict):
        return {k: v for key, item in data.items() for k, v in flat(item, f"{name}.{key}").items()}
    if isinstance(data, list):
        return {k: v for i, item in enumerate(data) for k, v in flat(item, f"{name}[{i}]").items()}
    return {name: data} if isinstance(data, int | float) else {f"{name}={data}": 1.0}


def test_good_file_is_imported_in_si(client_in: Any, user: Any):
    assert send(client_in, f"{HEAD}\n{GOOD}\n").json()["added"] == 1
    piece = mine(user).get(key="test-spoon")
    assert piece.data["length_m"] == pytest.approx(2.2 * 0.0254)
    # 1.5 mph; a mile is 1609.344 m by definition.
    assert piece.data["works"]["low_mps"] == pytest.approx(1.5 * 1609.344 / 3600.0)


def test_one_bad_row_keeps_all_out_until_only_the_good_ones_are_asked_for(
    client_in: Any, user: Any
):
    text = "\n".join([HEAD, GOOD, spoon(key="bad", low_mph="fast")])
    answer = send(client_in, text)
    assert problems(answer) == [(3, "low_mph")]
    assert not answer.json()["imported"]
    assert not mine(user).filter(key="test-spoon").exists()
    assert send(client_in, text, "check").json()["imported"] is False
    answer = send(client_in, text, "good").json()
    assert (answer["imported"], answer["good"], answer["bad"]) == (True, 1, 1)
    assert mine(user).filter(key="test-spoon").exists()
    assert not mine(user).filter(key="bad").exists()


@pytest.mark.parametrize(
    ("cells", "field", "says"),
    [
        ({"low_mph": "", "high_mph": ""}, "low_mph", "must be given"),
        ({"low_mph": "3.6"}, "high_mph", "must be over or at 3.6"),
        ({"length_in": "0"}, "length_in", "must be"),
        ({"length_in": "-2"}, "length_in", "must be"),
        ({"weight_oz": "nan"}, "weight_oz", "a number"),
        ({"weight_oz": "1e999"}, "weight_oz", "must be"),
        ({"kind": "anchor"}, "kind", "must be one of"),
        ({"lure_kind": "flute"}, "lure_kind", "one of"),
        ({"own_action": "perhaps"}, "own_action", "yes or no"),
        ({"name": ""}, "name", "must be"),
        ({"name": "x" * 61}, "name", "1 to 60"),
        ({"name": '=HYPERLINK("x")'}, "name", "formula"),
        ({"colour": "@SUM(A1)"}, "colour", "formula"),
        ({"colour": "+1+1"}, "colour", "formula"),
        ({"kind": "bait", "low_mph": "1"}, "lure_kind", "left empty"),
    ],
)
def test_bad_cell_is_told_by_row_column_and_remedy(
    client_in: Any, cells: dict[str, str], field: str, says: str
):
    answer = send(client_in, "\n".join([HEAD, GOOD, spoon(key="bad", **cells)]))
    told = [item for item in answer.json()["problems"] if item["field"] == field]
    assert told, answer.json()
    assert told[0]["row"] == 3
    assert says in told[0]["message"]
    assert not answer.json()["imported"]


def test_blade_without_length_is_refused(client_in: Any):
    text = (
        "kind,name,length_in,width_in,weight_oz,low_mph,high_mph,gives_action\n"
        "attractor,Flat blade,0,1.4,0.4,1.0,1.6,yes\n"
    )
    assert problems(send(client_in, text)) == [(2, "length_in")]


def test_key_that_stands_twice_is_told_with_the_row_of_the_first(client_in: Any):
    answer = send(client_in, "\n".join([HEAD, GOOD, spoon(colour="pearl")]))
    assert problems(answer) == [(3, "key")]
    assert "row 2" in answer.json()["problems"][0]["message"]


def test_names_that_look_like_formulas_come_back_as_they_were(client_in: Any, user: Any):
    body = {
        "kind": "lure",
        "properties": {
            **mine(user).get(key="thin-copper").data,
            "name": "-5 spoon",
        },
    }
    made = client_in.post("/api/locker/pieces/", body, format="json").json()
    text = client_in.get("/api/locker/pieces.csv").content.decode()
    assert "'-5 spoon" in text
    assert send(client_in, text).json()["bad"] == 0
    assert mine(user).get(pk=made["id"]).data["name"] == "-5 spoon"


@pytest.mark.parametrize(
    ("encoding", "note"),
    [("utf-8", ""), ("utf-8-sig", ""), ("utf-16", "UTF-16"), ("cp1252", "Windows-1252")],
)
def test_other_encodings_are_read_and_told(client_in: Any, user: Any, encoding: str, note: str):
    text = f"{HEAD}\n{spoon(colour='café')}\n"
    answer = send(client_in, text.encode(encoding)).json()
    assert answer["imported"]
    assert note in answer["note"]
    assert mine(user).get(key="test-spoon").data["colour"] == "café"


def test_semicolons_and_decimal_commas_are_read(client_in: Any, user: Any):
    text = f"{HEAD}\n{spoon(low_mph='1.5')}\n".replace(",", ";").replace("1.5", "1,5")
    assert send(client_in, text).json()["imported"]
    low = mine(user).get(key="test-spoon").data["works"]["low_mps"]
    assert low == pytest.approx(1.5 * 1609.344 / 3600.0)


@pytest.mark.parametrize(
    ("raw", "says"),
    [
        (b"", "names its columns"),
        (b"\x89PNG\r\n\x1a\n\x00\x00", "text file"),
        (b"name\nx\n", "kind among them"),
        (b"kind,name,price\nlure,x,3\n", "price"),
        (b"kind,name,name\nlure,x,y\n", "only once"),
        (b'kind,name\nlure,"never closed\n', "closed quotes"),
        (b"kind,name\n" + b"bait,x\n" * 5001, "at most 5000 rows"),
    ],
)
def test_file_that_cannot_be_read_is_told_as_a_whole(client_in: Any, raw: bytes, says: str):
    answer = send(client_in, raw)
    assert answer.status_code == 422
    assert answer.json()["field"] == "file"
    assert says in answer.json()["message"]


def test_fifty_megabytes_are_refused_and_nothing_is_lost(client_in: Any, user: Any):
    before = mine(user).count()
    answer = send(client_in, f"{HEAD}\n{GOOD}\n".encode() + b" " * 50_000_000)
    assert answer.status_code == 413
    assert "at most 2 MB" in answer.json()["message"]
    assert mine(user).count() == before


def test_starter_holds_what_the_demo_boats_carry(user: Any):
    from coldwake_core.decode import decode

    outfit = user.outfits.get(name="16 ft open boat")
    core = decode(CoreOutfit, outfit.document())
    assert core.lure("thin-copper").count == 2
    assert core.attractor("dodger-4").gives_action
    assert mine(user).filter(kind__in=("attractor", "lure", "line")).count() >= 55


@pytest.mark.parametrize("name", ["own_ranges_mph", "depth_points_ft", "weight_oz", "count"])
def test_a_cell_of_a_hundred_thousand_digits_is_refused_and_stops_nobody(
    client_in: Any, user: Any, name: str
):
    # With a pattern of two readings a digit this took the better part of a minute.
    before = mine(user).count()
    answer = send(client_in, f"kind,name,{name}\nlure,a,{'1' * 100_000}\n")
    assert problems(answer) == [(2, name)]
    assert "600 characters" in answer.json()["problems"][0]["message"]
    near = send(client_in, f"kind,name,{name}\nlure,a,{'1' * 599}x\n")
    assert problems(near) == [(2, name)]
    assert mine(user).count() == before


@pytest.mark.parametrize("cell", ["1e400", "1e999", "9" * 40])
def test_a_count_beyond_all_numbers_is_a_bad_cell(client_in: Any, user: Any, cell: str):
    assert problems(send(client_in, f"{HEAD},count\n{GOOD},{cell}\n")) == [(2, "count")]


def test_five_thousand_rows_take_a_handful_of_queries(
    client_in: Any, user: Any, django_assert_max_num_queries: Any
):
    rows = "\n".join(spoon(key=f"bulk-{index}", name=f"Bulk {index}") for index in range(4900))
    with django_assert_max_num_queries(60):
        answer = send(client_in, f"{HEAD}\n{rows}\n").json()
    assert (answer["added"], answer["imported"]) == (4900, True)
    assert mine(user).get(key="bulk-4899").data["works"]["high_mps"] > 1.0


def test_import_takes_no_more_of_a_kind_than_adding_does(
    client_in: Any, user: Any, monkeypatch: Any
):
    monkeypatch.setattr("locker.actions.import_pieces.MOST_PIECES", mine(user).count())
    rows = "\n".join(spoon(key=f"bulk-{index}", name=f"Bulk {index}") for index in range(100))
    before = mine(user).count()
    answer = send(client_in, f"{HEAD}\n{rows}\n")
    assert (answer.status_code, answer.json()["field"]) == (422, "file")
    assert mine(user).count() == before


def test_import_leaves_what_was_retired_retired(client_in: Any, user: Any):
    send(client_in, f"{HEAD}\n{GOOD}\n")
    piece = mine(user).get(key="test-spoon")
    piece.is_retired = True
    piece.save()
    send(client_in, f"{HEAD}\n{spoon(colour='gold')}\n")
    piece.refresh_from_db()
    assert (piece.is_retired, piece.data["colour"]) == (True, "gold")
