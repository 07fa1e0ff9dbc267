"""What a repair costs: lines proposed by causes and changes, options side by side, priced as the shop has it."""
