"""What asks the solver many times: sizing, ways to balance, draws, comparisons, what-ifs."""
