#include "app/fit_panel.h"

#include <QDate>
#include <algorithm>

#include "alter/cloth_beyond.h"
#include "alter/complaints.h"
#include "alter/wish.h"
#include "app/tray_parts.h"
#include "order/free_id.h"
#include "order/order_words.h"
#include "render/words.h"

namespace armure {
namespace {

QString placeText(const Pattern& pattern, const std::string& place) {
  if (place == kUpperEnd) return "top edge";
  if (place == kLowerEnd) return "hem";
  return words(pattern.levelName(place)).toLower();
}

}  // namespace

FitPanel::FitPanel(OrderSession& session, QWidget* parent)
    : QWidget(parent), session_(session), column_(new QVBoxLayout(this)) {
  column_->setContentsMargins(0, 4, 0, 0);
  column_->setSpacing(3);
  addFitting();
  addNote();
  addProposal();
  connect(&session, &OrderSession::changed, this, &FitPanel::refresh);
  connect(&session, &OrderSession::selectionChanged, this, &FitPanel::followSelection);
}

void FitPanel::addFitting() {
  addTrayTitle(*column_, "Fitting");
  fittings_ = trayBox("fittings", "Fitting");
  begin_ = new QPushButton("New");
  begin_->setObjectName("newFitting");
  begin_->setToolTip("A fitting of today");
  auto* row = new QHBoxLayout;
  row->addWidget(fittings_, 1);
  row->addWidget(begin_);
  column_->addLayout(row);
  connect(begin_, &QPushButton::clicked, this, &FitPanel::begin);
  connect(fittings_, &QComboBox::activated, this, &FitPanel::refresh);
  date_ = new ValueRow("fittingDate", "On", "when it was tried on", [this](const std::string& text) {
    change("date of the fitting", "fitting.date", [&](Fitting& f) { f.date = text; });
    return std::optional<Problem>();
  });
  on_ = trayBox("fittedOn", "Tried on");
  on_->addItem("toile", "toile");
  on_->addItem("garment", "garment");
  connect(on_, &QComboBox::activated, this, [this] {
    change("what was tried on", "",
           [&](Fitting& f) { f.on = on_->currentIndex() == 0 ? FittedOn::Toile : FittedOn::Garment; });
  });
  gap_ = new ValueRow("fittingGap", "Closed to a gap of", "the opening, as it was worn",
                      [this](const std::string& text) -> std::optional<Problem> {
                        if (text.empty()) {
                          change("gap of the fitting", "fitting.gap", [](Fitting& f) { f.gap.reset(); });
                          return std::nullopt;
                        }
                        const Result<double> mm = parseLength(text, session_.order().units.unit);
                        if (!mm.ok()) return mm.problem();
                        if (*mm < 0 || *mm > 500) return Problem{"gap", "cannot be right", "0 to 20 in"};
                        change("gap of the fitting", "fitting.gap", [&](Fitting& f) { f.gap = *mm; });
                        return std::nullopt;
                      });
  for (ValueRow* r : {date_, gap_}) connect(r, &ValueRow::left, this, [this] { session_.settle(); });
  column_->addWidget(date_);
  column_->addWidget(trayRow("Tried on", on_, 3));
  column_->addWidget(gap_);
}

void FitPanel::addNote() {
  writing_ = new QWidget;
  auto* fields = new QVBoxLayout(writing_);
  fields->setContentsMargins(0, 0, 0, 0);
  fields->setSpacing(3);
  addTrayTitle(*fields, "What was seen");
  complaint_ = trayBox("complaint", "What was seen");
  complaint_->addItem("in my own words", "");
  for (const Complaint& c : complaintTable()) complaint_->addItem(q(c.name), q(c.id));
  connect(complaint_, &QComboBox::activated, this, &FitPanel::offerComplaint);
  why_ = new QLabel;
  why_->setObjectName("lesser");
  why_->setWordWrap(true);
  line_ = trayBox("fitLine", "Line");
  work_ = trayBox("fitWork", "What is to be done");
  for (const FitWork w : kFitWorks) work_->addItem(words(workWords(w)), q(workId(w)));
  from_ = trayBox("fitFrom", "From");
  to_ = trayBox("fitTo", "To");
  half_ = trayBox("fitHalf", "Side of the body");
  for (const auto& [text, half] : {std::pair{"both sides", BodySide::Both},
                                   {"her left side only", BodySide::Left},
                                   {"her right side only", BodySide::Right}})
    half_->addItem(text, q(bodySideId(half)));
  connect(line_, &QComboBox::activated, this, &FitPanel::refreshPlaces);
  amount_ = new ValueRow(
      "fitAmount", "By",
      "of the seam, both edges together; of the whole girth where it is every line, of one half's on one side",
      [this](const std::string& text) -> std::optional<Problem> {
        written_ = text;
        amountMm_.reset();
        note_->setEnabled(false);
        if (text.empty()) return std::nullopt;
        const Result<double> mm = parseLength(text, session_.order().units.unit);
        if (!mm.ok()) return mm.problem();
        if (*mm <= 0 || *mm > 300) return Problem{"by", "cannot be right", "more than nothing, less than 12 in"};
        amountMm_ = *mm;
        note_->setEnabled(true);
        return std::nullopt;
      });
  seen_ = new ValueRow("fitSeen", "Seen", "in your own words", [this](const std::string& text) {
    seenText_ = text;
    return std::optional<Problem>();
  });
  note_ = new QPushButton("Note it");
  note_->setObjectName("noteIt");
  connect(note_, &QPushButton::clicked, this, &FitPanel::note);
  fields->addWidget(complaint_);
  fields->addWidget(why_);
  fields->addWidget(trayRow("Line", line_, 3));
  fields->addWidget(trayRow("To do", work_, 3));
  fields->addWidget(trayRow("From", from_, 3));
  fields->addWidget(trayRow("To", to_, 3));
  fields->addWidget(trayRow("On", half_, 3));
  fields->addWidget(amount_);
  fields->addWidget(seen_);
  fields->addWidget(note_);
  column_->addWidget(writing_);
}

void FitPanel::addProposal() {
  noted_ = new QWidget;
  auto* list = new QVBoxLayout(noted_);
  list->setContentsMargins(0, 0, 0, 0);
  list->setSpacing(3);
  addTrayTitle(*list, "Notes");
  notes_ = new GrowingList;
  notes_->setObjectName("notes");
  notes_->setAccessibleName("Notes of the fitting");
  list->addWidget(notes_);
  forget_ = new QPushButton("Take this note away");
  forget_->setObjectName("forgetNote");
  connect(forget_, &QPushButton::clicked, this, &FitPanel::forget);
  list->addWidget(forget_);
  column_->addWidget(noted_);
  connect(notes_, &QListWidget::currentRowChanged, this, [this](int row) { forget_->setEnabled(row >= 0); });
  addTrayTitle(*column_, "What follows for the pattern");
  proposal_ = new QLabel;
  proposal_->setObjectName("proposal");
  proposal_->setWordWrap(true);
  proposal_->setTextFormat(Qt::RichText);
  column_->addWidget(proposal_);
  take_ = new QPushButton;
  take_->setObjectName("takeProposal");
  connect(take_, &QPushButton::clicked, this, &FitPanel::take);
  column_->addWidget(take_);
}

const Fitting* FitPanel::shown() const {
  const auto& all = session_.order().fittings;
  const std::string id = fittings_->currentData().toString().toStdString();
  const auto found = std::ranges::find(all, id, &Fitting::id);
  return found == all.end() ? nullptr : &*found;
}

const Alteration* FitPanel::taken() const {
  const Fitting* f = shown();
  if (!f) return nullptr;
  const auto& all = session_.order().alterations;
  const auto found = std::ranges::find(all, f->id, &Alteration::fitting);
  return found == all.end() ? nullptr : &*found;
}

void FitPanel::change(const QString& name, const std::string& mergeKey, const std::function<void(Fitting&)>& how) {
  const Fitting* f = shown();
  if (!f) return;
  Order next = session_.order();
  how(*std::ranges::find(next.fittings, f->id, &Fitting::id));
  if (const auto problem = session_.tryOrder(std::move(next), name.toStdString(), mergeKey))
    emit refused(words(problem->line(), session_.order().units));
  if (mergeKey.empty()) session_.settle();
}

void FitPanel::step(Order next, const char* name) {
  if (const auto problem = session_.step(std::move(next), name))
    emit refused(words(problem->line(), session_.order().units));
}

void FitPanel::begin() {
  Order next = session_.order();
  Fitting f;
  f.id = freeId(next.fittings);
  f.date = QDate::currentDate().toString(Qt::ISODate).toStdString();
  next.fittings.push_back(f);
  step(std::move(next), "a fitting");
  fittings_->setCurrentIndex(fittings_->findData(QString::fromStdString(f.id)));
  refresh();
}

void FitPanel::offerComplaint() {
  const Complaint* c = findComplaint(complaint_->currentData().toString().toStdString());
  why_->setText(c ? q(c->reason) : QString());
  why_->setVisible(c != nullptr);
  if (!c || !session_.design()) return;
  const std::vector<FitNote> notes = notesFor(session_.design()->pattern, *c);
  if (notes.empty()) return;
  const FitNote& first = notes.front();
  line_->setCurrentIndex(line_->findData(QString::fromStdString(first.line)));
  refreshPlaces();
  work_->setCurrentIndex(work_->findData(q(workId(first.work))));
  from_->setCurrentIndex(from_->findData(QString::fromStdString(first.from)));
  to_->setCurrentIndex(to_->findData(QString::fromStdString(first.to)));
  amountMm_ = first.mm;
  written_ = formatLengthWithUnit(first.mm, session_.order().units);
  amount_->show(QString::fromStdString(written_), {}, true);
  note_->setEnabled(true);
}

BodySide FitPanel::halfWritten() const {
  const int at = half_->currentIndex();
  return at == 1 ? BodySide::Left : at == 2 ? BodySide::Right : BodySide::Both;
}

FitNote FitPanel::noteWritten() const {
  FitNote n;
  n.complaint = complaint_->currentData().toString().toStdString();
  n.work = *(kFitWorks.begin() + std::max(0, work_->currentIndex()));
  n.line = line_->currentData().toString().toStdString();
  n.from = from_->currentData().toString().toStdString();
  n.to = to_->currentData().toString().toStdString();
  n.mm = amountMm_.value_or(0);
  n.seen = seenText_;
  n.half = halfWritten();
  return n;
}

void FitPanel::note() {
  if (!amountMm_) return emit refused("Say by how much, then note it.");
  std::vector<FitNote> notes{noteWritten()};
  // What else mends the same complaint is noted with it.
  if (const Complaint* c = findComplaint(notes.front().complaint)) {
    std::vector<FitNote> more = notesFor(session_.design()->pattern, *c);
    for (FitNote& n : more) n.half = notes.front().half;
    if (!more.empty()) notes.insert(notes.end(), more.begin() + 1, more.end());
  }
  session_.settle();
  session_.lookAt(notes.front().half);  // where it is seen
  change("a note of the fitting", "", [&](Fitting& f) { f.notes.insert(f.notes.end(), notes.begin(), notes.end()); });
  complaint_->setCurrentIndex(0);
  half_->setCurrentIndex(0);
  why_->setVisible(false);
  written_.clear();
  seenText_.clear();
  amountMm_.reset();
  amount_->show({}, {}, false);
  seen_->show({}, {}, false);
  note_->setEnabled(false);
}

void FitPanel::forget() {
  const int at = notes_->currentRow();
  if (at < 0) return;
  change("note taken away", "", [&](Fitting& f) { f.notes.erase(f.notes.begin() + at); });
}

void FitPanel::take() {
  Order next = session_.order();
  const Fitting* f = shown();
  if (!f) return;
  if (const Alteration* was = taken()) {
    std::erase_if(next.alterations, [&](const Alteration& a) { return a.id == was->id; });
  } else {
    Alteration a = offered_;
    a.id = freeId(next.alterations);
    a.name = "fitting of " + f->date;
    next.alterations.push_back(std::move(a));
  }
  step(std::move(next), taken() ? "alteration taken back" : "alteration after the fitting");
}

void FitPanel::followSelection() {
  if (!isVisible() || !session_.design()) return;
  const Selection& s = session_.selection();
  const int at = line_->findData(QString::fromStdString(s.seam));
  if (s.seam.empty() || at < 0 || at == line_->currentIndex()) return;
  line_->setCurrentIndex(at);
  refreshPlaces();
}

void FitPanel::refreshFitting() {
  std::vector<std::pair<QString, QString>> entries;
  for (const Fitting& f : session_.order().fittings)
    entries.emplace_back(QString("%1, %2").arg(q(f.date), f.on == FittedOn::Toile ? "toile" : "garment"), q(f.id));
  refill(*fittings_, entries);
  const Fitting* f = shown();
  fittings_->setVisible(f != nullptr);
  for (QWidget* w : {static_cast<QWidget*>(date_), static_cast<QWidget*>(on_->parentWidget()),
                     static_cast<QWidget*>(gap_), writing_, noted_})
    w->setVisible(f != nullptr);
  date_->show(f ? q(f->date) : QString(), "no fitting yet", f != nullptr);
  on_->setCurrentIndex(f && f->on == FittedOn::Garment ? 1 : 0);
  gap_->show(f && f->gap ? QString::fromStdString(formatLengthWithUnit(*f->gap, session_.order().units)) : QString(),
             "not noted", f && f->gap);
}

void FitPanel::refreshNoteFields() {
  const Pattern& pattern = session_.design()->pattern;
  std::vector<std::pair<QString, QString>> lines{{"every line", ""}};
  for (const std::string& id : shiftableLines(pattern))
    lines.emplace_back(words(lineName(pattern, id)).toLower().remove(" edge"), QString::fromStdString(id));
  refill(*line_, lines);
  refreshPlaces();
}

void FitPanel::refreshPlaces() {
  if (!session_.design()) return;
  const Pattern& pattern = session_.design()->pattern;
  const std::string line = line_->currentData().toString().toStdString();
  std::vector<std::pair<QString, QString>> places;
  for (const std::string& p : placesOn(pattern, line.empty() ? std::string(kEveryLine) : line))
    places.emplace_back(placeText(pattern, p), QString::fromStdString(p));
  refill(*from_, places);
  refill(*to_, places);
}

void FitPanel::refreshProposal() {
  const Fitting* f = shown();
  const Design& d = *session_.design();
  const LengthFormat units{session_.order().units.unit, 16};
  const int row = notes_->currentRow();
  notes_->clear();
  proposed_.reset();
  offered_ = {};
  QString html;
  if (f) {
    const Proposal p = proposalFor(d.pattern, *f);
    for (size_t i = 0; i < f->notes.size(); ++i) {
      const FitNote& n = f->notes[i];
      const Complaint* c = findComplaint(n.complaint);
      QString text = words(noteWords(d.pattern, n), units);
      if (c) text = q(c->name) + ": " + text;
      if (!n.seen.empty()) text += " (" + q(n.seen) + ")";
      const auto outcome = std::ranges::find(p.outcomes, i, &NoteOutcome::note);
      if (outcome != p.outcomes.end() && !outcome->what.empty())
        text += ". Not done: " + words(outcome->what, units);
      else if (outcome != p.outcomes.end() && std::abs(outcome->got - outcome->wanted) > 0.05)
        text += QString(". Another note says otherwise: it gets %1")
                    .arg(QString::fromStdString(formatDifference(outcome->got, units)));
      notes_->addItem(text);
    }
    offered_ = p.alteration;
  }
  notes_->setCurrentRow(std::min(row, notes_->count() - 1));
  const Alteration* done = taken();
  for (const Message& m : shiftWords(d.pattern, done ? *done : offered_)) html += "<p>" + words(m, units) + "</p>";
  // The cloth that was tried on is cut already.
  if (!done)
    for (const BeyondCloth& b : beyondCloth(d.pattern, offered_))
      html += "<p>" + words(beyondWords(d.pattern, b), units) + "</p>";
  if (html.isEmpty()) html = f ? "Nothing yet: note what was seen." : "Begin a fitting, and note what was seen.";
  proposal_->setText(html);
  take_->setText(done ? "Take the alteration back" : "Alter the pattern so");
  take_->setEnabled(done || !offered_.shifts.empty());
  if (!done && !offered_.shifts.empty()) {
    Order with = session_.order();
    offered_.id.clear();
    with.alterations.push_back(offered_);
    with.alterations.back().id = "proposal";
    if (Result<Design> made = recalc(with, &d); made.ok())
      proposed_ = std::make_shared<const Pattern>(made->half(session_.side()).pattern);
  }
  notes_->grow();
}

void FitPanel::refresh() {
  if (!isVisible() || !session_.design()) return;
  refreshFitting();
  refreshNoteFields();
  note_->setEnabled(shown() && amountMm_);
  why_->setVisible(!why_->text().isEmpty() && complaint_->currentIndex() > 0);
  refreshProposal();
  forget_->setEnabled(notes_->currentRow() >= 0);
  emit proposalChanged();
}

}  // namespace armure
