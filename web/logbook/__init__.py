"""Sites, units, calls and what was recorded on them."""
