"""What is kept of a drive: a survey as it was typed, and what the lists of drives need, kept by the write that changes it."""
