"""What falls due, and when: after running hours or by the calendar, whichever comes first."""
