"""The write-up of a call: drafted from its record, worded by whoever likes, told to the customer."""
