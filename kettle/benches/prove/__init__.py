"""What shows that a repair holds: the box watched down, what was found beside what is left, what is proved, what is promised."""
