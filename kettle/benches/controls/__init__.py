"""Controls and their settings."""
