"""The published schema: true of the server, and the front end's types are made from it."""

from __future__ import annotations

import os
import subprocess
from typing import Any

import pytest
import schemathesis
from django.core.management import call_command
from hypothesis import HealthCheck, given, settings
from schemathesis.specs.openapi import checks

from paths import ROOT, script

pytestmark = pytest.mark.django_db
# Requests of each kind: a few in every run, more by hand.
DOCUMENTED = [checks.content_type_conformance, checks.response_schema_conformance]
EXAMPLES = int(os.environ.get("EXAMPLES", "6"))


def test_committed_schema_is_the_server_s(tmp_path: Any):
    fresh = tmp_path / "openapi.json"
    call_command("spectacular", "--format", "openapi-json", "--file", str(fresh))
    assert fresh.read_text() == (ROOT / "web/openapi.json").read_text(), "run: make types"


def test_committed_types_are_the_schema_s(tmp_path: Any):
    fresh = tmp_path / "schema.d.ts"
    subprocess.run(
        ["npx", "--no-install", "openapi-typescript", "openapi.json", "-o", str(fresh)],
        cwd=ROOT / "web",
        check=True,
        capture_output=True,
    )
    assert fresh.read_text() == (ROOT / "web/src/shared/api/schema.d.ts").read_text(), (
        "run: make types"
    )


def test_types_of_the_cores_calls_in_the_front_end_are_current() -> None:
    committed = (ROOT / "web/src/shared/core/calls.ts").read_text()
    assert script("write_calls").calls() == committed, "run: make types"


def test_answers_keep_to_the_schema(client_in: Any, demo: Any):
    from jsonschema import Draft202012Validator
    from referencing import Registry, Resource
    from referencing.jsonschema import DRAFT202012

    schema = client_in.get("/api/schema/?format=json").json()
    registry = Registry().with_resource(
        "urn:api", Resource.from_contents(_plain(schema), DRAFT202012)
    )

    def check(component: str, document: Any) -> None:
        validator = Draft202012Validator(
            {"$ref": f"urn:api#/components/schemas/{component}"}, registry=registry
        )
        assert [error.message for error in validator.iter_errors(document)] == []

    check("FishView", client_in.get(f"/api/trips/{demo.pk}/fish/").json())
    check("Trip", client_in.get(f"/api/trips/{demo.pk}/").json())
    check("TripList", client_in.get("/api/trips/").json())
    check("RodLine", client_in.get(f"/api/trips/{demo.pk}/number/?rod_id=rod-3&depth_m=4").json())
    check("EventBatch", client_in.get(f"/api/trips/{demo.pk}/events/").json())
    check("Error", client_in.get(f"/api/trips/{demo.pk}/number/?rod_id=rod-3&depth_m=-4").json())


def _plain(node: Any) -> Any:
    """OpenAPI 3.0 says ``nullable`` where JSON Schema says ``null``."""
    if isinstance(node, list):
        return [_plain(item) for item in node]
    if not isinstance(node, dict):
        return node
    made = {key: _plain(value) for key, value in node.items() if key != "nullable"}
    return {"anyOf": [made, {"type": "null"}]} if node.get("nullable") is True else made


def test_no_request_breaks_the_server(demo: Any, client: Any):
    from django.core.wsgi import get_wsgi_application

    client.force_login(demo.owner)
    token = "t" * 32
    cookies = {"sessionid": client.cookies["sessionid"].value, "csrftoken": token}
    schema = schemathesis.openapi.from_wsgi("/api/schema/?format=json", get_wsgi_application())
    tried = 0
    for found in schema.get_all_operations():
        operation = found.ok()
        if (operation.method, operation.path) == ("delete", "/api/session/"):
            continue  # it would log this test out
        if operation.path in ("/api/locker/import/", "/api/trips/bring/"):
            continue  # no generator makes CSV or lines from a schema; their own tests attack them

        @given(case=operation.as_strategy())
        @settings(
            max_examples=EXAMPLES, deadline=None, suppress_health_check=list(HealthCheck)
        )
        def attack(case: Any) -> None:
            if "trip_id" in case.path_parameters:
                case.path_parameters["trip_id"] = str(demo.pk)
            answer = case.call(cookies=cookies, headers={
                "X-CSRFToken": token, "Accept-Encoding": "identity",
            })
            assert answer.status_code < 500, f"{case.method} {case.path}: {answer.text[:300]}"
            # No answer that the schema does not tell of: its code, its kind, its shape. Whatever
            # else a route answers is told as an error of one shape, which is no leave to succeed.
            told = case.operation.definition.raw["responses"]
            assert answer.status_code >= 400 or str(answer.status_code) in told, case.path
            case.validate_response(answer, checks=DOCUMENTED)

        attack()
        tried += 1
    assert tried >= 10
