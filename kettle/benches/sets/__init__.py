"""Sets: moments lined up, and the unit against its own past."""
