"""Small simulated stand-ins for outside devices: each reads what is true at a machine, with its own errors, as a person would type it."""
