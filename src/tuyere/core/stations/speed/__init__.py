"""Getting the driven shaft to the speed it should have: any unknown, what a reading means, targets, cones, and what the machine feels."""
