"""The screens of the logbook, by what they show."""
