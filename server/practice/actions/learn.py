"""Ask a lesson's task, fish a stretch of it, take its answer."""

from __future__ import annotations

import secrets
from dataclasses import dataclass
from typing import Any, Final

from django.db import transaction
from django.utils import timezone

from coldwake_core.decode import decode, encode
from coldwake_core.errors import InvalidInputError
from coldwake_core.lessons.ladder import LESSONS, make_task
from coldwake_core.lessons.task import MOST_GIVEN, Given, Judged, Made, check_answers
from common.errors import ConflictError

from ..models import LessonProgress

MOST_SEED: Final = 2**31


def progress_of(owner: Any, lesson: object) -> LessonProgress:
    """Return how far somebody is with a lesson; raises InvalidInputError where there is none."""
    if not isinstance(lesson, str) or lesson not in LESSONS:
        raise InvalidInputError("lesson", lesson, "one of " + ", ".join(LESSONS))
    return LessonProgress.objects.get_or_create(
        owner=owner, lesson=lesson, defaults={"seed": secrets.randbelow(MOST_SEED)}
    )[0]


def task_of(progress: LessonProgress) -> Made:
    """Return the task that is asked now."""
    return make_task(progress.lesson, progress.seed, [
        [decode(Given, one) for one in stretch] for stretch in progress.tried
    ])


def read_given(name: str, told: object) -> list[Given]:
    """Return answers out of a body; raises InvalidInputError where they are none."""
    if not isinstance(told, list) or len(told) > MOST_GIVEN:
        raise InvalidInputError(name, None, f"a list of at most {MOST_GIVEN} answers")
    return [decode(Given, one) for one in told]


@dataclass(frozen=True, kw_only=True)
class Learn:
    """What somebody says to the task that is asked; it is taken once."""

    owner: Any
    lesson: object
    asked: object

    def _own(self) -> LessonProgress:
        """The progress, held until what is said is kept."""
        found = progress_of(self.owner, self.lesson)
        progress = LessonProgress.objects.select_for_update().get(pk=found.pk)
        if self.asked != progress.asked or isinstance(self.asked, bool):
            raise ConflictError("Another task has come up meanwhile: load the page anew.")
        return progress

    @transaction.atomic
    def try_out(self, told: object) -> LessonProgress:
        """Fish a stretch with what is set."""
        progress = self._own()
        made = task_of(progress)
        given = read_given("set", told)
        if made.task.tries < 1:
            raise ConflictError("There is nothing left to try: say what you make of it.")
        kept = check_answers(made.task.dials, given)
        progress.tried = [*progress.tried, [encode(one) for one in kept.values()]]
        progress.save(update_fields=["tried"])
        return progress

    @transaction.atomic
    def answer(self, told: object) -> tuple[LessonProgress, tuple[Judged, ...]]:
        """Judge an answer, and draw the next task."""
        progress = self._own()
        made = task_of(progress)
        judged = made.judge(check_answers(made.task.asks, read_given("answers", told)))
        right = all(one.right for one in judged)
        progress.asked += 1
        progress.right += right
        progress.streak = progress.streak + 1 if right else 0
        progress.best = max(progress.best, progress.streak)
        if progress.passed_at is None and progress.streak >= LESSONS[progress.lesson].needed:
            progress.passed_at = timezone.now()
        # What has been answered, and so been told, is never asked again.
        progress.seed, progress.tried = secrets.randbelow(MOST_SEED), []
        progress.save()
        return progress, judged
