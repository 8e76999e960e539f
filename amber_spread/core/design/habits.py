"""The words for this kitchen's usual: what each value of a practice is called in the trade, what it does, and whence it
comes. A row for every field; the screens that show or change them read these rows.
"""

from typing import Literal

from amber_spread.core.design.rows import Choice
from amber_spread.core.kernel.base import Frozen
from amber_spread.core.kernel.figures import Origin

Chapter = Literal["Cake", "Coats", "Cover", "Boards", "Stack", "Mixing", "Clock", "Heat"]


class Habit(Frozen):
    """One value of a practice: its field, its name, what it does, the limit it keeps to or the `choices` there are, and
    where it comes from.
    """

    name: str
    words: str
    effect: str
    room: Chapter
    limit: str
    percent: bool
    origin: Origin
    choices: tuple[Choice, ...] = ()


class Handling(Frozen):
    """One technique of a practice: the step it is of, and what its three shares mean there."""

    name: str
    words: str
    effect: str


SHARES = {
    "lost": "Lost to bowl, bag, blade and crumbs, of what stays",
    "float": "In hand besides, and back in the bowl after",
    "variation": "How far what stays varies, one time in three",
}
"""What the three shares of a technique are."""


CHOICES = {"firm_in": (Choice(value="fridge", words="Fridge"), Choice(value="freezer", words="Freezer"))}
"""The values that are one of a few."""


