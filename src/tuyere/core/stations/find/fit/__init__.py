"""How a belt sits in its groove: ride height, bottoming, pairing."""
