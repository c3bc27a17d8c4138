#include "app/trims_panel.h"

#include <QScrollArea>
#include <QTimer>
#include <algorithm>

#include "app/tray_parts.h"
#include "garment/trim_makers.h"
#include "render/words.h"

namespace armure {
namespace {

constexpr int kMostOfAKind = 99;

QString shownValue(const RuleInfo& field, const RuleValue& value, Unit unit) {
  return field.kind == RuleKind::Length ? q(formatLength(value.number, {unit, 16}))
                                        : QString::number(value.number, 'g', 4);
}

}  // namespace

TrimsPanel::TrimsPanel(OrderSession& session, QWidget* parent)
    : QWidget(parent), session_(session), column_(new QVBoxLayout(this)) {
  column_->setContentsMargins(0, 8, 0, 0);
  column_->setSpacing(3);
  addTrayTitle(*column_, "Sewn on");
  kinds_ = trayBox("trimKind", "What is sewn on");
  for (const TrimKindInfo& kind : trimKinds()) {
    kinds_->addItem(q(kind.label), q(kind.id));
    kinds_->setItemData(kinds_->count() - 1, q(kind.reason), Qt::ToolTipRole);
  }
  auto* more = new QPushButton("Sew on");
  more->setObjectName("addTrim");
  connect(more, &QPushButton::clicked, this, &TrimsPanel::add);
  auto* line = new QHBoxLayout;
  line->addWidget(kinds_, 1);
  line->addWidget(more);
  column_->addLayout(line);
  edited_ = trayBox("trimEdited", "Sewn on");
  connect(edited_, &QComboBox::activated, this, [this] {
    if (const TrimChoice* trim = edited()) session_.select({.working = "trim." + trim->id()});
    refresh();
  });
  column_->addWidget(edited_);
  about_ = new QWidget;
  auto* about = new QVBoxLayout(about_);
  about->setContentsMargins(0, 0, 0, 0);
  about->setSpacing(3);
  column_->addWidget(about_);
  line_ = trayBox("trimLine", "Along");
  connect(line_, &QComboBox::activated, this,
          [this] { tell(choose(key("on"), line_->currentData().toString().toStdString())); });
  about->addWidget(trayRow("Along", line_, 1.5));
  addPlaces();
  fieldColumn_ = new QVBoxLayout;
  about->addLayout(fieldColumn_);
  state_ = new QLabel;
  state_->setObjectName("lesser");
  state_->setWordWrap(true);
  about->addWidget(state_);
  takeOff_ = new QPushButton("Take it off");
  takeOff_->setObjectName("takeOffTrim");
  connect(takeOff_, &QPushButton::clicked, this, &TrimsPanel::takeOff);
  about->addWidget(takeOff_);
  connect(&session, &OrderSession::changed, this, &TrimsPanel::refresh);
  connect(&session, &OrderSession::selectionChanged, this, &TrimsPanel::followSelection);
}

// What was clicked on the table is edited here, and scrolled to.
void TrimsPanel::followSelection() {
  const QString picked = q(session_.selection().working);
  if (!picked.startsWith("trim.") || !isVisible()) return;
  const int at = edited_->findData(picked.mid(5));
  if (at < 0) return;
  if (at != edited_->currentIndex()) {
    edited_->setCurrentIndex(at);
    refresh();
  }
  for (QWidget* above = parentWidget(); above; above = above->parentWidget())
    if (auto* area = qobject_cast<QScrollArea*>(above)) {
      QTimer::singleShot(0, this, [this, area] {
        area->ensureWidgetVisible(about_, 0, 0);
        area->ensureWidgetVisible(kinds_, 0, 8);
      });
      return;
    }
}

void TrimsPanel::addPlaces() {
  for (const bool atStart : {true, false}) {
    Place& place = places_[atStart ? 0 : 1];
    const QString name = atStart ? "trimFrom" : "trimTo", label = atStart ? "From" : "To";
    place.mark = trayBox(name, label);
    connect(place.mark, &QComboBox::activated, this,
            [this, atStart, box = place.mark] { choosePlace(atStart, box->currentData().toString()); });
    about_->layout()->addWidget(trayRow(label, place.mark, 1.5));
    place.on = new ValueRow(name + ".on", "and on by", "how far on from there; -1/2 is back",
                            [this, atStart](const std::string& text) { return shiftPlace(atStart, text); });
    connect(place.on, &ValueRow::left, this, [this] { session_.settle(); });
    about_->layout()->addWidget(place.on);
  }
}

const TrimChoice* TrimsPanel::edited() const {
  if (!session_.design()) return nullptr;
  const std::string id = edited_->currentData().toString().toStdString();
  const std::vector<TrimChoice>& all = session_.design()->rules.trims();
  const auto found = std::ranges::find_if(all, [&](const TrimChoice& t) { return t.id() == id; });
  return found == all.end() ? nullptr : &*found;
}

std::string TrimsPanel::key(std::string_view field) const {
  const TrimChoice* trim = edited();
  return trim ? TrimKey{trim->kind(), trim->name(), std::string(field)}.text() : std::string();
}

std::optional<Problem> TrimsPanel::choose(const std::string& key, const std::string& value) {
  if (key.empty()) return std::nullopt;
  return session_.setChoice(key, value);
}

void TrimsPanel::tell(const std::optional<Problem>& problem) {
  if (problem) emit refused(q(problem->text()));
  session_.settle();
}

// The line of the edge that is picked, or the piece; else what such a one is most often sewn to.
std::string TrimsPanel::beginsOn(TrimKind kind) const {
  const Pattern& pattern = session_.design()->pattern;
  const Selection& s = session_.selection();
  if (trimKind(kind).onPiece) {
    const size_t shell = pattern.shellPieces();
    for (size_t i = 0; i < shell; ++i)
      if (pattern.pieces[i].id == s.piece) return s.piece;
    return shell > 0 ? pattern.pieces.front().id : "";
  }
  const std::vector<GarmentLine> lines = garmentLines(pattern);
  for (const GarmentLine& line : lines)
    for (const SewnEdge& e : line.edges)
      if (pattern.pieces[e.piece].id == s.piece && e.use.edge == s.edge) return line.id;
  for (const std::string_view usual : {trimKind(kind).usuallyOn, std::string_view("hem")})
    if (std::ranges::find(lines, usual, &GarmentLine::id) != lines.end()) return std::string(usual);
  return lines.empty() ? "" : lines.front().id;
}

// A new one; which line it goes along can be changed.
void TrimsPanel::add() {
  const Design* design = session_.design();
  if (!design) return;
  const auto& all = design->rules.trims();
  TrimChoice made(trimKinds()[static_cast<size_t>(kinds_->currentIndex())].kind, "1");
  for (int n = 1; n < kMostOfAKind; ++n) {
    made = TrimChoice(made.kind(), std::to_string(n));
    if (std::ranges::none_of(all, [&](const TrimChoice& t) { return t.id() == made.id(); })) break;
  }
  tell(choose(TrimKey{made.kind(), made.name(), "on"}.text(), beginsOn(made.kind())));
  edited_->setCurrentIndex(edited_->findData(q(made.id())));
  session_.select({.working = "trim." + made.id()});
  refresh();
}

void TrimsPanel::takeOff() {
  const TrimChoice* trim = edited();
  if (!trim) return;
  Order next = session_.order();
  std::erase_if(next.choices, [&](const auto& choice) {
    const auto parsed = parseTrimKey(choice.first);
    return parsed && parsed->kind == trim->kind() && parsed->name == trim->name();
  });
  tell(session_.step(std::move(next), "take off " + english(trim->title())));
}

void TrimsPanel::choosePlace(bool atStart, const QString& mark) {
  tell(choose(key(atStart ? "from" : "to"), mark.toStdString()));
}

std::optional<Problem> TrimsPanel::shiftPlace(bool atStart, const std::string& text) {
  const TrimChoice* trim = edited();
  if (!trim) return std::nullopt;
  const std::string& mark = (atStart ? trim->from() : trim->to()).mark;
  const bool back = text.starts_with('-');
  const std::string by = back ? text.substr(1) : text;
  if (by.find_first_not_of(' ') == std::string::npos) return choose(key(atStart ? "from" : "to"), mark);
  return choose(key(atStart ? "from" : "to"), mark + (back ? " - " : " + ") + by.substr(by.find_first_not_of(' ')));
}

void TrimsPanel::makeFields(TrimKind kind) {
  delete fields_;
  rows_.clear();
  fieldsOf_ = kind;
  fields_ = new QWidget;
  auto* column = new QVBoxLayout(fields_);
  column->setContentsMargins(0, 0, 0, 0);
  column->setSpacing(3);
  for (const RuleInfo& f : trimKind(kind).fields) {
    const std::string field(f.key);
    const QString name = "trim." + q(field);
    if (f.kind == RuleKind::Option) {
      ChoiceBox* box = trayBox(name, q(f.label));
      for (const RuleOption& o : f.options) {
        box->addItem(q(o.label), q(o.id));
        box->setItemData(box->count() - 1, q(o.reason), Qt::ToolTipRole);
      }
      connect(box, &QComboBox::activated, this,
              [this, box, field] { tell(choose(key(field), box->currentData().toString().toStdString())); });
      QWidget* row = trayRow(q(f.label), box, 1.5);
      column->addWidget(row);
      rows_[field] = {row, box, nullptr};
    } else {
      auto* row = new ValueRow(name, q(f.label), q(f.reason),
                               [this, field](const std::string& text) { return choose(key(field), text); });
      connect(row, &ValueRow::left, this, [this] { session_.settle(); });
      column->addWidget(row);
      rows_[field] = {row, nullptr, row};
    }
  }
  fieldColumn_->addWidget(fields_);
}

void TrimsPanel::refreshPlaces(const TrimChoice& trim) {
  const Pattern& pattern = session_.design()->pattern;
  const bool onPiece = trimKind(trim.kind()).onPiece;
  const std::vector<GarmentLine> lines = onPiece ? std::vector<GarmentLine>{} : garmentLines(pattern);
  std::vector<std::pair<QString, QString>> entries;
  for (const GarmentLine& l : lines) entries.emplace_back(words(l.name), q(l.id));
  for (size_t i = 0; onPiece && i < pattern.shellPieces(); ++i)
    entries.emplace_back(words(pattern.pieces[i].name), q(pattern.pieces[i].id));
  refill(*line_, entries);
  line_->setCurrentIndex(line_->findData(q(trim.on())));
  const auto line = std::ranges::find(lines, trim.on(), &GarmentLine::id);
  for (const bool atStart : {true, false}) {
    const Place& row = places_[atStart ? 0 : 1];
    row.mark->parentWidget()->setVisible(!onPiece);
    row.on->setVisible(!onPiece);
    const TrimPlace& place = atStart ? trim.from() : trim.to();
    std::vector<std::pair<QString, QString>> marks;
    if (line != lines.end())
      for (const LineMark& m : line->marks) marks.emplace_back(words(m.name), q(m.id));
    refill(*row.mark, marks);
    row.mark->setCurrentIndex(row.mark->findData(q(place.mark)));
    const QString on = q(formatLength(place.on, {session_.order().units.unit, 16}));
    row.on->show(place.on == 0 ? QString() : on, "0", place.on != 0);
  }
}

void TrimsPanel::refreshFields(const TrimChoice& trim) {
  if (fieldsOf_ != trim.kind()) makeFields(trim.kind());
  const Unit unit = session_.order().units.unit;
  for (const RuleInfo& f : trimKind(trim.kind()).fields) {
    const Field& row = rows_.at(std::string(f.key));
    const RuleValue& value = trim.value(f.key);
    row.row->setVisible(trim.counts(f));
    if (row.box) row.box->setCurrentIndex(row.box->findData(q(value.option)));
    if (row.value) {
      const QString text = shownValue(f, value, unit);
      row.value->show(value.chosen ? text : QString(), text, value.chosen);
    }
  }
}

void TrimsPanel::refresh() {
  const Design* design = session_.design();
  if (!isVisible() || !design) return;
  std::vector<std::pair<QString, QString>> entries;
  for (const TrimChoice& t : design->rules.trims()) entries.emplace_back(words(t.title()), q(t.id()));
  refill(*edited_, entries);
  edited_->setVisible(entries.size() > 0);
  const TrimChoice* trim = edited();
  about_->setVisible(trim != nullptr);
  if (!trim) return;
  refreshPlaces(*trim);
  refreshFields(*trim);
  const auto working = std::ranges::find(design->pattern.workings, "trim." + trim->id(), &Working::key);
  const bool isMade = working != design->pattern.workings.end();
  const auto problem = isMade ? std::nullopt : trimProblem(design->pattern, *trim, design->body, design->rules);
  state_->setObjectName(problem ? "wrong" : "lesser");
  state_->setText(problem   ? words(msg("{}; {}", problem->what, problem->remedy))
                  : !isMade ? QString()
                            : words(working->note, session_.order().units));
}

}  // namespace armure
