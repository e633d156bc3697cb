"""Lessons asked through the API: right in a row passes, and what was answered is asked no more."""

from __future__ import annotations

from typing import Any

import pytest

from coldwake_core.decode import encode
from coldwake_core.lessons.ladder import LADDER, LESSONS
from practice.actions.learn import task_of
from practice.models import LessonProgress

pytestmark = pytest.mark.django_db
LESSON = "/api/practice/lessons/"
TASK = f"{LESSON}task/"


def asked(client: Any, lesson: str) -> dict[str, Any]:
    answer = client.get(TASK, {"lesson": lesson})
    assert answer.status_code == 200, answer.json()
    return dict(answer.json())


def solution(lesson: str) -> list[dict[str, Any]]:
    return [encode(one) for one in task_of(LessonProgress.objects.get(lesson=lesson)).solution]


def answer(client: Any, lesson: str, asked: object, answers: object) -> Any:
    body = {"lesson": lesson, "asked": asked, "answers": answers}
    return client.post(TASK, body, format="json")


def test_a_lesson_is_passed_by_so_many_right_in_a_row_and_stays_passed(client_in: Any):
    needed = LESSONS["beside"].needed
    for i in range(needed):
        told = asked(client_in, "beside")
        assert told["lesson"]["streak"] == i
        assert not told["lesson"]["passed"]
        found = answer(client_in, "beside", told["lesson"]["asked"], solution("beside")).json()
        assert found["right"]
    assert found["lesson"]["passed"]
    told = asked(client_in, "beside")
    right = solution("beside")[0]["choice"]
    wrong = next(
        option["key"] for option in told["task"]["asks"][0]["options"] if option["key"] != right
    )
    found = answer(client_in, "beside", needed, [{"key": "what", "choice": wrong}]).json()
    assert not found["right"]
    assert found["judged"][0]["words"]
    assert (found["lesson"]["streak"], found["lesson"]["best"]) == (0, needed)
    assert found["lesson"]["passed"]
    assert (found["lesson"]["right"], found["lesson"]["asked"]) == (needed, needed + 1)


def test_the_same_task_is_asked_until_it_is_answered_and_never_again(client_in: Any):
    first = asked(client_in, "counter")
    assert asked(client_in, "counter") == first
    given = solution("counter")
    assert answer(client_in, "counter", 0, given).status_code == 200
    assert asked(client_in, "counter")["task"] != first["task"]
    # The answer that was told belongs to a task that is gone.
    late = answer(client_in, "counter", 0, given)
    assert late.status_code == 409
    assert LessonProgress.objects.get().asked == 1


def test_half_hours_are_fished_before_answering_and_are_gone_with_the_answer(client_in: Any):
    told = asked(client_in, "one-change")
    tries = told["task"]["tries"]
    given = [
        {"key": ask["key"], "choice": ask["options"][0]["key"]} for ask in told["task"]["dials"]
    ]
    body = {"lesson": "one-change", "asked": 0, "set": given}
    for left in reversed(range(tries)):
        found = client_in.post(f"{LESSON}try/", body, format="json").json()
        assert found["task"]["tries"] == left
    assert client_in.post(f"{LESSON}try/", body, format="json").status_code == 409
    assert any(rod["hits"] for rod in found["task"]["log"]["rods"])
    assert answer(client_in, "one-change", 0, solution("one-change")).json()["right"]
    assert asked(client_in, "one-change")["task"]["tries"] == tries


@pytest.mark.parametrize(
    ("body", "field"),
    [
        ({"lesson": "knots", "asked": 0, "answers": []}, "lesson"),
        ({"lesson": ["beside"], "asked": 0, "answers": []}, "lesson"),
        ({"lesson": "beside", "asked": 0, "answers": []}, "what"),
        ({"lesson": "beside", "asked": 0, "answers": "right"}, "answers"),
        ({"lesson": "beside", "asked": 0, "answers": [{}] * 21}, "answers"),
        ({"lesson": "beside", "asked": 0, "answers": [{"key": "what", "choice": 7}]}, "choice"),
        ({"lesson": "beside", "asked": 0, "answers": [3]}, ""),
    ],
)
def test_an_answer_that_is_none_is_said_and_nothing_is_counted(
    client_in: Any, body: dict[str, Any], field: str
):
    asked(client_in, "beside")
    found = client_in.post(TASK, body, format="json")
    assert found.status_code == 422
    assert field in found.json()["field"]
    assert LessonProgress.objects.get().asked == 0


@pytest.mark.parametrize("count", [1, -1, True, "0", None])
def test_an_answer_to_another_task_changes_nothing(client_in: Any, count: object):
    asked(client_in, "beside")
    assert answer(client_in, "beside", count, solution("beside")).status_code == 409
    assert LessonProgress.objects.get().asked == 0


def test_everybody_learns_alone_and_the_ladder_is_in_order(client_in: Any, stranger: Any):
    asked(client_in, "beside")
    answer(client_in, "beside", 0, solution("beside"))
    mine = client_in.get(LESSON).json()
    assert [one["id"] for one in mine if not one["is_drill"]] == [one.id for one in LADDER]
    assert next(one["asked"] for one in mine if one["id"] == "beside") == 1
    assert all(one["asked"] == 0 for one in stranger.get(LESSON).json())
