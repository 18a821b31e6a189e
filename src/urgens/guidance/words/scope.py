"""What Urgens computes, and what it does not: said where a builder asks for it."""

COMPUTES = (
    "From foot to road: pedal, vacuum and hydraulic boosters, single, tandem and twin cylinders "
    "with a balance bar; front-rear, diagonal and single circuits.",
    "Reducing, limiting, adjustable, load-sensing, inertia-sensing, metering and residual valves; "
    "disc brakes, and drum brakes by shoe factor or from pinned shoes.",
    "Load transfer, downforce, engine drag, grip used, who locks first on every load and road, "
    "deceleration, what a locked wheel keeps, what a corner leaves.",
    "Fluid volumes and pedal travel, what one half lost leaves, whether the brakes hold a launch, "
    "the stops a vacuum reservoir keeps, an estimate of the heat of a series of stops.",
    "Circuits and lines: what fits, how a line is bent and cut, what is bought; procedures for the "
    "layout; what gauges, stops and logs say; what a fault comes from; the order of the work.",
)
COMPUTES_NOT = (
    "One vehicle on a level, straight road, pressed steadily: no anti-lock unit, no swerving, no "
    "trailer.",
    "No fade, no wear within a stop, no flow in the lines but for one estimate in the cold.",
    "Friction, grip and wear are what you typed: nobody measured them here. Spreads that you did "
    "not type are the usual ones.",
    "Minutes and prices are common practice and your own; the test road is a vehicle of one track.",
    "Whether a vehicle passes an inspection, or may be driven: local rules and a look by a "
    "qualified person come first.",
)
