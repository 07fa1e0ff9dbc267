"""The Prove stop: the box watched down, found beside left, what is proved, and a shop's own record."""
