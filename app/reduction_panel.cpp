#include "app/reduction_panel.h"

#include <QPainter>
#include <QVBoxLayout>
#include <cmath>

#include "app/settled_text.h"

namespace armure {
namespace {

QString q(std::string_view s) { return QString::fromUtf8(s.data(), static_cast<qsizetype>(s.size())); }

// What every level below the bust gets: body, closed, the difference. Ribs yield an inch at the most.
QString levelsText(const Design& d, LengthFormat units, const Theme& theme) {
  const double most = inches(1) + 0.4;
  QString html = QString(
                     "<table width='100%' cellspacing='0' cellpadding='1'><tr style='color:%1'><td></td>"
                     "<td align='right'>body</td><td align='right'>closed</td><td align='right'>less</td></tr>")
                     .arg(theme.secondInk.name());
  bool ribs = false;
  for (const Level& l : d.block.levels.all) {
    if (l.readOff || l.beyondHem || l.id == level::kTop || l.id == level::kBust) continue;
    const double less = l.bodyGirth - l.finishedGirth;
    const bool tight = l.id == level::kUnderbust && less > most;
    ribs = ribs || tight;
    html += QString(
                "<tr><td>%1</td><td align='right'>%2</td><td align='right'>%3</td>"
                "<td align='right' style='color:%4'>%5</td></tr>")
                .arg(q(l.name).toLower(), q(formatLength(l.bodyGirth, units)), q(formatLength(l.finishedGirth, units)),
                     (tight ? theme.attention : theme.ink).name(),
                     std::abs(less) < 0.4 ? QStringLiteral("–")
                                          : QString(less < 0 ? "+" : "") + q(formatLength(std::abs(less), units)));
  }
  html += "</table>";
  if (ribs)
    html += QString("<p style='color:%1'>Bone does not yield: more than an inch off the ribs is too much.</p>")
                .arg(theme.attention.name());
  return html;
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

ReductionPanel::ReductionPanel(OrderSession& session, QWidget* parent)
    : QWidget(parent),
      session_(session),
      theme_(&lightTheme()),
      head_(new QLabel),
      levels_(new QLabel),
      cautions_(new QLabel),
      bar_(new ReductionBar) {
  setObjectName("reduction");
  auto* inner = new QVBoxLayout(this);
  inner->setContentsMargins(0, 6, 0, 0);
  inner->setSpacing(3);
  head_->setObjectName("heading");
  levels_->setObjectName("lesser");
  cautions_->setObjectName("lesser");
  for (QLabel* label : {head_, levels_, cautions_}) label->setWordWrap(true);
  for (QLabel* label : {levels_, cautions_}) label->setTextInteractionFlags(Qt::TextSelectableByMouse);
  inner->addWidget(head_);
  inner->addWidget(bar_);
  inner->addWidget(levels_);
  inner->addWidget(cautions_);
  connect(&session, &OrderSession::changed, this, &ReductionPanel::refresh);
  refresh();
}

void ReductionPanel::setTheme(const Theme& theme) {
  theme_ = &theme;
  refresh();
}

void ReductionPanel::refresh() {
  const Design* d = session_.design();
  const bool reduced = d && d->reduction().percent > 0;
  setVisible(reduced);
  if (!reduced) return;
  const ReductionClass r = d->reduction();
  const LengthFormat units = session_.order().units;
  const Level& waist = d->block.levels.at(level::kWaist);
  setSettledText(head_, QString("Waist closed to %1: %2 less, %3 %, %4")
                            .arg(q(formatLengthWithUnit(waist.finishedGirth, units)),
                                 q(formatLengthWithUnit(waist.bodyGirth - waist.finishedGirth, units)))
                            .arg(r.percent, 0, 'f', 1)
                            .arg(q(r.name)));
  bar_->show(r.percent, *theme_);
  setSettledText(levels_, levelsText(*d, units, *theme_));
  QStringList lines;
  for (std::string_view c : reductionCautions()) lines << q(c);
  setSettledText(cautions_, lines.join(" "));
}

}  // namespace armure
