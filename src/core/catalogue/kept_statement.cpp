#include "core/catalogue/kept_statement.h"

namespace sober {

KeptStatement::KeptStatement(const Catalogue& catalogue, std::string sql)
    : kept_(catalogue.keptStatements()), sql_(std::move(sql)) {
    if (const auto found = kept_.find(sql_); found != kept_.end() && found->second) {
        statement_ = std::move(found->second);
    } else {
        statement_ = std::make_unique<SQLite::Statement>(catalogue.database(), sql_);
    }
}

KeptStatement::~KeptStatement() {
    // Fails only with what the last step failed with, which its asker has heard of.
    statement_->tryReset();
    statement_->clearBindings();
    kept_[std::move(sql_)] = std::move(statement_);
}

} // namespace sober
