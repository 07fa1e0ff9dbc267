"""The defrost bench: a program read off a controller, held against sense, and drawn on the day."""
