"""Tools of the project: generating data, vendoring assets, taking pictures."""
