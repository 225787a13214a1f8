"""Devices on the bench: what they say, byte by byte, and simulated ones that say the same."""
