"""Settings: one process, one SQLite file, everything it serves shipped with it."""

import os
import re
from pathlib import Path

from csp.constants import NONE, SELF, UNSAFE_INLINE
from django.core.management.utils import get_random_secret_key

ROOT = Path(__file__).resolve().parent.parent.parent
VAR = Path(os.environ.get("COLDWAKE_VAR", ROOT / "var"))
DIST = Path(os.environ.get("COLDWAKE_DIST", ROOT / "web" / "dist"))


def _secret_key() -> str:
    """Make the key once and keep it beside the data, so that sessions outlive a restart."""
    VAR.mkdir(parents=True, exist_ok=True)
    path = VAR / "secret_key"
    if not path.exists():
        with open(os.open(path, os.O_WRONLY | os.O_CREAT, 0o600), "w") as file:
            file.write(get_random_secret_key())
    return path.read_text().strip()


# What the server makes, its owner alone reads: database, copies, logs, photos.
os.umask(0o077)
SECRET_KEY = _secret_key()
DEBUG = False
DEMO = os.environ.get("COLDWAKE_DEMO") == "1"
# By these names, or a loopback address, whoever sits at this machine calls it.
LOCAL_NAMES = ["localhost"]
# A service of the stand-in's shape (standins/forecast.py); without one the weather is typed.
FORECAST_URL = os.environ.get("COLDWAKE_FORECAST", "").rstrip("/")
TLS = VAR / "tls"
# On the own network: the port with a lock. Without one the server is for its own machine alone.
HTTPS_PORT = int(os.environ["COLDWAKE_HTTPS"]) if os.environ.get("COLDWAKE_HTTPS") else None
ALLOWED_HOSTS = os.environ.get("COLDWAKE_HOSTS", "localhost,127.0.0.1,[::1]").split(",")

INSTALLED_APPS = [
    "django.contrib.auth",
    "django.contrib.contenttypes",
    "django.contrib.sessions",
    "rest_framework",
    "drf_spectacular",
    "csp",
    "upkeep",
    "home",
    "accounts",
    "locker",
    "waters",
    "plans",
    "trips",
    "instruments",
    "seasons",
    "practice",
    "archive",
]

MIDDLEWARE = [
    # Above WhiteNoise, so that the policy stands on files it serves as well.
    "csp.middleware.CSPMiddleware",
    "django.middleware.security.SecurityMiddleware",
    "home.middleware.RequireHttps",
    "whitenoise.middleware.WhiteNoiseMiddleware",
    "common.middleware.MarkApi",
    "django.middleware.gzip.GZipMiddleware",
    "django.middleware.http.ConditionalGetMiddleware",
    "django.contrib.sessions.middleware.SessionMiddleware",
    "django.middleware.common.CommonMiddleware",
    "django.middleware.csrf.CsrfViewMiddleware",
    "django.contrib.auth.middleware.AuthenticationMiddleware",
    "accounts.demo.EndDemo",
    "common.middleware.SlideSession",
    "django.middleware.clickjacking.XFrameOptionsMiddleware",
]

TEMPLATES = [
    {"BACKEND": "django.template.backends.django.DjangoTemplates", "APP_DIRS": True}
]
ROOT_URLCONF = "config.urls"
WSGI_APPLICATION = "config.wsgi.application"

DATABASES = {
    "default": {
        "ENGINE": "django.db.backends.sqlite3",
        "NAME": VAR / "coldwake.sqlite3",
        # A few lasting threads serve all requests: each keeps its connection.
        "CONN_MAX_AGE": None,
        "OPTIONS": {
            "timeout": 20,
            "transaction_mode": "IMMEDIATE",
            # FULL: an acknowledged event must survive a power cut.
            "init_command": "PRAGMA journal_mode=WAL; PRAGMA synchronous=FULL;",
        },
    }
}