def _habits() -> tuple[Habit, ...]:
    rows: list[tuple[Chapter, str, str, str, str, Origin]] = [
        ("Cake", "shrinkage_mm", "trimmed_skin_mm", "Cake shrinks in its tin, each side",
         "A baked cake stands this far off the wall of its tin.", "common practice"),
        ("Cake", "trimmed_skin_mm", "trimmed_skin_mm", "Browned skin trimmed off, each side",
         "What you trim off the sides of the baked cake before you spread anything.", "common practice"),
        ("Cake", "filling_mm", "filling_thickness_mm", "Filling", "The thickness of every filling not set by itself.",
         "common practice"),
        ("Cake", "filling_least_mm", "filling_thickness_mm", "Thinnest filling",
         "How thin a filling may be made to reach a target height.", "common practice"),
        ("Cake", "filling_most_mm", "filling_thickness_mm", "Thickest filling",
         "How thick a filling may be made to reach a target height.", "common practice"),
        ("Cake", "dam_mm", "dam_width_mm", "Dam of a soft filling, wide", "How wide you pipe the ring that holds a "
         "soft filling.", "common practice"),
        ("Cake", "seal_mm", "seal_thickness_mm", "Seal under a soft filling",
         "A skin of buttercream below curd or jam, so that it does not soak in.", "common practice"),
        ("Cake", "cut_least_mm", "layer_height_mm", "Thinnest layer worth cutting",
         "Layers are not cut thinner than this to reach a target height.", "common practice"),
        ("Cake", "settling", "settling", "Filling settles by", "How much of the filling’s height is lost overnight.",
         "from memory"),
        ("Cake", "tin_depth_mm", "tin_depth_mm", "Tins, deep", "How high a tin bakes, where a tier does not say.",
         "common practice"),
        ("Cake", "level_mm", "levelled", "Levelled off a baked layer", "Baked besides, and cut off.", "this kitchen"),
        ("Cake", "batter_fill", "batter_fill", "Batter, of the baked height",
         "How full a tin is filled, for what it is to bake to.", "common practice"),
        ("Cake", "tins_of_each", "tins_of_each", "Tins of a size", "How many of each there are to bake in at once.",
         "this kitchen"),
        ("Cake", "oven_wide_mm", "oven_side_mm", "Oven shelf, wide", "What lies side by side in the oven.",
         "from memory"),
        ("Cake", "oven_deep_mm", "oven_side_mm", "Oven shelf, deep", "What lies behind another in the oven.",
         "from memory"),
        ("Cake", "oven_shelves", "oven_shelves", "Oven shelves at once", "How many levels are baked on at once.",
         "this kitchen"),
        ("Cake", "batch_ml", "batch_ml", "A batch of batter", "What one batch makes, where no recipe says.",
         "this kitchen"),
        ("Cake", "spare_tin_mm", "tin_diameter_mm", "Small spare cake, tin", "What a rest of batter is offered for.",
         "this kitchen"),
        ("Cake", "sweets_g_per_ml", "density_g_per_ml", "Sweets weigh, heaped",
         "The weight of what fills a hidden cavity.", "from memory"),
        ("Cake", "syrup_soak_mm", "syrup_soak_mm", "Syrup soaks in", "How much syrup every cut face takes.",
         "this kitchen"),
        ("Cake", "foot_cut_mm", "foot_cut_mm", "Foot of a drum, cut",
         "How deep a cut off its rim makes a drum stand on its side.", "this kitchen"),
        ("Cake", "cake_density_g_per_ml", "density_g_per_ml", "Baked cake weighs",
         "The weight of every tier, and of what is carried.", "from memory"),
        ("Coats", "crumb_coat_mm", "coat_thickness_mm", "Crumb coat", "The thickness of every crumb coat not set by "
         "itself.", "common practice"),
        ("Coats", "coat_side_mm", "coat_thickness_mm", "Final coat, side", "The thickness of every final coat’s side "
         "not set by itself.", "common practice"),
        ("Coats", "coat_top_mm", "coat_thickness_mm", "Final coat, top", "The thickness of every final coat’s top not "
         "set by itself.", "common practice"),
        ("Coats", "coat_least_mm", "coat_thickness_mm", "Thinnest coat that hides crumbs",
         "A thinner one is said to show them.", "common practice"),
        ("Coats", "semi_naked_mm", "coat_thickness_mm", "Semi-naked, goes on", "What is spread before it is scraped "
         "back.", "this kitchen"),
        ("Coats", "semi_naked_share", "share", "Semi-naked, stays", "How much of it is left on the cake.",
         "this kitchen"),
        ("Coats", "semi_naked_crumbs", "share", "Semi-naked, scrapings with crumbs", "How much of what you scrape back "
         "carries crumbs. The rest goes back in the bowl.", "from memory"),
        ("Coats", "relief_mm", "coat_thickness_mm", "Piped over, mean relief",
         "The mean depth of piped rows, rosettes and ruffles.", "from memory"),
        ("Coats", "rim_mm", "rim_mm", "Lip of a deckled rim", "How far an unevened rim stands above the top.",
         "this kitchen"),
        ("Cover", "fondant_mm", "fondant_thickness_mm", "Fondant", "How thick every sheet is rolled that is not set by "
         "itself.", "common practice"),
        ("Cover", "overlap_mm", "overlap_mm", "Trim allowance, all round", "How far a draped sheet reaches past the "
         "board.", "common practice"),
        ("Cover", "panel_overlap_mm", "overlap_mm", "Panel ends overlap", "How far the ends of a strip lie over each "
         "other.", "common practice"),
        ("Cover", "panel_trim_mm", "overlap_mm", "Panel, to trim", "How far a strip stands past the edge it is "
         "trimmed at.", "common practice"),
        ("Cover", "stretch_most", "stretch", "Fondant stretches at most", "A strip that must stretch more is said to "
         "tear.", "from memory"),
        ("Cover", "roll_margin_mm", "overlap_mm", "Rolled beyond a piece, all round", "Rolled besides and cut away.",
         "this kitchen"),
        ("Cover", "band_mm", "band_mm", "Band over a seam", "The strip that hides where two halves meet.",
         "common practice"),
        ("Cover", "printed_overlap_mm", "overlap_mm", "Printed sheets overlap", "Where two printed sheets meet.",
         "common practice"),
        ("Cover", "tab_mm", "overlap_mm", "Tabs of a printed sheet", "What is turned over an edge to hold it.",
         "this kitchen"),
        ("Cover", "collar_mm", "fondant_thickness_mm", "Chocolate collar", "How thick a collar is spread.",
         "common practice"),
        ("Cover", "collar_above_mm", "overlap_mm", "Collar above the tier", "How far a collar stands above the top.",
         "common practice"),
        ("Cover", "bead_mm", "bead_mm", "Bead of a border", "How thick a piped border is.", "common practice"),
        ("Boards", "tier_board_mm", "board_thickness_mm", "Board under an upper tier", "Its thickness, in every "
         "height.", "common practice"),
        ("Boards", "hidden_board_in_mm", "board_margin_mm", "Hidden board inside the cake", "How much smaller, each "
         "side, a board inside a double-height tier is.", "common practice"),
        ("Boards", "base_board_mm", "board_thickness_mm", "Base board", "Its thickness, in every height.",
         "common practice"),
        ("Boards", "base_margin_mm", "board_margin_mm", "Base board beyond the cake", "How much of it shows, each "
         "side.", "common practice"),
        ("Boards", "board_g_per_ml", "density_g_per_ml", "Boards weigh", "What boards add to what is carried.",
         "from memory"),
        ("Stack", "support_inset_mm", "board_margin_mm", "Supports, inside the edge",
         "How far inside the edge of the tier above they stand, where there is room.", "common practice"),
        ("Stack", "support_apart_mm", "board_margin_mm", "Supports, apart",
         "How far it is from the middle of one to the next at least, where there is room.", "common practice"),
        ("Stack", "support_factor", "safety", "Supports bear, times the load",
         "How many times its load a support must be able to bear.", "from memory"),
        ("Stack", "cut_error_mm", "cut_error_mm", "Supports differ in length by",
         "How far out of level a tier comes by that.", "from memory"),
        ("Stack", "cake_bears_g_per_cm2", "cake_bears", "Cake bears by itself",
         "What presses harder sinks in without supports.", "from memory"),
        ("Stack", "paste_parts", "paste", "Modelling paste, crumbs to one of coat", "How many parts of crumbs, by "
         "weight, are worked into one part of coat.", "from memory"),
        ("Stack", "glue_mm", "glue_mm", "Dab under a board, on the whole", "As thick as it would be spread over all "
         "of the board.", "from memory"),
        ("Stack", "joint_bead_mm", "joint_bead_mm", "Bead along a joint", "Piped where a tier meets the one below, "
         "and smoothed.", "common practice"),
        ("Stack", "tier_gap_mm", "tier_gap_mm", "Between tiers that stand apart", "How high pillars or a riser hold a "
         "tier.", "this kitchen"),
        ("Stack", "dowel_mm", "dowel_mm", "Centre dowel, at least", "The thinnest dowel you use. A heavier cake takes "
         "the least size that holds it.",
         "common practice"),
        ("Stack", "dowel_into_base_mm", "board_thickness_mm", "Dowel driven into the base board", "How deep it is "
         "hammered in.", "common practice"),
        ("Stack", "dowel_below_top_mm", "board_margin_mm", "Dowel ends below the top", "So that it is not seen.",
         "common practice"),
        ("Stack", "brake_share", "push", "A hard stop, of its weight", "How hard a braking car pushes the cake, as a "
         "share of its weight.", "from memory"),
        ("Stack", "turn_share", "push", "A sharp turn, of its weight", "How hard a turning car pushes it.",
         "from memory"),
        ("Stack", "portion_wide_mm", "portion_mm", "A portion, wide", "How many portions a tier is cut into.",
         "common practice"),
        ("Stack", "portion_deep_mm", "portion_mm", "A portion, deep", "How many portions a tier is cut into.",
         "common practice"),
        ("Stack", "portion_high_mm", "portion_mm", "A portion, high", "A tier as high as two is cut twice.",
         "common practice"),
        ("Mixing", "mixer_ml", "mixer_ml", "Mixer holds", "How much one batch of anything beaten can be.",
         "this kitchen"),
        ("Mixing", "mixer_fill", "batter_fill", "Mixer filled at most", "How full a bowl still beats well.",
         "common practice"),
        ("Mixing", "weigh_step_g", "weigh_step_g", "Weigh amounts to", "Amounts to mix go up to a whole step.",
         "this kitchen"),
        ("Mixing", "run_out_risk", "run_out_risk", "Risk of running short", "How often a bowl may run out, and so how "
         "much more is mixed.", "this kitchen"),
        ("Clock", "ready_before_min", "ready_before_min", "Ready before it is due", "Spare time at the end, for what "
         "goes wrong.", "this kitchen"),
        ("Heat", "kitchen_degc", "kitchen_degc", "Kitchen is at", "How warm a coat is as you spread it, and how soon "
         "it softens again.", "this kitchen"),
        ("Heat", "kitchen_humidity", "humidity", "Humidity of the kitchen", "How long a tier sweats when it leaves the "
         "cold.", "this kitchen"),
        ("Heat", "fridge_degc", "fridge_degc", "Fridge is at", "How long a coat takes to firm in it.", "this kitchen"),
        ("Heat", "freezer_degc", "freezer_degc", "Freezer is at", "How long a coat takes to firm in it.",
         "this kitchen"),
        ("Heat", "fridge_pace", "cold_pace", "How well the fridge cools", "Usual is 100 %; some 170 % with a fan, less "
         "where it is full. What a coat really took corrects it.", "from memory"),
        ("Heat", "freezer_pace", "cold_pace", "How well the freezer cools", "Usual is 100 %. What a coat really took "
         "corrects it.", "from memory"),
        ("Heat", "firm_in", "", "Coats firm in", "A freezer is quicker, and a coat must come out of it on time.",
         "this kitchen"),
    ]  # fmt: skip
    percent = {
        "settling",
        "semi_naked_share",
        "semi_naked_crumbs",
        "batter_fill",
        "mixer_fill",
        "stretch_most",
        "run_out_risk",
    }
    percent |= {"kitchen_humidity", "brake_share", "turn_share", "fridge_pace", "freezer_pace"}
    return tuple(
        Habit(
            name=name,
            words=words,
            effect=effect,
            room=room,
            limit=limit,
            percent=name in percent,
            origin=origin,
            choices=CHOICES.get(name, ()),
        )
        for room, name, limit, words, effect, origin in rows
    )


