#include "core/catalogue/inbox_store.h"

#include "core/base/text.h"
#include "core/catalogue/guarded.h"

namespace sober {

Result<std::vector<Inbox>> InboxStore::all() const {
    return guarded(catalogue_, [&] {
        SQLite::Statement ask(catalogue_.database(),
                              "SELECT id, folder, destination, layout, latest FROM inboxes ORDER BY folder");
        std::vector<Inbox> inboxes;
        while (ask.executeStep()) {
            inboxes.push_back({ask.getColumn(0).getInt64(), bytesOf(ask.getColumn(1)),
                               bytesOf(ask.getColumn(2)), ask.getColumn(3).getString(),
                               bytesOf(ask.getColumn(4))});
        }
        return inboxes;
    });
}

Outcome InboxStore::keep(const Inbox& inbox) const {
    const auto others = all();
    RETURN_IF_FAILED(others);
    for (const auto& other : *others) {
        const bool isSame = other.folder == inbox.folder;
        if (!isSame && (isWithin(inbox.folder, other.folder) || isWithin(other.folder, inbox.folder))) {
            return Error{Cause::invalid, inbox.folder,
                         displayPath(inbox.folder) + " and " + displayPath(other.folder) +
                             " lie within each other; one of them is enough."};
        }
        if (isWithin(inbox.into, other.folder)) {
            return Error{Cause::invalid, inbox.into, displayPath(inbox.into) + " lies in an inbox itself."};
        }
    }
    if (isWithin(inbox.into, inbox.folder)) {
        return Error{Cause::invalid, inbox.into, "What is filed has to leave the inbox."};
    }
    return guarded(catalogue_, [&] {
        SQLite::Statement insert(
            catalogue_.database(),
            "INSERT INTO inboxes(folder, destination, layout, latest) VALUES(?,?,?,?) ON CONFLICT(folder) DO "
            "UPDATE SET destination = excluded.destination, layout = excluded.layout, latest = "
            "excluded.latest");
        bindBytes(insert, 1, inbox.folder);
        bindBytes(insert, 2, inbox.into);
        insert.bind(3, inbox.layout);
        bindBytes(insert, 4, inbox.latest);
        insert.exec();
    });
}

Outcome InboxStore::remove(const BytePath& folder) const {
    return guarded(catalogue_, [&]() -> Outcome {
        SQLite::Statement remove(catalogue_.database(), "DELETE FROM inboxes WHERE folder = ?");
        bindBytes(remove, 1, folder);
        return remove.exec() > 0
                   ? done()
                   : Outcome(Error{Cause::notFound, folder, displayPath(folder) + " is no inbox."});
    });
}

} // namespace sober
