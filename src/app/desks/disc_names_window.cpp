#include "app/desks/disc_names_window.h"

#include "app/desks/desk.h"
#include "app/words.h"

#include <QFormLayout>
#include <QHeaderView>
#include <QLineEdit>
#include <QPushButton>
#include <QTableWidget>
#include <QVBoxLayout>

namespace sober::app {

DiscNamesWindow::DiscNamesWindow(const DiscNames& names, QWidget* parent)
    : QDialog(parent),
      names_(names),
      title_(new QLineEdit(shown(names.title), this)),
      artist_(new QLineEdit(shown(names.artist), this)),
      date_(new QLineEdit(shown(names.date), this)),
      genre_(new QLineEdit(shown(names.genre), this)),
      disc_(new QLineEdit(this)),
      tracks_(new QTableWidget(static_cast<int>(names.tracks.size()), 2, this)) {
    setAttribute(Qt::WA_DeleteOnClose);
    setWindowTitle(tr("Names"));
    auto* layout = titledLayout(tr("What the disc and its tracks are called"), this);
    if (names.disc > 0) {
        disc_->setText(names.discs > 0 ? tr("%1/%2").arg(names.disc).arg(names.discs)
                                       : QString::number(names.disc));
    }
    disc_->setPlaceholderText(tr("1/2, where it is one of a set"));
    artist_->setPlaceholderText(tr("empty where its tracks are by several"));
    auto* form = new QFormLayout;
    for (const auto& [label, line] : {std::pair(tr("Album"), title_),
                                      {tr("Artist"), artist_},
                                      {tr("Date"), date_},
                                      {tr("Genre"), genre_},
                                      {tr("Disc of a set"), disc_}}) {
        line->setAccessibleName(label);
        form->addRow(label, line);
    }
    layout->addLayout(form);
    tracks_->setAccessibleName(tr("Tracks"));
    tracks_->setHorizontalHeaderLabels({tr("Title"), tr("Artist")});
    tracks_->horizontalHeader()->setSectionResizeMode(QHeaderView::Stretch);
    for (int row = 0; row < tracks_->rowCount(); ++row) {
        const auto& track = names.tracks[static_cast<std::size_t>(row)];
        tracks_->setItem(row, 0, new QTableWidgetItem(shown(track.title)));
        tracks_->setItem(row, 1, new QTableWidgetItem(shown(track.artist)));
    }
    layout->addWidget(tracks_, 1);
    auto* take = new QPushButton(tr("Take these names"), this);
    addEnding(*layout, this, take);
    connect(take, &QPushButton::clicked, this, &DiscNamesWindow::agree);
    resize(640, 520);
}

void DiscNamesWindow::agree() {
    names_.source = "yourself";
    names_.title = title_->text().trimmed().toStdString();
    names_.artist = artist_->text().trimmed().toStdString();
    names_.date = date_->text().trimmed().toStdString();
    names_.genre = genre_->text().trimmed().toStdString();
    const auto parts = disc_->text().split(QLatin1Char('/'));
    names_.disc = parts.value(0).toInt();
    names_.discs = parts.value(1).toInt();
    for (int row = 0; row < tracks_->rowCount(); ++row) {
        auto& track = names_.tracks[static_cast<std::size_t>(row)];
        track.title = tracks_->item(row, 0)->text().trimmed().toStdString();
        track.artist = tracks_->item(row, 1)->text().trimmed().toStdString();
    }
    emit agreed(names_);
    accept();
}

} // namespace sober::app
