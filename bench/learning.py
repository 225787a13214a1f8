"""How often a kitchen's true figure lies within the range that is stated: simulated kitchens of known truth, one odd bake in ten, after 3, 10 and 30 bakes.

Kitchens as the model takes them (drawn), and those that lie so many of a bake's strayings from the trade, with bakes that stray as the trade expects or half as far.
An odd bake lies four to fifteen strayings off. Then how far one wild bake moves a figure, as a share of its error.

Run: PYTHONPATH=src .venv/bin/python bench/learning.py [kitchens]
"""

import sys
from math import log

import numpy as np

from pancount.core.book.figures import figure_rules
from pancount.core.book.learning import ODD, PRIOR_BAKES, STATED, UNLIKE, UNLIKE_TIMES, Prior, learnt

FIGURES = {"bake_loss": 0.11, "oven_error_c": 0.0, "rise": 1.0, "machine_c_min": 0.6}
NUMBERS = (3, 10, 30)


def prior_of(figure: str) -> Prior:
    rule = figure_rules()[figure]
    return Prior(log(FIGURES[figure]) if rule.by_factor else FIGURES[figure], rule.noise)


def covered(prior: Prior, number: int, kitchens: int, off: float | None, strays: float, random: np.random.Generator) -> float:
    """The share of kitchens whose truth lies within the stated range; `off` None: drawn as the model takes them."""
    hits = 0
    for _ in range(kitchens):
        if off is None:
            own = prior.noise * np.sqrt(2 / random.gamma(2))
            truth = random.normal(prior.usual, UNLIKE_TIMES * prior.noise if random.random() < UNLIKE else own / np.sqrt(PRIOR_BAKES))
        else:
            own, truth = prior.noise * strays, prior.usual + off * prior.noise * random.choice([-1, 1])
        bakes = random.normal(truth, own, number)
        wild = random.choice([-1, 1], number) * random.uniform(4, 15, number) * own
        bakes = np.where(random.random(number) < ODD, bakes + wild, bakes)
        figure = learnt(list(bakes), prior).figure
        hits += figure.low <= truth <= figure.high
    return hits / kitchens


def moved(prior: Prior, number: int, random: np.random.Generator) -> float:
    """The most that one wild bake among so many moves a figure, as a share of its error: 8 to 20 strayings off."""
    most = 0.0
    for _ in range(60):
        truth = prior.usual + prior.noise * random.uniform(-1, 1)
        others = list(random.normal(truth, prior.noise * 0.5, number - 1))
        before = learnt(others, prior).figure.usual
        wild = truth + random.choice([-1, 1]) * random.uniform(8, 20) * prior.noise
        most = max(most, abs(learnt([*others, wild], prior).figure.usual - before) / abs(wild - before))
    return most


def main(kitchens: int) -> None:
    random = np.random.default_rng(11)
    print(f"Stated: {STATED:.0%}. {kitchens} kitchens each.")
    for figure in FIGURES:
        prior = prior_of(figure)
        for name, off, strays in (("drawn", None, 1.0), ("as the trade", 0.0, 1.0), ("1 off", 1.0, 1.0), ("1 off, even", 1.0, 0.5), ("2 off, even", 2.0, 0.5)):
            shares = [covered(prior, number, kitchens, off, strays, random) for number in NUMBERS]
            print(f"{figure:14} {name:14} " + "  ".join(f"{number}: {share:.0%}" for number, share in zip(NUMBERS, shares, strict=True)), flush=True)
    prior = prior_of("bake_loss")
    print("One wild bake moves the figure, at most: " + ", ".join(f"among {number}: {moved(prior, number, random):.1%}" for number in (3, 10, 30)))


if __name__ == "__main__":
    main(int(sys.argv[1]) if len(sys.argv) > 1 else 300)
