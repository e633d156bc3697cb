"""An authority of one's own, made once, and a certificate for each address of this machine.

A browser lets a page work alone, keep the screen awake and find its place only from a secure
origin. On a boat there is no name that a public authority would sign; so the machine signs for
itself, and each phone is told once to believe it. The authority is bound to private addresses and
to names of the own network: whoever stole its key could not pretend to be anybody else.
"""

from __future__ import annotations

import ipaddress
import os
import socket
from contextlib import suppress
from dataclasses import dataclass
from datetime import UTC, datetime, timedelta
from pathlib import Path
from typing import Final

from cryptography import x509
from cryptography.hazmat.primitives import hashes, serialization
from cryptography.hazmat.primitives.asymmetric import ec
from cryptography.x509.oid import ExtendedKeyUsageOID, NameOID

AUTHORITY_DAYS: Final = 3650
SERVER_DAYS: Final = 397
"""Phones refuse certificates that last longer than 398 days."""
RENEW_DAYS: Final = 60
PRIVATE: Final = ("10.0.0.0/8", "172.16.0.0/12", "192.168.0.0/16", "169.254.0.0/16", "127.0.0.0/8")
_SLACK: Final = timedelta(days=1)


@dataclass(frozen=True)
class Identity:
    """Where authority and certificate lie: the files that a server is started with."""

    folder: Path

    @property
    def authority(self) -> Path:
        """The certificate that phones are told to believe."""
        return self.folder / "authority.crt"

    @property
    def authority_key(self) -> Path:
        """Its key, for its owner alone."""
        return self.folder / "authority.key"

    @property
    def server(self) -> Path:
        """The certificate of this machine."""
        return self.folder / "server.crt"

    @property
    def server_key(self) -> Path:
        """Its key, for its owner alone."""
        return self.folder / "server.key"


def addresses_here() -> tuple[list[str], list[str]]:
    """Return the names and the private addresses by which this machine is reached."""
    host = socket.gethostname().split(".")[0].lower() or "coldwake"
    found = {"127.0.0.1"}
    with suppress(OSError):
        found |= {str(info[4][0]) for info in socket.getaddrinfo(host, None, socket.AF_INET)}
    # Nothing is sent: the system only says which address it would send from.
    with suppress(OSError), socket.socket(socket.AF_INET, socket.SOCK_DGRAM) as probe:
        probe.connect(("192.0.2.1", 9))
        found.add(probe.getsockname()[0])
    private = [ipaddress.ip_network(net) for net in PRIVATE]
    kept = sorted(a for a in found if any(ipaddress.ip_address(a) in net for net in private))
    return ["localhost", host, f"{host}.local"], kept


def make_identity(
    folder: Path, names: list[str], addresses: list[str], *, now: datetime | None = None
) -> Identity:
    """Make authority and certificate where they are missing, and renew what has to be.

    The authority is made once: phones believe it. The certificate is made anew when the machine
    has another name or address, or when it is about to run out.
    """
    now = now or datetime.now(UTC)
    folder.mkdir(parents=True, exist_ok=True)
    folder.chmod(0o700)
    identity = Identity(folder)
    if not (identity.authority.exists() and identity.authority_key.exists()):
        _make_authority(identity, names, now)
    if not _is_good(identity, names, addresses, now):
        _make_server(identity, names, addresses, now)
    return identity


