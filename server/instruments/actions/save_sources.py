"""Save what a boat listens to."""

from __future__ import annotations

import ipaddress
import re
from dataclasses import dataclass
from typing import Any

from coldwake_core.boat.instruments import Sources
from coldwake_core.decode import decode, encode
from coldwake_core.errors import InvalidInputError

from ..models import Listening

_CABLE = re.compile(
    r"/dev/(tty(S|USB|ACM|AMA)\d{1,3}|serial/by-id/[A-Za-z0-9_.:-]*[A-Za-z0-9_:-])|COM\d{1,3}"
)


@dataclass(frozen=True, kw_only=True)
class SaveSources:
    """Save the sources of somebody's boat, all at once."""

    owner: Any
    sources: object

    def execute(self) -> Sources:
        """Save them; raises InvalidInputError naming what cannot be, with the old ones kept."""
        sources = decode(Sources, {"sources": self.sources})
        for i, source in enumerate(sources.sources):
            if source.kind == "tcp":
                own_network(f"sources[{i}].host", source.host)
            if source.kind == "serial" and not _CABLE.fullmatch(source.device):
                # Whoever has an account here must not have the server open any file they like.
                raise InvalidInputError(
                    f"sources[{i}].device", source.device,
                    "a serial device, such as /dev/ttyUSB0 or COM3",
                )
        Listening.objects.update_or_create(
            owner_id=self.owner.pk, defaults={"sources": encode(sources)["sources"]}
        )
        return sources


def own_network(field: str, host: str) -> None:
    """Raise InvalidInputError unless an address is of this machine's own network.

    Whoever has an account here must not have the server call anywhere they like.
    """
    try:
        address = ipaddress.ip_address(host)
    except ValueError:
        raise InvalidInputError(field, host, "a numeric address such as 192.168.4.1") from None
    if not address.is_private or address.is_unspecified or address.is_multicast:
        raise InvalidInputError(field, host, "an address of the boat's own network")
