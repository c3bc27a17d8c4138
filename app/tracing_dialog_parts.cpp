// app/tracing_dialog_parts.cpp
//
// What stands beside the drawing while it is named: the boxes, fields and buttons of tracing_dialog.h, part by part.
#include <QHBoxLayout>
#include <array>
#include <charconv>
#include <filesystem>

#include "app/tracing_dialog.h"
#include "app/tray_parts.h"
#include "measure/measure_table.h"
#include "render/words.h"
#include "tracing/naming_words.h"

namespace armure {
namespace {

constexpr std::array<std::string_view, 11> kMadeMeasures{
    id::kUpperBust, id::kBust,         id::kUnderbust,         id::kWaist,      id::kHighHip,       id::kHip,
    id::kBustSpan,  id::kFrontBustArc, id::kFrontUnderbustArc, id::kSideLength, "shoulder_to_waist"};
constexpr std::array<std::string_view, 8> kLevelIds{"chest",    "bust", "underbust", "waist",
                                                    "high_hip", "hip",  "knee",      "hem"};

template <typename Kind, size_t n>
void fill(ChoiceBox& box, const std::array<KindWord<Kind>, n>& table) {
  for (const auto& w : table) box.addItem(w.name, q(w.id));
}

}  // namespace

void TracingDialog::addHead() {
  auto* title = new QLabel("A base from a drawing");
  title->setObjectName("heading");
  column_->addWidget(title);
  auto* file = new QLabel(q(std::filesystem::path(session_.file()).filename().string()) +
                          (session_.wasKept() ? ", as you named it before" : ""));
  file->setObjectName("lesser");
  file->setWordWrap(true);
  column_->addWidget(file);
  auto* steps = new QHBoxLayout;
  undo_ = new QPushButton("Undo");
  redo_ = new QPushButton("Redo");
  undo_->setObjectName("tracingUndo");
  redo_->setObjectName("tracingRedo");
  for (QPushButton* b : {undo_, redo_}) {
    b->setAutoDefault(false);
    steps->addWidget(b);
  }
  connect(undo_, &QPushButton::clicked, this, [this] { session_.undo(); });
  connect(redo_, &QPushButton::clicked, this, [this] { session_.redo(); });
  column_->addLayout(steps);
  wanted_ = new QLabel;
  wanted_->setObjectName("working");
  wanted_->setWordWrap(true);
  column_->addWidget(wanted_);
}

void TracingDialog::addScale() {
  addTrayTitle(*column_, "Scale");
  drawnIn_ = new QLabel;
  drawnIn_->setObjectName("lesser");
  drawnIn_->setWordWrap(true);
  column_->addWidget(drawnIn_);
  known_ = button(*column_, "knownLength", "A known length: click its two ends", [this] { ask(Asked::KnownLength); });
  length_ = row(*column_, "knownIs", "It is really", "as measured with a ruler on the paper it came from",
                [this](const std::string& text) -> std::optional<Problem> {
                  if (text.empty() || !knownEnds_) return std::nullopt;
                  const Result<double> mm = parseLength(text, units_.unit);
                  if (!mm.ok()) return mm.problem();
                  const Result<double> k = scaleByLength(knownEnds_->first, knownEnds_->second, *mm);
                  if (!k.ok()) return k.problem();
                  session_.setScale(*k);
                  return std::nullopt;
                });
}

void TracingDialog::addPiece() {
  addTrayTitle(*column_, "Piece");
  pieces_ = trayBox("tracedPieces", "Piece");
  column_->addWidget(pieces_);
  connect(pieces_, &QComboBox::activated, this, [this] {
    session_.pick({pieces_->currentData().toString().toStdString(), ""});
  });
  piece_ = row(*column_, "tracedPiece", "Called", "letters, figures and hyphens", [this](const std::string& text) {
    const std::string was = session_.picked().piece;
    auto problem = take(renamedPiece(session_.names(), was, text), "name of a piece", "piece");
    if (!problem) session_.pick({text, session_.picked().edge});
    return problem;
  });
  half_ = trayBox("tracedHalf", "Front or back");
  fill(*half_, kHalfWords);
  part_ = trayBox("tracedPart", "What it is");
  fill(*part_, kPartWords);
  cut_ = trayBox("tracedCut", "Cut");
  cut_->addItem("a mirrored pair", 2);
  cut_->addItem("once", 1);
  drawn_ = trayBox("tracedSide", "Drawn as");
  drawn_->addItem("the left half of the body", false);
  drawn_->addItem("the right half of the body", true);
  connect(half_, &QComboBox::activated, this, [this](int i) {
    changePiece("front or back", [&](NamedPiece& p) { p.half = kHalfWords[static_cast<size_t>(i)].kind; });
  });
  connect(part_, &QComboBox::activated, this, [this](int i) {
    changePiece("what a piece is", [&](NamedPiece& p) { p.part = kPartWords[static_cast<size_t>(i)].kind; });
  });
  connect(cut_, &QComboBox::activated, this, [this] {
    changePiece("how often it is cut", [&](NamedPiece& p) { p.copies = cut_->currentData().toInt(); });
  });
  connect(drawn_, &QComboBox::activated, this, [this] {
    changePiece("side of the body", [&](NamedPiece& p) { p.mirrored = drawn_->currentData().toBool(); });
  });
  column_->addWidget(trayRow("Front, back", half_, 2));
  column_->addWidget(trayRow("It is", part_, 2));
  ordinal_ = row(*column_, "tracedOrdinal", "From the centre", "1 beside the centre front or back, 2 the next one",
                 [this](const std::string& text) -> std::optional<Problem> {
                   int n = 0;
                   const auto [to, error] = std::from_chars(text.data(), text.data() + text.size(), n);
                   if (error != std::errc() || to != text.data() + text.size() || n < 0 || n > 99)
                     return Problem{"number", "cannot be read", "1, 2, 3"};
                   changePiece("number from the centre", [&](NamedPiece& p) { p.ordinal = n; });
                   return std::nullopt;
                 });
  column_->addWidget(trayRow("Cut", cut_, 2));
  column_->addWidget(trayRow("Drawn as", drawn_, 2));
  grain_ = button(*column_, "tracedGrain", "Its grain: click two places along it", [this] { ask(Asked::Grain); });
  button(*column_, "noPiece", "This is no piece of it",
         [this] { session_.change(withoutPiece(session_.names(), session_.picked().piece), "an outline left out"); });
}

void TracingDialog::addEdge() {
  addTrayTitle(*column_, "Edge");
  edges_ = trayBox("tracedEdges", "Edge");
  column_->addWidget(edges_);
  connect(edges_, &QComboBox::activated, this, [this] {
    session_.pick({session_.picked().piece, edges_->currentData().toString().toStdString()});
  });
  edge_ = row(*column_, "tracedEdge", "Called", "letters, figures and hyphens",
              [this](const std::string& text) -> std::optional<Problem> {
                const TracedEdge was = session_.picked();
                if (was.edge.empty()) return std::nullopt;
                auto problem = take(renamedEdge(session_.names(), was, text), "name of an edge", "edge");
                if (!problem) session_.pick({was.piece, text});
                return problem;
              });
  role_ = trayBox("tracedRole", "It becomes");
  fill(*role_, kEdgeWords);
  connect(role_, &QComboBox::activated, this, [this](int i) {
    session_.change(withRole(session_.names(), session_.picked(), kEdgeWords[static_cast<size_t>(i)].kind),
                    "what an edge becomes");
  });
  column_->addWidget(trayRow("It becomes", role_, 2));
  allowance_ = row(*column_, "tracedAllowance", "Allowance", "outside the sewn line",
                   [this](const std::string& text) -> std::optional<Problem> {
                     const Result<double> mm = parseLength(text, units_.unit);
                     if (!mm.ok()) return mm.problem();
                     if (*mm < 0 || *mm > 200) return Problem{"allowance", "cannot be right", "0 to 8 in"};
                     TracingNames next = session_.names();
                     if (NamedPiece* p = pieceNamed(next, session_.picked().piece))
                       for (NamedEdge& e : p->edges)
                         if (e.id == session_.picked().edge) e.allowance = *mm;
                     session_.change(std::move(next), "allowance", "allowance");
                     return std::nullopt;
                   });
  sewn_ = trayBox("tracedPartner", "Sewn to");
  connect(sewn_, &QComboBox::activated, this, [this] {
    const QString to = sewn_->currentData().toString();
    const auto dot = to.indexOf('.');
    if (dot < 0) return session_.change(notSewn(session_.names(), session_.picked()), "a seam taken away");
    take(sewn(session_.names(), session_.picked(), {to.left(dot).toStdString(), to.mid(dot + 1).toStdString()}),
         "a seam");
  });
  column_->addWidget(trayRow("Sewn to", sewn_, 2));
  partner_ = button(*column_, "clickPartner", "Click what it is sewn to", [this] { ask(Asked::Partner); });
  split_ = button(*column_, "splitEdge", "Another edge begins here: click", [this] { ask(Asked::Split); });
  one_ = button(*column_, "oneEdge", "One with the next edge",
                [this] { take(oneWithNext(session_.names(), session_.picked()), "two edges made one"); });
}

void TracingDialog::addLevels() {
  addTrayTitle(*column_, "Levels of this piece");
  levels_ = trayBox("tracedLevels", "Level");
  connect(levels_, &QComboBox::activated, this, &TracingDialog::refreshPiece);
  levelName_ = trayBox("tracedLevel", "Level is");
  for (const std::string_view l : kLevelIds) levelName_->addItem(q(l).replace('_', ' '), q(l));
  connect(levelName_, &QComboBox::activated, this, [this] {
    const int at = levels_->currentIndex();
    changePiece("name of a level", [&](NamedPiece& p) {
      if (at >= 0 && static_cast<size_t>(at) < p.levels.size())
        p.levels[static_cast<size_t>(at)].id = levelName_->currentData().toString().toStdString();
    });
  });
  column_->addWidget(levels_);
  column_->addWidget(trayRow("It is the", levelName_, 2));
  level_ = button(*column_, "addLevel", "A level: click both its ends", [this] { ask(Asked::Level); });
  noLevel_ = button(*column_, "noLevel", "This is no level", [this] {
    const int at = levels_->currentIndex();
    changePiece("a level taken away", [&](NamedPiece& p) {
      if (at >= 0 && static_cast<size_t>(at) < p.levels.size()) p.levels.erase(p.levels.begin() + at);
    });
  });
}

void TracingDialog::addMade() {
  addTrayTitle(*column_, "As made it measures");
  auto* why = new QLabel("Measured on the made-up pattern, at the very places where a client is measured.");
  why->setObjectName("lesser");
  why->setWordWrap(true);
  column_->addWidget(why);
  for (const std::string_view measure : kMadeMeasures) {
    const std::string id(measure);
    const MeasureInfo* info = findMeasure(id);
    made_.emplace_back(id, row(*column_, ("made." + id).c_str(), q(info->name), q(info->how),
                               [this, id](const std::string& text) -> std::optional<Problem> {
                                 TracingNames next = session_.names();
                                 if (text.empty()) {
                                   next.made.erase(id);
                                 } else {
                                   const Result<double> mm = parseLength(text, units_.unit);
                                   if (!mm.ok()) return mm.problem();
                                   if (auto wrong = measureProblem(id, *mm)) return wrong;
                                   next.made.set(id, {*mm, text, ""});
                                 }
                                 session_.change(std::move(next), "a measure as made", id.c_str());
                                 return std::nullopt;
                               }));
  }
  opening_ = row(*column_, "tracedOpening", "Stays open", "the gap of a lacing, all round; nothing for a zip",
                 [this](const std::string& text) -> std::optional<Problem> {
                   const Result<double> mm = text.empty() ? Result<double>(0.0) : parseLength(text, units_.unit);
                   if (!mm.ok()) return mm.problem();
                   if (*mm < 0 || *mm > 500) return Problem{"gap", "cannot be right", "0 to 20 in"};
                   TracingNames next = session_.names();
                   next.opening = *mm;
                   session_.change(std::move(next), "gap of the opening", "opening");
                   return std::nullopt;
                 });
}

void TracingDialog::addKeep() {
  state_->setObjectName("wrong");
  state_->setWordWrap(true);
  state_->setFixedWidth(330);
  baseName_ = std::filesystem::path(session_.file()).stem().string();
  name_ = new ValueRow("baseName", "The base is called", "as you will look for it", [this](const std::string& text) {
    baseName_ = text;
    return text.empty() ? std::optional(Problem{"name", "is missing", "call it what you will look for"}) : std::nullopt;
  });
  name_->show(q(baseName_), {}, true);
  keep_->setObjectName("keepTraced");
  keep_->setText("Keep as a base");
  keep_->setAutoDefault(false);
  connect(keep_, &QPushButton::clicked, this, &TracingDialog::keep);
}

}  // namespace armure
