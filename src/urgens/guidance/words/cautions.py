"""What is said before any figure: how brakes are worked on, and who has the last word."""

CAUTIONS = (
    "Computed figures do not prove a brake system. Have the work checked by a qualified person; "
    "local law and inspection rules come first.",
    "First tests at walking pace, then on closed, empty, level ground with run-off, with helmet "
    "and harness where fitted.",
    "Never drive with a warning lamp lit, a sinking pedal or a leak. Support the vehicle on "
    "stands; eye protection and gloves for fluid.",
)
