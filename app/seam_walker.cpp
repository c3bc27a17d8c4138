#include "app/seam_walker.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <algorithm>
#include <cmath>
#include <numbers>

#include "app/words.h"
#include "operations/crossing.h"
#include "render/pattern_painter.h"
#include "render/words.h"
#include "sheet/sheet.h"

namespace armure {
namespace {

constexpr double kLeft = 92, kRight = 18, kCloseUps = 250;  // pixels
constexpr double kRulerTop = 22, kSidesTop = 46, kSide = 24, kCurveTop = 112, kCurveFoot = 22;
constexpr double kCloseUpReach = 16;  // mm shown on either side of a corner
constexpr double kLeastScale = 1.0;   // mm of difference the curve's height shows at least, on either side

QPen pen(const QColor& color, double width, Qt::PenStyle style = Qt::SolidLine) {
  return QPen(color, width, style, Qt::FlatCap, Qt::RoundJoin);
}

// Which units of a ruler are numbered: the fewest steps between numbers that leave room for them.
int rulerStep(double pixels, int least) {
  constexpr double kRoom = 17;
  for (const int step : {1, 2, 5, 10, 20, 50})
    if (step >= least && step * pixels >= kRoom) return step;
  return 100;
}

}  // namespace

SeamWalker::SeamWalker(OrderSession& session, QWidget* parent)
    : QWidget(parent), session_(session), theme_(&lightTheme()) {
  setObjectName("walker");
  setAccessibleName("Seam walker");
  setFocusPolicy(Qt::StrongFocus);
  setCursor(Qt::PointingHandCursor);
  connect(&session, &OrderSession::changed, this, &SeamWalker::refresh);
  connect(&session, &OrderSession::selectionChanged, this, [this] {
    const std::string& chosen = session_.selection().seam;
    if (isVisible() && !chosen.empty() && chosen != seam_) setSeam(chosen);
  });
}

void SeamWalker::setTheme(const Theme& theme) {
  theme_ = &theme;
  update();
}

const Pattern* SeamWalker::pattern() const {
  const Balanced* b = session_.balanced();
  return b ? &b->pattern : nullptr;
}

const Pattern* SeamWalker::drafted() const {
  const Design* d = session_.design();
  return d ? (d->drafted ? &*d->drafted : &d->pattern) : nullptr;
}

const Seam* SeamWalker::find(const Pattern* pattern) const { return pattern ? pattern->seam(seam_) : nullptr; }

void SeamWalker::refresh() {
  if (!isVisible()) return;
  const Pattern *now = pattern(), *was = drafted();
  if (!now || now->seams.empty()) return update();
  if (!find(now)) seam_ = now->seams.front().id;
  now_ = roll(*now, *find(now));
  before_ = find(was) ? roll(*was, *find(was)) : now_;
  setFinger(finger_);
}

void SeamWalker::setSeam(const std::string& id) {
  const std::string old = std::exchange(seam_, id);
  if (!find(pattern())) seam_ = old;
  refresh();
}

void SeamWalker::setFinger(std::optional<double> a) {
  const Seam* seam = find(pattern());
  if (a && seam) a = std::clamp(*a, now_.marks.front().a, now_.marks.back().a);
  finger_ = seam ? a : std::nullopt;
  std::vector<Finger> fingers;
  if (finger_) {
    const SewnPoints points = sewnAt(*pattern(), *seam, now_, *finger_);
    fingers = {{seam->a.piece, points.a}, {seam->b.piece, points.b}};
  }
  emit fingersChanged(fingers);
  emit seamChanged();
  update();
}

void SeamWalker::hideEvent(QHideEvent*) { emit fingersChanged({}); }

QRectF SeamWalker::ruler() const { return {kLeft, kRulerTop, width() - kLeft - kRight - kCloseUps, 18}; }
QRectF SeamWalker::curve() const {
  const QRectF r = ruler();
  return {r.left(), kCurveTop, r.width(), height() - kCurveTop - kCurveFoot};
}
QRectF SeamWalker::closeUp(bool atTop) const {
  const double side = (kCloseUps - 30) / 2;
  return {width() - kCloseUps + 8 + (atTop ? 0 : side + 10), kRulerTop, side, height() - kRulerTop - kCurveFoot};
}

double SeamWalker::screenX(double at) const {
  const QRectF r = ruler();
  const double from = std::min({now_.marks.front().a, now_.marks.front().b, before_.marks.front().a});
  const double to = std::max({now_.marks.back().a, now_.marks.back().b, before_.marks.back().a});
  return r.left() + (at - from) / (to - from) * r.width();
}

QString SeamWalker::reading() const {
  const Seam* seam = find(pattern());
  if (!seam) return {};
  const auto longer = [&](double difference) {
    const Pattern& p = *pattern();
    const int number = p.pieces[(difference > 0 ? seam->a : seam->b).piece].number;
    return std::abs(difference) < 0.05 ? QString("both sides alike")
                                       : QString("%1 is %2 longer").arg(number).arg(millimetres(std::abs(difference)));
  };
  if (!finger_) {
    double worst = 0;
    for (const RolledMark& m : now_.marks)
      if (std::abs(m.difference()) > std::abs(worst)) worst = m.difference();
    return std::abs(worst) < 0.05 ? QString("both sides alike all the way") : QString("at most, %1").arg(longer(worst));
  }
  const LengthFormat style = session_.order().units;
  return QString("%1 %2 the %3: %4 (drafted: %5)")
      .arg(QString::fromStdString(formatLengthWithUnit(std::abs(*finger_), style)), *finger_ < 0 ? "above" : "below",
           placeName(now_.anchor), longer(now_.difference(*finger_)),
           longer(before_.difference(std::clamp(*finger_, before_.marks.front().a, before_.marks.back().a))));
}

void SeamWalker::paintEvent(QPaintEvent*) {
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  p.fillRect(rect(), theme_->paper);
  if (!find(pattern())) return;
  drawRuler(p);
  drawSides(p);
  drawCurve(p);
  drawCloseUp(p, true);
  drawCloseUp(p, false);
  if (finger_) {
    p.setPen(pen(theme_->working, 1.6));
    const double x = screenX(*finger_);
    p.drawLine(QPointF(x, ruler().top()), QPointF(x, curve().bottom()));
  }
  if (hasFocus()) {
    p.setPen(pen(theme_->working, 1.5));
    p.drawRect(QRectF(rect()).adjusted(1, 1, -1, -1));
  }
}

// The ruler counts from the anchor in the order's unit.
void SeamWalker::drawRuler(QPainter& p) const {
  const bool inch = session_.order().units.unit == Unit::Inch;
  const double unit = inch ? kMmPerInch : kMmPerCm;
  const QRectF r = ruler();
  p.fillRect(r, theme_->tape);
  p.setFont(uiFont(TextSize::Small));
  const int from = static_cast<int>(std::ceil(now_.marks.front().a / unit)),
            to = static_cast<int>(std::floor(now_.marks.back().a / unit));
  const int step = rulerStep(screenX(unit) - screenX(0), inch ? 1 : 5);
  for (int i = from; i <= to; ++i) {
    const double x = screenX(i * unit);
    const bool named = i % step == 0;
    p.setPen(pen(theme_->ink, named ? 1 : 0.6));
    p.drawLine(QPointF(x, r.bottom()), QPointF(x, r.bottom() - (named ? 7 : 4)));
    if (named) p.drawText(QRectF(x - 14, r.top() - 1, 28, 12), Qt::AlignCenter, QString::number(std::abs(i)));
  }
  p.setPen(theme_->secondInk);
  p.drawText(QRectF(4, r.top(), kLeft - 12, r.height()), Qt::AlignRight | Qt::AlignVCenter, inch ? "inches" : "cm");
}

// Both sides, with their notches joined.
void SeamWalker::drawSides(QPainter& p) const {
  const Seam& seam = *find(pattern());
  const double upper = kSidesTop, lower = kSidesTop + kSide + 12;
  p.setFont(uiFont(TextSize::Small));
  for (const bool first : {true, false}) {
    const double y = first ? upper : lower;
    const auto at = [&](const RolledMark& m) { return screenX(first ? m.a : m.b); };
    const Piece& piece = pattern()->pieces[(first ? seam.a : seam.b).piece];
    p.setPen(theme_->ink);
    p.drawText(QRectF(4, y, kLeft - 12, kSide), Qt::AlignRight | Qt::AlignVCenter,
               QString("%1  %2").arg(piece.number).arg(words(piece.name)));
    const QRectF bar(at(now_.marks.front()), y, at(now_.marks.back()) - at(now_.marks.front()), kSide);
    QColor fill = first ? theme_->tint : theme_->tintDeep;
    p.fillRect(bar, fill);
    p.setPen(pen(theme_->ink, 1.2));
    p.drawRect(bar);
  }
  constexpr double kGap = 6;
  double free = kLeft + kGap;  // from here to the right there is room for a name
  for (const RolledMark& m : now_.marks) {
    const bool end = &m == &now_.marks.front() || &m == &now_.marks.back();
    const bool off = std::abs(m.difference()) > limits::kLengthMm;
    p.setPen(pen(off ? theme_->attention : theme_->ink, m.id == now_.anchor ? 2.4 : 1.4));
    const double xa = screenX(m.a), xb = screenX(m.b);
    p.drawLine(QPointF(xa, upper + kSide - (end ? 0 : 9)), QPointF(xa, upper + kSide));
    p.drawLine(QPointF(xa, upper + kSide), QPointF(xb, lower));
    p.drawLine(QPointF(xb, lower), QPointF(xb, lower + (end ? 0 : 9)));
    p.setPen(off ? theme_->attention : theme_->secondInk);
    if (end) continue;
    // A name stands over its notch, or beside the one before it.
    const QString name = placeName(m.id);
    const double wide = p.fontMetrics().horizontalAdvance(name), x = std::max(xa - wide / 2, free);
    free = x + wide + kGap;
    p.drawText(QRectF(x, upper + 1, wide + 1, 13), Qt::AlignLeft | Qt::AlignVCenter, name);
  }
}

// The running difference, as drafted thin and balanced full, with the limit as a band.
void SeamWalker::drawCurve(QPainter& p) const {
  const QRectF c = curve();
  double most = kLeastScale;
  for (const RolledSeam* r : {&now_, &before_})
    for (const RolledMark& m : r->marks) most = std::max(most, 1.15 * std::abs(m.difference()));
  const auto y = [&](double difference) { return c.center().y() - difference / most * c.height() / 2; };
  p.fillRect(c, theme_->panelLight);
  QColor band = theme_->tape;
  p.fillRect(QRectF(c.left(), y(limits::kLengthMm), c.width(), y(-limits::kLengthMm) - y(limits::kLengthMm)), band);
  p.setPen(pen(theme_->hairline, 1));
  p.drawLine(QPointF(c.left(), y(0)), QPointF(c.right(), y(0)));
  p.setFont(uiFont(TextSize::Small));
  p.setPen(theme_->secondInk);
  const Seam& seam = *find(pattern());
  const int a = pattern()->pieces[seam.a.piece].number, b = pattern()->pieces[seam.b.piece].number;
  p.drawText(QRectF(4, c.top() - 3, kLeft - 12, 14), Qt::AlignRight, QString("%1 longer").arg(a));
  p.drawText(QRectF(4, c.bottom() - 11, kLeft - 12, 14), Qt::AlignRight, QString("%1 longer").arg(b));
  p.drawText(QRectF(4, c.center().y() - 7, kLeft - 12, 14), Qt::AlignRight, QString("limit %1").arg(limits::kLengthMm));
  const auto line = [&](const RolledSeam& r) {
    QPolygonF points;
    for (const RolledMark& m : r.marks) points << QPointF(screenX(m.a), y(m.difference()));
    return points;
  };
  p.setPen(pen(theme_->secondInk, 1.2, Qt::DashLine));
  p.drawPolyline(line(before_));
  p.setPen(pen(theme_->working, 2));
  p.drawPolyline(line(now_));
  // The widest place of the draft is told in figures.
  const auto worst = std::max_element(before_.marks.begin(), before_.marks.end(), [](const auto& l, const auto& r) {
    return std::abs(l.difference()) < std::abs(r.difference());
  });
  if (std::abs(worst->difference()) < limits::kLengthMm) return;
  // Between the band and the bulge of the curve there is room.
  p.setPen(theme_->secondInk);
  const double edge = y(worst->difference() < 0 ? -limits::kLengthMm : limits::kLengthMm);
  QRectF box(screenX(worst->a) - 50, worst->difference() < 0 ? edge + 2 : edge - 15, 100, 13);
  box.moveLeft(std::clamp(box.left(), c.left(), c.right() - box.width()));
  p.drawText(box, Qt::AlignCenter, millimetres(std::abs(worst->difference())) + " drafted");
}

// The two pieces with the seam closed at one end: whether the line runs on, and by what angle it does not.
void SeamWalker::drawCloseUp(QPainter& p, bool atTop) const {
  const Pattern& pattern = *this->pattern();
  const Seam& seam = *find(&pattern);
  const QRectF box = closeUp(atTop);
  const Path side = pattern.sidePath(seam.a);
  const Vec2 corner = atTop ? side.start() : side.end();
  // Upright: the seam runs straight down the picture.
  const Vec2 along = atTop ? side.startTangent() : side.endTangent();
  const Motion upright = Motion::rotationAbout(corner, angleBetween(along, {0, 1}));
  const double scale = box.width() / (2 * kCloseUpReach);
  p.save();
  p.setClipRect(box);
  p.fillRect(box, theme_->panelLight);
  p.translate(box.center().x(), atTop ? box.top() + 0.4 * box.height() : box.bottom() - 0.4 * box.height());
  p.scale(scale, scale);
  p.translate(-corner.x, -corner.y);
  const std::pair<size_t, Motion> pieces[] = {{seam.a.piece, upright},
                                              {seam.b.piece, closedAt(pattern, seam, atTop).then(upright)}};
  for (const auto& [index, motion] : pieces) {
    const Piece& piece = pattern.pieces[index];
    QPainterPath fill;
    fill.addPolygon(toQt(piece.outline(0.02), motion));
    fill.closeSubpath();
    QColor tint = index == seam.a.piece ? theme_->tint : theme_->tintDeep;
    tint.setAlphaF(0.7f);
    p.fillPath(fill, tint);
    for (size_t k = 0; k < piece.lines(); ++k) {
      const Edge& e = piece.lineAt(k);
      if (e.role == EdgeRole::Mouth) continue;
      const bool sewn = e.role == EdgeRole::Seam;
      p.setPen(pen(sewn ? theme_->secondInk : theme_->ink, (sewn ? 1.0 : 2.0) / scale));
      p.drawPath(toQt(e.path, motion));
    }
  }
  p.restore();
  const double degrees = std::abs(turnAcross(pattern, seam, atTop)) * 180 / std::numbers::pi;
  const SeamEnd a = seamEnd(pattern, seam.a, atTop), b = seamEnd(pattern, seam.b, atTop);
  const bool meant = isSewn(a.acrossRole) && degrees > limits::kMeantCornerDegrees;
  const bool runsOn = a.acrossRole == b.acrossRole && !meant;
  p.setPen(pen(theme_->hairline, 1));
  p.drawRect(box);
  p.setFont(uiFont(TextSize::Small));
  p.setPen(runsOn && degrees > limits::kJoinDegrees ? theme_->attention : theme_->secondInk);
  const EdgeRole across = a.acrossRole;
  const QString what = across == EdgeRole::Top   ? "top edge"
                       : across == EdgeRole::Hem ? "hem"
                       : across == EdgeRole::Cup ? "cup line"
                                                 : "seam";
  p.drawText(QRectF(box.left(), box.bottom() + 3, box.width(), 16), Qt::AlignLeft | Qt::AlignVCenter,
             runsOn ? QString("%1 turns %2°").arg(what).arg(degrees, 0, 'f', 1) : what + " ends here");
}

void SeamWalker::mousePressEvent(QMouseEvent* event) {
  setFocus();
  mouseMoveEvent(event);
}

void SeamWalker::mouseMoveEvent(QMouseEvent* event) {
  if (!(event->buttons() & Qt::LeftButton) || now_.marks.size() < 2) return;
  const double x = event->position().x(), from = screenX(0), per = screenX(1) - from;
  if (x < ruler().right() + 8) setFinger((x - from) / per);
}

void SeamWalker::step(int by) {
  const Pattern* p = pattern();
  if (!p || p->seams.empty()) return;
  const auto n = static_cast<int>(p->seams.size());
  int at = 0;
  while (at < n && p->seams[static_cast<size_t>(at)].id != seam_) ++at;
  const std::string next = p->seams[static_cast<size_t>((at + by + n) % n)].id;
  finger_.reset();
  session_.select({.seam = next});
  if (seam_ != next) setSeam(next);
}

void SeamWalker::keyPressEvent(QKeyEvent* event) {
  if (now_.marks.size() < 2) return QWidget::keyPressEvent(event);
  const bool inch = session_.order().units.unit == Unit::Inch, far = event->modifiers() & Qt::ShiftModifier;
  const double by = far ? (inch ? kMmPerInch : 25.0) : (inch ? kMmPerInch / 8 : 2.5);
  switch (event->key()) {
    case Qt::Key_Left:
      return setFinger(finger_.value_or(0) - by);
    case Qt::Key_Right:
      return setFinger(finger_.value_or(0) + by);
    case Qt::Key_Home:
      return setFinger(now_.marks.front().a);
    case Qt::Key_End:
      return setFinger(now_.marks.back().a);
    case Qt::Key_Up:
      return step(-1);
    case Qt::Key_Down:
      return step(1);
    case Qt::Key_Escape:
      return setFinger(std::nullopt);
    default:
      return QWidget::keyPressEvent(event);
  }
}

}  // namespace armure
