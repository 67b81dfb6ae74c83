"""What is wrong with a drive: causes ranked by what is seen, measured and known, and the next check worth its minutes."""
