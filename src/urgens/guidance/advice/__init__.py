"""What to choose and why, and what it gives up."""
