"""Figures, parts and judgements in words."""
