#include "app/balance_panel.h"

#include <QHBoxLayout>
#include <algorithm>
#include <cmath>
#include <tuple>

#include "app/words.h"
#include "balance/walk.h"
#include "render/words.h"

namespace armure {
namespace {

// A movement in the order's unit, finer than its fractions, and in millimetres beside it.
QString movement(double v, Unit unit) {
  if (unit != Unit::Inch || v < inches(1.0 / 64)) return millimetres(v);
  return QString("%1 (%2)").arg(q(formatLengthWithUnit(v, {unit, 32})), millimetres(v));
}

double worstStretch(const Pattern& pattern, const Seam& seam) {
  double worst = 0;
  for (const Stretch& s : walk(pattern, seam).stretches) worst = std::max(worst, std::abs(s.mismatch()));
  return worst;
}

EdgeName edgeOf(const Pattern& pattern, const SeamSide& side) {
  return {pattern.pieces[side.piece].id, side.chain.front().edge};
}

}  // namespace

BalancePanel::BalancePanel(OrderSession& session, QWidget* parent)
    : QWidget(parent), session_(session), head_(new QLabel), summary_(new QLabel), moves_(new QListWidget) {
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 8, 0, 0);
  column->setSpacing(3);
  auto* title = new QLabel("Where two sides differ");
  title->setObjectName("group");
  column->addWidget(title);
  seams_ = new QVBoxLayout;
  seams_->setSpacing(8);
  column->addLayout(seams_);
  column->addSpacing(8);
  head_->setObjectName("group");
  summary_->setObjectName("balanceSummary");
  summary_->setWordWrap(true);
  moves_->setObjectName("moves");
  moves_->setAccessibleName("What moves");
  moves_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  moves_->setVerticalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  column->addWidget(head_);
  column->addWidget(summary_);
  column->addWidget(moves_);
  const auto show = [this](QListWidgetItem* item) {
    const Balanced* b = session_.balanced();
    const auto i = static_cast<size_t>(moves_->row(item));
    if (!b || i >= b->moves.size()) return;
    const EdgeMove& m = b->moves[i];
    session_.select({.piece = b->pattern.pieces[m.piece].id, .edge = m.edge, .seam = m.seam});
  };
  connect(moves_, &QListWidget::itemClicked, this, show);
  connect(moves_, &QListWidget::itemActivated, this, show);
  connect(&session, &OrderSession::changed, this, &BalancePanel::refresh);
}

BalancePanel::SeamRow& BalancePanel::rowOf(const std::string& seam) {
  if (const auto found = rows_.find(seam); found != rows_.end()) return found->second;
  SeamRow made{new QWidget,   new QPushButton, new QLabel,      new ChoiceBox,   new QWidget,
               new ChoiceBox, new ChoiceBox,   new QPushButton, new QPushButton, {}};
  auto* lines = new QVBoxLayout(made.row);
  lines->setContentsMargins(0, 0, 0, 0);
  lines->setSpacing(2);
  auto* first = new QHBoxLayout;
  made.name->setObjectName("plainLeft");
  made.state->setObjectName("lesser");
  first->addWidget(made.name);
  first->addStretch(1);
  first->addWidget(made.state);
  auto* second = new QHBoxLayout;
  made.wish->setObjectName("seam." + q(seam));
  made.wish->setAccessibleName("What becomes of the difference: " + q(seam));
  made.wish->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
  second->addWidget(made.wish, 1);
  for (QPushButton* hold : {made.holdA, made.holdB}) {
    hold->setObjectName("small");
    hold->setCheckable(true);
    second->addWidget(hold);
  }
  auto* between = new QHBoxLayout(made.ease);
  between->setContentsMargins(0, 0, 0, 0);
  between->addWidget(new QLabel("from"));
  between->addWidget(made.from, 1);
  between->addWidget(new QLabel("to"));
  between->addWidget(made.to, 1);
  made.from->setObjectName("easeFrom." + q(seam));
  made.to->setObjectName("easeTo." + q(seam));
  lines->addLayout(first);
  lines->addLayout(second);
  lines->addWidget(made.ease);
  seams_->addWidget(made.row);
  connectRow(seam, made);
  return rows_.emplace(seam, made).first->second;
}

