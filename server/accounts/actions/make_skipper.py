"""Make the first account of a fresh install: the skipper's."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

from django.contrib.auth import get_user_model
from django.contrib.auth.password_validation import validate_password
from django.core.exceptions import ValidationError
from django.db import transaction

from coldwake_core.checks import require_text
from coldwake_core.errors import InvalidInputError
from common.errors import ConflictError

LONGEST_PASSWORD = 200


def skipper_wanted() -> bool:
    """Whether nobody can log in by name yet: the demo account has no password."""
    return not get_user_model().objects.exclude(password__startswith="!").exists()


def checked_account(username: object, password: object) -> tuple[Any, str]:
    """Return a user, not kept yet, and the password; raises CoreError naming the field."""
    users = get_user_model()
    name = require_text("username", username, longest=150)
    user = users(username=users.normalize_username(name.strip()))
    try:
        user.full_clean(exclude=["password"])
    except ValidationError as error:
        field, (message, *_) = next(iter(error.message_dict.items()))
        raise InvalidInputError(field, name, f"another: {message}") from None
    typed = require_text("password", password, longest=LONGEST_PASSWORD)
    try:
        validate_password(typed, user)
    except ValidationError as error:
        raise InvalidInputError("password", "as typed", " ".join(error.messages)) from None
    return user, typed


@dataclass(frozen=True, kw_only=True)
class MakeSkipper:
    """Make the first account; crew is taken on screen, others by `manage.py createsuperuser`."""

    username: object
    password: object

    def execute(self) -> Any:
        """Make it, if no other has been made meanwhile."""
        with transaction.atomic():
            if not skipper_wanted():
                raise ConflictError(
                    "username: this server has its skipper's account already. Log in with it."
                )
            user, password = checked_account(self.username, self.password)
            user.set_password(password)
            user.save()
        return user
