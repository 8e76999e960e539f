"""A whole cake as one line, read and written."""

from amber_spread.core.line.quick_line import LineRead, read_line
from amber_spread.core.line.quick_writing import write_line

__all__ = ["LineRead", "read_line", "write_line"]
