"""Starting, keeping, backing up and restoring a plant on this machine: what bin/ runs."""
