"""One row for every kind of task of stacking, driving and serving. The minutes are from memory."""

from amber_spread.core.kernel.task import TaskKind, by_kind

BUILD, SUPPORT, STACK, FINISH, DRIVE, SERVE = "Build", "Supports", "Stack", "Finish", "Drive", "Take down"

STACK_TASKS = by_kind(
    # kind, verb, place, heading, minutes, minutes for each piece
    TaskKind("punch_card", "punch", "bench", BUILD, 2),
    TaskKind("punch_board", "punch", "bench", BUILD, 2),
    TaskKind("fix_first_layer", "attach", "bench", BUILD, 2, needs="cold"),
    TaskKind("build_on_board", "build", "bench", BUILD, 10, 1, leaves="filled"),
    TaskKind("settle", "settle", "fridge", BUILD, 15, needs="filled", leaves="settled"),
    TaskKind("fit_card", "trim", "bench", BUILD),
    TaskKind("chill_tiers", "chill", "fridge", SUPPORT, 0, 2, leaves="coat hard"),
    TaskKind("prick_places", "mark", "bench", SUPPORT, 2, 0.25, needs="coat hard"),
    TaskKind("cut_supports", "cut", "bench", SUPPORT, 3, 1, needs="coat hard"),
    TaskKind("place_pillars", "push", "bench", SUPPORT, 3, 1, needs="coat hard"),
    TaskKind("top_not_flat", "mind", "bench", SUPPORT),
    TaskKind("allow_short", "mind", "bench", SUPPORT),
    TaskKind("blunt_ends", "mind", "bench", SUPPORT, caution=True),
    TaskKind("spread_glue", "spread", "bench", STACK, 1),
    TaskKind("set_riser", "attach", "bench", STACK, 2),
    TaskKind("lift_tier", "lift", "bench", STACK, 4, needs="coat hard", leaves="stacked"),
    TaskKind("check_level", "measure", "bench", STACK, 1),
    TaskKind("drive_dowel", "push", "bench", STACK, 6, needs="stacked"),
    TaskKind("mind_point", "mind", "bench", STACK, caution=True),
    TaskKind("coat_after", "coat", "bench", FINISH, 20, needs="stacked"),
    TaskKind("pipe_bead", "pipe", "bench", FINISH, 4, needs="stacked"),
    TaskKind("take_along", "pack", "bench", STACK, 5),
    TaskKind("box_cake", "pack", "car", DRIVE, 2, 3, needs="cold"),
    TaskKind("drive", "drive", "car", DRIVE),
    TaskKind("time_out", "mind", "car", DRIVE, caution=True),
    TaskKind("pull_dowel", "remove", "table", SERVE, 1),
    TaskKind("cut_down", "cut", "table", SERVE, 3, 0.25),
    TaskKind("lift_off", "remove", "table", SERVE, 2, 0.25),
    TaskKind("count_supports", "count", "table", SERVE, caution=True),
)
