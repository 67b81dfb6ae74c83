"""Jobs: guided procedures, composed from steps whose conditions read a drive's facts. steps.toml and kinds/ are the library."""
