"""The dialog in which a file is chosen: Qt's own, in our icons and words."""

from collections.abc import Sequence
from pathlib import Path

from PySide6.QtCore import QFileInfo, QUrl
from PySide6.QtGui import QAbstractFileIconProvider, QIcon
from PySide6.QtWidgets import QFileDialog, QHeaderView, QToolButton, QTreeView, QWidget

from urgens.ui.theme.icons import icon
from urgens.ui.widgets.plain import point_out

SIZE = 860, 540  # px
TYPE = 2  # the column of what a file's ending says already
# Qt's names of its buttons: our icon, and what each does
BUTTONS = {
    "backButton": ("arrow-left", "Back to the folder before"),
    "forwardButton": ("arrow-right", "Forward"),
    "toParentButton": ("arrow-up", "The folder this one is in"),
    "newFolderButton": ("folder-plus", "New folder"),
    "listModeButton": ("layout-grid", "Names alone"),
    "detailModeButton": ("list", "Names with sizes and dates"),
}


class FileIcons(QAbstractFileIconProvider):
    """A folder or a sheet in the ink of the theme, whatever the desktop has for them."""

    def icon(self, of: QFileInfo | QAbstractFileIconProvider.IconType) -> QIcon:
        kinds = QAbstractFileIconProvider.IconType
        folder = of.isDir() if isinstance(of, QFileInfo) else of not in (kinds.File, kinds.Trashcan)
        return icon("folder" if folder else "file")


class FileChooser(QFileDialog):
    """Asks for files; one that would be written over is asked about by who asked for it."""

    def __init__(self, parent: QWidget, title: str, start: Path, kinds: str) -> None:
        super().__init__(parent, title, str(start if start.is_dir() else start.parent), kinds)
        self.setOption(QFileDialog.Option.DontConfirmOverwrite)
        self._icons = FileIcons()  # which Qt does not keep
        self.setIconProvider(self._icons)
        self.setSidebarUrls([QUrl.fromLocalFile(str(Path.home()))])
        for label, words in (
            (QFileDialog.DialogLabel.LookIn, "In folder"),
            (QFileDialog.DialogLabel.FileName, "Name"),
            (QFileDialog.DialogLabel.FileType, "Kind"),
        ):
            self.setLabelText(label, words)
        for name, (image, words) in BUTTONS.items():
            button = self.findChild(QToolButton, name)
            if button is not None:
                button.setIcon(icon(image))
                point_out(button, words)
                button.setAccessibleName(words)
        rows = self.findChild(QTreeView, "treeView")
        if rows is not None:
            rows.setColumnHidden(TYPE, True)
            rows.header().setStretchLastSection(False)
            rows.header().setSectionResizeMode(QHeaderView.ResizeMode.ResizeToContents)
            rows.header().setSectionResizeMode(0, QHeaderView.ResizeMode.Stretch)
        wide, tall = SIZE
        self.resize(min(wide, parent.window().width() - 40), min(tall, parent.window().height()))

    @classmethod
    def ask(
        cls, parent: QWidget, title: str, start: Path, kinds: str, mode: QFileDialog.FileMode
    ) -> Sequence[str]:
        """Return the files that are chosen, none where the dialog is left.

        start: a folder, or a file that is offered; mode: one, several, or one to be written.
        """
        dialog = cls(parent, title, start, kinds)
        dialog.setFileMode(mode)
        if mode is QFileDialog.FileMode.AnyFile:
            dialog.setAcceptMode(QFileDialog.AcceptMode.AcceptSave)
            dialog.selectFile(start.name)
        dialog.setLabelText(
            QFileDialog.DialogLabel.Accept,
            "Write" if mode is QFileDialog.FileMode.AnyFile else "Open",
        )
        taken = dialog.exec() == QFileDialog.DialogCode.Accepted
        names = dialog.selectedFiles() if taken else []
        dialog.deleteLater()
        return names
