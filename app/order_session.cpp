#include "app/order_session.h"

#include <fmt/format.h>

#include <QDateTime>
#include <QFileInfo>
#include <algorithm>
#include <tuple>

#include "app/side_selection.h"
#include "io/atomic_file.h"
#include "io/measurement_csv.h"
#include "measure/measure_table.h"
#include "measure/takings.h"
#include "quotable.h"
#include "recalc/bases.h"

namespace armure {

namespace {

Order newOrderWith(const Choices& choices) {
  Order order;
  order.choices = choices;
  return order;
}

// A fault of the program while it drafts must not take the work with it: it is told like anything else that cannot be
// drafted.
Result<Design> draftedSafely(const Order& order, const Design* before) {
  try {
    return recalc(order, before);
  } catch (const std::exception& e) {
    return Problem{"the program met something it did not expect", verbatim(quotable(e.what())),
                   "your work is kept; take the last step back, and please keep the order file"};
  }
}

// "NAME (other copy 2026-11-26 14.05.33).armure": what somebody else saved meanwhile.
std::string besideName(const std::string& path) {
  const QFileInfo info(QString::fromStdString(path));
  const QString stamp = QDateTime::currentDateTime().toString("yyyy-MM-dd hh.mm.ss");
  QString name = QString("%1/%2 (other copy %3).armure").arg(info.path(), info.completeBaseName().left(80), stamp);
  for (int n = 2; QFileInfo::exists(name); ++n)
    name = QString("%1/%2 (other copy %3, %4).armure").arg(info.path(), info.completeBaseName().left(80), stamp).arg(n);
  return name.toStdString();
}

}  // namespace

OrderSession::OrderSession(QObject* parent)
    : QObject(parent), history_(newOrderWith(choicesOfNewOrders())), saved_(history_.now()) {
  refresh();
}

const std::vector<Idle>& OrderSession::idle() const {
  if (!idle_) idle_ = design_ && !problem_ ? idleIn(order(), *design_) : std::vector<Idle>{};
  return *idle_;
}

const Balanced* OrderSession::balanced() const {
  if (!design_) return nullptr;
  if (design()->balanced) return &*design()->balanced;
  if (!proposal_) proposal_ = std::make_unique<const Balanced>(proposal(*design()));
  return proposal_.get();
}

void OrderSession::lookAt(BodySide side) {
  if (side == side_ || side == BodySide::Both) return;
  side_ = side;
  lookedElsewhere();
}

void OrderSession::lookAsCut(bool asCut) {
  if (asCut == asCut_) return;
  asCut_ = asCut;
  if (!design_ || design_->halves.empty()) return;
  if (asCut) {
    selection_ = inWhole(*design_, std::move(selection_), side_);
  } else {
    std::tie(selection_, side_) = inHalf(*design_, std::move(selection_), side_);
  }
  lookedElsewhere();
  emit selectionChanged();
}

void OrderSession::lookedElsewhere() {
  if (!design_ || design_->halves.empty()) return;
  proposal_.reset();
  emit changed();
}

PrintWishes OrderSession::printWishes() const {
  PrintWishes wishes{std::string(rule("paper.size").option), rule("paper.roll").number, {}};
  if (!design_ || leftOut_.empty()) return wishes;
  const std::vector<Piece>& all = design_->pattern.pieces;
  for (size_t i = 0; i < all.size(); ++i)
    if (!leftOut_.contains(all[i].id)) wishes.pieces.push_back(i);
  if (wishes.pieces.size() == all.size()) wishes.pieces.clear();
  return wishes;
}

void OrderSession::leaveOut(std::set<std::string> pieces) {
  if (pieces == leftOut_) return;
  leftOut_ = std::move(pieces);
  emit changed();
}

bool OrderSession::printsNothing() const {
  return design_ &&
         std::ranges::all_of(design_->pattern.pieces, [this](const Piece& p) { return leftOut_.contains(p.id); });
}

RuleValue OrderSession::rule(std::string_view key) const {
  if (design_ && !problem_) return design_->rules.value(key);
  return Rules(order().choices, order().style, order().school, design_ ? figureOf(design_->body) : Figure::Medium)
      .value(key);
}

std::optional<Problem> OrderSession::setMeasure(std::string_view measure, std::string_view text) {
  Order next = order();
  const std::string name = findMeasure(measure) ? std::string(findMeasure(measure)->name) : std::string(measure);
  const std::string mergeKey = fmt::format("measure.{}", measure);
  if (text.find_first_not_of(" \t") == std::string_view::npos) {
    next.measures.erase(measure);
    record(std::move(next), name, mergeKey);
    return std::nullopt;
  }
  Result<std::vector<Taking>> takings = readTakings(measure, text, next.units.unit);
  if (!takings.ok()) return takings.problem();
  const TakenMeasure* kept = next.measures.find(measure);
  next.measures.set(measure,
                    measureOf(std::move(takings).value(), kept ? kept->use : Use::Last, kept ? kept->note : ""));
  record(std::move(next), name, mergeKey);
  return std::nullopt;
}

std::optional<Problem> OrderSession::addTaking(std::string_view measure, const Taking& taking) {
  if (auto problem = measureProblem(measure, taking.mm)) return problem;
  Order next = order();
  const TakenMeasure* kept = next.measures.find(measure);
  next.measures.set(measure, kept ? takenAgain(*kept, taking) : measureOf({taking}, Use::Last, ""));
  settle();
  record(std::move(next), std::string(findMeasure(measure) ? findMeasure(measure)->name : measure));
  return std::nullopt;
}

void OrderSession::setUse(std::string_view measure, Use use) {
  const TakenMeasure* kept = order().measures.find(measure);
  if (!kept) return;
  Order next = order();
  next.measures.set(measure, measureOf(takingsOf(*kept), use, kept->note));
  record(std::move(next), "takings");
}

size_t OrderSession::openQuestions() const {
  return static_cast<size_t>(std::count_if(questions_.begin(), questions_.end(),
                                           [](const Question& q) { return q.severity != Severity::Note; }));
}

void OrderSession::takeMeasures(const MeasureSet& measures, const std::string& client, const std::string& date,
                                BookReference book) {
  Order next = order();
  next.measures = measures;
  next.client = client;
  next.date = date;
  next.book = std::move(book);
  record(std::move(next), "measures");
}

void OrderSession::setBook(BookReference book) {
  Order next = order();
  next.book = std::move(book);
  record(std::move(next), "kept in the book");
}

namespace {

std::string choiceName(std::string_view key) {
  if (const RuleInfo* rule = findRule(key)) return std::string(rule->label);
  if (const auto shaping = parseShapingKey(key)) return english(shapingName(*shaping));
  if (const auto seam = seamOfKey(key)) return fmt::format("the difference in the seam {}", *seam);
  if (const auto lock = lockOfKey(key)) return fmt::format("holding {}, {}", lock->piece, lock->edge);
  if (const auto cut = parsePrepareKey(key)) return english(prepareName(*cut));
  if (const auto trim = parseTrimKey(key)) return english(trimKeyName(*trim));
  return std::string(key);
}

// The order with a choice set, or taken back where the text is blank.
Result<Order> withChoice(Order order, std::string_view key, std::string_view text) {
  if (text.find_first_not_of(" \t") == std::string_view::npos) {
    order.choices.erase(std::string(key));
    return order;
  }
  const Result<std::string> checked = checkChoice(key, text, order.units.unit);
  if (!checked.ok()) return checked.problem();
  order.choices[std::string(key)] = *checked;
  return order;
}

}  // namespace

std::optional<Problem> OrderSession::setChoice(std::string_view key, std::string_view text) {
  Result<Order> next = withChoice(order(), key, text);
  if (!next.ok()) return next.problem();
  if (auto idle = withoutEffect(order(), *next)) return idle;
  record(std::move(next).value(), choiceName(key), fmt::format("choice.{}", key));
  return std::nullopt;
}

std::optional<Problem> OrderSession::tryChoice(const std::string& key, std::string_view text) {
  if (problem_) return setChoice(key, text);  // nothing can be drafted as it is
  Result<Order> next = withChoice(order(), key, text);
  if (!next.ok()) return next.problem();
  return tryOrder(std::move(next).value(), choiceName(key), "choice." + key);
}

std::optional<Problem> OrderSession::tryOrder(Order next, const std::string& name, const std::string& mergeKey) {
  if (next == order()) return std::nullopt;
  if (auto idle = withoutEffect(order(), next)) return idle;
  Result<Design> made = draftedSafely(next, design_.get());
  if (!made.ok() && !problem_) return made.problem();
  history_.record(std::move(next), name, mergeKey);
  show(std::move(made));
  return std::nullopt;
}

std::optional<Problem> OrderSession::step(Order next, const std::string& name) {
  settle();
  auto problem = tryOrder(std::move(next), name);
  settle();
  return problem;
}

void OrderSession::giveAllBack() {
  Order next = order();
  std::erase_if(next.choices, [](const auto& choice) {
    const auto shaping = parseShapingKey(choice.first);
    return shaping && shaping->kind == ShapingKind::Hold;
  });
  record(std::move(next), "all given back to the school");
}

void OrderSession::takeAwayLevel(std::string_view level) {
  Order next = order();
  std::erase_if(next.choices, [&](const auto& choice) {
    const auto shaping = parseShapingKey(choice.first);
    return shaping && shaping->kind != ShapingKind::Swing && shaping->level == level;
  });
  record(std::move(next), "level taken away");
}

void OrderSession::letGive(const std::string& seam) {
  Order next = order();
  std::erase_if(next.choices, [&](const auto& choice) {
    const auto lock = lockOfKey(choice.first);
    return choice.first == seamKey(seam) || (lock && lock->edge == seam);
  });
  record(std::move(next), "both sides give way");
}

void OrderSession::setText(std::string Order::*member, std::string value, const std::string& name) {
  Order next = order();
  next.*member = std::move(value);
  record(std::move(next), name, "text." + name);
}

void OrderSession::setStyle(std::string_view style) {
  Order next = order();
  next.style = style;
  // What the style sets is no longer overruled by hand.
  if (const Preset* preset = findStyle(style))
    for (const PresetChoice& c : preset->choices) next.choices.erase(std::string(c.key));
  record(std::move(next), "style");
}

void OrderSession::setSchool(std::string_view school) {
  Order next = order();
  next.school = school;
  record(std::move(next), "school");
}

void OrderSession::toggleUnits() {
  Order next = order();
  next.units.unit = next.units.unit == Unit::Inch ? Unit::Centimetre : Unit::Inch;
  record(std::move(next), "units");
}

void OrderSession::record(Order next, std::string name, std::string mergeKey) {
  if (next == order()) return;
  history_.record(std::move(next), std::move(name), std::move(mergeKey));
  refresh();
}

void OrderSession::undo() {
  if (history_.undo()) refresh();
}

void OrderSession::redo() {
  if (history_.redo()) refresh();
}

void OrderSession::refresh() { show(draftedSafely(order(), design_.get())); }

void OrderSession::show(Result<Design> made) {
  idle_.reset();
  questions_ = made.ok() ? made->questions : questionsAbout(order().measures);
  if (made.ok()) {
    design_ = std::make_unique<const Design>(std::move(made).value());
    proposal_.reset();
    problem_.reset();
    if (selection_.row && *selection_.row >= design_->sheet.rows.size()) selection_.row.reset();
  } else {
    problem_ = made.problem();
  }
  emit changed();
}

void OrderSession::replace(OrderFile file, std::string path, bool saved) {
  saved_ = file.order;
  if (!saved) saved_.title += "\x01";  // equal to nothing the user can type: counts as unsaved
  history_ = History<Order>(std::move(file.order));
  original_ = std::move(file.original);
  warnings_ = std::move(file.warnings);
  path_ = std::move(path);
  onDisk_ = original_;
  forReading_ = false;
  design_.reset();
  proposal_.reset();
  leftOut_.clear();
  selection_ = {};
  refresh();
  emit selectionChanged();
}

void OrderSession::startNew(const Choices& choices, Unit units) {
  Order order = newOrderWith(choices);
  order.units.unit = units;
  replace({std::move(order), "", {}}, "", true);
}

void OrderSession::setForReading(bool forReading) {
  forReading_ = forReading;
  emit changed();
}

std::optional<Problem> OrderSession::open(const std::string& path) {
  Result<OrderFile> file = readOrder(path);
  if (!file.ok()) return file.problem();
  replace(std::move(file).value(), path, true);
  return std::nullopt;
}

std::optional<Problem> OrderSession::importMeasures(const std::string& path) {
  Result<MeasurementFile> file = readMeasurements(path);
  if (!file.ok()) return file.problem();
  Order next = order();
  next.measures = file->measures;
  if (!file->client.empty() && file->client != next.client) {
    next.client = file->client;
    next.book = {};  // another client: not the one these measures were kept with
  }
  if (!file->date.empty()) next.date = file->date;
  next.units.unit = file->unit;
  warnings_ = file->warnings;
  record(std::move(next), "measures read");
  return std::nullopt;
}

bool OrderSession::changedOnDisk(const std::string& path) const {
  if (path != path_) return false;
  const Result<std::string> there = readFile(path);
  return there.ok() && *there != onDisk_;
}

OrderSession::Saving OrderSession::save(const std::string& path) {
  const OrderFile file = asFile();
  Saving saving;
  if (changedOnDisk(path)) {
    saving.keptBeside = besideName(path);
    if (auto problem = writeFileAtomically(saving.keptBeside, *readFile(path), Readers::Owner)) return {problem};
  }
  if (auto problem = writeOrder(path, file)) return {problem};
  original_ = orderText(file);
  onDisk_ = original_;
  if (path != path_) forReading_ = false;
  path_ = path;
  saved_ = order();
  history_.settle();
  emit changed();
  return saving;
}

std::optional<Problem> OrderSession::recover(const std::string& text, const std::string& path) {
  Result<OrderFile> file = parseOrder(text, path.empty() ? "autosaved order" : path);
  if (!file.ok()) return file.problem();
  replace(std::move(file).value(), path, false);
  // What stands on the disk is not what was recovered: saving is no conflict with oneself, but one with anybody else.
  if (const Result<std::string> there = readFile(path); !path.empty() && there.ok()) onDisk_ = *there;
  return std::nullopt;
}

void OrderSession::select(Selection selection) {
  if (design_ && !design_->halves.empty() && !asCut_) {
    auto [there, side] = inHalf(*design_, std::move(selection), side_);
    selection = std::move(there);
    lookAt(side);
  }
  if (selection == selection_) return;
  selection_ = std::move(selection);
  emit selectionChanged();
}

}  // namespace armure
