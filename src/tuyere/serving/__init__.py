"""What stands between the network and the application: whole requests only, lanes, and processes that may be ended."""