# Everything at warning and above goes to the terminal and to a file that never grows beyond bounds.
LOGGING = {
    "version": 1,
    "disable_existing_loggers": False,
    "formatters": {"line": {"format": "{asctime} {levelname} {name}: {message}", "style": "{"}},
    "handlers": {
        "terminal": {"class": "logging.StreamHandler", "formatter": "line"},
        "file": {
            "class": "logging.handlers.RotatingFileHandler", "formatter": "line",
            "filename": VAR / "log" / "coldwake.log", "maxBytes": 2_000_000, "backupCount": 5,
            "delay": True, "encoding": "utf-8",
        },
    },
    "root": {"handlers": ["terminal", "file"], "level": "WARNING"},
    # Answers of 404 and 401 are everyday; faults are written down with their trace and id.
    "loggers": {"django.request": {"level": "CRITICAL"}},
}
(VAR / "log").mkdir(parents=True, exist_ok=True)

AUTH_PASSWORD_VALIDATORS = [
    {"NAME": "django.contrib.auth.password_validation.MinimumLengthValidator"},
    {"NAME": "django.contrib.auth.password_validation.CommonPasswordValidator"},
]
DEFAULT_AUTO_FIELD = "django.db.models.BigAutoField"
USE_TZ = True
TIME_ZONE = "UTC"
STATIC_URL = "/static/"

WHITENOISE_ROOT = DIST if DIST.exists() else None
WHITENOISE_INDEX_FILE = True


def WHITENOISE_IMMUTABLE_FILE_TEST(path: str, url: str) -> bool:  # noqa: N802 (WhiteNoise's name)
    """Vite's hashed files and the versioned runtime never change under their name."""
    return bool(re.match(r"^/assets/", url))


WHITENOISE_MIMETYPES = {".mjs": "text/javascript", ".wasm": "application/wasm"}

CONTENT_SECURITY_POLICY = {
    "DIRECTIVES": {
        "default-src": [SELF],
        "script-src": [SELF, "'wasm-unsafe-eval'"],
        "worker-src": [SELF],
        "manifest-src": [SELF],
        "connect-src": [SELF],
        "img-src": [SELF, "data:"],
        # Vuetify writes its theme into a style element.
        "style-src": [SELF, UNSAFE_INLINE],
        "object-src": [NONE],
        "base-uri": [SELF],
        "frame-ancestors": [NONE],
        "form-action": [SELF],
    }
}
X_FRAME_OPTIONS = "DENY"
# Looked up in memory first: one query less at every tap.
SESSION_ENGINE = "django.contrib.sessions.backends.cached_db"
SESSION_COOKIE_SAMESITE = "Lax"
CSRF_COOKIE_SAMESITE = "Lax"
SESSION_COOKIE_SECURE = CSRF_COOKIE_SECURE = HTTPS_PORT is not None
SECURE_HSTS_SECONDS = 86_400 if HTTPS_PORT is not None else 0
# W005, W021: the names of a home network are not ours to preload. W008: home.middleware redirects,
# to the page that says how to trust this machine.
SILENCED_SYSTEM_CHECKS = ["security.W005", "security.W008", "security.W021"]
SESSION_COOKIE_AGE = 60 * 60 * 24 * 120  # a season: nobody logs in with wet hands at the ramp
DATA_UPLOAD_MAX_MEMORY_SIZE = 2_000_000
PHOTOS = VAR / "photos"
INSTRUMENTS = VAR / "instruments"

REST_FRAMEWORK = {
    "DEFAULT_AUTHENTICATION_CLASSES": ["accounts.api.authentication.CookieAuthentication"],
    "DEFAULT_PERMISSION_CLASSES": ["rest_framework.permissions.IsAuthenticated"],
    "DEFAULT_RENDERER_CLASSES": ["rest_framework.renderers.JSONRenderer"],
    "DEFAULT_PARSER_CLASSES": ["rest_framework.parsers.JSONParser"],
    "DEFAULT_SCHEMA_CLASS": "drf_spectacular.openapi.AutoSchema",
    # Nobody types that many passwords; whoever guesses does.
    "DEFAULT_THROTTLE_RATES": {"password": "20/min"},
    "EXCEPTION_HANDLER": "common.errors.handle_exception",
}
SPECTACULAR_SETTINGS = {
    "TITLE": "Cold Wake",
    "VERSION": "1",
    "DESCRIPTION": "Trips, their events, and what they add up to. Lengths in m, speeds in m/s.",
    "SERVE_PERMISSIONS": ["rest_framework.permissions.AllowAny"],
    "COMPONENT_SPLIT_REQUEST": False,
    "POSTPROCESSING_HOOKS": ["common.schema.loosen_payloads", "common.schema.tell_errors"],
}
