#pragma once

#include "core/catalogue/catalogue.h"

namespace sober {

/// The ledger as PREMIS 3.0 (Library of Congress, data dictionary and XML schema): an event for each entry
/// and for each action that was carried out or taken back, with the terms of its event vocabulary, an object
/// for each holding concerned and one for the collection. UTF-8 XML.
Result<std::string> premisOfLedger(const Catalogue& catalogue);

/// The vocabulary's term for a kind of ledger entry or action, from memory of
/// id.loc.gov/vocabulary/preservation/eventType.
std::string_view premisTermFor(std::string_view kind);

} // namespace sober
