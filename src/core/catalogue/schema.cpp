#include "core/catalogue/schema.h"

#include "core/catalogue/guarded.h"

#include <array>

namespace sober {
namespace {

constexpr const char* firstStep = R"sql(
CREATE TABLE volumes(
  id INTEGER PRIMARY KEY,
  label TEXT NOT NULL UNIQUE,
  root BLOB NOT NULL,
  filesystem TEXT NOT NULL,
  within BLOB NOT NULL,
  root_inode INTEGER NOT NULL,
  filesystem_type TEXT NOT NULL,
  leave_hidden INTEGER NOT NULL DEFAULT 0,
  leave_patterns TEXT NOT NULL DEFAULT '',
  min_size INTEGER NOT NULL DEFAULT 0,
  max_size INTEGER NOT NULL DEFAULT 0,
  max_depth INTEGER NOT NULL DEFAULT 0,
  follow_links INTEGER NOT NULL DEFAULT 0,
  effort INTEGER NOT NULL DEFAULT 0,
  at_hand INTEGER NOT NULL DEFAULT 1,
  capacity INTEGER NOT NULL DEFAULT 0,
  available INTEGER NOT NULL DEFAULT 0,
  surveyed_at INTEGER NOT NULL DEFAULT 0);

CREATE TABLE holdings(
  id INTEGER PRIMARY KEY,
  volume INTEGER NOT NULL REFERENCES volumes(id),
  path BLOB NOT NULL,
  state INTEGER NOT NULL,
  size INTEGER NOT NULL,
  mtime INTEGER NOT NULL,
  ctime INTEGER NOT NULL,
  inode INTEGER NOT NULL,
  links INTEGER NOT NULL,
  xxh3 BLOB NOT NULL,
  sha256 BLOB,
  troubled INTEGER NOT NULL,
  problem TEXT NOT NULL DEFAULT '',
  container TEXT NOT NULL DEFAULT '',
  codec TEXT NOT NULL DEFAULT '',
  lossless INTEGER NOT NULL DEFAULT 0,
  bitrate INTEGER NOT NULL DEFAULT 0,
  sample_rate INTEGER NOT NULL DEFAULT 0,
  channels INTEGER NOT NULL DEFAULT 0,
  bit_depth INTEGER NOT NULL DEFAULT 0,
  duration REAL NOT NULL DEFAULT 0,
  title TEXT NOT NULL DEFAULT '',
  artist TEXT NOT NULL DEFAULT '',
  album TEXT NOT NULL DEFAULT '',
  track TEXT NOT NULL DEFAULT '',
  date TEXT NOT NULL DEFAULT '',
  first_seen INTEGER NOT NULL,
  last_seen INTEGER NOT NULL DEFAULT 0);
CREATE UNIQUE INDEX holdings_place ON holdings(volume, path) WHERE state < 3;
CREATE INDEX holdings_walk ON holdings(volume, path, state, size, mtime, ctime, inode, troubled);
CREATE INDEX holdings_content ON holdings(state, xxh3, volume, size, inode, links);
CREATE INDEX holdings_gone ON holdings(volume, path) WHERE state = 1;

CREATE TABLE blocks(holding INTEGER PRIMARY KEY REFERENCES holdings(id), xxh3 BLOB NOT NULL);

CREATE TABLE passed_over(
  volume INTEGER NOT NULL REFERENCES volumes(id),
  path BLOB NOT NULL,
  size INTEGER NOT NULL,
  mtime INTEGER NOT NULL,
  ctime INTEGER NOT NULL,
  inode INTEGER NOT NULL,
  sentence TEXT NOT NULL,
  PRIMARY KEY(volume, path)) WITHOUT ROWID;

CREATE TABLE survey_errors(
  id INTEGER PRIMARY KEY,
  volume INTEGER NOT NULL REFERENCES volumes(id),
  path BLOB NOT NULL,
  sentence TEXT NOT NULL);
CREATE INDEX survey_errors_volume ON survey_errors(volume);

CREATE TABLE survey_changes(
  id INTEGER PRIMARY KEY,
  volume INTEGER NOT NULL REFERENCES volumes(id),
  holding INTEGER NOT NULL REFERENCES holdings(id),
  kind TEXT NOT NULL,
  path_before BLOB NOT NULL);
CREATE INDEX survey_changes_volume ON survey_changes(volume, kind);

CREATE TABLE copy_sets(
  id INTEGER PRIMARY KEY,
  xxh3 BLOB NOT NULL UNIQUE,
  size INTEGER NOT NULL,
  members INTEGER NOT NULL,
  files INTEGER NOT NULL,
  volumes INTEGER NOT NULL,
  reclaimable INTEGER NOT NULL);
CREATE INDEX copy_sets_order ON copy_sets(reclaimable DESC, size DESC, id);

CREATE TABLE volume_figures(
  volume INTEGER PRIMARY KEY REFERENCES volumes(id),
  holdings INTEGER NOT NULL,
  bytes INTEGER NOT NULL,
  duration REAL NOT NULL,
  held_once INTEGER NOT NULL,
  in_sets INTEGER NOT NULL,
  missing INTEGER NOT NULL,
  troubled INTEGER NOT NULL);

CREATE TABLE folder_figures(
  volume INTEGER NOT NULL REFERENCES volumes(id),
  path BLOB NOT NULL,
  depth INTEGER NOT NULL,
  holdings INTEGER NOT NULL,
  bytes INTEGER NOT NULL,
  in_sets INTEGER NOT NULL,
  missing INTEGER NOT NULL,
  troubled INTEGER NOT NULL,
  PRIMARY KEY(volume, depth, path)) WITHOUT ROWID;

CREATE TABLE freshness(one INTEGER PRIMARY KEY CHECK(one = 1), findings_stale INTEGER NOT NULL);
INSERT INTO freshness VALUES(1, 0);

CREATE TABLE set_decisions(
  xxh3 BLOB PRIMARY KEY,
  keeper INTEGER REFERENCES holdings(id),
  left_alone INTEGER NOT NULL) WITHOUT ROWID;

CREATE TABLE docket(
  id INTEGER PRIMARY KEY AUTOINCREMENT,
  kind TEXT NOT NULL,
  holding INTEGER NOT NULL UNIQUE REFERENCES holdings(id),
  reason TEXT NOT NULL,
  added INTEGER NOT NULL);

CREATE TABLE ledger(
  id INTEGER PRIMARY KEY AUTOINCREMENT,
  time INTEGER NOT NULL,
  ended INTEGER NOT NULL DEFAULT 0,
  kind TEXT NOT NULL,
  summary TEXT NOT NULL,
  undoes INTEGER REFERENCES ledger(id));

CREATE TABLE ledger_actions(
  id INTEGER PRIMARY KEY AUTOINCREMENT,
  entry INTEGER NOT NULL REFERENCES ledger(id),
  kind TEXT NOT NULL,
  holding INTEGER NOT NULL REFERENCES holdings(id),
  place BLOB NOT NULL,
  aside BLOB NOT NULL,
  note BLOB NOT NULL,
  size INTEGER NOT NULL,
  xxh3 BLOB NOT NULL,
  step INTEGER NOT NULL,
  sentence TEXT NOT NULL DEFAULT '');
CREATE INDEX ledger_actions_entry ON ledger_actions(entry);
CREATE INDEX ledger_actions_open ON ledger_actions(step) WHERE step IN (1, 4);
)sql";

constexpr const char* evidenceStep = R"sql(
CREATE TABLE evidence(
  holding INTEGER PRIMARY KEY REFERENCES holdings(id),
  method INTEGER NOT NULL,
  payload BLOB NOT NULL,
  samples_md5 BLOB,
  verdict INTEGER NOT NULL,
  confidence REAL NOT NULL,
  source_codec TEXT NOT NULL,
  source_bitrate INTEGER NOT NULL,
  cutoff REAL NOT NULL,
  sound INTEGER NOT NULL);
CREATE INDEX evidence_payload ON evidence(payload);
CREATE INDEX evidence_verdict ON evidence(verdict);

CREATE TABLE packed_evidence(
  holding INTEGER PRIMARY KEY REFERENCES holdings(id),
  packed BLOB NOT NULL,
  fingerprint BLOB NOT NULL);

CREATE TABLE acceptances(
  id INTEGER PRIMARY KEY,
  payload BLOB NOT NULL UNIQUE,
  samples_md5 BLOB,
  reason TEXT NOT NULL,
  accepted INTEGER NOT NULL);
CREATE INDEX acceptances_samples ON acceptances(samples_md5) WHERE samples_md5 IS NOT NULL;

CREATE TABLE bitrate_limits(codec TEXT PRIMARY KEY, bitrate INTEGER NOT NULL) WITHOUT ROWID;
INSERT INTO bitrate_limits VALUES
  ('mp3', 192000), ('aac', 128000), ('vorbis', 128000), ('opus', 96000), ('wma', 160000), ('ac3', 192000),
  ('mp2', 224000);

CREATE TABLE better_copies(
  holding INTEGER NOT NULL REFERENCES holdings(id),
  better INTEGER NOT NULL REFERENCES holdings(id),
  rank INTEGER NOT NULL,
  PRIMARY KEY(holding, rank)) WITHOUT ROWID;

CREATE TABLE standing_lists(id INTEGER PRIMARY KEY, name TEXT NOT NULL UNIQUE, filter TEXT NOT NULL);
INSERT INTO standing_lists(name, filter) VALUES
  ('lossless claims, doubtful or worse', '{"kind":"lossless","verdicts":["doubtful","transcoded"]}'),
  ('under the limit, better copy elsewhere', '{"under_limit":true,"better_elsewhere":true}');

ALTER TABLE volume_figures ADD COLUMN examined INTEGER NOT NULL DEFAULT 0;
ALTER TABLE volume_figures ADD COLUMN claims INTEGER NOT NULL DEFAULT 0;
ALTER TABLE folder_figures ADD COLUMN claims INTEGER NOT NULL DEFAULT 0;
)sql";

