"""What nearly every job needs, imported once by the process that all jobs are forked from."""

from amber_spread.jobs import calls, designs, papers, week
from amber_spread.jobs.warm import warm
from amber_spread.papers import bench_sheet, orders, shopping_list, stack_cards
from amber_spread.papers.dxf_reading import read_dxf
from amber_spread.papers.model_reading import read_model
from amber_spread.papers.outline_files import read_outline
from amber_spread.papers.picture_reading import read_picture
from amber_spread.papers.svg_reading import read_svg

warm()
__all__ = [
    "bench_sheet",
    "calls",
    "designs",
    "orders",
    "papers",
    "read_dxf",
    "read_model",
    "read_outline",
    "read_picture",
    "read_svg",
    "shopping_list",
    "stack_cards",
    "week",
]
