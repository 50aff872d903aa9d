#include "app/ask_path.h"

#include <QFile>
#include <QFileDialog>

namespace sober::app {
namespace {

QFileDialog* asking(QWidget* parent, const QString& title, OnPath then) {
    auto* dialog = new QFileDialog(parent, title);
    dialog->setAttribute(Qt::WA_DeleteOnClose);
    QObject::connect(
        dialog, &QFileDialog::fileSelected, parent,
        [then = std::move(then)](const QString& path) { then(QFile::encodeName(path).toStdString()); });
    return dialog;
}

void start(QFileDialog& dialog, const BytePath& folder) {
    dialog.setFilter(QDir::AllEntries | QDir::System);
    if (!folder.empty()) {
        dialog.setDirectory(QFile::decodeName(QByteArray::fromStdString(folder)));
    }
    dialog.open();
}

} // namespace

void askForFolder(QWidget* parent, const QString& title, OnPath then) {
    auto* dialog = asking(parent, title, std::move(then));
    dialog->setFileMode(QFileDialog::Directory);
    dialog->setOption(QFileDialog::ShowDirsOnly);
    dialog->open();
}

void askForFile(QWidget* parent, const QString& title, const BytePath& startIn, OnPath then) {
    auto* dialog = asking(parent, title, std::move(then));
    dialog->setFileMode(QFileDialog::ExistingFile);
    start(*dialog, startIn);
}

void askWhereToWrite(QWidget* parent, const QString& title, const BytePath& startIn, OnPath then,
                     const QString& name) {
    auto* dialog = asking(parent, title, std::move(then));
    dialog->setAcceptMode(QFileDialog::AcceptSave);
    dialog->setOption(QFileDialog::DontConfirmOverwrite);
    dialog->selectFile(name);
    start(*dialog, startIn);
}

} // namespace sober::app
