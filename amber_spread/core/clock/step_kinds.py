"""One row for every kind of step: where it is done, how long it takes, what it needs and leaves, and the sign that a
wait is over.

Minutes of work are from memory; waits are common practice unless their row says that they are from memory.
"""

from typing import Literal, NamedTuple

from amber_spread.core.clock.heat import Level
from amber_spread.core.clock.places import Resource
from amber_spread.core.kernel.figures import Origin
from amber_spread.core.kernel.task import Place, State, by_kind

Per = Literal["layer", "filling", "litre", "dm2", "kg", "m", "min", "piece", "tin"]
"""What the minutes of a step grow with."""


class Wait(NamedTuple):
    """A wait in minutes, from the least to the most that hands report. `sign` is how they know that it is over, as it
    follows “done when”.

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
    """One kind of step. It is work, with `base_min` minutes and `each_min` for every `per`, or it is a `wait`, or the
    one in `sooner` for what sets as ganache does.

    `name` has a place for what is mixed, and `does` says what to do where that is the same for every cake. A step
    `at_once` begins as soon as the one before it ends. A wait that `firms` a coat lasts until it is firm through, or
    until the tier can be lifted, by the heat that flows out of it. Work that `splits` may go on the next day. `spread`
    is the standard deviation of its minutes of work, as a share of them (from memory). `tool` is the mixer or
    turntable it needs.
    """

    kind: str
    name: str
    place: Place
    base_min: float = 0.0
    each_min: float = 0.0
    per: Per = "piece"
    wait: Wait | None = None
    sooner: Wait | None = None
    needs: State | None = None
    leaves: State | None = None
    at_once: bool = False
    splits: bool = False
    does: str = ""
    firms: Level | None = None
    spread: float = 0.25
    tool: Resource | None = None

    @property
    def uses(self) -> tuple[Resource, ...]:
        """The resources it uses, one of each, while it lasts."""
        if self.place == "oven":
            return ("oven",)
        if self.place != "bench" or self.wait is not None:
            return ()
        return ("bench",) if self.tool is None else ("bench", self.tool)


FIRM = "nothing comes off on your finger"
DENT = "your fingers leave no dent"
SMEAR = "it does not smear"
RING = "a ring is squeezed out all round"
LIGHT = "A light weight on a card on top helps. Keep it cold, as your local food code asks."

STEP_KINDS: dict[str, StepKind] = by_kind(
    # Mixing
    StepKind("mix_bowl", "Mix {}", "bench", 8, 6, "kg", tool="mixer"),
    StepKind("open_filling", "Get {} ready", "bench", 3, 2, "kg"),
    StepKind("boil_syrup", "Make {}", "bench", 10),
    StepKind("melt_chocolate", "Melt {}", "bench", 8, 5, "kg"),
    StepKind("colour_sheet", "Colour {}", "bench", 5, 8, "kg"),
    StepKind("mix_ganache", "Make {}", "bench", 12, 4, "kg"),
    StepKind("rest_sheet", "Rest {}, wrapped", "bench", wait=Wait(
        30, 60, 1440, "it is cool and smooth, and the colour has stopped getting darker", origin="from memory")),
    StepKind("set_ganache", "Let {} thicken", "bench", wait=Wait(30, 75, 120, "it is as stiff as nut butter",
        "It sets too hard to spread: warm it a few seconds at a time, and stir.")),
    StepKind("cool_syrup", "Let {} cool", "bench", wait=Wait(
        20, 40, 120, "the pan is cool to your hand", origin="from memory")),
    # Baking
    StepKind("mix_batter", "Mix the batter", "bench", 12, 4, "litre", tool="mixer"),
    StepKind("bake", "Bake", "oven", leaves="warm", at_once=True),
    StepKind("take_out", "Take out", "oven", 1, 0.5, "tin", needs="warm", at_once=True,
             does="Let them stand in their tins for 10 minutes, then turn them out onto a rack."),
    StepKind("cool", "Cool", "rack", needs="warm", leaves="cool", wait=Wait(
        60, 90, 180, "no warmth is left in the middle", "It dries out: wrap it sooner.", "from memory"),
             does="On a rack, with air below."),
    StepKind("wrap", "Turn out and wrap", "bench", 2, 1, "tin", needs="cool",
             does="Wrapped before they are quite cold, they stay soft."),
    StepKind("chill_cake", "Chill, wrapped", "fridge", needs="cool", leaves="cold", wait=Wait(
        60, 120, 2880, "it is cold through and cuts without crumbs", "It dries out: freeze it instead.",
        "from memory"),
             does="Cold cake is cut clean. From the freezer, allow about 4 hours to thaw."),
    # Building
    StepKind("level", "Level and trim", "bench", 2, 2, "layer", needs="cold"),
    StepKind("soak", "Soak", "bench", 1, 1, "layer", needs="cold"),
    StepKind("fill", "Fill and stack", "bench", 3, 2.5, "filling", needs="cold", leaves="filled"),
    StepKind("settle", "Settle", "fridge", needs="filled", leaves="settled", wait=Wait(
        20, 60, 720, RING),
             does=LIGHT),
    StepKind("settle_overnight", "Settle overnight, wrapped", "fridge", needs="filled", leaves="settled", wait=Wait(
        480, 720, 1440, RING),
             does=LIGHT),
    StepKind("scrape", "Press level, scrape", "bench", 3, needs="settled",
             does="Press it level both ways, and scrape off what stands out all round."),
    # Carving
    StepKind("cut_layers", "Cut and stack", "bench", needs="cold", leaves="filled", splits=True,
             does="Each to its own template, then filled and stacked on its axis."),
    StepKind("chill_stack", "Chill before the knife", "fridge", needs="filled", leaves="settled", wait=Wait(
        20, 25, 720, "the layers no longer slide"),
             does="Again whenever the layers begin to slide."),
    StepKind("carve", "Carve", "bench", needs="settled", leaves="carved", splits=True,
             does="From the top down, in thin slices, with the boards of both views against it."),
    StepKind("score", "Score the lines", "bench", at_once=True,
             does="While it is still soft, no deeper than half of it."),
    # Coats
    StepKind("crumb_coat", "Crumb coat", "bench", 2, 0.7, "dm2", needs="settled", leaves="coat soft", tool="turntable"),
    StepKind("scrape_back", "Scrape back to the cake", "bench", 2, 0.6, "dm2", needs="coat soft", at_once=True,
             tool="turntable"),
    StepKind("firm_crumb", "Firm the crumb coat", "fridge", needs="coat soft", leaves="coat hard",
             wait=Wait(30, 30, 60, SMEAR), sooner=Wait(15, 20, 30, SMEAR), firms="through"),
    StepKind("final_coat", "Final coat", "bench", 4, 1.6, "dm2", needs="coat hard", leaves="coat soft",
             tool="turntable"),
    StepKind("disc_coat", "Coat to the disc", "bench", 10, 1.8, "dm2", needs="coat hard", leaves="coat soft",
             tool="turntable"),
    StepKind("inverted_coat", "Coat upside-down", "bench", 10, 1.6, "dm2", needs="coat hard",
             leaves="coat soft", tool="turntable"),
    StepKind("piped_coat", "Pipe it all over", "bench", 5, 4, "dm2", needs="coat hard", leaves="coat soft",
             tool="turntable"),
    StepKind("dry_skin", "Let a skin form", "fridge", needs="coat soft", leaves="skin dry", at_once=True, wait=Wait(
        5, 8, 10, "a dry finger comes away clean",
        "It is too hard to smooth: let it warm until it gives.")),
    StepKind("smooth_towel", "Smooth by towel", "bench", 3, 0.5, "dm2", needs="skin dry",
             leaves="coat soft", at_once=True,
             does="Lay the towel on, rub with a smoother, peel it off.", tool="turntable"),
    StepKind("firm_final", "Firm the final coat", "fridge", needs="coat soft", leaves="coat hard",
             wait=Wait(10, 30, 60, FIRM), sooner=Wait(10, 20, 30, "you can handle it without marks"), firms="through"),
    StepKind("firm_inverted", "Firm it right through", "fridge", needs="coat soft", leaves="coat hard", wait=Wait(
        120, 150, 180, FIRM), firms="through"),
    StepKind("turn_back", "Turn back", "bench", 5, needs="coat hard", leaves="turned back",
             at_once=True,
             does="Peel the paper off. It sweats and softens as soon as it is out: work on at once."),
    # Cover
    StepKind("roll", "Roll out", "bench", 5, 0.4, "dm2", leaves="sheet soft"),
    StepKind("firm_pieces", "Firm the cut pieces", "fridge", needs="sheet soft", at_once=True, wait=Wait(
        10, 15, 20, "the edge stays straight when you lift a piece",
        "It cracks when you bend it: let it warm a little."),
             does="On a board, with paper between."),
    StepKind("cover", "Cover", "bench", needs="coat hard", leaves="covered", at_once=True),
    StepKind("wrap_printed", "Wrap in printed sheets", "bench", 5, 2.5, "piece", needs="coat hard", leaves="covered"),
    StepKind("spread_collar", "Spread the collar", "bench", 6, 0.6, "dm2"),
    StepKind("set_collar", "Until the gloss dulls", "bench", at_once=True, wait=Wait(
        2, 5, 10, "the gloss has dulled and it still bends",
        "It snaps: melt it and spread it again.", "from memory"),
             does="On its paper, flat."),
    StepKind("wrap_collar", "Set the collar round it", "bench", needs="coat hard", leaves="covered", at_once=True),
    StepKind("set_hard", "Set hard", "fridge", needs="covered", leaves="coat hard", wait=Wait(
        10, 20, 60, "the paper peels off clean", origin="from memory"),
             does="Then peel the paper off."),
    StepKind("chill_cover", "Chill", "fridge", needs="covered", leaves="coat hard", wait=Wait(30, 45, 60, DENT),
             firms="lift"),
    StepKind("set_printed", "Chill", "fridge", needs="covered", leaves="coat hard", wait=Wait(
        15, 15, 60, "the laps have become one")),
    StepKind("trim", "Trim the lip level", "bench", 5, needs="coat hard",
             does="Cut the lip level with a knife laid flat on the top."),
    # Decoration
    StepKind("cut_on_top", "Lay pieces on top", "bench", 3, 4, "piece", needs="coat hard"),
    StepKind("pipe_border", "Pipe the borders", "bench", 3, 2.5, "m", needs="coat hard", tool="turntable"),
    StepKind("pipe_region", "Pipe over it", "bench", 5, 4, "dm2", needs="coat hard", tool="turntable"),
    # Between two steps that leave it standing
    StepKind("hold", "Keep cold, covered", "fridge", wait=Wait(0, 0, 2880, "", origin="from memory"),
             does="Covered, it does not dry and takes on no smell. Out of the fridge it would wait too long."),
    # Putting it together
    StepKind("supports", "Set the supports", "bench", needs="coat hard", splits=True,
             does="As the stacking card says."),
    StepKind("stack", "Stack", "bench", needs="coat hard", leaves="stacked"),
    StepKind("stack_there", "Stack there", "table", needs="coat hard", leaves="stacked"),
    StepKind("finish", "Finish the joints", "bench", needs="stacked"),
    StepKind("finish_there", "Finish the joints", "table", needs="stacked"),
    StepKind("chill_whole", "Chill before the box", "fridge", leaves="coat hard", wait=Wait(
        30, 60, 1440, DENT, origin="from memory")),
    StepKind("box", "Box it", "bench", needs="coat hard"),
    StepKind("drive", "Drive", "car", 0, 1, "min", needs="coat hard", at_once=True, spread=0.2),
)  # fmt: skip
"""Every kind of step by its name."""
