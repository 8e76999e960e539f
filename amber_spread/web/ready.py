"""What nearly all work elsewhere needs, read once by the process that all workers are forked from."""

from amber_spread.core.bowls import normals
from amber_spread.papers.dxf_reading import read_dxf
from amber_spread.papers.model_reading import read_model
from amber_spread.papers.outline_files import read_outline
from amber_spread.papers.picture_reading import read_picture
from amber_spread.papers.svg_reading import read_svg
from amber_spread.web import elsewhere
from amber_spread.web.late import read_late

normals()
read_late()
__all__ = ["elsewhere", "read_dxf", "read_model", "read_outline", "read_picture", "read_svg"]
