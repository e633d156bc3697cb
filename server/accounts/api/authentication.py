"""Cookie login that answers 401, so that the front end can tell "log in" from "not yours"."""

from drf_spectacular.extensions import OpenApiAuthenticationExtension
from rest_framework.authentication import SessionAuthentication
from rest_framework.request import Request


class CookieAuthentication(SessionAuthentication):
    """Django's session with CSRF enforced."""

    def authenticate_header(self, request: Request) -> str:
        """Give the header that makes the framework answer 401."""
        return "Session"


class CookieAuthenticationScheme(OpenApiAuthenticationExtension):  # type: ignore[no-untyped-call]
    """How the schema names it."""

    target_class = "accounts.api.authentication.CookieAuthentication"
    name = "cookieAuth"

    def get_security_definition(self, auto_schema: object) -> dict[str, str]:
        """Describe the session cookie."""
        return {"type": "apiKey", "in": "cookie", "name": "sessionid"}
