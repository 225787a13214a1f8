"""Units at the edges. Inside, everything is grams, centimetres, millilitres, percent and fractions."""




G_PER_OZ = 28.349523125
"""Exact: 453.59237 g / 16 (international avoirdupois pound, 1959)."""

CM_PER_IN = 2.54
"""Exact (international inch, 1959)."""

WEIGHT_UNITS = {"g": 1.0, "kg": 1000.0, "oz": G_PER_OZ, "lb": 16 * G_PER_OZ, "mg": 0.001}
"""What a baker may type behind a weight, and its worth. [g]"""

LENGTH_UNITS = {"cm": 1.0, "mm": 0.1, "in": CM_PER_IN}
"""What a baker may type behind a length, and its worth. [cm]"""
