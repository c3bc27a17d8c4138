#include "app/cloth_canvas.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <cmath>

#include "laying/nearest_place.h"
#include "pattern/outline_parts.h"
#include "render/pattern_painter.h"

namespace armure {
namespace {

constexpr int kRoundCloth = 16;  // pixels
constexpr double kHeldPixels = 4;
constexpr double kNumberShare = 0.55;           // of its label's block that a number is high
constexpr double kCapShare = 0.35;              // of its height that a figure stands above its middle
constexpr double kLaidFar = 10, kLaidNear = 1;  // mm, by a key

Polyline laidBy(const Polyline& outline, const Motion& motion) {
  Polyline out;
  for (const Vec2 p : outline) out.push_back(motion.apply(p));
  return out;
}

}  // namespace

ClothCanvas::ClothCanvas(QWidget* parent) : QWidget(parent), theme_(&lightTheme()) {
  setObjectName("cloth");
  setFocusPolicy(Qt::StrongFocus);
  setMinimumSize(320, 240);
  setAccessibleName("The cloth with its pieces");
}

void ClothCanvas::setTheme(const Theme& theme) {
  theme_ = &theme;
  update();
}

void ClothCanvas::show(std::shared_ptr<const Shown> shown) {
  const bool same = shown_ && shown && shown_->laying.cloth.cloth == shown->laying.cloth.cloth &&
                    shown_->laying.items.size() == shown->laying.items.size();
  shown_ = std::move(shown);
  held_.reset();
  table_.reset();
  if (!same) pick({});
  fit();
}

void ClothCanvas::pick(std::optional<size_t> item) {
  if (item == picked_) return;
  picked_ = item;
  held_.reset();
  update();
  emit pickedChanged();
}

// The cloth lies along the widget: as long as it is used, or as there is of it.
void ClothCanvas::fit() {
  if (!shown_) return update();
  const Polyline& remnant = shown_->laying.problem.within;
  const double length =
      std::max({shown_->layout.length, remnant.empty() ? 0 : boxRound(remnant).high.x, shown_->laying.width / 2});
  const double scale = std::min((width() - 2 * kRoundCloth) / length,
                                (height() - 2 * kRoundCloth) / std::max(1.0, shown_->laying.width));
  toWidget_ = QTransform::fromTranslate((width() - scale * length) / 2, (height() - scale * shown_->laying.width) / 2);
  toWidget_.scale(scale, scale);
  update();
}

LaidItem ClothCanvas::placeOf(size_t item) const {
  return held_ && picked_ == item ? *held_ : shown_->layout.items[item];
}

QPointF ClothCanvas::middleOf(size_t item) const {
  const Box box = boxRound(laidOutline(shown_->laying.problem, item, placeOf(item)));
  return toWidget_.map(toQt(0.5 * (box.low + box.high)));
}

std::optional<size_t> ClothCanvas::itemAt(QPointF point) const {
  if (!isLaid()) return {};
  const QPointF mm = toWidget_.inverted().map(point);
  for (size_t i = 0; i < shown_->layout.items.size(); ++i)
    if (contains(laidOutline(shown_->laying.problem, i, placeOf(i)), {mm.x(), mm.y()})) return i;
  return {};
}

LayingTable& ClothCanvas::table() {
  if (!table_) table_ = std::make_unique<LayingTable>(shown_->laying.problem);
  return *table_;
}

void ClothCanvas::layAt(size_t item, const LaidItem& wish) {
  if (const auto place = nearestPlace(table(), item, wish, shown_->layout.items)) held_ = *place;
  update();
}

void ClothCanvas::mousePressEvent(QMouseEvent* event) {
  pick(itemAt(event->position()));
  pressedAt_ = event->position();
  pressed_ = true;
  if (picked_) from_ = placeOf(*picked_).at;
}

void ClothCanvas::mouseMoveEvent(QMouseEvent* event) {
  if (!(event->buttons() & Qt::LeftButton) || !picked_) return;
  const QPointF by = event->position() - pressedAt_;
  if (!held_ && std::hypot(by.x(), by.y()) < kHeldPixels) return;
  const double scale = toWidget_.m11();
  layAt(*picked_, {placeOf(*picked_).turn, from_ + Vec2{by.x() / scale, by.y() / scale}});
}

void ClothCanvas::mouseReleaseEvent(QMouseEvent*) {
  pressed_ = false;
  if (picked_ && held_) emit laid(*picked_, *held_);
}

void ClothCanvas::mouseDoubleClickEvent(QMouseEvent* event) {
  if (const auto item = itemAt(event->position()); item && isLocked(*item)) emit letGo(*item);
}

void ClothCanvas::keyPressEvent(QKeyEvent* event) {
  if (event->key() == Qt::Key_Escape) return emit left();
  if (!isLaid()) return QWidget::keyPressEvent(event);
  const size_t n = shown_->layout.items.size();
  const bool shift = event->modifiers() & Qt::ShiftModifier;
  if (event->key() == Qt::Key_G) return pick(picked_ ? (*picked_ + (shift ? n - 1 : 1)) % n : shift ? n - 1 : 0);
  if (!picked_) return QWidget::keyPressEvent(event);
  const double step = shift ? kLaidNear : kLaidFar;
  LaidItem wish = placeOf(*picked_);
  switch (event->key()) {
    case Qt::Key_Left:
      wish.at.x -= step;
      break;
    case Qt::Key_Right:
      wish.at.x += step;
      break;
    case Qt::Key_Up:
      wish.at.y -= step;
      break;
    case Qt::Key_Down:
      wish.at.y += step;
      break;
    case Qt::Key_X: {
      const size_t turns = table().turns(*picked_), next = (wish.turn + 1) % turns;
      const Box &a = table().box(*picked_, wish.turn), &b = table().box(*picked_, next);
      wish = {next, wish.at + 0.5 * (a.low + a.high) - 0.5 * (b.low + b.high)};
      break;
    }
    case Qt::Key_Return:
    case Qt::Key_Enter:
      return emit laid(*picked_, wish);
    case Qt::Key_Delete:
      return emit letGo(*picked_);
    default:
      return QWidget::keyPressEvent(event);
  }
  layAt(*picked_, wish);
  if (held_) emit laid(*picked_, *held_);
}

void ClothCanvas::paintEvent(QPaintEvent*) {
  QPainter painter(this);
  painter.fillRect(rect(), theme_->linen);
  if (!shown_) return;
  painter.setRenderHint(QPainter::Antialiasing);
  painter.setTransform(toWidget_, true);
  const ClothLaying& laying = shown_->laying;
  const double length = std::max(shown_->layout.length, laying.width / 2);
  QPen edge(theme_->secondInk, 1);
  edge.setCosmetic(true);
  painter.setPen(edge);
  painter.setBrush(theme_->paper);
  if (laying.problem.within.empty())
    painter.drawRect(QRectF(0, 0, length, laying.width));
  else
    painter.drawPolygon(toQt(laying.problem.within));
  if (!isLaid()) return;
  StripLayout layout = shown_->layout;
  if (picked_) layout.items[*picked_] = placeOf(*picked_);
  for (const ClothPlacement& p : laying.placements(layout))
    drawCopy(painter, p.item, p.motion(), laying.outlines[p.piece]);
  edge.setStyle(Qt::DashLine);  // where it is cut off
  painter.setPen(edge);
  painter.drawLine(QPointF(layout.length, 0), QPointF(layout.length, laying.width));
  if (laying.folded) {
    edge.setDashPattern({10, 2, 2, 2});
    painter.setPen(edge);
    painter.drawLine(QPointF(0, laying.width / 2), QPointF(length, laying.width / 2));
  }
}

void ClothCanvas::drawCopy(QPainter& painter, size_t i, const Motion& motion, const Polyline& outline) const {
  const bool picked = picked_ == i;
  QPen pen(picked ? theme_->working : theme_->ink, picked ? 2.5 : 1.2);
  pen.setCosmetic(true);
  painter.setPen(pen);
  painter.setBrush(isLocked(i) ? theme_->tintDeep : theme_->tint);
  painter.drawPolygon(toQt(laidBy(outline, motion)));
  pen.setWidthF(1);
  painter.setPen(pen);
  const Vec2 top = motion.apply(shown_->grains[i].first), bottom = motion.apply(shown_->grains[i].second);
  const Vec2 back = 16 * unit(bottom - top), aside{-back.y / 2, back.x / 2};
  painter.drawLine(toQt(top), toQt(bottom));
  painter.drawLine(toQt(top), toQt(top + back + aside));
  painter.drawLine(toQt(top), toQt(top + back - aside));
  painter.setPen(theme_->ink);
  const LabelPlace& label = shown_->labels[i];
  const double height = kNumberShare * label.scale * Shown::kLabel;
  const Vec2 at = motion.apply(label.middle) + Vec2{0, kCapShare * height};
  drawTextMm(painter, at, height, shown_->names[i], 0, Qt::AlignHCenter);
  if (isLocked(i)) drawTextMm(painter, at + Vec2{0, height / 2}, height / 3, "kept", 0, Qt::AlignHCenter);
}

}  // namespace armure
