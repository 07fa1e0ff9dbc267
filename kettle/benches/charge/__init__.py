"""The charge: whether gas may be added at all, how much, and what shows that it is right."""
