"""A sample of small faults put into the core one by one, and the share of them that the fast tests find.

A fault is one number, sign, comparison or word changed by cosmic-ray's operators, in a copy of the tree. What no test
finds is printed as it was changed: either nothing depends on it, or a test is missing.
"""

import os
import random
import shutil
import sys
import tempfile
from collections import defaultdict
from collections.abc import Iterator, Sequence
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path

from cosmic_ray.ast import ast_nodes, get_ast
from cosmic_ray.mutating import mutate_and_test
from cosmic_ray.plugins import get_operator
from cosmic_ray.work_item import MutationSpec, TestOutcome, WorkResult

ROOT = Path(__file__).resolve().parents[1]
LONGEST_S = 1800.0
"""Time limit of the tests for one fault, which all together take less. What runs out of it is not found."""
TIMED_OUT = "timeout"
"""What the runner says of tests that it stopped, beside calling the fault killed."""
FOUND = 0.9
"""The share of faults that the tests should find in every room."""
SWAPS = {"Add": "Sub", "Sub": "Add", "Mul": "Div", "Div": "Mul", "Pow": "Mul", "FloorDiv": "Mul", "Mod": "Mul"}
TURNS = {"Lt": "GtE", "LtE": "Gt", "Gt": "LtE", "GtE": "Lt", "Eq": "NotEq", "NotEq": "Eq"}
OPERATORS = [
    *(f"core/ReplaceBinaryOperator_{one}_{other}" for one, other in SWAPS.items()),
    *(f"core/ReplaceComparisonOperator_{one}_{other}" for one, other in TURNS.items()),
    "core/NumberReplacer", "core/AddNot", "core/ReplaceAndWithOr", "core/ReplaceOrWithAnd",
    "core/ReplaceTrueWithFalse", "core/ReplaceFalseWithTrue", "core/ReplaceUnaryOperator_Delete_Not",
]  # fmt: skip
FAST = ["tests/core/test_right.py", "tests/core/test_unchanged.py", "tests/core", "tests/outside"]
NO_ARITHMETIC = {"__init__.py", "limits.py", "ingredients.py", "media.py", "recipe_book.py", "goods.py"}
"""Tables and words: a number changed there is another kitchen, not a fault."""


def run_mutants(names: Sequence[str], sample: int, seed: int) -> int:
    """Put a sample of faults into the files named (all of the core where none is), and print the share found by room.
    Another seed draws another sample.

    Returns the exit status: 1 where fewer than nine in ten are found in some room.
    """
    core = ROOT / "amber_spread" / "core"
    wanted = {Path(name).name for name in names}
    files = sorted(
        path for path in core.rglob("*.py") if (path.name in wanted if wanted else path.name not in NO_ARITHMETIC)
    )
    spots = [spot for path in files for spot in _spots(path.relative_to(core))]
    chosen = random.Random(seed).sample(spots, min(sample, len(spots)))
    workers = max(1, os.cpu_count() or 1)
    print(f"{len(chosen)} of {len(spots)} possible faults in {len(files)} files", file=sys.stderr)
    found: dict[str, list[bool]] = defaultdict(list)
    survivors = []
    with ThreadPoolExecutor(workers) as pool:
        shares = [chosen[worker::workers] for worker in range(workers)]
        for done in pool.map(_try_all, shares):
            for name, result in done:
                if result.test_outcome == TestOutcome.INCOMPETENT or result.diff is None:
                    continue
                killed = result.test_outcome == TestOutcome.KILLED and result.output != TIMED_OUT
                found[Path(name).parts[0]].append(killed)
                if not killed:
                    why = "out of time" if result.output == TIMED_OUT else "not found"
                    survivors.append((f"{why}, in {name}:", result.diff))
    for words, diff in survivors:
        changed = [line for line in diff.splitlines() if line[:1] in "+-" and line[:3] not in ("+++", "---")]
        print("\n".join([words, *changed]), end="\n\n")
    for room, outcomes in sorted(found.items()):
        print(f"{room:12} {sum(outcomes):3} of {len(outcomes):3} found")
    every = [outcome for outcomes in found.values() for outcome in outcomes]
    print(f"{'in all':12} {sum(every):3} of {len(every):3} found")
    return 0 if all(sum(outcomes) >= FOUND * len(outcomes) for outcomes in found.values()) else 1


def _spots(path: Path) -> Iterator[tuple[str, str, int]]:
    """Every fault that can be put into a file of the core: its path there, the operator, and which occurrence."""
    tree = get_ast((ROOT / "amber_spread" / "core" / path).read_text())
    for name in OPERATORS:
        operator = get_operator(name)()
        count = sum(len(list(operator.mutation_positions(node))) for node in ast_nodes(tree))
        yield from ((str(path), name, occurrence) for occurrence in range(count))


def _try_all(spots: Sequence[tuple[str, str, int]]) -> list[tuple[str, WorkResult]]:
    """Put faults one after the other into a copy of the tree of their own, and run the fast tests on each."""
    folder = Path(tempfile.mkdtemp(prefix="amber-mutants-"))
    try:
        for name in ("amber_spread", "tests", "docs"):
            shutil.copytree(ROOT / name, folder / name, ignore=shutil.ignore_patterns("__pycache__", "screenshots"))
        shutil.copy(ROOT / "pyproject.toml", folder)
        tests = " ".join(FAST)
        command = (
            f"sh -c 'cd {folder} && AMBER_EXAMPLES=6 CI=true PYTHONDONTWRITEBYTECODE=1 PYTHONPATH={folder} "
            f"{sys.executable} -m pytest -x -q -p no:cacheprovider {tests}'"
        )
        found = []
        for number, (name, operator, occurrence) in enumerate(spots, 1):
            spec = MutationSpec(
                module_path=folder / "amber_spread" / "core" / name,
                operator_name=operator,
                occurrence=occurrence,
                start_pos=(0, 0),
                end_pos=(0, 1),
            )
            found.append((name, mutate_and_test([spec], command, LONGEST_S)))
            print(f"  {number} of {len(spots)}: {name}, {found[-1][1].test_outcome}", file=sys.stderr)
        return found
    finally:
        shutil.rmtree(folder, ignore_errors=True)
