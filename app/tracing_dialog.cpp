#include "app/tracing_dialog.h"

#include <QDate>
#include <QHBoxLayout>
#include <QScrollArea>
#include <QShortcut>
#include <QStyle>
#include <algorithm>
#include <array>
#include <charconv>
#include <filesystem>
#include <map>

#include "app/tray_parts.h"
#include "io/base_file.h"
#include "measure/measure_table.h"
#include "recalc/bases.h"
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

// Fills a box anew, and chooses.
void offer(ChoiceBox& box, const std::vector<std::pair<QString, QString>>& entries, const QString& chosen) {
  box.clear();
  for (const auto& [text, data] : entries) box.addItem(text, data);
  box.setCurrentIndex(std::max(0, box.findData(chosen)));
}

QString edgeText(const TracedEdge& e) { return q(e.piece) + ": " + q(e.edge); }
QString edgeData(const TracedEdge& e) { return q(e.piece) + "." + q(e.edge); }

}  // namespace

TracingDialog::TracingDialog(TracingSession& session, const Theme& theme, LengthFormat units, QWidget* parent)
    : QDialog(parent), session_(session), units_(units) {
  setObjectName("tracing");
  setWindowTitle("A base from a drawing");
  resize(1200, 740);
  canvas_ = new TracingCanvas(session, theme);
  auto* inside = new QWidget;
  inside->setObjectName("trayInside");
  column_ = new QVBoxLayout(inside);
  column_->setSpacing(3);
  auto* scroll = new QScrollArea;
  scroll->setWidget(inside);
  scroll->setWidgetResizable(true);
  scroll->setFixedWidth(340);
  scroll->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  addHead();
  addScale();
  addPiece();
  addEdge();
  addLevels();
  addMade();
  column_->addStretch();
  auto* side = new QVBoxLayout;
  side->addWidget(scroll, 1);
  state_ = new QLabel;
  keep_ = new QPushButton;
  addKeep();
  side->addWidget(state_);
  side->addWidget(name_);
  side->addWidget(keep_);
  auto* both = new QHBoxLayout(this);
  both->addWidget(canvas_, 1);
  both->addLayout(side);
  connect(&session, &TracingSession::changed, this, &TracingDialog::refresh);
  connect(&session, &TracingSession::pickedChanged, this, &TracingDialog::pickedWhileAsked);
  connect(canvas_, &TracingCanvas::placeSaid, this, &TracingDialog::placeSaid);
  connect(new QShortcut(QKeySequence::Undo, this), &QShortcut::activated, this, [this] { session_.undo(); });
  connect(new QShortcut(QKeySequence::Redo, this), &QShortcut::activated, this, [this] { session_.redo(); });
  refresh();
}

QPushButton* TracingDialog::button(QVBoxLayout& column, const QString& id, const QString& text,
                                   const std::function<void()>& then) {
  auto* b = new QPushButton(text);
  b->setObjectName(id);
  b->setAutoDefault(false);
  connect(b, &QPushButton::clicked, this, then);
  column.addWidget(b);
  return b;
}

ValueRow* TracingDialog::row(QVBoxLayout& column, const char* id, const QString& label, const QString& hint,
                             ValueRow::Apply apply) {
  auto* r = new ValueRow(id, label, hint, std::move(apply));
  connect(r, &ValueRow::left, this, [this] {
    session_.settle();
    refresh();
  });
  column.addWidget(r);
  return r;
}

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

std::optional<Problem> TracingDialog::take(Result<TracingNames> next, const char* name, const char* mergeKey) {
  if (!next.ok()) return next.problem();
  session_.change(std::move(next).value(), name, mergeKey);
  return std::nullopt;
}

void TracingDialog::changePiece(const char* name, const std::function<void(NamedPiece&)>& how) {
  TracingNames next = session_.names();
  if (NamedPiece* p = pieceNamed(next, session_.picked().piece)) how(*p);
  session_.change(std::move(next), name);
}

void TracingDialog::ask(Asked what) {
  asking_ = what;
  first_.reset();
  canvas_->showMark({});
  seeking_ = session_.picked();
  canvas_->askForPlace(what != Asked::Nothing && what != Asked::Partner);
  static const std::map<Asked, QString> kSaid{{Asked::Nothing, ""},
                                              {Asked::KnownLength, "Click one end of the known length."},
                                              {Asked::Split, "Click where the other edge begins."},
                                              {Asked::Level, "Click where the level meets one edge."},
                                              {Asked::Grain, "Click the upper end of the grain."},
                                              {Asked::Partner, "Click the edge it is sewn to."}};
  wanted_->setText(kSaid.at(what));
  wanted_->setVisible(what != Asked::Nothing);
  if (what != Asked::Nothing) canvas_->setFocus();
}

