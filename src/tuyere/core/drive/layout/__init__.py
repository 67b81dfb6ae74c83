"""A drive as it runs: belts round any number of wheels, one after another or side by side on a shaft."""
