"""Stops on the road: what they say, and the next setting."""