void TracingDialog::placeSaid(Vec2 mm) {
  if (asking_ == Asked::Split) return split(mm);
  if (!first_) {
    first_ = mm;
    canvas_->showMark(mm);
    wanted_->setText("And now the other end.");
    return;
  }
  const Vec2 a = *first_, b = mm;
  const double k = session_.names().scale;
  const Asked asked = asking_;
  ask(Asked::Nothing);
  if (asked == Asked::Level) addLevel(a / k, b / k);
  if (asked == Asked::Grain) layGrain(a / k, b / k);
  if (asked != Asked::KnownLength) return;
  knownEnds_ = {a / k, b / k};
  refreshState();
  length_->field()->setFocus();
}

void TracingDialog::pickedWhileAsked() {
  if (asking_ == Asked::Partner && !session_.picked().edge.empty()) {
    const TracedEdge to = session_.picked(), from = seeking_;
    ask(Asked::Nothing);
    if (to == from) return refresh();
    session_.pick(from);
    take(sewn(session_.names(), from, to), "a seam");
  }
  refresh();
}

void TracingDialog::split(Vec2 at) {
  const double k = session_.names().scale;
  ask(Asked::Nothing);
  take(splitAt(session_.names(), session_.picked(), at / k), "an edge split");
}

void TracingDialog::addLevel(Vec2 a, Vec2 b) {
  changePiece("a level", [&](NamedPiece& p) {
    std::string id = "waist";
    for (const std::string_view l : kLevelIds)
      if (std::ranges::none_of(p.levels, [&](const NamedLevel& x) { return x.id == l; })) {
        id = l;
        break;
      }
    p.levels.push_back({id, a, b});
  });
  levels_->setCurrentIndex(levels_->count() - 1);
  refreshPiece();
}

void TracingDialog::layGrain(Vec2 a, Vec2 b) {
  if (distance(a, b) < 1) return;
  changePiece("grain", [&](NamedPiece& p) {
    p.grainTop = a;
    p.grainBottom = b;
  });
}

void TracingDialog::refresh() {
  undo_->setEnabled(session_.canUndo());
  redo_->setEnabled(session_.canRedo());
  wanted_->setVisible(asking_ != Asked::Nothing);
  std::vector<std::pair<QString, QString>> pieces;
  for (const NamedPiece& p : session_.names().pieces) pieces.emplace_back(q(p.id), q(p.id));
  offer(*pieces_, pieces, q(session_.picked().piece));
  refreshPiece();
  refreshEdge();
  refreshState();
}

void TracingDialog::refreshPiece() {
  const NamedPiece* p = pieceNamed(session_.names(), session_.picked().piece);
  if (!p) return;
  piece_->show(q(p->id), {}, true);
  half_->setCurrentIndex(half_->findData(q(wordOf(kHalfWords, p->half).id)));
  part_->setCurrentIndex(part_->findData(q(wordOf(kPartWords, p->part).id)));
  ordinal_->show(QString::number(p->ordinal), {}, true);
  const bool fold = std::ranges::any_of(p->edges, [](const NamedEdge& e) { return e.role == EdgeRole::Fold; });
  cut_->setItemText(1, fold ? "once, on the fold" : "once");
  cut_->setCurrentIndex(p->copies == 1 ? 1 : 0);
  cut_->setEnabled(!fold);
  drawn_->setCurrentIndex(p->mirrored ? 1 : 0);
  const int level = levels_->currentIndex();
  std::vector<std::pair<QString, QString>> levels;
  for (const NamedLevel& l : p->levels) levels.emplace_back(q(l.id).replace('_', ' '), q(l.id));
  offer(*levels_, levels, "");
  levels_->setCurrentIndex(std::clamp(level, levels.empty() ? -1 : 0, static_cast<int>(levels.size()) - 1));
  const bool any = levels_->currentIndex() >= 0;
  levels_->setEnabled(any);
  levelName_->setEnabled(any);
  noLevel_->setEnabled(any);
  if (any) levelName_->setCurrentIndex(levelName_->findData(levels_->currentData()));
}

