"""What somebody does with their own account: another password, or its end."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

from django.contrib.auth.password_validation import validate_password
from django.core.exceptions import ValidationError

from coldwake_core.checks import require_text
from coldwake_core.errors import InvalidInputError

from .make_skipper import LONGEST_PASSWORD


def check_own(user: Any, password: object) -> None:
    """Raise InvalidInputError unless it is the account's own password, typed once more."""
    if not user.has_usable_password():
        raise InvalidInputError("password", "none", "that of your own account: the demo has none")
    typed = require_text("password", password, longest=LONGEST_PASSWORD)
    if not user.check_password(typed):
        raise InvalidInputError("password", "as typed", "the one that you log in with")


@dataclass(frozen=True, kw_only=True)
class ChangePassword:
    """Another password, for whoever knows the one before."""

    user: Any
    password: object
    new_password: object

    def execute(self) -> None:
        """Change it; raises CoreError naming the field, with the old one standing."""
        check_own(self.user, self.password)
        new = require_text("new_password", self.new_password, longest=LONGEST_PASSWORD)
        try:
            validate_password(new, self.user)
        except ValidationError as error:
            raise InvalidInputError("new_password", "as typed", " ".join(error.messages)) from None
        self.user.set_password(new)
        self.user.save(update_fields=["password"])


@dataclass(frozen=True, kw_only=True)
class DeleteAccount:
    """The end of an account and of all that it owns here."""

    user: Any
    password: object

    def execute(self) -> None:
        """Delete it; raises CoreError where it is not its owner's word."""
        check_own(self.user, self.password)
        self.user.delete()
