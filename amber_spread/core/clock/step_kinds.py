"""One row for every kind of step: where it is done, how long it takes, what it needs and leaves, and the sign that a
wait is over.

Minutes of work are from memory; waits are common practice unless their row says that they are from memory.
"""

from typing import Literal, NamedTuple

from amber_spread.core.kernel.figures import Origin
from amber_spread.core.kernel.task import Place, State

Per = Literal["layer", "filling", "litre", "dm2", "kg", "m", "piece", "tin"]
"""What the minutes of a step grow with."""


class Wait(NamedTuple):
    """A wait in minutes, from the least to the most that hands report, and the sign by which they know it is over.

    `too_long` says what happens after the most, where too late is as bad as too early. `origin` is where the minutes
    come from.
    """

    least_min: float
    usual_min: float
    most_min: float
    sign: str
    too_long: str = ""
    origin: Origin = "common practice"


class StepKind(NamedTuple):
    """One kind of step. It is work, with `base_min` minutes and `each_min` for every `per`, or it is a wait.

    A step `at_once` begins as soon as the one before it ends. Work that `splits` may go on the next day.
    """

    kind: str
    name: str
    place: Place
    base_min: float = 0.0
    each_min: float = 0.0
    per: Per = "piece"
    wait: Wait | None = None
    needs: State | None = None
    leaves: State | None = None
    at_once: bool = False
    splits: bool = False
    caution: str = ""
    spread: float = 0.25
    """The standard deviation of its minutes of work, as a share of them."""


FIRM = "Nothing comes off on your finger"
DENT = "Your fingers leave no dent"

