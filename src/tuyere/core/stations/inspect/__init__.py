"""What is worn, what is wrong, what to look at, and when."""
