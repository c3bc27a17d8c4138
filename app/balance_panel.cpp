#include "app/balance_panel.h"

#include <QHBoxLayout>
#include <algorithm>
#include <cmath>

#include "balance/walk.h"
#include "lowered.h"

namespace armure {
namespace {

QString q(const std::string& s) { return QString::fromStdString(s); }

// Small movements are told in millimetres, whatever the order's unit: an eighth of an inch hides them.
QString mm(double v) { return QString::number(v, 'f', 1) + " mm"; }

double worstStretch(const Pattern& pattern, const Seam& seam) {
  double worst = 0;
  for (const Stretch& s : walk(pattern, seam).stretches) worst = std::max(worst, std::abs(s.mismatch()));
  return worst;
}

}  // namespace

BalancePanel::BalancePanel(OrderSession& session, QWidget* parent)
    : QWidget(parent), session_(session), head_(new QLabel), summary_(new QLabel), moves_(new QLabel) {
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 8, 0, 0);
  column->setSpacing(3);
  auto* title = new QLabel("Which side gives way");
  title->setObjectName("group");
  column->addWidget(title);
  seams_ = new QVBoxLayout;
  seams_->setSpacing(7);
  column->addLayout(seams_);
  column->addSpacing(8);
  head_->setObjectName("group");
  summary_->setObjectName("balanceSummary");
  moves_->setObjectName("lesser");
  for (QLabel* label : {summary_, moves_}) label->setWordWrap(true);
  column->addWidget(head_);
  column->addWidget(summary_);
  column->addWidget(moves_);
  connect(&session, &OrderSession::changed, this, &BalancePanel::refresh);
}

BalancePanel::SeamRow& BalancePanel::rowOf(const std::string& seam) {
  if (const auto found = rows_.find(seam); found != rows_.end()) return found->second;
  SeamRow made{new QWidget, new QLabel, new ChoiceBox};
  auto* line = new QHBoxLayout(made.row);
  line->setContentsMargins(0, 0, 0, 0);
  made.name->setWordWrap(true);
  made.wish->setObjectName("seam." + q(seam));
  made.wish->setAccessibleName("Which side gives way: " + q(seam));
  made.wish->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
  line->addWidget(made.name, 3);
  line->addWidget(made.wish, 2);
  seams_->addWidget(made.row);
  connect(made.wish, &QComboBox::activated, this, [this, box = made.wish, seam] {
    const std::string wish = box->currentData().toString().toStdString();
    session_.setChoice("seam." + seam, wish == "both" ? "" : wish);
    session_.settle();
  });
  return rows_.emplace(seam, made).first->second;
}

void BalancePanel::refresh() {
  if (!isVisible()) return;
  const Balanced* balanced = session_.balanced();
  setEnabled(balanced != nullptr);
  if (!balanced) return;
  const Design& d = *session_.design();
  const Pattern& before = d.drafted ? *d.drafted : d.pattern;
  for (auto& [id, row] : rows_) row.row->hide();
  for (const Seam& seam : before.seams) {
    SeamRow& row = rowOf(seam.id);
    const double was = worstStretch(before, seam), is = worstStretch(balanced->pattern, seam);
    row.name->setText(QString("%1\n%2 out, then %3").arg(q(seam.name), mm(was), mm(is)));
    row.wish->clear();
    row.wish->addItem("both give", "both");
    row.wish->addItem(QString("follow %1").arg(before.pieces[seam.a.piece].number), "follow-a");
    row.wish->addItem(QString("follow %1").arg(before.pieces[seam.b.piece].number), "follow-b");
    row.wish->addItem("leave it", "leave");
    const auto chosen = session_.order().choices.find("seam." + seam.id);
    row.wish->setCurrentIndex(
        std::max(0, row.wish->findData(chosen == session_.order().choices.end() ? "both" : q(chosen->second))));
    row.row->show();
  }
  head_->setText(d.balanced ? "What moved" : "What would move");
  showMoves(*balanced);
}

void BalancePanel::showMoves(const Balanced& b) {
  const BalanceCertificate& c = b.certificate;
  QString text = b.moves.empty() ? QString("Nothing: everything fits.")
                                 : QString("At most %1. Every stretch then fits to %2 mm, every girth to %3 mm.")
                                       .arg(mm(c.largestMove))
                                       .arg(c.worstStretch, 0, 'f', 2)
                                       .arg(c.worstGirth, 0, 'f', 2);
  for (const std::string& wish : b.unreachable) text += "\n" + q(wish) + ".";
  summary_->setText(text);
  constexpr size_t kShown = 8;
  QStringList lines;
  for (size_t i = 0; i < std::min(kShown, b.moves.size()); ++i) {
    const EdgeMove& m = b.moves[i];
    std::string near = m.near.empty() ? "" : ", at the " + m.near;
    std::replace(near.begin(), near.end(), '_', ' ');
    lines << QString("%1: %2, %3 edge%4")
                 .arg(mm(m.largest), q(lowered(b.pattern.pieces[m.piece].name)), q(m.edge), q(near));
  }
  if (b.moves.size() > kShown) lines << QString("and %1 more, less than these").arg(b.moves.size() - kShown);
  moves_->setText(lines.join("\n"));
}

}  // namespace armure
