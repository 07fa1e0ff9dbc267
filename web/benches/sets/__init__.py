"""Sets: moments lined up."""
