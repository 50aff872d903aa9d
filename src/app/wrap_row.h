#pragma once

#include <QLayout>

#include <memory>
#include <vector>

namespace sober::app {

/// Widgets beside each other that go on in a further line where one is too narrow: words are longer in some
/// languages and some sizes, and none shall be cut. What has a stretch shares what its line leaves; a stretch
/// alone pushes what follows to the far side. From right to left where that is written.
class WrapRow : public QLayout {
  public:
    explicit WrapRow(QWidget* parent = nullptr);
    ~WrapRow() override;
    WrapRow(const WrapRow&) = delete;
    WrapRow& operator=(const WrapRow&) = delete;

    void addWidget(QWidget* widget, int stretch = 0, Qt::Alignment alignment = {});
    void addStretch(int stretch = 1);

    void addItem(QLayoutItem* item) override;
    int count() const override;
    QLayoutItem* itemAt(int index) const override;
    QLayoutItem* takeAt(int index) override;
    Qt::Orientations expandingDirections() const override { return Qt::Horizontal; }
    /// Told by what it needs in the width that it has, not by a height for each: a box that holds something
    /// of the latter kind takes from what is fixed beside it.
    bool hasHeightForWidth() const override { return false; }
    int heightForWidth(int width) const override;
    QSize minimumSize() const override;
    QSize sizeHint() const override;
    void setGeometry(const QRect& room) override;
    void invalidate() override;

  private:
    struct Part {
        std::unique_ptr<QLayoutItem> item;
        int stretch = 0;
    };
    struct Line {
        std::size_t first = 0;
        std::size_t past = 0;
        int width = 0; ///< what its parts need
        int height = 0;
        int stretch = 0;
    };
    static bool isShown(const Part& part);
    static int widthOf(const Part& part);
    std::vector<Line> linesIn(int width) const;

    std::vector<Part> parts_;
    mutable int heightWidth_ = -1;
    mutable int height_ = 0;
    int width_ = 0;      ///< that it was last given
    int toldHeight_ = 0; ///< what it stands in knows of
};

} // namespace sober::app
