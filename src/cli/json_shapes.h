#pragma once

#include "core/audit/condition.h"
#include "core/audit/keeper.h"
#include "core/audit/set_choice.h"
#include "core/catalogue/ledger_store.h"
#include "core/remedy/docket/review.h"
#include "core/survey/survey.h"
#include "core/work/carry_out.h"

#include <nlohmann/json.hpp>

namespace sober::cli {

using Json = nlohmann::ordered_json;

/// `{"path": …}`, with "path_encoding" beside it where the bytes are not UTF-8.
Json withPath(const BytePath& path);

Json errorList(const std::vector<SurveyError>& errors);
Json surveyShape(const SurveyReport& report);
Json conditionShape(const Condition& condition);
Json docketShape(const DocketReview& review);
Json carriedOutShape(const CarriedOut& carried);
Json ledgerShape(const std::vector<LedgerEntry>& entries);

Json copiesShape(std::span<const SetDetail> sets, std::span<const SetDetail> alikeTags,
                 const std::vector<Volume>& volumes);
/// Absolute path of a holding.
BytePath absolutePath(const Holding& holding, const std::vector<Volume>& volumes);

/// True once everything that an entry did has been taken back.
bool isUndone(const LedgerEntry& entry);

} // namespace sober::cli
