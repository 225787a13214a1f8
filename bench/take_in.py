"""Reading a recipe, against merely splitting it into words in the same run; and the slowest single line.

Run: PYTHONPATH=src:tests .venv/bin/python bench/take_in.py
"""

import gc
import random
import statistics
import time
from collections.abc import Callable

from core.taking.corpus import cases
from pancount.core.taking.facts import disagreements, facts
from pancount.core.taking.habits import Kitchen
from pancount.core.taking.lines import read_line, read_prose
from pancount.core.taking.take_in import take_in
from pancount.core.taking.tokens import _tokens
from pancount.core.taking.vocabulary import shipped_names

ROUNDS = 30
FUZZED = 5_000
LINES = [case.line for case in cases()]
STEP = "Bake at 190 °C / 375 °F for 18–20 min in a 9-inch (23 cm) pan until golden."


def page(rng: random.Random, ingredients: int, steps: int) -> str:
    """A page of different lines of the corpus, in cups and in grams, and steps."""
    return "\n".join(["Big bake", *rng.sample(LINES, ingredients), "Method", *[STEP] * steps])


def times(does: Callable[[], object], rounds: int) -> list[float]:
    """Processor time of each of some rounds, so that what else the machine does is left out. [ms]"""
    found = []
    for _ in range(rounds):
        start = time.process_time()
        does()
        found.append((time.process_time() - start) * 1000)
    return found


def fuzzed(rng: random.Random) -> str:
    """Words of the corpus thrown together, with signs and letters of any script between."""
    words = [word for line in rng.sample(LINES, 4) for word in line.split()]
    odd = [chr(rng.choice([rng.randrange(33, 0x250), rng.randrange(0x2000, 0x3000)])) for _ in range(8)]
    mixed = [*words, *odd]
    rng.shuffle(mixed)
    return " ".join(mixed * rng.choice([1, 1, 1, 8]))


def one(line: str) -> None:
    """A line, read as an ingredient, as prose and as a step."""
    read_line(line, shipped_names())
    read_prose(line, shipped_names())
    facts(line)
    disagreements(line)


def main() -> None:
    rng = random.Random(7)
    kitchen = Kitchen()
    take_in("1 cup flour", (), kitchen)  # the data files are read once
    gc.freeze()  # as the server does
    for ingredients, steps in ((12, 6), (45, 15), (150, 50)):
        texts = [page(rng, ingredients, steps) for _ in range(ROUNDS)]
        split = [t for text in texts for t in times(lambda text=text: [_tokens.__wrapped__(line) for line in text.split("\n")], 1)]
        read = [t for text in texts for t in times(lambda text=text: take_in(text, (), kitchen), 1)]
        p50, worst = statistics.median(read), max(read)
        print(f"{ingredients + steps} lines: p50 {p50:.1f} ms, slowest {worst:.1f} ms; splitting {statistics.median(split):.2f} ms, ratio {p50 / statistics.median(split):.1f}")
    known = [(t, line) for line in LINES for t in times(lambda line=line: one(line), 1)]
    odd = [(t, line) for line in (fuzzed(rng) for _ in range(FUZZED)) for t in times(lambda line=line: one(line), 1)]
    print(f"a line of the corpus: p50 {statistics.median(t for t, _ in known):.2f} ms, slowest {max(known)[0]:.2f} ms")
    print(f"a fuzzed line: p50 {statistics.median(t for t, _ in odd):.2f} ms, slowest {max(odd)[0]:.2f} ms ({len(max(odd)[1])} characters)")


if __name__ == "__main__":
    main()
