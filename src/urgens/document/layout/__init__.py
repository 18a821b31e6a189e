"""Parts, ports, threads, lines, and what a layout joins to what."""
