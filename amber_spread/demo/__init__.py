"""A made-up studio and its week before a honey fair: orders to explore from the first minute."""
