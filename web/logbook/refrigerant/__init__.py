"""What is asked of refrigerant: the ledger of a shop."""
