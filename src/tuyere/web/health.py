"""Whether the plant is ready: its database answers, a row was just committed, there is room, and no write was refused of late."""

import os
import time
from collections.abc import Callable, Sequence
from pathlib import Path
from typing import Literal

from pydantic import BaseModel

from tuyere.store.address import Pulse

LEAST_FREE_MB = 256
REFUSED_FOR_S = 60.0  # so long a refused write is remembered


class AliveOut(BaseModel):
    """The server runs. Nothing is asked of the database or the disk: a full disk is no reason to start it again."""

    alive: Literal[True] = True


class HealthOut(BaseModel):
    """Which plant, and whether what is written is kept; `problems`: each thing that is wrong, in a sentence."""

    name: Literal["tuyere"] = "tuyere"
    plant: str
    database: Literal["answers", "away"]
    writes: Literal["kept", "refused"]
    free_mb: int | None
    problems: list[str]


def places_from_environment() -> list[Path]:
    """TUYERE_DATA: where the database's data lies on this machine, and its write-ahead log, where they are ours to look at."""
    data = os.environ.get("TUYERE_DATA", "")
    return [Path(data), Path(data) / "pg_wal"] if data else []


def least_free_from_environment() -> int:
    """TUYERE_LEAST_FREE_MB: under so much room it is not ready."""
    return int(os.environ.get("TUYERE_LEAST_FREE_MB", LEAST_FREE_MB))


class Readiness:
    """What is asked by whoever watches a plant. `clock`: seconds that only go on."""

    def __init__(
        self,
        plant: str,
        pulse: Pulse,
        places: Sequence[Path] = (),
        least_free_mb: int = LEAST_FREE_MB,
        clock: Callable[[], float] = time.monotonic,
    ) -> None:
        self._plant, self._pulse, self._places, self._least_free_mb, self._clock = plant, pulse, places, least_free_mb, clock
        self._refused_at: float | None = None

    def write_refused(self) -> None:
        """The database would not keep a write just now, for want of room or the like."""
        self._refused_at = self._clock()

    def look(self) -> tuple[HealthOut, int]:
        """The answer and its status: 200 when it is ready, else 503."""
        beat, free = self._pulse.beat(), self.free_mb()
        lately = self._refused_at is not None and self._clock() < self._refused_at + REFUSED_FOR_S
        problems = []
        if not beat.answers:
            problems.append("The database does not answer.")
        elif not beat.keeps:
            problems.append("The database answers and keeps nothing that is written.")
        if free is not None and free < self._least_free_mb:
            problems.append(f"{free} MB of disk are free, {self._least_free_mb} MB are wanted: make room.")
        if lately:
            problems.append("A write was refused in the last minute: the server's log says why.")
        found = HealthOut(
            plant=self._plant,
            database="answers" if beat.answers else "away",
            writes="kept" if beat.keeps and not lately else "refused",
            free_mb=free,
            problems=problems,
        )
        return found, 503 if problems else 200

    def free_mb(self) -> int | None:
        """The least room at any of the places, in MB; None where none can be looked at."""
        free = []
        for place in self._places:
            try:
                found = os.statvfs(place)
            except OSError:
                continue
            free.append(found.f_bavail * found.f_frsize // 1024**2)
        return min(free, default=None)