constexpr const char* copiesStep = R"sql(
DROP TABLE copy_sets;
CREATE TABLE copy_sets(
  id INTEGER PRIMARY KEY,
  content BLOB NOT NULL UNIQUE,
  sameness INTEGER NOT NULL,
  size INTEGER NOT NULL,
  members INTEGER NOT NULL,
  files INTEGER NOT NULL,
  volumes INTEGER NOT NULL,
  reclaimable INTEGER NOT NULL,
  doubt INTEGER NOT NULL);
CREATE INDEX copy_sets_order ON copy_sets(reclaimable DESC, size DESC, id);

CREATE TABLE set_members(
  set_id INTEGER NOT NULL,
  holding INTEGER NOT NULL REFERENCES holdings(id),
  PRIMARY KEY(set_id, holding)) WITHOUT ROWID;
CREATE INDEX set_members_holding ON set_members(holding);

CREATE TABLE recording_pairs(
  first BLOB NOT NULL,
  second BLOB NOT NULL,
  bit_errors REAL NOT NULL,
  offset REAL NOT NULL,
  comparison TEXT NOT NULL,
  PRIMARY KEY(first, second)) WITHOUT ROWID;

ALTER TABLE evidence ADD COLUMN silent INTEGER NOT NULL DEFAULT 0;

