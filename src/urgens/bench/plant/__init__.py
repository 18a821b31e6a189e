"""The stand-in for the vehicle, with what can be wrong with its valves."""
