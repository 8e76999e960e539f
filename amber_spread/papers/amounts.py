"""What every step takes, as CSV: coats and covers, fillings and borders, a line each."""

import csv
import io

from amber_spread.core.plan import Plan

HEAD = ("tier", "name", "step", "medium", "colour", "stays_g", "lost_g", "in_hand_g", "bowl_mix_g")


def write_amounts(plan: Plan) -> str:
    """A line for every step of every bowl, weights in grams with a point; text a spreadsheet could run is quoted."""
    stream = io.StringIO()
    writer = csv.writer(stream, lineterminator="\r\n")
    writer.writerow(HEAD)
    steps = [(use, bowl) for bowl in plan.bowls.values() for use in bowl.steps.values()]
    for use, bowl in sorted(steps, key=lambda step: step[0].tier):
        weights = (use.stays.value, use.lost.value, use.in_hand.value, bowl.mix.value)
        name, colour = plain(plan.tiers[use.tier - 1].name), plain(use.colour or "")
        writer.writerow((use.tier, name, use.step, use.medium, colour, *(f"{weight:.1f}" for weight in weights)))
    return stream.getvalue()


def plain(words: str) -> str:
    """Words no spreadsheet takes for a formula."""
    return f"'{words}" if words[:1] in ("=", "+", "-", "@", "\t") else words
