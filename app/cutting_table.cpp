#include "app/cutting_table.h"

#include <QKeyEvent>
#include <QPainter>
#include <QScreen>
#include <cmath>

#include "app/preferences.h"
#include "prepare/arrange.h"
#include "render/pattern_painter.h"
#include "render/words.h"

namespace armure {
namespace {

constexpr double kMovedFar = 20, kMovedNear = 1;  // mm, by a key
constexpr double kLineShare = 0.7;                // of the window that the measured line takes

}  // namespace

CuttingTable::CuttingTable(const Design& design, const Order& order, QWidget* parent)
    : QWidget(parent, Qt::Window), units_(order.units) {
  setObjectName("cuttingTable");
  setWindowTitle("Armure: the cutting table");
  setAccessibleName("The cutting table, one piece at true size");
  const Boning boning = boningOf(design.pattern, design.block, design.rules);
  for (size_t i = 0; i < design.pattern.pieces.size(); ++i) {
    const Piece& p = design.pattern.pieces[i];
    Shown shown{english(msg("{} · {} of {}", p.name, p.number, p.of)),
                drawnLines(p, design.cutOutlines[i], design.rules.option(key::kNotchKind)),
                {},
                upright(p)};
    for (DrawnLine& l : drawnBoning(boning, i)) shown.lines.push_back(std::move(l));
    const Box box = boxRound(design.cutOutlines[i]);
    shown.middle = 0.5 * (box.low + box.high);
    pieces_.push_back(std::move(shown));
  }
  const Preferences preferences = readPreferences();
  measured_ = preferences.dotsAcross > 0 && preferences.dotsDown > 0;
  dots_ = measured_ ? QPointF(preferences.dotsAcross, preferences.dotsDown)
                    : QPointF(physicalDpiX() / kMmPerInch, physicalDpiY() / kMmPerInch);
  if (!measured_) step_ = Step::Across;
}

QLineF CuttingTable::measuredLine() const {
  if (step_ == Step::Down) {
    const double length = std::round(kLineShare * height());
    return {width() / 2.0, (height() - length) / 2, width() / 2.0, (height() + length) / 2};
  }
  const double length = std::round(kLineShare * width());
  return {(width() - length) / 2, height() / 2.0, (width() + length) / 2, height() / 2.0};
}

// From the axes of the piece to dots: upright, mirrored, turned, its middle where it was put.
QTransform CuttingTable::motion() const {
  QTransform t = QTransform::fromTranslate(width() / 2.0, height() / 2.0);
  t.scale(dots_.x(), dots_.y());
  t.translate(offset_.x(), offset_.y());
  t.rotate(90 * quarters_);
  if (mirrored_) t.scale(-1, 1);
  const QPointF middle = toQt(pieces_[piece_].upright.apply(pieces_[piece_].middle));
  t.translate(-middle.x(), -middle.y());
  return t;
}

QPointF CuttingTable::toScreen(Vec2 point) const { return motion().map(toQt(pieces_[piece_].upright.apply(point))); }

void CuttingTable::keyPressEvent(QKeyEvent* event) {
  if (isMeasuring()) return typeLength(event);
  const double step = event->modifiers() & Qt::ShiftModifier ? kMovedNear : kMovedFar;
  switch (event->key()) {
    case Qt::Key_PageDown:
    case Qt::Key_PageUp:
      piece_ = (piece_ + (event->key() == Qt::Key_PageDown ? 1 : pieces_.size() - 1)) % pieces_.size();
      offset_ = {};
      break;
    case Qt::Key_Left:
      offset_.rx() -= step;
      break;
    case Qt::Key_Right:
      offset_.rx() += step;
      break;
    case Qt::Key_Up:
      offset_.ry() -= step;
      break;
    case Qt::Key_Down:
      offset_.ry() += step;
      break;
    case Qt::Key_0:
      offset_ = {};
      break;
    case Qt::Key_M:
      mirrored_ = !mirrored_;
      break;
    case Qt::Key_R:
      quarters_ = (quarters_ + 1) % 4;
      break;
    case Qt::Key_T:
      thick_ = !thick_;
      break;
    case Qt::Key_I:
      dark_ = !dark_;
      break;
    case Qt::Key_C:
      step_ = Step::Across;
      break;
    case Qt::Key_Escape:
      close();
      return;
    default:
      return QWidget::keyPressEvent(event);
  }
  update();
}

void CuttingTable::typeLength(QKeyEvent* event) {
  if (event->key() == Qt::Key_Escape) {
    const bool leaves = !measured_;
    step_ = Step::None;
    typed_.clear();
    told_.clear();
    if (leaves) close();
  } else if (event->key() == Qt::Key_Return || event->key() == Qt::Key_Enter) {
    acceptLength();
  } else if (event->key() == Qt::Key_Backspace) {
    typed_.chop(1);
  } else if (!event->text().isEmpty() && event->text().front().isPrint() && typed_.size() < 20) {
    typed_ += event->text();
  }
  update();
}

void CuttingTable::acceptLength() {
  constexpr double kShortest = 50, kLongest = 20000;  // mm
  const Result<double> mm = parseLength(typed_.toStdString(), units_.unit);
  typed_.clear();
  if (!mm.ok() || *mm < kShortest || *mm > kLongest) {
    told_ = mm.ok() ? QString("That cannot be: a length between %1 and %2")
                          .arg(q(formatLengthWithUnit(kShortest, units_)), q(formatLengthWithUnit(kLongest, units_)))
                    : q(english(mm.problem().what) + ": " + english(mm.problem().remedy));
    return;
  }
  told_.clear();
  const double dots = measuredLine().length() / *mm;
  if (step_ == Step::Across) {
    acrossDots_ = dots;
    step_ = Step::Down;
    return;
  }
  dots_ = {acrossDots_, dots};
  measured_ = true;
  step_ = Step::None;
  Preferences preferences = readPreferences();
  preferences.dotsAcross = dots_.x();
  preferences.dotsDown = dots_.y();
  if (const auto problem = writePreferences(preferences)) told_ = q(problem->text());
}

void CuttingTable::paintEvent(QPaintEvent*) {
  QPainter painter(this);
  painter.setRenderHint(QPainter::Antialiasing);
  painter.fillRect(rect(), dark_ ? Qt::black : Qt::white);
  isMeasuring() ? drawMeasuring(painter) : drawPiece(painter);
}

void CuttingTable::drawMeasuring(QPainter& painter) const {
  painter.setPen(QPen(dark_ ? Qt::white : Qt::black, 2));
  const QLineF line = measuredLine();
  painter.drawLine(line);
  const QPointF across = step_ == Step::Down ? QPointF(24, 0) : QPointF(0, 24);
  painter.drawLine(line.p1() - across, line.p1() + across);
  painter.drawLine(line.p2() - across, line.p2() + across);
  QFont font = painter.font();
  font.setPixelSize(24);
  painter.setFont(font);
  const QString text = QString("Measure this line on the table, from end to end, and type its length%1: %2_\n%3")
                           .arg(step_ == Step::Down ? QString(", down") : QString(", across"), typed_, told_);
  painter.drawText(QRectF(40, 30, width() - 80, 120), Qt::AlignLeft | Qt::TextWordWrap, text);
  painter.drawText(QRectF(40, height() - 60, width() - 80, 40), Qt::AlignLeft,
                   "Enter takes it; Escape leaves. Without a unit it is in " +
                       QString(units_.unit == Unit::Inch ? "inches" : "centimetres") + ".");
}

void CuttingTable::drawPiece(QPainter& painter) const {
  const QColor ink = dark_ ? Qt::white : Qt::black;
  painter.save();
  painter.setTransform(motion(), true);
  const Motion& m = pieces_[piece_].upright;
  for (const DrawnLine& l : pieces_[piece_].lines) {
    const bool strong = l.role == LineRole::Cut || l.role == LineRole::Fold || l.role == LineRole::Notch;
    QPen pen(ink, (thick_ ? 3 : 1) * (strong ? 2 : 1));
    pen.setCosmetic(true);
    if (l.role == LineRole::Sewn) pen.setStyle(Qt::DashLine);
    if (l.role == LineRole::Fold) pen.setStyle(Qt::DashDotLine);
    if (l.role == LineRole::Level) pen.setStyle(Qt::DotLine);
    painter.setPen(pen);
    if (l.role == LineRole::Cut)
      painter.drawPolygon(toQt(l.outline, m));
    else
      painter.drawPath(toQt(l.path, m));
  }
  painter.restore();
  painter.setPen(ink);
  QFont font = painter.font();
  font.setPixelSize(20);
  painter.setFont(font);
  QString text = q(pieces_[piece_].name);
  if (mirrored_) text += ", mirrored";
  if (!told_.isEmpty()) text += "\n" + told_;
  const auto say = [&](const QRectF& where, const QString& words) {  // nothing of the piece runs through it
    painter.fillRect(painter.boundingRect(where, Qt::AlignLeft, words).adjusted(-6, 0, 6, 0),
                     dark_ ? Qt::black : Qt::white);
    painter.drawText(where, Qt::AlignLeft, words);
  };
  say(QRectF(20, 16, width() - 40, 60), text);
  say(QRectF(20, height() - 40, width() - 40, 30),
      "Page Down: next piece · arrows move · M mirrors · R turns · T thick · I inverts · C measures · Esc");
}

}  // namespace armure
