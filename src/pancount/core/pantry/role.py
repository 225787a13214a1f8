"""What an ingredient does in a dough."""

from enum import StrEnum


class Role(StrEnum):
    """What an ingredient does in the dough."""

    FLOUR = "flour"
    LIQUID = "liquid"
    FAT = "fat"
    SUGAR = "sugar"
    SALT = "salt"
    LEAVEN = "leaven"
    EGG = "egg"
    DAIRY = "dairy"
    FLAVOUR = "flavour"
    MASH = "mash"
    """Potato, squash, purée: its water is in the dough."""
    INCLUSION = "inclusion"
    """In pieces: leek, raisins, nuts. Its water and fat stay inside it."""
