"""How tight a stage is, of any kind and on any number of wheels: its window, every school's method on it, and what to do next."""
