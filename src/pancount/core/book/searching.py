"""Words as they are looked for: with and without umlauts and accents, and fractions that are written as one sign."""

import re
import unicodedata

SPELLED = str.maketrans({"ä": "ae", "ö": "oe", "ü": "ue", "Ä": "Ae", "Ö": "Oe", "Ü": "Ue", "ß": "ss", "ø": "oe", "Ø": "Oe", "å": "aa", "Å": "Aa", "æ": "ae", "Æ": "Ae"})
FRACTION = "⁄"


def plain(words: str) -> str:
    """Without accents.

    >>> plain("Möhren-Brötchen à la crème")
    'Mohren-Brotchen a la creme'
    """
    parted = unicodedata.normalize("NFKD", words)
    return "".join(one for one in parted if not unicodedata.combining(one)).replace("ß", "ss").replace("ø", "o").replace("Ø", "O")


def spelled(words: str) -> str:
    """Umlauts as they are spelled where there are none.

    >>> spelled("Möhren, süß")
    'Moehren, suess'
    """
    return unicodedata.normalize("NFC", words).translate(SPELLED)


def with_fractions(words: str) -> str:
    """Fractions, of one sign or as they are typed, as one word each, whole part and all: PostgreSQL would part them.

    >>> with_fractions("1½ cups, ¾ full"), with_fractions("1 1/2 cups")
    ('fr1q1q2 cups, fr3q4 full', 'fr1q1q2 cups')
    """
    words = re.sub(r"(\d)(?=[¼-¾⅐-⅞])", r"\1 ", words)
    parted = "".join(unicodedata.normalize("NFKC", one) if unicodedata.category(one) == "No" and FRACTION in unicodedata.normalize("NFKC", one) else one for one in words)
    parted = re.sub(rf"(\d+)\s*[{FRACTION}/]\s*(\d+)", r"fr\1q\2", parted)
    return re.sub(r"\b(\d+)\s+fr(\d+q\d+)\b", r"fr\1q\2", parted)


def spellings(words: str) -> tuple[str, ...]:
    """The ways in which words may be written, each once: as they are, spelled out, without accents.

    >>> spellings("Brötchen"), spellings("bun")
    (('Brötchen', 'Broetchen', 'Brotchen'), ('bun',))
    """
    words = with_fractions(unicodedata.normalize("NFC", words))
    return tuple(dict.fromkeys((words, spelled(words), plain(words))))


def told_words(words: str) -> str:
    """All words of a text in all their spellings, for the index; what is alike in all stands once."""
    first, *others = spellings(words)
    known = set(first.split())
    more = (one for other in others for one in other.split() if one not in known)
    return " ".join((first, *dict.fromkeys(more)))
