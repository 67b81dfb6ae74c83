"""How a number shows where it came from: figures with their workings, verdicts, the page they stand on."""