void BalancePanel::connectRow(const std::string& seam, const SeamRow& row) {
  connect(row.name, &QPushButton::clicked, this, [this, seam] { session_.select({.seam = seam}); });
  connect(row.wish, &QComboBox::activated, this, [this, box = row.wish, seam] {
    const auto choice = parseSeamChoice(box->currentData().toString().toStdString());
    if (choice) choose(seam, *choice);
  });
  const auto eased = [this, from = row.from, to = row.to, seam] {
    SeamChoice choice{SeamWish::Ease, from->currentData().toString().toStdString(),
                      to->currentData().toString().toStdString()};
    if (!parseSeamChoice(seamChoiceText(choice))) choice.to = "hem";  // the end came to lie above the beginning
    choose(seam, choice);
  };
  connect(row.from, &QComboBox::activated, this, eased);
  connect(row.to, &QComboBox::activated, this, eased);
  connect(row.holdA, &QPushButton::clicked, this, [this, seam] { toggleLock(seam, true); });
  connect(row.holdB, &QPushButton::clicked, this, [this, seam] { toggleLock(seam, false); });
}

SeamChoice BalancePanel::choiceOf(const std::string& seam) const {
  const auto kept = session_.order().choices.find(seamKey(seam));
  if (kept == session_.order().choices.end()) return {};
  return parseSeamChoice(kept->second).value_or(SeamChoice{});
}

void BalancePanel::choose(const std::string& seam, const SeamChoice& choice) {
  session_.setChoice(seamKey(seam), choice.wish == SeamWish::Both ? "" : seamChoiceText(choice));
  session_.settle();
}

void BalancePanel::toggleLock(const std::string& seam, bool sideA) {
  const Design& d = *session_.design();
  const Seam* s = d.pattern.seam(seam);
  if (!s) return;
  const std::string key = lockKey(edgeOf(d.pattern, sideA ? s->a : s->b));
  session_.setChoice(key, session_.order().choices.contains(key) ? "" : kLocked);
  session_.settle();
}

void BalancePanel::refresh() {
  if (!isVisible()) return;
  const Balanced* balanced = session_.balanced();
  setEnabled(balanced != nullptr);
  if (!balanced) return;
  const Design& d = *session_.design();
  const Pattern &before = d.drafted ? *d.drafted : d.pattern, &now = balanced->pattern;
  for (auto& [id, row] : rows_)
    if (!before.seam(id) || !now.seam(id)) row.row->hide();
  // Layers are made of the balanced shell: their seams have nothing to choose.
  for (const Seam& seam : now.seams)
    if (std::max(seam.a.piece, seam.b.piece) < now.shellPieces() && before.seam(seam.id)) refreshRow(seam, before, now);
  head_->setText(d.balanced ? "What moved" : "What would move");
  showMoves(*balanced);
}

