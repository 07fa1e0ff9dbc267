"""What is asked of a call: its record, what is told of it, what waits, what was promised."""
