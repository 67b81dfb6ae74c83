"""What everything stands on: quantities as people write them, figures with their workings, verdicts, tables, doubt."""
