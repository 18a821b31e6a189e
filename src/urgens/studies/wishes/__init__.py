"""Systems from wishes: what the vehicle should do, what may change, and what then fits."""
