"""Links to outside devices, by their open protocols."""