UPDATE freshness SET findings_stale = 1;
)sql";

constexpr const char* decidingStep = R"sql(
CREATE TABLE policies(
  id INTEGER PRIMARY KEY,
  name TEXT NOT NULL UNIQUE,
  weakest INTEGER NOT NULL,
  only_where_met INTEGER NOT NULL);

CREATE TABLE policy_preferences(
  policy INTEGER NOT NULL REFERENCES policies(id),
  place INTEGER NOT NULL,
  kind INTEGER NOT NULL,
  volume INTEGER NOT NULL,
  folder TEXT NOT NULL,
  PRIMARY KEY(policy, place)) WITHOUT ROWID;

ALTER TABLE docket ADD COLUMN change BLOB NOT NULL DEFAULT x'';

ALTER TABLE ledger_actions ADD COLUMN made BLOB NOT NULL DEFAULT x'';
ALTER TABLE ledger_actions ADD COLUMN made_xxh3 BLOB NOT NULL DEFAULT x'';
)sql";

constexpr const char* fixityStep = R"sql(
CREATE TABLE drifts(
  holding INTEGER PRIMARY KEY REFERENCES holdings(id),
  kind INTEGER NOT NULL,
  found INTEGER NOT NULL,
  size INTEGER NOT NULL,
  mtime INTEGER NOT NULL,
  xxh3 BLOB NOT NULL,
  sha256 BLOB,
  blocks BLOB NOT NULL DEFAULT x'',
  payload BLOB,
  samples_md5 BLOB,
  fingerprint BLOB,
  codec TEXT NOT NULL,
  sample_rate INTEGER NOT NULL,
  channels INTEGER NOT NULL,
  bit_depth INTEGER NOT NULL,
  duration REAL NOT NULL,
  title TEXT NOT NULL,
  artist TEXT NOT NULL,
  album TEXT NOT NULL,
  track TEXT NOT NULL,
  date TEXT NOT NULL,
  accepted INTEGER NOT NULL,
  reason TEXT NOT NULL);
