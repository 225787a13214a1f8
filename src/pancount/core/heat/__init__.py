"""Heat: what warms and cools a dough, how that moves a rise, and how long a piece bakes.

In: masses, compositions, temperatures, the times a formula tells of itself. Out: the water's temperature (and ice), the course of a
dough's temperature, a rise carried to today's conditions as a range, the time of a bake. Uses `base` and `pantry`; knows no steps.
"""
