"""The front door's configuration: where things are comes in, nginx's configuration file and the command go out."""

import getpass
import os
import resource
import subprocess
from dataclasses import dataclass
from pathlib import Path

HERE = Path(__file__).resolve().parent
# Two for each visitor (theirs and ours), and room for some hundred that say nothing.
CONNECTIONS = 2048


@dataclass(frozen=True)
class FrontDoor:
    """Where the front door listens, what stands behind it, and a folder of its own for its process."""

    folder: Path
    port: int
    web: str
    static: Path
    is_tls: bool = False

    def command(self) -> tuple[str, ...]:
        """Write the configuration; return the command that runs nginx with it, as whoever starts it."""
        self.folder.mkdir(parents=True, exist_ok=True)
        written = self.folder / "nginx.conf"
        written.write_text(self.configuration())
        return ("/usr/sbin/nginx", "-e", str(self.folder / "nginx.log"), "-p", str(self.folder), "-c", str(written))

    def configuration(self) -> str:
        """Return the configuration, filled in."""
        most_files = resource.getrlimit(resource.RLIMIT_NOFILE)[1]
        files = 2 * CONNECTIONS if most_files == resource.RLIM_INFINITY else min(2 * CONNECTIONS, most_files)
        values = {
            # Only root may choose whom its workers run as: here they are root's own too, as all of the demo is.
            "USER": f"user {getpass.getuser()};" if os.geteuid() == 0 else "",
            "FOLDER": str(self.folder),
            "FILES": str(files),
            "CONNECTIONS": str(min(CONNECTIONS, files // 2)),
            "WEB": self.web,
            "LISTEN": f"127.0.0.1:{self.port}{' ssl' if self.is_tls else ''}",
            "TLS": self._tls() if self.is_tls else "",
            "STATIC": str(self.static),
            "PAGES": str(HERE / "pages"),
        }
        text = (HERE / "nginx.conf").read_text()
        for name, value in values.items():
            text = text.replace(f"${name}$", value)
        return text

    def _tls(self) -> str:
        """Return the lines for TLS, with a certificate of our own for 127.0.0.1 and localhost."""
        key, certificate = self.folder / "tls.key", self.folder / "tls.pem"
        if not certificate.exists():
            subprocess.run(
                [
                    *("openssl", "req", "-x509", "-newkey", "ec", "-pkeyopt", "ec_paramgen_curve:P-256", "-nodes"),
                    *("-days", "365", "-subj", "/CN=localhost", "-keyout", str(key), "-out", str(certificate)),
                    *("-addext", "subjectAltName=DNS:localhost,IP:127.0.0.1"),
                ],
                check=True,
                capture_output=True,
            )
            key.chmod(0o600)
        lines = (f"ssl_certificate {certificate};", f"ssl_certificate_key {key};", "ssl_protocols TLSv1.2 TLSv1.3;")
        return "\n        ".join(lines)