CREATE INDEX drifts_baseline ON drifts(xxh3);

CREATE TABLE checks(
  id INTEGER PRIMARY KEY,
  volume INTEGER NOT NULL REFERENCES volumes(id),
  began INTEGER NOT NULL,
  ended INTEGER NOT NULL DEFAULT 0,
  scope INTEGER NOT NULL,
  strong INTEGER NOT NULL,
  planned INTEGER NOT NULL,
  checked INTEGER NOT NULL DEFAULT 0,
  bytes INTEGER NOT NULL DEFAULT 0,
  drifted INTEGER NOT NULL DEFAULT 0,
  unreadable INTEGER NOT NULL DEFAULT 0);

CREATE TABLE verified(holding INTEGER PRIMARY KEY REFERENCES holdings(id), verified INTEGER NOT NULL);

CREATE TABLE unreadable(
  holding INTEGER NOT NULL REFERENCES holdings(id),
  first INTEGER NOT NULL,
  past INTEGER NOT NULL,
  PRIMARY KEY(holding, first)) WITHOUT ROWID;

ALTER TABLE volumes ADD COLUMN check_days INTEGER NOT NULL DEFAULT 180;
)sql";

constexpr const char* outsideStep = R"sql(
CREATE TABLE outside_copies(path BLOB PRIMARY KEY, xxh3 BLOB NOT NULL) WITHOUT ROWID;
CREATE INDEX outside_copies_content ON outside_copies(xxh3);

ALTER TABLE evidence ADD COLUMN remarks INTEGER NOT NULL DEFAULT 0;
CREATE INDEX evidence_flawed ON evidence(sound, holding) WHERE sound = 0 OR remarks > 0;
)sql";

constexpr const char* playersStep = R"sql(
CREATE TABLE players(
  id INTEGER PRIMARY KEY,
  name TEXT NOT NULL UNIQUE,
  ignores_case INTEGER NOT NULL,
  written_prefix BLOB NOT NULL,
  stands_for BLOB NOT NULL);

CREATE TABLE player_places(
  player INTEGER NOT NULL REFERENCES players(id),
  volume INTEGER NOT NULL,
  path BLOB NOT NULL,
  PRIMARY KEY(player, volume, path)) WITHOUT ROWID;

CREATE TABLE lists(
  id INTEGER PRIMARY KEY,
  volume INTEGER NOT NULL,
  path BLOB NOT NULL,
  size INTEGER NOT NULL,
  mtime INTEGER NOT NULL,
  ctime INTEGER NOT NULL,
  inode INTEGER NOT NULL,
  as_uri INTEGER NOT NULL,
  problem TEXT NOT NULL,
  UNIQUE(volume, path));

CREATE TABLE player_lists(
  player INTEGER NOT NULL REFERENCES players(id),
  list INTEGER NOT NULL REFERENCES lists(id),
  PRIMARY KEY(player, list)) WITHOUT ROWID;

