"""The demo: an invented shop loaded through the same actions a person uses."""
