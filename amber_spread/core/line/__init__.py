"""A whole cake as one line, read and written."""

from amber_spread.core.line.quick_line import read_line
from amber_spread.core.line.quick_reader import LineRead
from amber_spread.core.line.quick_writing import write_line

__all__ = ["LineRead", "read_line", "write_line"]
