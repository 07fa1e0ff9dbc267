"""One module per thing a person can do: its permission, its rule, its line in the log."""
