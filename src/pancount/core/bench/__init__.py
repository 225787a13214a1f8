"""At the bench: a bake as it was begun, what has happened of it, and what that makes of the rest.

What happens is a log of events that are never changed. The bake is a fold over them (`bake.py`), what is still to do and what it comes to is
reckoned from that by the rules of the other rooms.
"""