CREATE TABLE list_references(
  list INTEGER NOT NULL,
  entry INTEGER NOT NULL,
  location BLOB NOT NULL,
  title TEXT NOT NULL,
  artist TEXT NOT NULL,
  album TEXT NOT NULL,
  seconds REAL NOT NULL,
  state INTEGER NOT NULL,
  path BLOB NOT NULL,
  holding INTEGER,
  xxh3 BLOB,
  PRIMARY KEY(list, entry)) WITHOUT ROWID;
CREATE INDEX list_references_holding ON list_references(holding) WHERE holding IS NOT NULL;
CREATE INDEX list_references_path ON list_references(path);

CREATE TABLE written_off_places(path BLOB PRIMARY KEY) WITHOUT ROWID;

CREATE TABLE former_places(
  volume INTEGER NOT NULL REFERENCES volumes(id),
  path BLOB NOT NULL,
  holding INTEGER NOT NULL REFERENCES holdings(id),
  PRIMARY KEY(volume, path, holding)) WITHOUT ROWID;

CREATE INDEX evidence_samples ON evidence(samples_md5) WHERE samples_md5 IS NOT NULL;

CREATE TABLE passing_places(pattern TEXT PRIMARY KEY) WITHOUT ROWID;
INSERT INTO passing_places VALUES
  ('*/downloads/*'), ('*/desktop/*'), ('*/tmp/*'), ('*/temp/*'), ('*/.trash*'), ('*/trash/*'),
  ('/media/*'), ('/run/media/*');

CREATE TABLE docket_with_places(
  id INTEGER PRIMARY KEY AUTOINCREMENT,
  kind TEXT NOT NULL,
  holding INTEGER UNIQUE REFERENCES holdings(id),
  reason TEXT NOT NULL,
  added INTEGER NOT NULL,
  change BLOB NOT NULL DEFAULT x'',
  place BLOB NOT NULL DEFAULT x'',
  target BLOB NOT NULL DEFAULT x'');
INSERT INTO docket_with_places(id, kind, holding, reason, added, change)
  SELECT id, kind, holding, reason, added, change FROM docket;
DROP TABLE docket;
ALTER TABLE docket_with_places RENAME TO docket;
CREATE UNIQUE INDEX docket_places ON docket(place) WHERE holding IS NULL;

CREATE TABLE ledger_actions_with_lists(
  id INTEGER PRIMARY KEY AUTOINCREMENT,
  entry INTEGER NOT NULL REFERENCES ledger(id),
  kind TEXT NOT NULL,
  holding INTEGER REFERENCES holdings(id),
  place BLOB NOT NULL,
  aside BLOB NOT NULL,
  note BLOB NOT NULL,
  size INTEGER NOT NULL,
  xxh3 BLOB NOT NULL,
  step INTEGER NOT NULL,
  sentence TEXT NOT NULL DEFAULT '',
  made BLOB NOT NULL DEFAULT x'',
  made_xxh3 BLOB NOT NULL DEFAULT x'');
INSERT INTO ledger_actions_with_lists
  SELECT id, entry, kind, holding, place, aside, note, size, xxh3, step, sentence, made, made_xxh3
  FROM ledger_actions;
DROP TABLE ledger_actions;
ALTER TABLE ledger_actions_with_lists RENAME TO ledger_actions;
CREATE INDEX ledger_actions_entry ON ledger_actions(entry);
CREATE INDEX ledger_actions_open ON ledger_actions(step) WHERE step IN (1, 4);

CREATE TABLE ledger_lists(action INTEGER PRIMARY KEY REFERENCES ledger_actions(id), content BLOB NOT NULL);
)sql";

constexpr const char* consentStep = R"sql(
ALTER TABLE docket ADD COLUMN consent TEXT NOT NULL DEFAULT '';

CREATE TABLE inner_mounts(
  volume INTEGER NOT NULL REFERENCES volumes(id),
  path BLOB NOT NULL,
  filesystem TEXT NOT NULL,
  filesystem_type TEXT NOT NULL,
  root_inode INTEGER NOT NULL,
  away INTEGER NOT NULL DEFAULT 0,
  PRIMARY KEY(volume, path)) WITHOUT ROWID;
)sql";