HABITS = _habits()
HANDLINGS = tuple(
    Handling(name=name, words=words, effect=effect)
    for name, words, effect in (
        ("filling", "Filling", "Spread or piped between layers."),
        ("seal", "Seal", "Spread thin below a soft filling."),
        ("dam", "Dam", "Piped round a soft filling."),
        ("crumb", "Crumb coat", "Spread thin, scraped close; what comes back carries crumbs."),
        ("freehand", "By scraper", "Put on thick and scraped to the line."),
        (
            "disc",
            "To a disc",
            "You fill out to a disc with a whole batch and scrape against it. Reserve: a share of one more batch.",
        ),
        ("twin", "Between two discs", "Filled out between two discs, and scraped against both."),
        ("inverted", "Upside down", "Filled in round the tier as it stands on its head."),
        ("towel", "Smoothed by towel", "Scraped, set, and pressed smooth through a paper towel."),
        ("deckled", "Deckled rim", "As by scraper, its rim left standing."),
        (
            "semi_naked",
            "Semi-naked",
            "You put the whole coat on and scrape most of it off. Scrapings without crumbs go back in the bowl.",
        ),
        ("textured", "Piped over", "Rows, rosettes or ruffles over the crumb coat."),
        ("drape", "Sheet over all", "One sheet, its hem trimmed; trimmings are reckoned from its size."),
        ("pieces", "Cut pieces", "Panels, sides, halves and gores."),
        ("collar", "Chocolate collar", "Spread on paper or acetate and wrapped."),
        ("border", "Border", "Piped round the foot or the rim."),
        ("syrup", "Syrup", "Brushed on the cut faces."),
        ("glue", "Glue and joints", "A dab under a board, and the bead piped where two tiers meet."),
    )
)
"""A row for every technique."""
