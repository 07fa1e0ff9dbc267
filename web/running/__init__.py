"""Running an installation: served, watched, backed up and restored."""