constexpr const char* enginesStep = R"sql(
ALTER TABLE ledger_actions ADD COLUMN stays BLOB NOT NULL DEFAULT x'';
ALTER TABLE ledger_actions ADD COLUMN unflushed INTEGER NOT NULL DEFAULT 0;
ALTER TABLE ledger_actions ADD COLUMN waits TEXT NOT NULL DEFAULT '';
CREATE INDEX ledger_actions_unflushed ON ledger_actions(id) WHERE unflushed = 1;
)sql";

// What is searched is folded by us, so the index is fed by refreshSearchTexts; the triggers say what it has
// to take anew, whoever wrote it.
constexpr const char* searchStep = R"sql(
ALTER TABLE holdings ADD COLUMN albumartist TEXT NOT NULL DEFAULT '';
ALTER TABLE holdings ADD COLUMN composer TEXT NOT NULL DEFAULT '';
ALTER TABLE holdings ADD COLUMN genre TEXT NOT NULL DEFAULT '';
ALTER TABLE holdings ADD COLUMN disc TEXT NOT NULL DEFAULT '';

CREATE INDEX holdings_codec ON holdings(codec);

CREATE TABLE search_texts(holding INTEGER PRIMARY KEY REFERENCES holdings(id), text TEXT NOT NULL);
CREATE VIRTUAL TABLE search_index USING fts5(text, content='search_texts', content_rowid='holding',
  tokenize='trigram case_sensitive 1', detail=none);
CREATE TABLE search_pending(holding INTEGER PRIMARY KEY);
INSERT INTO search_pending SELECT id FROM holdings;
CREATE TRIGGER search_new AFTER INSERT ON holdings BEGIN
  INSERT OR IGNORE INTO search_pending VALUES(NEW.id);
END;
CREATE TRIGGER search_changed AFTER UPDATE OF path, title, artist, album, date, albumartist, composer, genre
ON holdings
WHEN OLD.path IS NOT NEW.path OR OLD.title IS NOT NEW.title OR OLD.artist IS NOT NEW.artist
  OR OLD.album IS NOT NEW.album OR OLD.date IS NOT NEW.date OR OLD.albumartist IS NOT NEW.albumartist
  OR OLD.composer IS NOT NEW.composer OR OLD.genre IS NOT NEW.genre
BEGIN
  INSERT OR IGNORE INTO search_pending VALUES(NEW.id);
END;

ALTER TABLE volumes ADD COLUMN away_since INTEGER NOT NULL DEFAULT 0;
)sql";

// A transfer's folder is relative to its volume's root, or absolute where it is on none yet. Lists are kept
// as they are to be written.
constexpr const char* transferStep = R"sql(
CREATE TABLE transfers(
  id INTEGER PRIMARY KEY,
  made INTEGER NOT NULL,
  state INTEGER NOT NULL,
  mode INTEGER NOT NULL,
  volume INTEGER REFERENCES volumes(id),
  folder BLOB NOT NULL,
  rules TEXT NOT NULL,
  layout TEXT NOT NULL,
  choice TEXT NOT NULL,
  in_no_list INTEGER NOT NULL,
  needs INTEGER NOT NULL,
  peak INTEGER NOT NULL,
  free INTEGER NOT NULL,
  filesystem TEXT NOT NULL,
  proven INTEGER NOT NULL DEFAULT 0,
  report BLOB NOT NULL DEFAULT X'');
CREATE TABLE transfer_items(
  transfer INTEGER NOT NULL REFERENCES transfers(id),
  item INTEGER NOT NULL,
  source INTEGER NOT NULL REFERENCES holdings(id),
  xxh3 BLOB NOT NULL,
  target BLOB NOT NULL,
  bytes INTEGER NOT NULL,
  altered TEXT NOT NULL,
  form TEXT NOT NULL,
  state INTEGER NOT NULL,
  error TEXT NOT NULL,
  PRIMARY KEY(transfer, item)) WITHOUT ROWID;
