"""What is at a port of this machine."""

import json
import urllib.error
import urllib.request
from enum import Enum

from tuyere.upkeep.cluster import port_is_free


class Found(Enum):
    """What was found."""

    NOTHING = "nothing"
    PLANT = "this plant, up"
    NO_DATABASE = "this plant, its database away"
    OTHER = "another program"


def look_at(port: int, plant: str) -> Found:
    """Ask the health address of `port`."""
    try:
        with urllib.request.urlopen(f"http://127.0.0.1:{port}/api/health", timeout=3) as answer:
            said = json.load(answer)
    except urllib.error.HTTPError as refusal:
        try:
            said = json.load(refusal)
        except (OSError, ValueError):
            return Found.OTHER
    except (OSError, ValueError):
        return Found.NOTHING if port_is_free(port) else Found.OTHER
    if not isinstance(said, dict) or said.get("name") != "tuyere" or said.get("plant") != plant:
        return Found.OTHER
    return {"answers": Found.PLANT, "away": Found.NO_DATABASE}.get(str(said.get("database")), Found.OTHER)
