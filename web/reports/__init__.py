"""The report of a call, on screen, printed and as a file."""
