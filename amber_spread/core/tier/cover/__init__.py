"""What a tier is covered with: a function for each way, over one plan of what is rolled, cut and laid."""
