"""One belt, or several in a row, on wheels in a plane: paths, strands, powers, and where each slips."""
