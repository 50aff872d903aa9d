#include "app/ask_folder.h"

#include <QFile>
#include <QFileDialog>

namespace sober::app {

void askForFolder(QWidget* parent, const QString& title, std::function<void(const BytePath&)> then) {
    auto* dialog = new QFileDialog(parent, title);
    dialog->setAttribute(Qt::WA_DeleteOnClose);
    dialog->setFileMode(QFileDialog::Directory);
    dialog->setOption(QFileDialog::ShowDirsOnly);
    QObject::connect(
        dialog, &QFileDialog::fileSelected, parent,
        [then = std::move(then)](const QString& path) { then(QFile::encodeName(path).toStdString()); });
    dialog->open();
}

} // namespace sober::app
