"""Open formats in and out: templates as SVG, DXF and PDF, amounts as CSV, outlines read from SVG."""
