"""What a mechanic does at a drive, station by station. None knows another; only jobs and the floor know them all."""
