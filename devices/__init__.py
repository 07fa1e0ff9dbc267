"""Stand-ins for outside devices; each speaks the open protocol its page in docs describes."""
