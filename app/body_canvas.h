// app/body_canvas.h
//
// The picture of the cloth on the body: turned with the mouse or the arrow keys, with the scale of its colours, the
// body's levels at its side, and the numbers of the place under the pointer.
#pragma once

#include <QWidget>
#include <memory>

#include "app/trial_runner.h"
#include "app/turning.h"
#include "render/body_picture.h"

namespace armure {

class BodyCanvas : public QWidget {
  Q_OBJECT
 public:
  explicit BodyCanvas(QWidget* parent = nullptr);
  void show(std::shared_ptr<const Trying> tried, bool old);  // nothing to clear it
  void setMessage(const QString& text);                      // in place of a picture
  void setTheme(const Theme& theme);
  void setColour(ClothColour colour);
  void setClear(bool clear);
  void setNear(bool near);
  void look(double turn);  // upright, from a side
  void point(int vertex);  // marks a place; -1 none
  BodyLook looks() const { return {colour_, clear_, near_, turning_.turn(), turning_.tilt()}; }
  const BodyPicture* picture() const { return picture_.get(); }

 signals:
  void reading(const QString& text);  // what is under the finger; empty for nothing
  void left();

 protected:
  void paintEvent(QPaintEvent*) override;
  void resizeEvent(QResizeEvent*) override { stale(); }
  void mousePressEvent(QMouseEvent* event) override;
  void mouseMoveEvent(QMouseEvent* event) override;
  void leaveEvent(QEvent*) override { emit reading({}); }
  void keyPressEvent(QKeyEvent* event) override;

 private:
  void stale();  // the picture is drawn anew when it is next painted
  void drawScale(QPainter& p) const;
  void drawLevels(QPainter& p) const;
  void read(QPointF at);

  const Theme* theme_;
  ClothColour colour_ = ClothColour::Cloth;
  bool clear_ = false, near_ = false;
  Turning turning_{kFromTheFront, 0};
  std::shared_ptr<const Trying> tried_;
  std::unique_ptr<BodyPicture> picture_;
  QString message_;
  bool old_ = false;
  int pointed_ = -1;
};

}  // namespace armure
