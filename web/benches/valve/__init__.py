"""The valve bench: turns of the stem."""
