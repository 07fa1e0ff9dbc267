"""Pictures: re-encoded, without metadata, small."""
