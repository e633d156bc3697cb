"""Where the project stands."""

from pathlib import Path

ROOT = Path(__file__).resolve().parents[1]
