"""Shipped tables and builds."""
