"""The API of the lessons."""

from __future__ import annotations

from typing import Any

from drf_spectacular.utils import OpenApiParameter, extend_schema
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from coldwake_core.decode import encode
from coldwake_core.lessons.ladder import LADDER, LESSONS
from common.errors import body_of
from common.schemas import ErrorSerializer

from ..actions.learn import Learn, progress_of, task_of
from ..models import LessonProgress
from .schemas import (
    AnswerSerializer,
    JudgedAnswerSerializer,
    LessonSerializer,
    LessonTaskSerializer,
    TrySerializer,
)

_ERRORS = {409: ErrorSerializer, 422: ErrorSerializer}


def _told(lesson_id: str, progress: LessonProgress | None) -> dict[str, Any]:
    lesson = LESSONS[lesson_id]
    return {
        "id": lesson.id, "title": lesson.title, "says": lesson.says, "needed": lesson.needed,
        "is_drill": lesson not in LADDER,
        "asked": progress.asked if progress else 0, "right": progress.right if progress else 0,
        "streak": progress.streak if progress else 0, "best": progress.best if progress else 0,
        "passed": progress is not None and progress.passed_at is not None,
    }


def _asks(progress: LessonProgress) -> Response:
    return Response({
        "lesson": _told(progress.lesson, progress), "task": encode(task_of(progress).task),
    })


class LessonsView(APIView):
    """The ladder, and the drills beside it."""

    @extend_schema(operation_id="list_lessons", responses=LessonSerializer(many=True))
    def get(self, request: Request) -> Response:
        """List them in the order of the day."""
        known = {
            one.lesson: one for one in LessonProgress.objects.filter(owner_id=request.user.pk)
        }
        return Response([_told(lesson, known.get(lesson)) for lesson in LESSONS])


class TaskView(APIView):
    """The task that a lesson asks now."""

    @extend_schema(
        operation_id="get_task", responses={200: LessonTaskSerializer, **_ERRORS},
        parameters=[OpenApiParameter("lesson", str, enum=list(LESSONS), required=True)],
    )
    def get(self, request: Request) -> Response:
        """Return it: the same until it is answered."""
        return _asks(progress_of(request.user, request.query_params.get("lesson", "")))

    @extend_schema(
        operation_id="answer_task", request=AnswerSerializer,
        responses={200: JudgedAnswerSerializer, **_ERRORS},
    )
    def post(self, request: Request) -> Response:
        """Judge an answer; the next task is another one."""
        body = body_of(request)
        progress, judged = Learn(
            owner=request.user, lesson=body.get("lesson"), asked=body.get("asked")
        ).answer(body.get("answers"))
        return Response({
            "lesson": _told(progress.lesson, progress),
            "right": all(one.right for one in judged), "judged": [encode(one) for one in judged],
        })


class TryView(APIView):
    """A stretch of a small day."""

    @extend_schema(
        operation_id="try_task", request=TrySerializer,
        responses={200: LessonTaskSerializer, **_ERRORS},
    )
    def post(self, request: Request) -> Response:
        """Fish it with what is set, and return the task with what came of it."""
        body = body_of(request)
        return _asks(Learn(
            owner=request.user, lesson=body.get("lesson"), asked=body.get("asked")
        ).try_out(body.get("set")))
