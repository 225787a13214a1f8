"""The count: what a baker pins of batch and pieces becomes everything else; limits, choices, loads, and the dough in its pans.

In: a formula with its `Count` and the kit. Out: a `CountResult`, or `Whole`: all that one screen needs. Uses all rooms but
`sheet` and `taking`.
"""
