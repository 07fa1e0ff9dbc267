"""The write-up of a call, written from what happened."""