def _make_authority(identity: Identity, names: list[str], now: datetime) -> None:
    key = ec.generate_private_key(ec.SECP256R1())
    name = x509.Name([
        x509.NameAttribute(NameOID.COMMON_NAME, f"Cold Wake on {names[1]}"),
        x509.NameAttribute(NameOID.ORGANIZATION_NAME, "Cold Wake, this network only"),
    ])
    allowed: list[x509.GeneralName] = [
        *(x509.IPAddress(ipaddress.ip_network(net)) for net in PRIVATE),
        *(x509.DNSName(own) for own in ("localhost", "local", names[1])),
    ]
    certificate = (
        x509.CertificateBuilder().subject_name(name).issuer_name(name)
        .public_key(key.public_key()).serial_number(x509.random_serial_number())
        .not_valid_before(now - _SLACK).not_valid_after(now + timedelta(days=AUTHORITY_DAYS))
        .add_extension(x509.BasicConstraints(ca=True, path_length=0), critical=True)
        .add_extension(_usage(signs=True), critical=True)
        .add_extension(x509.NameConstraints(allowed, None), critical=True)
        .add_extension(x509.SubjectKeyIdentifier.from_public_key(key.public_key()), critical=False)
        .sign(key, hashes.SHA256())
    )
    _write_key(identity.authority_key, key)
    identity.authority.write_bytes(certificate.public_bytes(serialization.Encoding.PEM))


def _make_server(
    identity: Identity, names: list[str], addresses: list[str], now: datetime
) -> None:
    signer = serialization.load_pem_private_key(identity.authority_key.read_bytes(), None)
    assert isinstance(signer, ec.EllipticCurvePrivateKey)
    authority = x509.load_pem_x509_certificate(identity.authority.read_bytes())
    key = ec.generate_private_key(ec.SECP256R1())
    certificate = (
        x509.CertificateBuilder()
        .subject_name(x509.Name([x509.NameAttribute(NameOID.COMMON_NAME, names[1])]))
        .issuer_name(authority.subject).public_key(key.public_key())
        .serial_number(x509.random_serial_number())
        .not_valid_before(now - _SLACK).not_valid_after(now + timedelta(days=SERVER_DAYS) - _SLACK)
        .add_extension(x509.BasicConstraints(ca=False, path_length=None), critical=True)
        .add_extension(_usage(signs=False), critical=True)
        .add_extension(x509.ExtendedKeyUsage([ExtendedKeyUsageOID.SERVER_AUTH]), critical=False)
        .add_extension(
            x509.SubjectAlternativeName([
                *(x509.DNSName(name) for name in names),
                *(x509.IPAddress(ipaddress.ip_address(one)) for one in addresses),
            ]),
            critical=False,
        )
        .add_extension(
            x509.AuthorityKeyIdentifier.from_issuer_public_key(signer.public_key()), critical=False
        )
        .sign(signer, hashes.SHA256())
    )
    _write_key(identity.server_key, key)
    identity.server.write_bytes(certificate.public_bytes(serialization.Encoding.PEM))


def _is_good(identity: Identity, names: list[str], addresses: list[str], now: datetime) -> bool:
    if not (identity.server.exists() and identity.server_key.exists()):
        return False
    try:
        made = x509.load_pem_x509_certificate(identity.server.read_bytes())
        authority = x509.load_pem_x509_certificate(identity.authority.read_bytes())
        made.verify_directly_issued_by(authority)
        own = made.extensions.get_extension_for_class(x509.SubjectAlternativeName).value
    except Exception:  # Whatever is wrong with it: it is made anew.
        return False
    known = {str(one) for one in own.get_values_for_type(x509.IPAddress)}
    return (
        made.not_valid_after_utc - now > timedelta(days=RENEW_DAYS)
        and set(names) <= set(own.get_values_for_type(x509.DNSName))
        and set(addresses) <= known
    )


def _usage(*, signs: bool) -> x509.KeyUsage:
    return x509.KeyUsage(
        digital_signature=not signs, key_cert_sign=signs, crl_sign=signs, content_commitment=False,
        key_encipherment=False, data_encipherment=False, key_agreement=False, encipher_only=False,
        decipher_only=False,
    )


def _write_key(path: Path, key: ec.EllipticCurvePrivateKey) -> None:
    data = key.private_bytes(
        serialization.Encoding.PEM, serialization.PrivateFormat.PKCS8, serialization.NoEncryption()
    )
    path.unlink(missing_ok=True)
    with open(os.open(path, os.O_WRONLY | os.O_CREAT | os.O_EXCL, 0o600), "wb") as file:
        file.write(data)
