"""What the command line prints: results as plain JSON values, SI throughout."""
