#include "app/stage_bar.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>

namespace armure {

StageBar::StageBar(QWidget* parent) : QWidget(parent), theme_(&lightTheme()), attention_(kStages, false) {
  setObjectName("stages");
  setFocusPolicy(Qt::StrongFocus);
  setFixedHeight(38);
  setMinimumWidth(380);
  setAccessibleName("Stages of the work");
}

void StageBar::setTheme(const Theme& theme) {
  theme_ = &theme;
  update();
}

void StageBar::setStage(Stage stage) {
  if (stage == stage_) return;
  stage_ = stage;
  update();
  emit stageChosen(stage);
}

void StageBar::setAttention(Stage stage, bool needed) {
  if (attention_[static_cast<size_t>(stage)] == needed) return;
  attention_[static_cast<size_t>(stage)] = needed;
  update();
}

QRect StageBar::stageRect(Stage stage) const {
  const int i = static_cast<int>(stage), left = width() * i / kStages, right = width() * (i + 1) / kStages;
  return {left, 0, right - left, height()};
}

void StageBar::paintEvent(QPaintEvent*) {
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  const QRectF tape = QRectF(rect()).adjusted(0.5, 0.5, -0.5, -0.5);
  p.setPen(QPen(theme_->hairline, 1));
  p.setBrush(theme_->tape);
  p.drawRoundedRect(tape, 4, 4);
  p.setPen(QPen(theme_->secondInk, 1));
  for (int k = 1; 8 * k < width(); ++k) {
    const int length = k % 8 == 0 ? 11 : k % 4 == 0 ? 8 : 5;
    p.drawLine(QPointF(8 * k + 0.5, 1), QPointF(8 * k + 0.5, length));
  }
  for (int i = 0; i < kStages; ++i) {
    const Stage s = static_cast<Stage>(i);
    const QRectF cell = stageRect(s);
    const bool here = s == stage_;
    if (here) {
      p.setPen(Qt::NoPen);
      p.setBrush(theme_->working);
      p.drawRoundedRect(cell.adjusted(2, 2, -2, -2), 3, 3);
    }
    p.setFont(uiFont(TextSize::Body, here));
    p.setPen(here ? theme_->onWorking : theme_->ink);
    p.drawText(cell.adjusted(0, 10, 0, 0), Qt::AlignCenter, stageName(s));
    if (attention_[static_cast<size_t>(i)]) {
      const double x = cell.center().x() + QFontMetricsF(p.font()).horizontalAdvance(stageName(s)) / 2 + 11;
      p.setPen(Qt::NoPen);
      p.setBrush(here ? theme_->onWorking : theme_->attention);
      p.drawEllipse(QPointF(x, cell.center().y() + 5.5), 3.5, 3.5);
    }
  }
  if (hasFocus()) {
    p.setPen(QPen(theme_->working, 1.5));
    p.setBrush(Qt::NoBrush);
    p.drawRoundedRect(tape, 4, 4);
  }
}

void StageBar::mousePressEvent(QMouseEvent* event) {
  for (int i = 0; i < kStages; ++i)
    if (stageRect(static_cast<Stage>(i)).contains(event->pos())) setStage(static_cast<Stage>(i));
}

void StageBar::keyPressEvent(QKeyEvent* event) {
  const int now = static_cast<int>(stage_);
  if (event->key() == Qt::Key_Right && now + 1 < kStages) return setStage(static_cast<Stage>(now + 1));
  if (event->key() == Qt::Key_Left && now > 0) return setStage(static_cast<Stage>(now - 1));
  QWidget::keyPressEvent(event);
}

}  // namespace armure
