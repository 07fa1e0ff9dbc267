"""The pressure ladder: saturation drawn as two rails."""
