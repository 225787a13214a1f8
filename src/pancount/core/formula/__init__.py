"""The formula: lines in stages, reckoned by percentage; what dough that is, what is beside it, and changes from one to another.

In: a `Formula` with what the kitchen knows (pantry, practice). Out: percent and grams of every line, gauges, notes, contents,
another formula. How much is made is not known here: see `count`. Uses `base`, `pantry` and `pans`.
"""
