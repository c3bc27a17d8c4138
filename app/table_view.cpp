#include "app/table_view.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QPainterPathStroker>
#include <QWheelEvent>
#include <algorithm>
#include <cmath>
#include <numbers>

#include "render/pattern_painter.h"

namespace armure {
namespace {

constexpr double kHitPixels = 6, kDragPixels = 4;
constexpr int kMargin = 14;

QPen cosmetic(const QColor& color, double pixels, Qt::PenStyle style = Qt::SolidLine) {
  QPen pen(color, pixels, style, Qt::FlatCap, Qt::RoundJoin);
  pen.setCosmetic(true);
  return pen;
}

QPen dashes(QPen pen, const QList<qreal>& pattern) {
  pen.setDashPattern(pattern);
  return pen;
}

}  // namespace

TableView::TableView(OrderSession& session, QWidget* parent)
    : QWidget(parent), session_(session), theme_(&lightTheme()) {
  setObjectName("table");
  setFocusPolicy(Qt::StrongFocus);
  setMouseTracking(true);
  setMinimumSize(320, 240);
  setAccessibleName("The table with the pattern");
  connect(&session, &OrderSession::changed, this, &TableView::rebuild);
  connect(&session, &OrderSession::selectionChanged, this, qOverload<>(&QWidget::update));
  rebuild();
}

void TableView::setTheme(const Theme& theme) {
  theme_ = &theme;
  update();
}

void TableView::setMode(TableMode mode) {
  if (mode == mode_) return;
  mode_ = mode;
  fitted_ = true;
  rebuild();
  emit modeChanged();
}

void TableView::setPaperShown(bool shown) {
  if (shown == paperShown_) return;
  paperShown_ = shown;
  rebuild();
}

void TableView::setGuidesShown(bool shown) {
  if (shown == guidesShown_) return;
  guidesShown_ = shown;
  rebuild();
}

void TableView::setBalanceShown(bool shown) {
  if (shown == balanceShown_) return;
  balanceShown_ = shown;
  rebuild();
}

void TableView::setCombs(bool shown) {
  if (shown == combs_) return;
  combs_ = shown;
  rebuild();
  emit combsChanged();
}

void TableView::rebuild() {
  scene_ = session_.design()
               ? makeScene(*session_.design(), mode_,
                           {.paper = paperShown_ ? session_.rule("paper.size").option : std::string_view{},
                            .combs = combs_,
                            .balanced = balanceShown_ ? session_.balanced() : nullptr,
                            .openSeams = openSeams_,
                            .moves = {session_.order().units.unit, 32},
                            .guides = guidesShown_})
               : TableScene{};
  if (fitted_) showAll();
  update();
}

void TableView::showAll() {
  fitted_ = true;
  const QRectF b = scene_.bounds;
  const QRectF room = QRectF(rect()).adjusted(kMargin, kMargin + 34, -kMargin, -kMargin);
  if (b.isEmpty() || room.width() < 10 || room.height() < 10) return;
  const double s = std::min(room.width() / b.width(), room.height() / b.height());
  transform_ = QTransform::fromTranslate(room.center().x(), room.center().y());
  transform_.scale(s, s);
  transform_.translate(-b.center().x(), -b.center().y());
  update();
  emit zoomed();
}

double TableView::scaleDenominator() const { return (96 / 25.4) / transform_.m11(); }

void TableView::zoomAbout(QPointF screen, double factor) {
  const double now = transform_.m11(), next = std::clamp(now * factor, 0.2, 40.0);
  const QPointF mm = transform_.inverted().map(screen);
  transform_ = QTransform(next, 0, 0, next, screen.x() - mm.x() * next, screen.y() - mm.y() * next);
  fitted_ = false;
  update();
  emit zoomed();
}

bool TableView::isSelected(const SceneItem& item) const {
  const Selection &s = session_.selection(), &t = item.target;
  if (t == Selection{}) return false;
  if (item.mark == Mark::Handle) return !s.working.empty() && s.working == t.working;
  if (item.mark == Mark::Guide) return !s.seam.empty() && s.seam == t.seam && s.level == t.level;
  if (item.mark == Mark::LevelLine) return !s.level.empty() && s.level == t.level && s.edge.empty() && s.seam.empty();
  if (!s.seam.empty()) return s.seam == t.seam;
  if (!s.edge.empty()) return s.piece == t.piece && s.edge == t.edge;
  return !s.working.empty() && s.working == t.working;
}

void TableView::drawItem(QPainter& p, const SceneItem& item) const {
  const bool selected = isSelected(item);
  const QColor ink = selected ? theme_->working : theme_->ink;
  p.setBrush(Qt::NoBrush);
  switch (item.mark) {
    case Mark::PieceFill:
    case Mark::PieceFillDeep: {
      QColor fill = item.mark == Mark::PieceFill ? theme_->tint : theme_->tintDeep;
      if (!session_.selection().piece.empty() && session_.selection().piece == item.target.piece &&
          session_.selection().edge.empty())
        fill = theme_->tape;
      fill.setAlphaF(0.55f);
      p.fillPath(item.path, fill);
      return;
    }
    case Mark::IntakeFill: {
      QBrush hatch(selected ? theme_->working : theme_->secondInk, Qt::BDiagPattern);
      hatch.setTransform(transform_.inverted());  // the hatching keeps its width on screen
      p.setOpacity(selected ? 0.6 : 0.35);
      p.fillPath(item.path, hatch);
      p.setOpacity(1);
      return;
    }
    case Mark::Edge:
      p.setPen(cosmetic(ink, selected ? 2.6 : 1.7));
      break;
    case Mark::Fold:
      p.setPen(dashes(cosmetic(ink, selected ? 2.6 : 1.7), {10, 2, 2, 2}));
      break;
    case Mark::CutLine:
      p.setPen(cosmetic(theme_->secondInk, 1));
      break;
    case Mark::Construction:
      p.setPen(dashes(cosmetic(selected ? theme_->working : theme_->secondInk, 1), {4, 3}));
      break;
    case Mark::Before:
      p.setPen(dashes(cosmetic(theme_->secondInk, 1), {5, 3}));
      break;
    case Mark::Moved:
      p.setPen(cosmetic(theme_->working, 1.6));
      break;
    case Mark::LevelLine:
      p.setPen(dashes(cosmetic(selected ? theme_->working : theme_->secondInk, selected ? 1.8 : 1), {1, 3}));
      break;
    case Mark::Notch:
      p.setPen(cosmetic(theme_->ink, 1.4));
      break;
    case Mark::Handle:
      p.setPen(cosmetic(theme_->working, selected ? 2.2 : 1.4));
      p.setBrush(selected ? theme_->working : theme_->paper);
      break;
    case Mark::Guide:
      p.setPen(cosmetic(theme_->working, selected ? 2.2 : 1.2));
      p.setBrush(selected || item.guide->placed ? theme_->working : theme_->paper);
      break;
    case Mark::Comb:
      p.setPen(cosmetic(theme_->working, 0.7));
      p.setOpacity(0.6);
      p.drawPath(item.path);
      p.setOpacity(1);
      return;
    case Mark::Grain:
      p.setPen(cosmetic(theme_->secondInk, 1));
      break;
    case Mark::PageFrame:
      p.setPen(dashes(cosmetic(theme_->working, 1), {2, 4}));
      break;
  }
  p.drawPath(item.path);
}

void TableView::drawLabel(QPainter& p, const SceneLabel& label) const {
  const QPointF at = transform_.map(label.at) + label.pixels;
  p.save();
  p.translate(at);
  p.rotate(label.angleRad * 180 / std::numbers::pi);
  const QRectF room(-160, -16, 320, 32);
  switch (label.kind) {
    case LabelKind::LevelName:
      p.setFont(uiFont(TextSize::Small));
      p.setPen(theme_->secondInk);
      p.drawText(QPointF(0, 4), label.text);
      break;
    case LabelKind::PieceNumber: {
      QFont font = uiFont(TextSize::Title, true);
      font.setPixelSize(scene_.crowded ? 15 : 22);
      p.setFont(font);
      p.setPen(theme_->secondInk);
      p.drawText(room, Qt::AlignCenter, label.text);
      break;
    }
    case LabelKind::PieceName:
      p.setFont(uiFont(TextSize::Body));
      p.setPen(theme_->ink);
      p.drawText(room, Qt::AlignCenter, label.text);
      break;
    case LabelKind::Movement: {
      p.setFont(uiFont(TextSize::Small));
      const QRectF box = QFontMetricsF(p.font()).boundingRect(label.text).adjusted(-3, 0, 3, 0);
      QColor ground = theme_->paper;
      ground.setAlphaF(0.85f);
      p.fillRect(box.translated(-box.center()), ground);
      p.setPen(theme_->working);
      p.drawText(room, Qt::AlignCenter, label.text);
      break;
    }
    case LabelKind::Note:
      p.setFont(uiFont(TextSize::Small));
      p.setPen(theme_->secondInk);
      p.drawText(room, Qt::AlignCenter, label.text);
      break;
  }
  p.restore();
}

// A ring round the place a row of the balance sheet speaks of.
void TableView::drawSpot(QPainter& p) const {
  const auto row = session_.selection().row;
  if (!row || !session_.design() || mode_ == TableMode::OnTheBlock) return;
  const CheckRow& r = session_.design()->sheet.rows[*row];
  if (r.piece.empty()) return;
  const QPointF at = transform_.map(scene_.place(*session_.design(), r.piece, r.spot));
  p.setPen(QPen(r.pass || r.note ? theme_->working : theme_->attention, 2.5));
  p.setBrush(Qt::NoBrush);
  p.drawEllipse(at, 15, 15);
}

// The two points that are sewn together under the walker's finger.
void TableView::drawFingers(QPainter& p) const {
  if (mode_ == TableMode::OnTheBlock) return;
  for (const Finger& f : fingers_) {
    if (f.piece >= scene_.arrangement.size()) continue;
    const QPointF at = transform_.map(toQt(scene_.arrangement[f.piece].apply(f.at)));
    p.setPen(QPen(theme_->working, 2));
    p.setBrush(theme_->tape);
    p.drawEllipse(at, 6, 6);
  }
}

void TableView::setFingers(const std::vector<Finger>& fingers) {
  fingers_ = fingers;
  update();
}

void TableView::toggleOpen(const std::string& seam) {
  if (seam.empty()) return;
  if (!openSeams_.erase(seam)) openSeams_.insert(seam);
  rebuild();
  emit modeChanged();
}

void TableView::paintEvent(QPaintEvent*) {
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  p.fillRect(rect(), theme_->paper);
  if (session_.problem() && session_.design()) p.setOpacity(0.45);
  p.save();
  p.setTransform(transform_, true);
  for (const SceneItem& item : scene_.items) drawItem(p, item);
  p.restore();
  for (const SceneLabel& label : scene_.labels) drawLabel(p, label);
  drawSpot(p);
  drawFingers(p);
  p.setOpacity(1);
  if (!session_.design()) {
    p.setFont(uiFont(TextSize::Heading));
    p.setPen(theme_->secondInk);
    p.drawText(rect().adjusted(60, 60, -60, -60), Qt::AlignCenter | Qt::TextWordWrap,
               "Nothing on the table yet.\nGive bust, waist and hip, and the block is drawn; the rest is estimated "
               "until it is measured.");
  }
  if (hasFocus()) {
    p.setPen(QPen(theme_->working, 1.5));
    p.setBrush(Qt::NoBrush);
    p.drawRect(QRectF(rect()).adjusted(1, 1, -1, -1));
  }
}

const SceneItem* TableView::itemAt(QPointF screen) const {
  // Points first, then lines, then surfaces, the last drawn on top.
  const auto rank = [](Mark m) {
    return m == Mark::Handle || m == Mark::Guide             ? 0
           : m == Mark::Edge || m == Mark::Fold              ? 1
           : m == Mark::LevelLine || m == Mark::Construction ? 2
                                                             : 3;
  };
  const QPointF mm = transform_.inverted().map(screen);
  const double reach = kHitPixels / transform_.m11();
  const QRectF finger(mm.x() - reach, mm.y() - reach, 2 * reach, 2 * reach);
  const SceneItem* best = nullptr;
  for (const SceneItem& item : scene_.items) {
    if (item.target == Selection{}) continue;
    const bool surface = rank(item.mark) == 3;
    bool hit = false;
    if (surface) {
      hit = item.path.contains(mm);
    } else {
      QPainterPathStroker stroker;
      stroker.setWidth(2 * reach);
      hit = item.path.boundingRect().adjusted(-reach, -reach, reach, reach).intersects(finger) &&
            stroker.createStroke(item.path).contains(mm);
    }
    if (hit && (!best || rank(item.mark) <= rank(best->mark))) best = &item;
  }
  return best;
}

void TableView::mousePressEvent(QMouseEvent* event) {
  setFocus();
  pressedAt_ = lastAt_ = event->position();
  dragging_ = false;
  const SceneItem* item = itemAt(event->position());
  if (event->button() != Qt::LeftButton || !item || !item->guide) return;
  session_.settle();
  guide_ = item->guide;
  session_.select(item->target);
}

void TableView::moveGuide(const GuideHandle& guide, double mm) {
  const Unit unit = session_.order().units.unit;
  const double grid = unit == Unit::Inch ? kMmPerInch / 16 : 1;
  const std::string key = guide.key;  // the scene, and the guide in it, is made anew
  const auto problem = session_.tryChoice(key, formatLengthWithUnit(std::round(mm / grid) * grid, {unit, 16}));
  if (problem) emit refused(QString::fromStdString(problem->text()));
}

const SceneItem* TableView::selectedGuide() const {
  for (const SceneItem& item : scene_.items)
    if (item.guide && isSelected(item)) return &item;
  return nullptr;
}

void TableView::nextGuide(bool backwards) {
  std::vector<const SceneItem*> all;
  for (const SceneItem& item : scene_.items)
    if (item.guide) all.push_back(&item);
  if (all.empty()) return;
  const auto at = std::find(all.begin(), all.end(), selectedGuide());
  const size_t n = all.size(), i = at == all.end() ? (backwards ? 0 : n - 1) : static_cast<size_t>(at - all.begin());
  session_.select(all[(i + (backwards ? n - 1 : 1)) % n]->target);
}

void TableView::mouseDoubleClickEvent(QMouseEvent* event) {
  const SceneItem* item = itemAt(event->position());
  guide_.reset();
  if (!item || !item->guide) return;
  session_.settle();
  session_.setChoice(item->guide->key, "");
  session_.settle();
}

void TableView::mouseMoveEvent(QMouseEvent* event) {
  const QPointF now = event->position();
  if (guide_) {
    if (std::abs(now.x() - pressedAt_.x()) > kDragPixels || dragging_) {
      dragging_ = true;
      moveGuide(*guide_, guide_->mm + (now.x() - pressedAt_.x()) / transform_.m11() * guide_->sign);
    }
    return;
  }
  if (event->buttons() & (Qt::LeftButton | Qt::MiddleButton)) {
    if (!dragging_ && std::hypot(now.x() - pressedAt_.x(), now.y() - pressedAt_.y()) > kDragPixels) dragging_ = true;
    if (dragging_) {
      const QPointF by = now - lastAt_;
      transform_ = transform_ * QTransform::fromTranslate(by.x(), by.y());
      fitted_ = false;
      setCursor(Qt::ClosedHandCursor);
      update();
    }
    lastAt_ = now;
    return;
  }
  const SceneItem* under = itemAt(now);
  setCursor(!under ? Qt::ArrowCursor : under->guide ? Qt::SizeHorCursor : Qt::PointingHandCursor);
}

void TableView::mouseReleaseEvent(QMouseEvent* event) {
  if (guide_) {
    guide_.reset();
    dragging_ = false;
    session_.settle();
    return;
  }
  if (dragging_) {
    dragging_ = false;
    setCursor(Qt::ArrowCursor);
    return;
  }
  const SceneItem* item = itemAt(event->position());
  session_.select(item ? item->target : Selection{});
}

void TableView::wheelEvent(QWheelEvent* event) {
  zoomAbout(event->position(), std::pow(1.0015, event->angleDelta().y()));
}

void TableView::keyPressEvent(QKeyEvent* event) {
  constexpr double kStep = 40;
  QPointF by;
  const SceneItem* guide = selectedGuide();
  const bool moves = guide && (event->modifiers() & Qt::ShiftModifier);
  const double step = session_.order().units.unit == Unit::Inch ? kMmPerInch / 8 : 2.5;
  switch (event->key()) {
    case Qt::Key_C:
      return setCombs(!combs_);
    case Qt::Key_O:
      return toggleOpen(session_.selection().seam);
    case Qt::Key_G:
      return nextGuide(event->modifiers() & Qt::ShiftModifier);
    case Qt::Key_Delete:
    case Qt::Key_Backspace:
      if (guide) session_.setChoice(std::string(guide->guide->key), "");
      return;
    case Qt::Key_Plus:
    case Qt::Key_Equal:
      return zoomAbout(rect().center(), 1.25);
    case Qt::Key_Minus:
      return zoomAbout(rect().center(), 0.8);
    case Qt::Key_0:
      return showAll();
    case Qt::Key_Left:
      if (moves) return moveGuide(*guide->guide, guide->guide->mm - step * guide->guide->sign);
      by = {kStep, 0};
      break;
    case Qt::Key_Right:
      if (moves) return moveGuide(*guide->guide, guide->guide->mm + step * guide->guide->sign);
      by = {-kStep, 0};
      break;
    case Qt::Key_Up:
      by = {0, kStep};
      break;
    case Qt::Key_Down:
      by = {0, -kStep};
      break;
    default:
      return QWidget::keyPressEvent(event);
  }
  transform_ = transform_ * QTransform::fromTranslate(by.x(), by.y());
  fitted_ = false;
  update();
}

void TableView::resizeEvent(QResizeEvent*) {
  if (fitted_) showAll();
}

}  // namespace armure
