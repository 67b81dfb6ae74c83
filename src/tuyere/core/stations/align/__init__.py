"""Whether two wheels run in one plane: the errors out of readings of any method, and the moves of the feet that mend them."""
