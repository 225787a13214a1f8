"""Ingredients: what each is made of, what it does in a dough, what it brings, and what measures of it weigh.

In: a name, as shipped or as a kitchen calls it. Out: an `Ingredient` with its sources. Uses `base`.
"""
