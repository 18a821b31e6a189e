"""From what is seen to the cause: signs, causes and tests, for one build."""
