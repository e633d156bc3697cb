"""Every fault of the program leaves a trace: a line in the log, and an id that the page shows."""

from __future__ import annotations

import logging
import secrets

log = logging.getLogger("coldwake.fault")


def write_down(error: BaseException, what: str) -> str:
    """Write a fault into the log with its trace; return the id to show for it."""
    fault = secrets.token_hex(4)
    log.error("fault %s: %s", fault, what, exc_info=error)
    return fault
