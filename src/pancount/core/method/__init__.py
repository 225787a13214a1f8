"""The method: what each step comes to for this count, when it is, what goes in, and what heat makes of it today.

In: a formula in one of its ways, a count, the kitchen's kit and climate, what today is like. Out: steps with their times, weights and
temperatures, the water for the dough, rises as ranges, loads in turn. Uses `base`, `pantry`, `pans`, `heat`, `formula` and `count`.
"""
