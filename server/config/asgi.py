"""ASGI entry point: one process serves API and front end."""

import os
import warnings

from django.core.asgi import get_asgi_application

os.environ.setdefault("DJANGO_SETTINGS_MODULE", "config.settings")
# Files are served by WhiteNoise, whole and from disk: nothing is gained by streaming them.
warnings.filterwarnings("ignore", message="StreamingHttpResponse must consume synchronous")

application = get_asgi_application()
