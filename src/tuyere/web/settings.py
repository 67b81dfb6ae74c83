"""What a server knows, from its environment; each wrong setting is refused in a sentence."""

import os
import re
from dataclasses import dataclass

from tuyere.store.address import url_from_environment

LOOPBACK = ("localhost", "127.0.0.1", "::1")
SHORTEST_SECRET = 32


@dataclass(frozen=True)
class Settings:
    """The database, the cookie key, whether it is the demo plant, the plant's name, the hosts it answers to, the proxies it believes.

    `https`: it is reached by TLS alone, so its cookie travels by nothing else and browsers are told so.
    """

    database_url: str
    secret_key: str
    demo: bool = False
    plant: str = "tuyere"
    hosts: tuple[str, ...] = LOOPBACK
    proxies: tuple[str, ...] = ()
    https: bool = False

    @classmethod
    def from_environment(cls) -> "Settings":
        """Raises RuntimeError with a sentence."""
        key = os.environ.get("TUYERE_SECRET_KEY", "")
        if len(key) < SHORTEST_SECRET:
            raise RuntimeError(
                f"TUYERE_SECRET_KEY has {len(key)} characters and needs {SHORTEST_SECRET} or more, random ones."
                " Leave it unset and bin/start makes one."
            )
        plant = os.environ.get("TUYERE_PLANT", "tuyere")
        if not re.fullmatch(r"\w{1,40}", plant, re.ASCII):
            raise RuntimeError("TUYERE_PLANT is a short name of letters, digits and underscores.")
        return cls(
            url_from_environment(),
            key,
            os.environ.get("TUYERE_DEMO") == "1",
            plant,
            _listed("TUYERE_HOSTS") or LOOPBACK,
            _listed("TUYERE_PROXIES"),
            os.environ.get("TUYERE_HTTPS") == "1",
        )


def _listed(name: str) -> tuple[str, ...]:
    return tuple(word.strip() for word in os.environ.get(name, "").split(",") if word.strip())
