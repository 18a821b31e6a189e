"""What the procedures are called on cards and on paper."""

from urgens.data import procedure_titles
from urgens.guidance.procedures.mending import mends

TITLES = {**procedure_titles(), **{name: one.title for name, one in mends().items()}}
