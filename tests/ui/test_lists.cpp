#include "app/lists/id_list_model.h"
#include "app/lists/list_view.h"
#include "app/lists/row_list_model.h"
#include "app/theme/theme.h"
#include "support/temp_folder.h"

#include <QApplication>
#include <QScrollBar>
#include <QTest>

#include <catch2/catch.hpp>

#include <atomic>
#include <numeric>

using namespace sober;
using namespace sober::app;
using sober::test::TempFolder;

namespace {

/// A list of any length whose rows are their own numbers, counting how many were fetched.
struct CountedList {
    explicit CountedList(std::int64_t length) : workbench(folder / "c.sqlite") {
        Theme::apply(*qApp, Paper::light);
        workbench.open();
        REQUIRE(QTest::qWaitFor([this] { return workbench.isOpen(); }));
        std::vector<Column<std::int64_t>> columns{
            {"Number",
             [](const std::int64_t& row) {
                 return Cell{QString::number(row), Mark::none, false, false, {}};
             },
             true},
            {"Path", [](const std::int64_t& row) {
                 return Cell{"a/long/path/to/the/file/number/" + QString::number(row) + ".flac",
                             Mark::missing,
                             true,
                             false,
                             {}};
             }}};
        model = std::make_unique<IdListModel<std::int64_t>>(
            workbench, columns,
            [this](const Catalogue&, std::span<const std::int64_t> ids) -> Result<std::vector<std::int64_t>> {
                fetched += static_cast<long>(ids.size());
                return std::vector<std::int64_t>(ids.begin(), ids.end());
            },
            nullptr);
        std::vector<std::int64_t> ids(static_cast<std::size_t>(length));
        std::iota(ids.begin(), ids.end(), std::int64_t{1});
        model->setIds(std::move(ids));
        view.setModel(model.get());
        view.setWidths({100, 200}, 1);
        view.resize(400, 300);
        view.show();
        settle();
    }
    void settle() {
        int idle = 0;
        REQUIRE(QTest::qWaitFor([&] {
            idle = workbench.isIdle() ? idle + 1 : 0;
            return idle > 2;
        }));
    }
    QString text(int row) { return model->index(row, 0).data().toString(); }

    TempFolder folder;
    Workbench workbench;
    std::atomic<long> fetched = 0;
    std::unique_ptr<IdListModel<std::int64_t>> model;
    ListView view{"Numbers"};
};

} // namespace

TEST_CASE("a list of a million rows fetches the rows that are seen and no others") {
    CountedList list(1'000'000);
    CHECK(list.model->rowCount({}) == 1'000'000);
    CHECK(list.text(0) == "1");
    CHECK(list.fetched <= 256);
    list.view.verticalScrollBar()->setValue(list.view.verticalScrollBar()->maximum());
    list.settle();
    CHECK(list.text(999'999) == "1000000");
    CHECK(list.fetched <= 768);
    for (int row = 0; row < 1'000'000; row += 5'000) {
        list.model->row(row);
    }
    list.settle();
    CHECK(list.fetched < 40'000);
}

TEST_CASE("a row that is on its way shows a placeholder, and old rows stay while fresh ones come") {
    CountedList list(1000);
    CHECK(list.model->index(900, 0).data().toString() == QStringLiteral("…"));
    list.settle();
    CHECK(list.text(900) == "901");
    const long before = list.fetched;
    list.view.selectRow(3);
    list.model->refresh();
    CHECK(list.text(3) == "4");
    CHECK(list.view.currentRow() == 3);
    list.settle();
    CHECK(list.fetched > before);
    list.model->setIds({});
    CHECK(list.model->rowCount({}) == 0);
    CHECK(list.view.currentRow() == -1);
}

TEST_CASE("cells tell their state to the eye, the pointer and the screen reader") {
    CountedList list(10);
    const auto path = list.model->index(2, 1);
    CHECK(path.data(bytesRole).toBool());
    CHECK(path.data(Qt::ToolTipRole).toString() == "a/long/path/to/the/file/number/3.flac");
    CHECK(path.data(Qt::AccessibleTextRole).toString().startsWith("missing, a/long"));
    CHECK(list.model->headerData(0, Qt::Horizontal, Qt::TextAlignmentRole).toInt() ==
          static_cast<int>(Qt::AlignRight | Qt::AlignVCenter));
    CHECK(list.view.accessibleName() == "Numbers");
    CHECK(list.view.rowHeight(0) == 28);
}

TEST_CASE("an empty list says what to do next") {
    Theme::apply(*qApp, Paper::light);
    RowListModel<int> model(
        {{"Number",
          [](const int& row) {
              return Cell{QString::number(row), Mark::none, false, false, {}};
          }}},
        [](const int& row) { return std::to_string(row % 10); }, nullptr);
    ListView view("Numbers");
    view.setModel(&model);
    view.resize(400, 200);
    view.show();
    const QImage silent = view.grab().toImage();
    view.setEmptyText("Survey a folder first.");
    CHECK(view.grab().toImage() != silent);
    model.setRows({1, 2, 3});
    view.selectRow(1);
    // The row that is chosen stays chosen, wherever it stands and whatever else of it has changed.
    model.setRows({12, 21, 3});
    CHECK(view.currentRow() == 0);
    CHECK(model.index(0, 0).data().toString() == "12");
    model.setRows({4, 5, 6});
    CHECK(view.selectionModel()->selectedRows().isEmpty());
}
