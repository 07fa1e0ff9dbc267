"""The bench of stop Power: which state a circuit should be in, what of it is cleared, and how it is drawn."""