void BalancePanel::refreshRow(const Seam& seam, const Pattern& before, const Pattern& now) {
  SeamRow& row = rowOf(seam.id);
  const SeamChoice choice = choiceOf(seam.id);
  const double was = worstStretch(before, *before.seam(seam.id)), is = worstStretch(now, seam);
  const double ease = std::abs(seam.ease());
  row.name->setText(words(seam.name));
  row.state->setText(millimetres(was) + QString::fromUtf8(" → ") + millimetres(is) +
                     (ease > 0.05 ? ", " + millimetres(ease) + " eased" : ""));
  const int a = now.pieces[seam.a.piece].number, b = now.pieces[seam.b.piece].number;
  const std::pair<QString, SeamChoice> wishes[] = {{"both give way", {SeamWish::Both}},
                                                   {QString("follow %1").arg(a), {SeamWish::FollowA}},
                                                   {QString("follow %1").arg(b), {SeamWish::FollowB}},
                                                   {"ease it in", {SeamWish::Ease, "bust", "underbust"}},
                                                   {"trim at the top", {SeamWish::TrimTop}},
                                                   {"trim at the hem", {SeamWish::TrimHem}},
                                                   {"leave it", {SeamWish::Leave}}};
  QStringList offered{QString::number(a), QString::number(b)};
  for (const SeamNotch& n : seam.notches) offered << q(n.id);
  if (offered != row.offered) {  // a drag changes none of it
    row.offered = offered;
    row.wish->clear();
    for (const auto& [text, wish] : wishes) row.wish->addItem(text, q(seamChoiceText(wish)));
    row.from->clear();
    row.to->clear();
    row.from->addItem("top", "top");
    for (const SeamNotch& n : seam.notches) {
      row.from->addItem(placeName(n.id), q(n.id));
      row.to->addItem(placeName(n.id), q(n.id));
    }
    row.to->addItem("hem", "hem");
    const bool dart = seam.kind == SeamKind::Dart;
    for (const auto& [button, piece, leg] : {std::tuple{row.holdA, a, 1}, {row.holdB, b, 2}}) {
      const QString what = dart ? QString("leg %1 of the dart in piece %2").arg(leg).arg(piece)
                                : QString("the edge of piece %1").arg(piece);
      button->setText(dart ? QString("leg %1").arg(leg) : QString("hold %1").arg(piece));
      button->setAccessibleName("hold " + what);
      button->setToolTip(what[0].toUpper() + what.mid(1) + " stays as drafted");
    }
  }
  for (int i = 0; i < static_cast<int>(std::size(wishes)); ++i)
    if (wishes[i].second.wish == choice.wish) row.wish->setCurrentIndex(i);
  row.ease->setVisible(choice.wish == SeamWish::Ease);
  row.from->setCurrentIndex(std::max(0, row.from->findData(q(choice.from))));
  row.to->setCurrentIndex(std::max(0, row.to->findData(q(choice.to))));
  for (const auto& [button, side] : {std::pair{row.holdA, &seam.a}, {row.holdB, &seam.b}})
    button->setChecked(session_.order().choices.contains(lockKey(edgeOf(before, *side))));
  row.row->show();
}

void BalancePanel::showMoves(const Balanced& b) {
  const BalanceCertificate& c = b.certificate;
  QString text;
  if (b.moves.empty()) {
    text = b.unreachable.empty() ? "Nothing: everything fits." : "Nothing.";
  } else {
    const Unit unit = session_.order().units.unit;
    text = QString("A line to cut moves by %1 at most, a notch by %2.")
               .arg(movement(c.largestAcross, unit), movement(c.largestMove, unit));
    if (c.converged)
      text += QString(" Every stretch then fits to %1 mm, every girth to %2 mm.")
                  .arg(c.worstStretch, 0, 'f', 2)
                  .arg(c.worstGirth, 0, 'f', 2);
  }
  for (const Unreachable& u : b.unreachable) text += "\n" + words(wordsOf(u, b.pattern).line()) + ".";
  summary_->setText(text);
  const int count = static_cast<int>(b.moves.size());
  while (moves_->count() > count) delete moves_->takeItem(moves_->count() - 1);
  while (moves_->count() < count) {
    auto* item = new QListWidgetItem(moves_);
    item->setSizeHint({0, 38});
  }
  for (int i = 0; i < count; ++i) {
    const EdgeMove& m = b.moves[static_cast<size_t>(i)];
    const QString near = m.near.empty() ? "" : ", " + placeName(m.near);
    const Piece& piece = b.pattern.pieces[m.piece];
    const QString told =
        words(msg("{}  {} {}, {}{}\nfor {}", movement(m.largest, session_.order().units.unit).toStdString(),
                  piece.number, piece.name, m.edge, near.toStdString(), m.why));
    if (moves_->item(i)->text() == told) continue;
    moves_->item(i)->setText(told);
    moves_->item(i)->setToolTip(told);
  }
  // As high as what stands in it; the tray scrolls, not the list.
  constexpr int kPadding = 4, kLine = 17;
  moves_->setFixedHeight(moves_->count() * (2 * kLine + kPadding) + kPadding);
}

}  // namespace armure
