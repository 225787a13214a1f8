"""Pans and kit: shapes and what they hold, how full, how deep, how pieces are shaped and lie, what kit takes at once, the shelf.

In: a pan or kit, and dough or pieces in numbers. Out: areas, volumes, depths, places. No formula and no count. Uses `base`.
"""
