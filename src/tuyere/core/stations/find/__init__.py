"""Which V-belt is this? Sections ranked by likelihood over measurement errors, and the next measurement to take."""
