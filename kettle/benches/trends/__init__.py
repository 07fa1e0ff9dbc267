"""What a log says of the unit it is of, and how it is drawn."""
