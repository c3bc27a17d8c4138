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
    std::string id = "waist";  // the first that it has not yet
    for (int i = levelName_->count(); i-- > 0;)
      if (const std::string l = levelName_->itemData(i).toString().toStdString();
          std::ranges::none_of(p.levels, [&](const NamedLevel& x) { return x.id == l; }))
        id = l;
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
      if ((info.need == Need::Required || info.need == Need::Reached) && !names.made.mm(info.id) && said.isEmpty())
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