void TracingDialog::refreshEdge() {
  const TracingNames& names = session_.names();
  const NamedPiece* p = pieceNamed(names, session_.picked().piece);
  std::vector<std::pair<QString, QString>> edges, others{{"nothing", ""}};
  if (p)
    for (const NamedEdge& e : p->edges) edges.emplace_back(q(e.id), q(e.id));
  const NamedEdge* e = edgeNamed(names, session_.picked());
  if (!e) edges.insert(edges.begin(), {"none picked", ""});
  offer(*edges_, edges, q(session_.picked().edge));
  for (const NamedPiece& other : names.pieces)
    for (const NamedEdge& x : other.edges)
      if (TracedEdge name{other.id, x.id}; name != session_.picked())
        others.emplace_back(edgeText(name), edgeData(name));
  const std::vector<TracedEdge> partners = partnersOf(names, session_.picked());
  offer(*sewn_, others, partners.empty() ? QString() : edgeData(partners.front()));
  const bool can = e && (isSewn(e->role) || !partners.empty());
  for (QWidget* w : {static_cast<QWidget*>(edge_->field()), static_cast<QWidget*>(role_),
                     static_cast<QWidget*>(allowance_->field()), static_cast<QWidget*>(sewn_),
                     static_cast<QWidget*>(partner_), static_cast<QWidget*>(split_), static_cast<QWidget*>(one_)})
    w->setEnabled(e != nullptr);
  partner_->setEnabled(can);
  sewn_->setEnabled(e != nullptr);
  edge_->show(e ? q(e->id) : QString(), {}, true);
  role_->setCurrentIndex(e ? role_->findData(q(wordOf(kEdgeWords, e->role).id)) : -1);
  allowance_->show(e ? QString::fromStdString(formatLengthWithUnit(e->allowance, units_)) : QString(), {}, true);
}

void TracingDialog::refreshState() {
  const TracingNames& names = session_.names();
  QString scale = words(session_.units());
  if (names.scale != 1) scale += QString(". Everything is drawn %1 times that").arg(names.scale, 0, 'g', 6);
  for (const TracedOutline& o : session_.outlines())
    if (o.isTestSquare)
      scale += QString(". A test square measures %1")
                   .arg(QString::fromStdString(formatLengthWithUnit(o.path.length() / 4, {Unit::Millimetre, 16})));
  drawnIn_->setText(scale.left(1).toUpper() + scale.mid(1) + ".");
  length_->setVisible(knownEnds_.has_value());
  if (knownEnds_) {
    const double is = names.scale * distance(knownEnds_->first, knownEnds_->second);
    length_->show({}, QString::fromStdString(formatLengthWithUnit(is, units_)), false);
  }
  for (const auto& [id, r] : made_) {
    const auto mm = names.made.mm(id);
    r->show(mm ? QString::fromStdString(formatLengthWithUnit(*mm, units_)) : QString(), onPaper(id), mm.has_value());
  }
  opening_->show(names.opening > 0 ? QString::fromStdString(formatLengthWithUnit(names.opening, units_)) : QString(),
                 "nothing", names.opening > 0);
  const Result<Pattern>& pattern = session_.pattern();
  QString said;
  if (!pattern.ok()) {
    said = words(pattern.problem().line(), units_);
  } else {
    for (const MeasureInfo& info : measureTable())
      if ((info.need == Need::Required || info.need == Need::Reached) &&
          std::ranges::find(kMadeMeasures, info.id) != kMadeMeasures.end() && !names.made.mm(info.id) && said.isEmpty())
        said = QString("%1, as made: not measured; every pattern needs it to be laid on a body").arg(q(info.name));
  }
  state_->setText(said.isEmpty() ? "Nothing is missing." : said);
  state_->setObjectName(said.isEmpty() ? "lesser" : "wrong");
  state_->style()->unpolish(state_);
  state_->style()->polish(state_);
  keep_->setEnabled(said.isEmpty());
}

// What the pieces measure there, to compare with.
QString TracingDialog::onPaper(const std::string& measure) const {
  if (!session_.pattern().ok()) return "not measured";
  const PatternLevel* l = session_.pattern()->level(measure == id::kUpperBust ? "chest" : measure);
  if (!l || !l->ring) return "not measured";
  return QString::fromStdString(formatLength(l->finishedGirth, units_)) + " on paper";
}

void TracingDialog::keep() {
  const TracingNames& names = session_.names();
  if (!session_.pattern().ok() || baseName_.empty()) return;
  const std::string date = QDate::currentDate().toString(Qt::ISODate).toStdString();
  Result<BasePattern> base = baseFromDrawing(*session_.pattern(), names.opening, names.made, baseName_, date);
  std::optional<Problem> problem;
  std::filesystem::path path;
  if (base.ok()) {
    std::error_code error;
    std::filesystem::create_directories(baseFolder(), error);
    path = newBasePath(baseFolder(), baseName_);
    problem = writeBase(path, BaseFile{std::move(base).value(), {}, {}});
  } else {
    problem = base.problem();
  }
  if (problem) {
    state_->setText(words(problem->line(), units_));
    return;
  }
  kept_ = path.string();
  session_.forget();
  accept();
}

}  // namespace armure
