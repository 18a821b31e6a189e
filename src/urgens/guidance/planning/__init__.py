"""The order of the work: jobs of a build, as few bleeds as can be, when, and what is due after."""