CREATE TABLE transfer_left(
  transfer INTEGER NOT NULL REFERENCES transfers(id),
  number INTEGER NOT NULL,
  reference BLOB NOT NULL,
  why INTEGER NOT NULL,
  PRIMARY KEY(transfer, number)) WITHOUT ROWID;
CREATE TABLE transfer_lists(
  transfer INTEGER NOT NULL REFERENCES transfers(id),
  number INTEGER NOT NULL,
  source BLOB NOT NULL,
  target BLOB NOT NULL,
  entries INTEGER NOT NULL,
  coming INTEGER NOT NULL,
  content BLOB NOT NULL,
  prefix BLOB NOT NULL,
  source_xxh3 BLOB,
  written BLOB,
  PRIMARY KEY(transfer, number)) WITHOUT ROWID;
)sql";

// Finds of what was thrown away, wiped or lost. `parts`: sixteen bytes a part, as the machine has them.
constexpr const char* salvageStep = R"sql(
ALTER TABLE blocks ADD COLUMN parts BLOB NOT NULL DEFAULT x'';

CREATE TABLE salvage_sources(
  id INTEGER PRIMARY KEY,
  path BLOB NOT NULL UNIQUE,
  size INTEGER NOT NULL,
  mtime INTEGER NOT NULL,
  kinds INTEGER NOT NULL,
  everywhere INTEGER NOT NULL,
  reached INTEGER NOT NULL,
  state INTEGER NOT NULL,
  began INTEGER NOT NULL,
  file_systems TEXT NOT NULL);

CREATE TABLE finds(
  id INTEGER PRIMARY KEY AUTOINCREMENT,
  source INTEGER NOT NULL REFERENCES salvage_sources(id),
  how INTEGER NOT NULL,
  format TEXT NOT NULL,
  extents BLOB NOT NULL,
  bytes INTEGER NOT NULL,
  seconds REAL NOT NULL,
  name BLOB NOT NULL,
  came_from BLOB NOT NULL,
  file BLOB NOT NULL,
  deleted INTEGER NOT NULL,
  begins INTEGER NOT NULL,
  ends INTEGER NOT NULL,
  overwritten INTEGER NOT NULL,
  sound INTEGER,
  complete REAL,
  xxh3 BLOB,
  title TEXT NOT NULL,
  artist TEXT NOT NULL,
  album TEXT NOT NULL,
  track TEXT NOT NULL,
  date TEXT NOT NULL,
  fingerprint BLOB NOT NULL,
  holding INTEGER REFERENCES holdings(id),
  recognised INTEGER NOT NULL,
  agreement REAL NOT NULL,
  kin INTEGER NOT NULL,
  examined INTEGER NOT NULL,
  taken BLOB NOT NULL,
  piece BLOB NOT NULL);
CREATE INDEX finds_source ON finds(source);
CREATE INDEX ledger_actions_aside ON ledger_actions(aside) WHERE aside <> x'';

CREATE TABLE salvage_starts(
  source INTEGER NOT NULL REFERENCES salvage_sources(id),
  place INTEGER NOT NULL,
  start INTEGER NOT NULL,
  PRIMARY KEY(source, place)) WITHOUT ROWID;
)sql";

constexpr const char* lendingStep = R"sql(
ALTER TABLE finds ADD COLUMN others BLOB NOT NULL DEFAULT x'';
)sql";

constexpr const char* inboxStep = R"sql(
CREATE TABLE inboxes(
  id INTEGER PRIMARY KEY,
  folder BLOB NOT NULL UNIQUE,
  destination BLOB NOT NULL,
  layout TEXT NOT NULL);
)sql";

constexpr const char* offerStep = R"sql(
CREATE TABLE offer_shelves(address TEXT PRIMARY KEY) WITHOUT ROWID;
)sql";

constexpr const char* latestStep = R"sql(
ALTER TABLE inboxes ADD COLUMN latest BLOB NOT NULL DEFAULT x'';
)sql";

