"""The demo kitchen, invented."""
