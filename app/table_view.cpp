#include "app/table_view.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainterPathStroker>
#include <QWheelEvent>
#include <algorithm>
#include <cmath>

#include "parts/trims/handles.h"

namespace armure {
namespace {

constexpr double kHitPixels = 6, kDragPixels = 4;
constexpr int kMargin = 14;

Qt::CursorShape cursorAlong(QPointF axis) {
  return std::abs(axis.x()) > std::abs(axis.y()) ? Qt::SizeHorCursor : Qt::SizeVerCursor;
}

}  // namespace

TableView::TableView(OrderSession& session, QWidget* parent)
    : QWidget(parent), session_(session), theme_(&lightTheme()), sheets_([this] { return sheetsJob(); }) {
  setObjectName("table");
  setFocusPolicy(Qt::StrongFocus);
  setAttribute(Qt::WA_OpaquePaintEvent);  // it is paper all over; nothing behind it need be drawn
  setMouseTracking(true);
  setMinimumSize(320, 240);
  setAccessibleName("The table with the pattern");
  connect(&session, &OrderSession::changed, this, &TableView::rebuild);
  connect(&session, &OrderSession::selectionChanged, this, qOverload<>(&QWidget::update));
  connect(&sheets_, &SheetsRunner::done, this, &TableView::rebuild);
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
  update();
  emit modeChanged();
}

void TableView::setPaperShown(bool shown) {
  if (shown == paperShown_) return;
  paperShown_ = shown;
  rebuild();
}

void TableView::setLinesShown(std::string_view stage) {
  if (stage == linesShown_) return;
  linesShown_ = stage;
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

void TableView::setVersion(LaidVersion version) {
  if (version.pattern == version_.pattern && version.at == version_.at) return;
  version_ = std::move(version);
  rebuild();
}

void TableView::setCombs(bool shown) {
  if (shown == combs_) return;
  combs_ = shown;
  rebuild();
  emit combsChanged();
}

void TableView::rebuild() {
  scene_ = session_.design() ? makeScene(*session_.design(), mode_,
                                         {.boned = paperShown_,
                                          .sheets = paperShown_ && mode_ == TableMode::Apart ? sheetsAsked() : nullptr,
                                          .combs = combs_,
                                          .balanced = balanceShown_ ? session_.balanced() : nullptr,
                                          .openSeams = openSeams_,
                                          .moves = {session_.order().units.unit, 32},
                                          .guides = guidesShown_,
                                          .version = version_,
                                          .lines = linesShown_})
                             : TableScene{};
  if (!fitted_) return update();
  fit();
  // Above the whole pattern there is nothing but the buttons, which need not be drawn again.
  update(rect().adjusted(0, childrenRect().bottom() + 1, 0, 0));
}

// What the paper is laid like so far; what changed is laid anew in the background.
const Sheets* TableView::sheetsAsked() {
  const Design& design = *session_.design();
  sheets_.changed();
  return sheets_.sheets(design.pattern, session_.printWishes());
}

// While they are shown.
std::optional<SheetsJob> TableView::sheetsJob() const {
  if (!paperShown_ || mode_ != TableMode::Apart || !session_.design()) return {};
  return SheetsJob{session_.design()->pattern, session_.design()->cutOutlines, session_.printWishes()};
}

void TableView::showAll() {
  fitted_ = true;
  fit();
  update();
}

void TableView::fit() {
  const QRectF b = scene_.bounds;
  const QRectF room = QRectF(rect()).adjusted(kMargin, kMargin + 34, -kMargin, -kMargin);
  if (b.isEmpty() || room.width() < 10 || room.height() < 10) return;
  const double s = std::min(room.width() / b.width(), room.height() / b.height());
  transform_ = QTransform::fromTranslate(room.center().x(), room.center().y());
  transform_.scale(s, s);
  transform_.translate(-b.center().x(), -b.center().y());
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
  if (item.mark == Ink::Handle) return !s.working.empty() && s.working == t.working;
  if (item.mark == Ink::Guide) return t.seam.empty() ? s.working == t.working : s.seam == t.seam && s.level == t.level;
  if (item.mark == Ink::LevelLine) return !s.level.empty() && s.level == t.level && s.edge.empty() && s.seam.empty();
  if (!s.seam.empty()) return s.seam == t.seam;
  if (!s.edge.empty()) return s.piece == t.piece && s.edge == t.edge;
  return !s.working.empty() && s.working == t.working;
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

const SceneItem* TableView::itemAt(QPointF screen) const {
  // Points first, then lines, then surfaces, the last drawn on top.
  const auto rank = [](Ink m) {
    return m == Ink::Handle || m == Ink::Guide             ? 0
           : m == Ink::Edge || m == Ink::Fold              ? 1
           : m == Ink::LevelLine || m == Ink::Construction ? 2
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
            (stroker.createStroke(item.path).contains(mm) || (rank(item.mark) == 0 && item.path.contains(mm)));
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
  if (guide.sharePerMm > 0) {
    const double kStep = parsePrepareKey(key) ? 0.01 : 0.05;  // a bone is placed finer than the dial is turned
    const double share = std::clamp(std::round(mm * guide.sharePerMm / kStep) * kStep, 0.0, 1.0);
    const auto refusal = session_.tryChoice(key, QString::number(share, 'f', 2).toStdString());
    if (refusal) emit refused(QString::fromStdString(refusal->text()));
    return;
  }
  const auto problem = session_.tryChoice(key, placedText(key, std::round(mm / grid) * grid));
  if (problem) emit refused(QString::fromStdString(problem->text()));
}

// A length, or a place on the line that something is sewn to.
std::string TableView::placedText(const std::string& key, double mm) const {
  constexpr double kSnap = 3;
  const Design& design = *session_.design();
  const auto place = parseTrimKey(key);
  for (const TrimChoice& trim : design.rules.trims())
    if (place && trim.kind() == place->kind && trim.name() == place->name)
      if (const auto stretch = stretchOf(design.pattern, trim); stretch.ok())
        return placeAlong(stretch->line, mm, kSnap);
  return formatLengthWithUnit(mm, {session_.order().units.unit, 16});
}

// One step along the arrow, for a guide that moves that way.
void TableView::stepGuide(const GuideHandle& guide, QPointF arrow) {
  constexpr double kThatWay = 0.5;
  const double way = QPointF::dotProduct(arrow, guide.axis);
  const double step = session_.order().units.unit == Unit::Inch ? kMmPerInch / 8 : 2.5;
  if (std::abs(way) > kThatWay) moveGuide(guide, guide.mm + std::copysign(step, way));
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
    const QPointF by = now - pressedAt_;
    if (std::abs(by.x()) + std::abs(by.y()) > kDragPixels || dragging_) {
      dragging_ = true;
      moveGuide(*guide_, guide_->mm + QPointF::dotProduct(by, guide_->axis) / transform_.m11());
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
  setCursor(!under ? Qt::ArrowCursor : under->guide ? cursorAlong(under->guide->axis) : Qt::PointingHandCursor);
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
  switch (event->key()) {
    case Qt::Key_C:
      return setCombs(!combs_);
    case Qt::Key_O:
      return toggleOpen(session_.selection().seam);
    case Qt::Key_H:
      session_.lookAt(session_.side() == BodySide::Right ? BodySide::Left : BodySide::Right);
      return;
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
      if (moves) return stepGuide(*guide->guide, {-1, 0});
      by = {kStep, 0};
      break;
    case Qt::Key_Right:
      if (moves) return stepGuide(*guide->guide, {1, 0});
      by = {-kStep, 0};
      break;
    case Qt::Key_Up:
      if (moves) return stepGuide(*guide->guide, {0, -1});
      by = {0, kStep};
      break;
    case Qt::Key_Down:
      if (moves) return stepGuide(*guide->guide, {0, 1});
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
