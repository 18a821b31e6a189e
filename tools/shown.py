"""Show the window on a shipped build once, and print the build's name: what is installed starts."""

from PySide6.QtWidgets import QApplication

from urgens.document import demo
from urgens.ui.application import dress
from urgens.ui.frame.window import MainWindow
from urgens.ui.session import Session

application = QApplication([])
dress(application)
window = MainWindow(Session(demo("library")))
window.show()
application.processEvents()
print(window.session.build.name)
window.close()
