"""Charts made and sailed (numpy: stays on the server): soundings to grids, contours, legs."""