constexpr const char* serviceStep = R"sql(
CREATE TABLE services(kind TEXT PRIMARY KEY, address TEXT NOT NULL) WITHOUT ROWID;
INSERT INTO services(kind, address) SELECT 'offer-shelf', min(address) FROM offer_shelves HAVING count(*) > 0;
DROP TABLE offer_shelves;
)sql";

constexpr const char* landmarkStep = R"sql(
CREATE TABLE landmark_owners(number INTEGER PRIMARY KEY AUTOINCREMENT, payload BLOB NOT NULL UNIQUE);
CREATE TABLE landmark_runs(
  run INTEGER PRIMARY KEY,
  bits INTEGER NOT NULL,
  landmarks INTEGER NOT NULL);
CREATE TABLE landmark_buckets(place INTEGER PRIMARY KEY, landmarks BLOB NOT NULL);
CREATE TABLE met_recordings(
  first INTEGER NOT NULL,
  second INTEGER NOT NULL,
  offset INTEGER NOT NULL,
  bit_errors REAL NOT NULL,
  PRIMARY KEY(first, second)) WITHOUT ROWID;
CREATE INDEX met_second ON met_recordings(second);
ALTER TABLE ledger_lists ADD COLUMN base INTEGER REFERENCES ledger_actions(id);
ALTER TABLE volumes ADD COLUMN forgotten INTEGER NOT NULL DEFAULT 0;
CREATE INDEX holdings_sha256 ON holdings(sha256) WHERE sha256 IS NOT NULL;
)sql";

constexpr const char* insideStep = R"sql(
ALTER TABLE volumes ADD COLUMN look_inside INTEGER NOT NULL DEFAULT 0;
CREATE INDEX holdings_seen ON holdings(volume, first_seen) WHERE state = 0;
)sql";

constexpr const char* excerptStep = R"sql(
ALTER TABLE volumes ADD COLUMN keep_excerpts INTEGER NOT NULL DEFAULT 0;
)sql";

constexpr const char* madeFoldersStep = R"sql(
CREATE TABLE ledger_folders(
  entry INTEGER NOT NULL REFERENCES ledger(id),
  volume INTEGER NOT NULL,
  path BLOB NOT NULL,
  PRIMARY KEY(entry, volume, path)) WITHOUT ROWID;
)sql";

// By which catalogue it was done stood in the summary before.
constexpr const char* originStep = R"sql(
ALTER TABLE ledger ADD COLUMN origin BLOB NOT NULL DEFAULT x'';
UPDATE ledger SET
  origin = CAST(substr(summary, instr(summary, ', with the catalogue ') + 21) AS BLOB),
  summary = substr(summary, 1, instr(summary, ', with the catalogue ') - 1)
  WHERE instr(summary, ', with the catalogue ') > 0;
)sql";

// Stretches of an image on which what looks for audio broke.
constexpr const char* passedOverStep = R"sql(
ALTER TABLE salvage_sources ADD COLUMN passed_over BLOB NOT NULL DEFAULT x'';
)sql";

constexpr std::array<const char*, 23> steps{
    firstStep,   evidenceStep, copiesStep,      decidingStep, fixityStep,    outsideStep,
    playersStep, consentStep,  enginesStep,     searchStep,   transferStep,  salvageStep,
    lendingStep, inboxStep,    offerStep,       latestStep,   serviceStep,   landmarkStep,
    insideStep,  excerptStep,  madeFoldersStep, originStep,   passedOverStep};

} // namespace

std::span<const char* const> schemaSteps() {
    return steps;
}

void bringUpToDate(SQLite::Database& database) {
    const auto steps = schemaSteps();
    auto version = static_cast<std::size_t>(database.execAndGet("PRAGMA user_version").getInt());
    if (version == steps.size()) {
        return;
    }
    WritingTransaction transaction(database);
    for (; version < steps.size(); ++version) {
        database.exec(steps[version]);
    }
    database.exec("PRAGMA application_id = " + std::to_string(catalogueApplicationId));
    database.exec("PRAGMA user_version = " + std::to_string(version));
    transaction.commit();
    // The header of the file itself must tell the version, not only its write-ahead log.
    database.exec("PRAGMA wal_checkpoint(TRUNCATE)");
}

} // namespace sober
