"""PostgreSQL's own programs on a database."""

import os
import subprocess
from urllib.parse import unquote, urlsplit, urlunsplit

from tuyere.upkeep.cluster import postgres_bin
from tuyere.upkeep.said import GivingUp


def run_tool(tool: str, url: str, *words: str) -> str:
    """What one of them says; the password goes by the environment, where other users cannot see it. Raises GivingUp."""
    command = [str(postgres_bin() / tool), *words]
    environment = dict(os.environ)
    if url:
        parts = urlsplit(url)
        place = parts.netloc.rpartition("@")[2]
        command += ["--dbname", urlunsplit(parts._replace(netloc=f"{parts.username or ''}@{place}"))]
        environment["PGPASSWORD"] = unquote(parts.password or "")
    done = subprocess.run(command, env=environment, capture_output=True, text=True, check=False)
    if done.returncode:
        raise GivingUp(f"{tool} could not do it: {done.stderr.strip()[-400:]}")
    return done.stdout
