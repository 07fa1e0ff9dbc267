"""Ice: reading where it sits and what form it has, and taking it off."""
