"""The vehicle as it stands: joints, proofs, and what a change asks for."""
