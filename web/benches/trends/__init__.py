"""Logs over time: taken in, read, drawn."""
