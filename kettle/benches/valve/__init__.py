"""The expansion valve bench: what a turn of the stem does, and whether it serves the goal."""
