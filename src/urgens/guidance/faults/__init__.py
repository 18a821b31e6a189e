"""Faults: their signs, causes and tests, what stops a vehicle, and the way back after a mend."""
