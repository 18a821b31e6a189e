"""What happened to the vehicle, by date."""
