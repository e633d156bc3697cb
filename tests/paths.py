"""Where the project stands."""

import importlib.util
from pathlib import Path
from types import ModuleType

ROOT = Path(__file__).resolve().parents[1]
_SHELL = Path("/usr/bin/chromium-headless-shell")
CHROMIUM = str(_SHELL if _SHELL.exists() else "/usr/bin/chromium")
"""Debian's: without windows where there is one, for it takes less time."""


def script(name: str) -> ModuleType:
    """Return one of scripts/ as a module."""
    spec = importlib.util.spec_from_file_location(name, ROOT / f"scripts/{name}.py")
    assert spec is not None
    assert spec.loader is not None
    module = importlib.util.module_from_spec(spec)
    spec.loader.exec_module(module)
    return module
