"""The sheet of one drive: from what is known about it to every figure, working, flag and verdict."""
