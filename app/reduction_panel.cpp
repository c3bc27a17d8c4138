#include "app/reduction_panel.h"
#include "render/words.h"

#include <QPainter>
#include <QVBoxLayout>
#include <cmath>

namespace armure {
namespace {

constexpr int kRowHeight = 17;

// A level as it will be cut: as drafted, and altered.
struct Worn {
  double body = 0, finished = 0;
};
Worn wornAt(const Design& d, const Level& l) {
  const PatternLevel* cut = d.level(l.id);
  return cut ? Worn{cut->bodyGirth, cut->finishedGirth} : Worn{l.bodyGirth, l.finishedGirth};
}

bool tight(const Level& l, const Worn& w) { return l.id == level::kUnderbust && w.body - w.finished > inches(1) + 0.4; }

std::vector<LevelsTable::Row> levelRows(const Design& d, LengthFormat units) {
  std::vector<LevelsTable::Row> rows;
  for (const Level& l : d.block.levels.all) {
    if (l.readOff || l.beyondHem || l.id == level::kTop || l.id == level::kBust) continue;
    const Worn worn = wornAt(d, l);
    const double less = worn.body - worn.finished;
    rows.push_back({words(l.name).toLower(), q(formatLength(worn.body, units)), q(formatLength(worn.finished, units)),
                    std::abs(less) < 0.4 ? QStringLiteral("–")
                                         : QString(less < 0 ? "+" : "") + q(formatLength(std::abs(less), units)),
                    tight(l, worn)});
  }
  return rows;
}

}  // namespace

ReductionBar::ReductionBar(QWidget* parent) : QWidget(parent), theme_(&lightTheme()) { setFixedHeight(30); }

void ReductionBar::show(double percent, const Theme& theme) {
  percent_ = percent;
  theme_ = &theme;
  update();
}

void ReductionBar::paintEvent(QPaintEvent*) {
  constexpr double kFull = 20;  // percent at the right end
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  const QRectF bar(0.5, 2.5, width() - 1.0, 9);
  p.setPen(QPen(theme_->hairline, 1));
  p.setBrush(theme_->panel);
  p.drawRoundedRect(bar, 4, 4);
  QRectF part = bar;
  part.setWidth(bar.width() * std::clamp(percent_ / kFull, 0.0, 1.0));
  QColor fill = theme_->attention;
  fill.setAlphaF(0.45f);
  p.setBrush(fill);
  p.drawRoundedRect(part, 4, 4);
  p.setFont(uiFont(TextSize::Small));
  p.setPen(theme_->secondInk);
  for (int mark : {5, 10, 15}) {
    const double x = bar.left() + bar.width() * mark / kFull;
    p.drawLine(QPointF(x, 2), QPointF(x, 13));
    p.drawText(QRectF(x - 20, 14, 40, 15), Qt::AlignCenter, QString("%1 %").arg(mark));
  }
}

void LevelsTable::show(std::vector<Row> rows, const Theme& theme) {
  if (rows == rows_ && &theme == theme_) return;
  rows_ = std::move(rows);
  theme_ = &theme;
  setFixedHeight(kRowHeight * (static_cast<int>(rows_.size()) + 1));
  update();
}

void LevelsTable::paintEvent(QPaintEvent*) {
  if (!theme_) return;
  QPainter p(this);
  p.setFont(uiFont(TextSize::Small));
  double y = 0;
  const auto line = [&](const Row& row, const QColor& names, const QColor& amount) {
    const double wide = width() - 6.0;
    p.setPen(names);
    p.drawText(QRectF(0, y, 110, kRowHeight), Qt::AlignVCenter | Qt::AlignLeft, row.name);
    p.drawText(QRectF(0, y, wide - 140, kRowHeight), Qt::AlignVCenter | Qt::AlignRight, row.body);
    p.drawText(QRectF(0, y, wide - 60, kRowHeight), Qt::AlignVCenter | Qt::AlignRight, row.closed);
    p.setPen(amount);
    p.drawText(QRectF(0, y, wide, kRowHeight), Qt::AlignVCenter | Qt::AlignRight, row.less);
    y += kRowHeight;
  };
  line({"", "body", "closed", "less", false}, theme_->secondInk, theme_->secondInk);
  for (const Row& row : rows_) line(row, theme_->secondInk, row.tight ? theme_->attention : theme_->ink);
}

ReductionPanel::ReductionPanel(OrderSession& session, QWidget* parent)
    : QWidget(parent),
      session_(session),
      theme_(&lightTheme()),
      head_(new SettledLabel),
      ribs_(new SettledLabel),
      cautions_(new SettledLabel),
      more_(new QPushButton("Cautions about a closed waist …")),
      bar_(new ReductionBar),
      levels_(new LevelsTable) {
  setObjectName("reduction");
  auto* inner = new QVBoxLayout(this);
  inner->setContentsMargins(0, 6, 0, 0);
  inner->setSpacing(3);
  head_->setObjectName("heading");
  ribs_->setObjectName("wrong");
  ribs_->settle("Bone does not yield: more than an inch off the ribs is too much.");
  cautions_->setObjectName("lesser");
  cautions_->setTextInteractionFlags(Qt::TextSelectableByMouse);
  more_->setObjectName("cautionsMore");
  more_->setCheckable(true);
  more_->setToolTip("What a tight garment can do, and who should not wear one");
  connect(more_, &QPushButton::toggled, this, &ReductionPanel::refresh);
  inner->addWidget(head_);
  inner->addWidget(more_, 0, Qt::AlignLeft);
  inner->addWidget(bar_);
  inner->addWidget(levels_);
  inner->addWidget(ribs_);
  inner->addWidget(cautions_);
  connect(&session, &OrderSession::changed, this, &ReductionPanel::refresh);
  refresh();
}

void ReductionPanel::setTheme(const Theme& theme) {
  theme_ = &theme;
  refresh();
}

void ReductionPanel::setWhole(bool whole) {
  whole_ = whole;
  more_->setChecked(false);
  refresh();
}

void ReductionPanel::refresh() {
  const Design* d = session_.design();
  const bool reduced = d && d->reduction().percent > 0;
  setVisible(reduced);
  if (!reduced) return;
  const ReductionClass r = d->reduction();
  const LengthFormat units = session_.order().units;
  head_->settle(
      QString("Waist closed to %1: %2 less, %3 %, %4")
          .arg(q(formatLengthWithUnit(r.finished, units)), q(formatLengthWithUnit(r.body - r.finished, units)))
          .arg(r.percent, 0, 'f', 1)
          .arg(q(r.name)));
  more_->setVisible(!whole_);
  const bool all = whole_ || more_->isChecked();
  for (QWidget* part : std::initializer_list<QWidget*>{bar_, levels_, cautions_}) part->setVisible(all);
  const Level& underbust = d->block.levels.at(level::kUnderbust);
  ribs_->setVisible(all && tight(underbust, wornAt(*d, underbust)));
  if (!all) return;
  bar_->show(r.percent, *theme_);
  levels_->show(levelRows(*d, units), *theme_);
  QStringList lines;
  for (std::string_view c : reductionCautions()) lines << q(c);
  cautions_->settle(lines.join(" "));
}

}  // namespace armure
