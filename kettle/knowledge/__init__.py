"""Knowledge: what the trade knows, as tables with sources and look-ups in them; nothing here judges a unit."""
