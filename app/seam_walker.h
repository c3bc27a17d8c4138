// app/seam_walker.h
//
// The seam walker: both sides of one seam rolled out along one ruler from the underbust notch, their notches, and below
// them how far they have run apart, with the limit; beside it, close up, how top edge and hem cross the closed seam. A
// finger along the ruler lights the two points on the pieces that are sewn together there.
//
// Drag, or press Left and Right (with Shift an inch or 2.5 cm), to move the finger; Home and End go to the ends, Up and
// Down to the next seam; Escape takes the finger off; Tab leaves.
#pragma once

#include <QWidget>
#include <optional>

#include "app/order_session.h"
#include "balance/roll.h"
#include "render/theme.h"

namespace armure {

// A point on a piece, in the piece's axes.
struct Finger {
  size_t piece = 0;
  Vec2 at;
};

class SeamWalker : public QWidget {
  Q_OBJECT
 public:
  explicit SeamWalker(OrderSession& session, QWidget* parent = nullptr);
  void setTheme(const Theme& theme);

  const std::string& seam() const { return seam_; }
  void setSeam(const std::string& id);
  // Where the finger stands on side a, mm from the anchor.
  std::optional<double> finger() const { return finger_; }
  void setFinger(std::optional<double> a);
  // Where a place on the ruler lies on the screen.
  double screenX(double mm) const;
  // What is said of the place under the finger, or of the whole seam.
  QString reading() const;

 signals:
  void fingersChanged(const std::vector<Finger>& fingers);
  void seamChanged();

 protected:
  void paintEvent(QPaintEvent* event) override;
  void mousePressEvent(QMouseEvent* event) override;
  void mouseMoveEvent(QMouseEvent* event) override;
  void keyPressEvent(QKeyEvent* event) override;
  void showEvent(QShowEvent*) override { refresh(); }
  void hideEvent(QHideEvent*) override;

 private:
  void refresh();
  const Pattern* pattern() const;  // as the table shows it: balanced
  const Pattern* drafted() const;
  const Seam* find(const Pattern* pattern) const;
  void step(int by);
  QRectF ruler() const;
  QRectF curve() const;
  QRectF closeUp(bool atTop) const;
  void drawRuler(QPainter& p) const;
  void drawSides(QPainter& p) const;
  void drawCurve(QPainter& p) const;
  void drawCloseUp(QPainter& p, bool atTop) const;

  OrderSession& session_;
  const Theme* theme_;
  std::string seam_;
  RolledSeam now_, before_;
  std::optional<double> finger_;
};

}  // namespace armure
