"""Each figure stands in one table with its bare counterpart: machines differ, ratios less so."""

import os

os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")
