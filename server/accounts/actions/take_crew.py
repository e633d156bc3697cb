"""Take somebody into the crew: an account made for them, or their own, which they log in with."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any, Final

from django.contrib.auth import authenticate, get_user_model
from django.db import transaction

from coldwake_core.checks import require_text
from coldwake_core.errors import InvalidInputError

from ..models import Crew
from .make_skipper import LONGEST_PASSWORD, checked_account

MOST_CREW: Final = 12


@dataclass(frozen=True, kw_only=True)
class TakeCrew:
    """Let somebody record on the trips that this skipper has open."""

    skipper: Any
    username: object
    password: object

    def execute(self) -> Crew:
        """Take them; raises CoreError naming the field, with nothing made."""
        if not self.skipper.has_usable_password():
            raise InvalidInputError("username", "the demo's crew", "that of an account of your own")
        if self.skipper.crew.count() >= MOST_CREW:
            raise InvalidInputError("username", "one more", f"one of at most {MOST_CREW} aboard")
        name = require_text("username", self.username, longest=150).strip()
        if name == self.skipper.get_username():
            raise InvalidInputError("username", name, "somebody else")
        with transaction.atomic():
            member = self._member(name)
            crew, _ = Crew.objects.get_or_create(skipper=self.skipper, member=member)
        return crew

    def _member(self, name: str) -> Any:
        if not get_user_model().objects.filter(username=name).exists():
            member, password = checked_account(name, self.password)
            member.set_password(password)
            member.save()
            return member
        # Whoever has an account joins with their own word, typed on this device.
        typed = require_text("password", self.password, longest=LONGEST_PASSWORD)
        known = authenticate(None, username=name, password=typed)
        if known is None:
            raise InvalidInputError(
                "password", "as typed", f"that of the account {name}, which is here already"
            )
        return known
