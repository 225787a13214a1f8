"""A process that plans one day and ends: asked by a line of JSON, answering a line for each better timetable.

It is run by `planning.py`. A second line, or the end of what it is sent, stops it: at once where its client has left, with the best so far where
it is told to.
"""

import os
import resource
import sys
import threading
import time

from pancount.core.base.models import Frozen
from pancount.core.day.plan import Asked, Progress, planned
from pancount.core.day.solving import Effort

MEMORY_BYTES = 1_500_000_000
"""Of its addresses, most of which are never used; what it uses is limited by the solver to `SOLVER_MB`."""
SOLVER_MB = 250
STOP = "stop"


class Question(Frozen):
    """What is asked: a day, and how hard to look."""

    asked: Asked
    counted: float
    seconds: float


def main() -> None:
    """Read a question, answer it, end."""
    resource.setrlimit(resource.RLIMIT_AS, (MEMORY_BYTES, MEMORY_BYTES))
    os.nice(5)
    first = sys.stdin.readline()
    if not first:
        return
    question = Question.model_validate_json(first)
    stopped = threading.Event()

    def listen() -> None:
        if sys.stdin.readline().strip() == STOP:
            stopped.set()
        else:
            os._exit(0)  # whoever asked has gone

    threading.Thread(target=listen, daemon=True).start()

    def tell(progress: Progress) -> None:
        sys.stdout.write(progress.model_dump_json() + "\n")
        sys.stdout.flush()

    effort = Effort(counted=question.counted, seconds=question.seconds, memory_mb=SOLVER_MB)
    planned(question.asked, effort, time.monotonic, stopped.is_set, tell)
    sys.stdout.flush()
    os._exit(0)


if __name__ == "__main__":
    main()
