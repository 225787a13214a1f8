"""Taking in a recipe: text as a baker wrote it becomes lines, grams with a band, questions, and a formula with its count.

In: text, what the baker settled of it, and the kitchen's habits. Out: `TakenIn`, and a `Formula` made of it. Uses all rooms but
`sheet`; none uses it.
"""
