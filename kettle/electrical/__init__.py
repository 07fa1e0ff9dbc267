"""The circuit of a unit as data, solved for what a meter shows, with every single fault, and where to measure next."""
