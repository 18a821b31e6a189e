"""What stands around the stations: rail, top bar, menu, dialogs, files, and the window itself."""
