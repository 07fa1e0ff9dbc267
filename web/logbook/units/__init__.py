"""What is asked of a unit: its plate, its life, its labels, and finding it."""
