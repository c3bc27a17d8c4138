// How the rails are drawn. What they do is in rails_view.cpp.
#include <QPainter>
#include <QPainterPath>
#include <algorithm>
#include <cmath>

#include "app/rails_view.h"
#include "prepare/cautions.h"
#include "render/words.h"

namespace armure {
namespace {

constexpr double kLeastLabelled = 34;  // px: narrower panels carry no number

}  // namespace

void RailsView::paintEvent(QPaintEvent*) {
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  if (session_.problem()) p.setOpacity(0.45);
  for (size_t r = 0; r < rails_.size(); ++r) drawRail(p, r);
}

void RailsView::drawRail(QPainter& p, size_t r) const {
  const Rail& rail = rails_[r];
  const QRectF strip = layout_.strip(r);
  const bool current = stop_.rail == r && isWorkedOn();
  p.setFont(uiFont(TextSize::Body, current));
  p.setPen(current ? theme_->ink : theme_->secondInk);
  const QRectF name = layout_.nameRect(r);
  p.drawText(name, Qt::AlignVCenter | Qt::AlignLeft, words(rail.name).toLower() + (rail.own ? " *" : ""));
  if (rail.own) p.drawText(layout_.removeRect(r), Qt::AlignCenter, QStringLiteral("×"));

  for (size_t g = 0; g < rail.gaps.size(); ++g) drawGap(p, r, g);
  for (const RailPanel& panel : rail.panels) {
    const QRectF box(layout_.x(panel.from), strip.top(), layout_.x(panel.to) - layout_.x(panel.from), strip.height());
    QColor fill = panel.place % 2 ? theme_->tint : theme_->tintDeep;
    fill.setAlphaF(0.8f);
    p.setPen(QPen(theme_->secondInk, 0.8));
    p.setBrush(fill);
    p.drawRoundedRect(box, 2, 2);
    if (box.width() < kLeastLabelled) continue;
    p.setFont(uiFont(TextSize::Small));
    p.setPen(theme_->ink);
    p.drawText(box, Qt::AlignCenter, q(formatLength(panel.to - panel.from, session_.order().units)));
  }
  // An opening is an open end.
  p.setPen(QPen(theme_->secondInk, 1, Qt::DotLine));
  p.setBrush(Qt::NoBrush);
  if (rail.openFront > 1) p.drawLine(strip.bottomLeft(), QPointF(layout_.x(rail.openFront), strip.bottom()));
  if (rail.openBack > 1)
    p.drawLine(QPointF(layout_.x(rail.length - rail.openBack), strip.bottom()), strip.bottomRight());

  // The girth the strip closes to: a mark across it, with a knob to take hold of.
  const double mark = layout_.markX(r);
  p.setPen(QPen(theme_->ink, 2));
  p.drawLine(QPointF(mark, strip.top() - 2), QPointF(mark, strip.bottom() + 2));
  p.setPen(Qt::NoPen);
  p.setBrush(theme_->ink);
  p.drawEllipse(QPointF(mark, strip.top() - 4), 3.4, 3.4);
  drawAmounts(p, r);
  drawTotals(p, r);

  if (current) {
    p.setPen(QPen(theme_->working, 2));
    p.setBrush(Qt::NoBrush);
    p.drawRoundedRect(layout_.stopRect(stop_).adjusted(-2, -2, 2, 2), 3, 3);
  }
}

void RailsView::drawGap(QPainter& p, size_t r, size_t g) const {
  const RailGap& gap = rails_[r].gaps[g];
  const QRectF box = layout_.gapRect(r, g);
  const bool overlaps = gap.from > gap.to;
  const bool chosen = isWorkedOn() && stop_ == RailStop{r, RailStop::Kind::Gap, g};
  const QColor ink = gap.beyondCap() ? theme_->attention : gap.held || chosen ? theme_->working : theme_->secondInk;
  if (box.width() > 0.5) {
    p.setPen(Qt::NoPen);
    p.setBrush(QBrush(ink, overlaps ? Qt::FDiagPattern : Qt::BDiagPattern));
    p.setOpacity(p.opacity() * 0.6);
    p.drawRect(box);
    p.setOpacity(session_.problem() ? 0.45 : 1);
  }
  // The school's wish: a ghost of the gap, as wide as it would be.
  if (gap.wished && gap.movable && std::abs(*gap.wished - gap.taken) > 0.05) {
    const double half = std::abs(*gap.wished) / 2 / layout_.mmPerPixel(), middle = box.center().x();
    p.setPen(QPen(theme_->secondInk, 1, Qt::DashLine));
    p.setBrush(Qt::NoBrush);
    p.drawRect(QRectF(middle - half, box.top() - 3, 2 * half, box.height() + 6));
  }
  if (gap.held) {  // pinned at both upper corners
    p.setPen(Qt::NoPen);
    p.setBrush(theme_->working);
    p.drawEllipse(QPointF(box.left(), box.top()), 2.6, 2.6);
    p.drawEllipse(QPointF(box.right(), box.top()), 2.6, 2.6);
  }
}

// The amounts under the gaps. Where there is no room for all, those that matter most stand: the chosen, the held, those
// beyond their cap, then the larger ones.
void RailsView::drawAmounts(QPainter& p, size_t r) const {
  struct Amount {
    QRectF room;
    QString text;
    QColor ink;
    bool bold;
    double rank;
  };
  std::vector<Amount> amounts;
  const Rail& rail = rails_[r];
  for (size_t g = 0; g < rail.gaps.size(); ++g) {
    const RailGap& gap = rail.gaps[g];
    const bool chosen = isWorkedOn() && stop_ == RailStop{r, RailStop::Kind::Gap, g};
    if (!gap.movable || (std::abs(gap.taken) < 0.4 && !chosen && !gap.held)) continue;
    QString text = q(formatLength(std::abs(gap.taken), session_.order().units));
    if (text == "0" && !chosen && !gap.held) continue;
    if (gap.taken < -0.4) text = "+" + text;  // the side stands out
    if (gap.beyondCap()) text += " !";
    const bool bold = gap.held || chosen;
    const double width = QFontMetricsF(uiFont(TextSize::Small, bold)).horizontalAdvance(text);
    // The two gaps of the side lie side by side: their numbers stand to either side of where they meet.
    const QRectF box = layout_.gapRect(r, g);
    double left = box.center().x() - width / 2;
    if (gap.line == kFrontSide) left = std::min(left, box.right() - width - 3);
    if (gap.line == kBackSide) left = std::max(left, box.left() + 3);
    const QColor ink = gap.beyondCap() ? theme_->attention : bold ? theme_->working : theme_->secondInk;
    const double rank = (chosen ? 4e3 : 0) + (gap.held ? 2e3 : 0) + (gap.beyondCap() ? 1e3 : 0) + std::abs(gap.taken);
    amounts.push_back({QRectF(left, box.bottom() + 1, width, 14), text, ink, bold, rank});
  }
  std::stable_sort(amounts.begin(), amounts.end(), [](const Amount& a, const Amount& b) { return a.rank > b.rank; });
  std::vector<QRectF> used;
  for (const Amount& a : amounts) {
    const QRectF room = a.room.adjusted(-3, 0, 3, 0);
    if (std::any_of(used.begin(), used.end(), [&](const QRectF& other) { return other.intersects(room); })) continue;
    used.push_back(a.room);
    p.setFont(uiFont(TextSize::Small, a.bold));
    p.setPen(a.ink);
    p.drawText(a.room, Qt::AlignCenter | Qt::TextDontClip, a.text);
  }
}

void RailsView::drawTotals(QPainter& p, size_t r) const {
  const Rail& rail = rails_[r];
  const QRectF room = layout_.totalsRect(r);
  const LengthFormat units = session_.order().units;
  p.setFont(uiFont(TextSize::Body, true));
  p.setPen(theme_->ink);
  const QString girth = q(formatLength(rail.finishedGirth, units));
  p.drawText(QRectF(room.left(), room.top(), 58, 20), Qt::AlignVCenter | Qt::AlignLeft, girth);
  const double less = rail.reduction();
  QString words = "as the body";
  if (std::abs(less) > 0.4)
    words = q(formatLength(std::abs(less), units)) + (less > 0 ? " less" : " more") +
            QStringLiteral(", %1 %").arg(std::abs(rail.percent()), 0, 'f', 1);
  const bool ribs = rail.level == level::kUnderbust && less > inches(1) + 0.4;
  const bool strong = rail.level == level::kWaist && rail.percent() > 10;
  p.setFont(uiFont(TextSize::Small));
  p.setPen(ribs || strong ? theme_->attention : theme_->secondInk);
  p.drawText(QRectF(room.left() + 58, room.top(), room.width() - 58, 20), Qt::AlignVCenter | Qt::AlignLeft, words);
  QString under;
  if (rail.level == level::kWaist && less > 0)
    under = QString::fromUtf8(classifyReduction(rail.bodyGirth, rail.finishedGirth).name.data());
  if (ribs) under = "ribs yield 1 in at the most";
  p.drawText(QRectF(room.left(), room.top() + 17, room.width(), 16), Qt::AlignVCenter | Qt::AlignLeft, under);
}

}  // namespace armure
