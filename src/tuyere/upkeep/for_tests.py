"""A PostgreSQL server for the tests: prints its URL, and lives until its input is closed."""

import shutil
import sys
import tempfile
from pathlib import Path

from tuyere.upkeep.cluster import Cluster
from tuyere.upkeep.said import GivingUp, say


def main() -> int:
    """Start it, print, wait, stop it, and leave nothing."""
    folder = Path(tempfile.mkdtemp(prefix="tuyere-test-"))
    folder.chmod(0o711)  # the package's own user may pass through to its data
    try:
        cluster = Cluster(folder / "postgres", folder, "-c fsync=off -c synchronous_commit=off -c full_page_writes=off")
        with cluster.lease():
            cluster.start()
            print(cluster.url("").rstrip("/"), flush=True)
            sys.stdin.read()
    except GivingUp as reason:
        say(f"Tuyere: {reason}")
        return 1
    finally:
        shutil.rmtree(folder, ignore_errors=True)
    return 0


if __name__ == "__main__":
    sys.exit(main())
