"""A count worked out: everything it leaves open, fights, choices, loads and how it stands against its limits.

Pins are never overridden. Where there are too few, the formula's usual piece, fill and pan stand in, one at a time and
only for what nothing else gives; an open number goes up to the limits. Where pins cannot hold together, the fight is
told: which pins, and what each would be if it alone were let go.
"""

from dataclasses import dataclass

from pancount.core.count.choices import choices, extras
from pancount.core.count.count import PINNABLE, Count
from pancount.core.count.counter import Counter
from pancount.core.count.limits import Ground, ground_of
from pancount.core.count.relations import bare, of, sum_reads
from pancount.core.count.result import Alternative, CountResult, Fight, Load
from pancount.core.count.solver import PinValues, Solution, but
from pancount.core.count.standing import limit_states
from pancount.core.formula.formula import Formula
from pancount.core.formula.gauges import Character, character
from pancount.core.formula.practice import Practice
from pancount.core.formula.reckon import Reckoned, reckon
from pancount.core.formula.ways import in_way
from pancount.core.pans.kit import Kit
from pancount.core.pantry.ingredients import Pantry, pantry_with


def _fights(counter: Counter, count: Count, pins: PinValues, solution: Solution) -> tuple[Fight, ...]:
    """Each broken relation once, with what every pin in it would be if it alone were let go."""
    fights, told = [], set[frozenset[str]]()
    for relation in solution.broken:
        roots = solution.roots(relation)
        if roots in told:
            continue
        told.add(roots)
        alternatives = []
        for name in sorted(roots, key=lambda name: (PINNABLE.index(bare(name)), name)):
            freed = counter.solve(but(pins, [name]), count.limits)
            settles = not any(roots & freed.roots(other) for other in freed.broken)
            alternatives.append(Alternative(name, pins[name], freed.values[name] if settles else None))
        fights.append(Fight(relation=relation.key, alternatives=tuple(alternatives)))
    return tuple(fights)


def loads_of(values: dict[str, float], target: int) -> tuple[Load, ...]:
    """Full pans first and the rest in the last one; evenly where pieces a pan is just what even sharing needs."""
    if not values.get(of("pans", target)):
        return ()
    pieces, pans, per_pan = (int(values[of(name, target)]) for name in ("pieces", "pans", "pieces_per_pan"))
    if per_pan == -(-pieces // pans):
        few, more = divmod(pieces, pans)
        loads = [(more, few + 1), (pans - more, few)]
    else:
        full, rest = divmod(pieces, per_pan)
        loads = [(full, per_pan), (1 if rest else 0, rest)]
    return tuple(Load(pans=k, pieces=n) for k, n in loads if k and n)


@dataclass(frozen=True, slots=True)
class Solved:
    """A count worked out, with all that it was worked out by, for those who go on from there."""

    reckoned: Reckoned
    dough: Character
    ground: Ground
    counter: Counter
    solution: Solution
    result: CountResult


def solve(
    formula: Formula,
    count: Count,
    pantry: Pantry | None = None,
    practice: Practice | None = None,
    kit: Kit | None = None,
    looking_at: int | None = 0,
) -> Solved:
    """Work out everything a count leaves open, in the way that it names, in a kitchen: by default as shipped, with no kit known.

    Choices are worked out for the target that is looked at; for none where that is None. Raises what `reckon` raises;
    fighting pins and dough that does not divide are results, not errors.
    """
    pantry, practice = pantry or pantry_with(()), practice or Practice()
    formula = in_way(formula, count.way)
    reckoned = reckon(formula, practice.starter)
    dough = character(formula, reckoned, pantry, practice)
    ground = ground_of(formula, reckoned, kit or Kit(), dough)
    counter = Counter(formula.usual, reckoned.total_percent, reckoned.flour_g, count, ground)
    pins = count.known()
    solution = counter.solve(pins, count.limits)
    fights = _fights(counter, count, pins, solution)
    targets, target = len(count.targets), looking_at
    if target is not None and target >= targets:
        target = 0
    quiet = bool(fights) or target is None
    result = CountResult(
        quantities=solution.worked(),
        reads=sum_reads("sharing", targets) | sum_reads("left_over", targets),
        fights=fights,
        choices=() if quiet else choices(counter, count, solution, target or 0),
        extras=() if quiet else extras(counter, count, solution, target or 0),
        loads=() if fights else tuple(loads_of(solution.values, i) for i in range(targets)),
        limits=limit_states(counter, count, pins, solution) if count.limits and not fights else (),
    )
    return Solved(reckoned, dough, ground, counter, solution, result)
