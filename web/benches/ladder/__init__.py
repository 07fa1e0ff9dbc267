"""The pressure ladder."""
