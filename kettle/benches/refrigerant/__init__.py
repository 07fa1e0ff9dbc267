"""Refrigerant work: leak, recovery, opening, evacuation, weighing in, and every ounce accounted for."""
