"""The screens of the benches."""
