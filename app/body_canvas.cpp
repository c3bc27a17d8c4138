#include "app/body_canvas.h"

#include <QPainter>
#include <algorithm>
#include <cmath>

#include "render/words.h"

namespace armure {
BodyCanvas::BodyCanvas(QWidget* parent) : QWidget(parent), theme_(&lightTheme()) {
  setObjectName("bodyCanvas");
  setFocusPolicy(Qt::StrongFocus);
  setMouseTracking(true);
  setMinimumHeight(160);
  setAccessibleName("The bodice on the body");
}

void BodyCanvas::stale() {
  picture_.reset();
  update();
}

void BodyCanvas::show(std::shared_ptr<const Trying> tried, bool old) {
  old_ = old;
  if (tried == tried_) return update();
  tried_ = std::move(tried);
  message_.clear();
  pointed_ = -1;
  stale();
}

void BodyCanvas::setMessage(const QString& text) {
  tried_.reset();
  message_ = text;
  stale();
}

void BodyCanvas::setTheme(const Theme& theme) {
  theme_ = &theme;
  stale();
}

void BodyCanvas::setColour(ClothColour colour) {
  colour_ = colour;
  stale();
}

void BodyCanvas::setClear(bool clear) {
  clear_ = clear;
  stale();
}

void BodyCanvas::setNear(bool near) {
  near_ = near;
  stale();
}

void BodyCanvas::look(double turn) {
  turning_.to(turn, 0);
  stale();
}

void BodyCanvas::point(int vertex) {
  pointed_ = vertex;
  update();
}

void BodyCanvas::mousePressEvent(QMouseEvent* event) {
  setFocus();
  turning_.press(*event);
}

void BodyCanvas::mouseMoveEvent(QMouseEvent* event) {
  if (turning_.drag(*event)) return stale();
  read(event->position());
}

void BodyCanvas::keyPressEvent(QKeyEvent* event) {
  if (turning_.key(*event)) return stale();
  if (event->key() == Qt::Key_Escape) {
    emit left();
    return;
  }
  QWidget::keyPressEvent(event);
}

// The numbers of the place under the finger.
void BodyCanvas::read(QPointF at) {
  const auto point = picture_ ? picture_->pointAt(at) : std::nullopt;
  if (!point) {
    emit reading({});
    return;
  }
  const auto i = static_cast<size_t>(*point);
  const ClothPicture& cloth = tried_->result->cloth;
  const double off = cloth.off[i];
  emit reading(QString("%1 mm %2 · presses %3 kPa · stretched %4 % · slack %5 %")
                   .arg(std::abs(off), 0, 'f', 1)
                   .arg(off < 0 ? "pressed in" : "off the body")
                   .arg(cloth.pressure[i], 0, 'f', 1)
                   .arg(100 * cloth.stretch[i], 0, 'f', 1)
                   .arg(100 * cloth.slack[i], 0, 'f', 1));
}

void BodyCanvas::drawScale(QPainter& p) const {
  const ColourScale scale = scaleOf(colour_, *theme_);
  if (!scale.title[0]) return;
  const QRectF bar(18, height() - 40, 170, 10);
  QLinearGradient run(bar.topLeft(), bar.topRight());
  for (const double t : {0.0, 0.25, 0.5, 0.75, 1.0})
    run.setColorAt(t, scale.at(scale.least + t * (scale.most - scale.least)));
  QColor ground = theme_->paper;
  ground.setAlpha(210);
  const int wide = QFontMetrics(p.font()).horizontalAdvance(scale.title);
  p.fillRect(QRectF(bar.left() - 8, bar.top() - 22, std::max<double>(wide, bar.width()) + 18, 54), ground);
  p.setPen(QPen(theme_->hairline, 1));
  p.setBrush(run);
  p.drawRect(bar);
  p.setPen(theme_->ink);
  p.drawText(QRectF(bar.left() - 12, bar.bottom() + 2, 40, 16), Qt::AlignHCenter, QString::number(scale.least));
  p.drawText(QRectF(bar.center().x() - 20, bar.bottom() + 2, 40, 16), Qt::AlignHCenter,
             QString::number((scale.least + scale.most) / 2));
  p.drawText(QRectF(bar.right() - 28, bar.bottom() + 2, 40, 16), Qt::AlignHCenter, QString::number(scale.most));
  p.drawText(QRectF(bar.left(), bar.top() - 20, width() - 36, 16), Qt::AlignLeft, scale.title);
}

// Where the body has its levels, at the left; they move with the tilt only a little.
void BodyCanvas::drawLevels(QPainter& p) const {
  if (std::abs(turning_.tilt()) > 0.2) return;
  for (const LevelSeat& l : tried_->result->levels) {
    const double y = picture_->heightOf(l.y);
    p.setPen(QPen(theme_->hairline, 1, Qt::DashLine));
    p.drawLine(QPointF(86, y), QPointF(width() - 18, y));
    const QString name = words(l.name).toLower();
    QColor ground = theme_->paper;
    ground.setAlpha(190);
    p.fillRect(QRectF(80 - QFontMetrics(p.font()).horizontalAdvance(name), y - 8,
                      8 + QFontMetrics(p.font()).horizontalAdvance(name), 16),
               ground);
    p.setPen(theme_->secondInk);
    p.drawText(QRectF(10, y - 9, 74, 18), Qt::AlignRight | Qt::AlignVCenter, name);
  }
}

void BodyCanvas::paintEvent(QPaintEvent*) {
  QPainter p(this);
  p.fillRect(rect(), theme_->paper);
  p.setFont(uiFont(TextSize::Small));
  p.setPen(theme_->secondInk);
  if (!tried_ || !tried_->result.ok()) {
    p.setFont(uiFont(TextSize::Body));
    p.drawText(rect().adjusted(60, 20, -60, -20), Qt::AlignCenter | Qt::TextWordWrap, message_);
    return;
  }
  if (!picture_) picture_ = std::make_unique<BodyPicture>(*tried_->result, looks(), *theme_, size());
  p.drawImage(0, 0, picture_->image());
  p.setRenderHint(QPainter::Antialiasing);
  drawLevels(p);
  drawScale(p);
  if (const auto at = pointed_ >= 0 ? picture_->placeOf(pointed_) : std::nullopt) {
    p.setBrush(Qt::NoBrush);
    p.setPen(QPen(theme_->working, 2.5));
    p.drawEllipse(*at, 11, 11);
  }
  if (old_) {
    p.fillRect(rect(), QColor(theme_->paper.red(), theme_->paper.green(), theme_->paper.blue(), 120));
    p.setPen(theme_->attention);
    p.setFont(uiFont(TextSize::Body));
    p.drawText(rect().adjusted(0, 14, 0, 0), Qt::AlignTop | Qt::AlignHCenter, "before the last change; trying on …");
  }
  if (hasFocus()) {
    p.setBrush(Qt::NoBrush);
    p.setPen(QPen(theme_->working, 1.5));
    p.drawRect(QRectF(rect()).adjusted(1, 1, -1, -1));
  }
}

}  // namespace armure
