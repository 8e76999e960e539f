"""What nearly every job needs, imported once by the process that all jobs are forked from."""

from amber_spread.core.bowls import normals
from amber_spread.jobs import calls, designs, papers
from amber_spread.jobs.late import read_late
from amber_spread.papers.dxf_reading import read_dxf
from amber_spread.papers.model_reading import read_model
from amber_spread.papers.outline_files import read_outline
from amber_spread.papers.picture_reading import read_picture
from amber_spread.papers.svg_reading import read_svg

normals()
read_late()
__all__ = ["calls", "designs", "papers", "read_dxf", "read_model", "read_outline", "read_picture", "read_svg"]
