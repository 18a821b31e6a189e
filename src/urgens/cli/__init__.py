"""The command line: one file a group of commands."""
