"""What lies in a plane: outlines seen from above, flat pieces, and what is laid out, packed and placed on them."""