_ROWS = (
    # Mixing
    StepKind("mix_bowl", "Mix {}", "bench", 8, 6, "kg"),
    StepKind("open_filling", "Get {} ready", "bench", 3, 2, "kg"),
    StepKind("boil_syrup", "Make {}", "bench", 10,
             caution="Hot syrup burns: keep handles turned in, and children away."),
    StepKind("melt_chocolate", "Melt {}", "bench", 8, 5, "kg"),
    StepKind("colour_sheet", "Colour {}", "bench", 5, 8, "kg"),
    StepKind("mix_ganache", "Make {}", "bench", 12, 4, "kg",
             caution="Hot cream burns: keep handles turned in, and children away."),
    StepKind("rest_sheet", "Rest {}, wrapped", "bench", wait=Wait(
        30, 60, 1440, "It is cool and smooth, and the colour has stopped getting darker", origin="from memory")),
    StepKind("set_ganache", "Let {} thicken", "bench", wait=Wait(30, 75, 120, "It is as stiff as nut butter",
        "It sets too hard to spread: warm it a few seconds at a time, and stir.")),
    StepKind("cool_syrup", "Let {} cool", "bench", wait=Wait(
        20, 40, 120, "The pan is cool to your hand", origin="from memory")),
    # Baking
    StepKind("mix_batter", "Mix the batter", "bench", 12, 4, "litre"),
    StepKind("bake", "Bake", "oven", leaves="warm", at_once=True),
    StepKind("take_out", "Take out", "oven", 1, 0.5, "tin", needs="warm", at_once=True),
    StepKind("cool", "Cool", "rack", needs="warm", leaves="cool", wait=Wait(
        60, 90, 180, "No warmth is left in the middle", "It dries out: wrap it sooner.", "from memory")),
    StepKind("wrap", "Turn out and wrap", "bench", 2, 1, "tin", needs="cool"),
    StepKind("chill_cake", "Chill, wrapped", "fridge", needs="cool", leaves="cold", wait=Wait(
        60, 120, 2880, "It is cold through and cuts without crumbs", "It dries out: freeze it instead.",
        "from memory")),
    # Building
    StepKind("level", "Level and trim", "bench", 2, 2, "layer", needs="cold"),
    StepKind("soak", "Soak", "bench", 1, 1, "layer", needs="cold"),
    StepKind("fill", "Fill and stack", "bench", 3, 2.5, "filling", needs="cold", leaves="filled"),
    StepKind("settle", "Settle", "fridge", needs="filled", leaves="settled", wait=Wait(
        20, 60, 720, "A ring is squeezed out all round")),
    StepKind("settle_overnight", "Settle overnight, wrapped", "fridge", needs="filled", leaves="settled", wait=Wait(
        480, 720, 1440, "A ring is squeezed out all round")),
    StepKind("scrape", "Press level, scrape", "bench", 3, needs="settled"),
    # Carving
    StepKind("cut_layers", "Cut and stack", "bench", needs="cold", leaves="filled", splits=True),
    StepKind("chill_stack", "Chill before the knife", "fridge", needs="filled", leaves="settled", wait=Wait(
        20, 25, 720, "The layers no longer slide")),
    StepKind("carve", "Carve", "bench", needs="settled", leaves="carved", splits=True),
    StepKind("score", "Score the lines", "bench", at_once=True),
    # Coats
    StepKind("crumb_coat", "Crumb coat", "bench", 2, 0.7, "dm2", needs="settled", leaves="coat soft"),
    StepKind("scrape_back", "Scrape back to the cake", "bench", 2, 0.6, "dm2", needs="coat soft", at_once=True),
    StepKind("firm_crumb", "Firm the crumb coat", "fridge", needs="coat soft", leaves="coat hard", wait=Wait(
        30, 30, 60, "It does not smear")),
    StepKind("firm_crumb_ganache", "Firm the crumb coat", "fridge", needs="coat soft", leaves="coat hard", wait=Wait(
        15, 20, 30, "It does not smear")),
    StepKind("final_coat", "Final coat", "bench", 4, 1.6, "dm2", needs="coat hard", leaves="coat soft"),
    StepKind("disc_coat", "Coat to the disc", "bench", 10, 1.8, "dm2", needs="coat hard", leaves="coat soft"),
    StepKind("inverted_coat", "Coat upside-down", "bench", 10, 1.6, "dm2", needs="coat hard",
             leaves="coat soft"),
    StepKind("piped_coat", "Pipe it all over", "bench", 5, 4, "dm2", needs="coat hard", leaves="coat soft"),
    StepKind("dry_skin", "Let a skin form", "fridge", needs="coat soft", leaves="skin dry", at_once=True, wait=Wait(
        5, 8, 10, "A dry finger comes away clean",
        "It is too hard to smooth: let it warm until it gives.")),
    StepKind("smooth_towel", "Smooth by towel", "bench", 3, 0.5, "dm2", needs="skin dry",
             leaves="coat soft", at_once=True),
    StepKind("firm_final", "Firm the final coat", "fridge", needs="coat soft", leaves="coat hard", wait=Wait(
        10, 30, 60, FIRM)),
    StepKind("firm_final_ganache", "Firm the final coat", "fridge", needs="coat soft", leaves="coat hard", wait=Wait(
        10, 20, 30, "You can handle it without marks")),
    StepKind("firm_inverted", "Firm it right through", "fridge", needs="coat soft", leaves="coat hard", wait=Wait(
        120, 150, 180, FIRM)),
    StepKind("turn_back", "Turn back", "bench", 5, needs="coat hard", leaves="turned back",
             at_once=True),
    # Cover
    StepKind("roll", "Roll out", "bench", 5, 0.4, "dm2", leaves="sheet soft"),
    StepKind("firm_pieces", "Firm the cut pieces", "fridge", needs="sheet soft", at_once=True, wait=Wait(
        10, 15, 20, "The edge stays straight when you lift a piece",
        "It cracks when you bend it: let it warm a little.")),
    StepKind("cover", "Cover", "bench", needs="coat hard", leaves="covered", at_once=True),
    StepKind("wrap_printed", "Wrap in printed sheets", "bench", 5, 2.5, "piece", needs="coat hard", leaves="covered"),
    StepKind("spread_collar", "Spread the collar", "bench", 6, 0.6, "dm2"),
    StepKind("set_collar", "Until the gloss dulls", "bench", at_once=True, wait=Wait(
        2, 5, 10, "The gloss has dulled and it still bends",
        "It snaps: melt it and spread it again.", "from memory")),
    StepKind("wrap_collar", "Set the collar round it", "bench", needs="coat hard", leaves="covered", at_once=True),
    StepKind("set_hard", "Set hard", "fridge", needs="covered", leaves="coat hard", wait=Wait(
        10, 20, 60, "The paper peels off clean", origin="from memory")),
    StepKind("chill_cover", "Chill", "fridge", needs="covered", leaves="coat hard", wait=Wait(30, 45, 60, DENT)),
    StepKind("set_printed", "Chill", "fridge", needs="covered", leaves="coat hard", wait=Wait(
        15, 15, 60, "The laps have become one")),
    StepKind("trim", "Trim the lip level", "bench", 5, needs="coat hard"),
    # Decoration
    StepKind("cut_on_top", "Lay pieces on top", "bench", 3, 4, "piece", needs="coat hard"),
    StepKind("pipe_border", "Pipe the borders", "bench", 3, 2.5, "m", needs="coat hard"),
    StepKind("pipe_region", "Pipe over it", "bench", 5, 4, "dm2", needs="coat hard"),
    # Between two steps that leave it standing
    StepKind("hold", "Keep cold, covered", "fridge", wait=Wait(0, 0, 2880, "", origin="from memory")),
    # Putting it together
    StepKind("supports", "Set the supports", "bench", needs="coat hard", splits=True),
    StepKind("stack", "Stack", "bench", needs="coat hard", leaves="stacked"),
    StepKind("stack_there", "Stack there", "table", needs="coat hard", leaves="stacked"),
    StepKind("finish", "Finish the joints", "bench", needs="stacked"),
    StepKind("finish_there", "Finish the joints", "table", needs="stacked"),
    StepKind("chill_whole", "Chill before the box", "fridge", leaves="coat hard", wait=Wait(
        30, 60, 1440, DENT, origin="from memory")),
    StepKind("box", "Box it", "bench", needs="coat hard"),
    StepKind("drive", "Drive", "car", needs="coat hard", at_once=True, spread=0.2),
)  # fmt: skip

STEP_KINDS: dict[str, StepKind] = {row.kind: row for row in _ROWS}
"""Every kind of step by its name."""
if len(STEP_KINDS) < len(_ROWS):
    raise ValueError("two kinds of step have one name")
