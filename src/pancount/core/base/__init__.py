"""What every room of the core stands on: kinds of values and their limits, errors, units, scales and rounding, data files.

Knows nothing of baking but its scales. Uses no other room.
"""
