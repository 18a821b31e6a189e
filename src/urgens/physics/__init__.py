"""Pure functions of NumPy arrays in SI, one file per thing on the car.

Each takes and returns arrays of any shapes that broadcast together: presses, load cases,
candidates and draws alike. They know no build and no units. Quasi-static, level, straight road.
"""
