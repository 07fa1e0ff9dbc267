"""The ice bench: the map painted, the melt planned and proved."""
