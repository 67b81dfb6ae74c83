"""What stands between the network and the application: whole requests only, lanes, and processes that may be ended."""

ORPHANED_S = 25.0  # how long a worker whose master was killed goes on, for a new one to start on the same port
