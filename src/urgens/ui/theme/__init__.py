"""Colours, faces, icons and the stylesheet."""
