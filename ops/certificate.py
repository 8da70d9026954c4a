"""The kitchen's own certificate for ``--lan``: made once, named by its fingerprint."""

import ipaddress
import shutil
import subprocess
from dataclasses import dataclass
from pathlib import Path

from ops.base import Stop

DAYS = 825  # the longest that browsers take


@dataclass(frozen=True)
class Certificate:
    """A certificate and its key, and what a person compares on the tablet."""

    cert: Path
    key: Path
    fingerprint: str


def _openssl(*args: str) -> str:
    done = subprocess.run(["openssl", *args], capture_output=True, text=True, check=False)
    if done.returncode:
        raise Stop(f"The certificate could not be made: {done.stderr.strip()[-300:]}")
    return done.stdout


def certificate(home: Path, names: list[str]) -> Certificate:
    """The home's certificate for these names and addresses; made when there is none, when it is
    about to end, or when the machine has another address now. Raises Stop without openssl."""
    if not shutil.which("openssl"):
        raise Stop("openssl is missing: install it, or use --plain in a network you trust.", 3)
    folder = home / "tls"
    folder.mkdir(parents=True, exist_ok=True)
    folder.chmod(0o700)
    cert, key, kept = folder / "cert.pem", folder / "key.pem", folder / "names"
    wanted = "\n".join(sorted(set(names)))
    good = (
        cert.exists()
        and kept.exists()
        and kept.read_text() == wanted
        and subprocess.run(
            ["openssl", "x509", "-checkend", str(30 * 86_400), "-noout", "-in", str(cert)],
            check=False,
            capture_output=True,
        ).returncode
        == 0
    )
    if not good:
        alternatives = ",".join(f"{_kind(name)}:{name}" for name in wanted.split("\n"))
        _openssl(
            "req", "-x509", "-newkey", "ec", "-pkeyopt", "ec_paramgen_curve:prime256v1", "-nodes",
            "-keyout", str(key), "-out", str(cert), "-days", str(DAYS),
            "-subj", "/CN=Bell Crumb in this kitchen",
            "-addext", f"subjectAltName={alternatives}",
            "-addext", "basicConstraints=critical,CA:TRUE,pathlen:0",
        )  # fmt: skip
        key.chmod(0o600)
        kept.write_text(wanted)
    said = _openssl("x509", "-noout", "-fingerprint", "-sha256", "-in", str(cert))
    return Certificate(cert, key, said.strip().split("=", 1)[1])


def _kind(name: str) -> str:
    try:
        ipaddress.ip_address(name)
    except ValueError:
        return "DNS"
    return "IP"
