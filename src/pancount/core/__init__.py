"""The rules of the job. No I/O beyond its own data files, no web, no database, no clock, no randomness.

Rooms by the work, each with its `data/`: `base` ← `pantry`, `pans` ← `formula` ← `count` ← `sheet`, `taking`.
"""
