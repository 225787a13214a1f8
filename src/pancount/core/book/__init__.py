"""The book: what was baked, as it was meant and as it was, what it came to, bakes side by side, and what a kitchen learns from them.

A bake's record is worked out of its events once it is over (`record.py`); what it came to is the baker's own (`outcome.py`). From records come
comparisons (`comparing.py`), charts (`points.py`) and the kitchen's own figures (`observed.py`, `learning.py`, `figures.py`).
"""
