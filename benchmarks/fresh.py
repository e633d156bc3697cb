"""A server of its own for a benchmark, in a folder of its own: imported before all of it."""

from __future__ import annotations

import os
import tempfile

FOLDER = tempfile.mkdtemp(prefix="coldwake-bench-")
"""Where its database lies."""

os.environ["COLDWAKE_VAR"] = FOLDER
os.environ["COLDWAKE_DEMO"] = "1"
os.environ["DJANGO_SETTINGS_MODULE"] = "config.settings"

import django

django.setup()
