"""The charge bench: may gas be added, how much, and what shows that it is right."""
