// app/cutting_table.h
//
// The pieces at true size, one at a time, in a window that fills a projector over the cutting table or a large screen.
// How many of its dots are a millimetre is measured once, across and down: a line is shown, its length on the table
// typed. Keys: Page Down and Page Up from piece to piece, arrows move it (Shift: finely), M mirrors, R turns it by a
// quarter, T thick or thin lines, I light on dark or dark on light, C measures, 0 puts it in the middle, Escape leaves.
#pragma once

#include <QWidget>
#include <vector>

#include "order/order.h"
#include "prepare/drawing.h"
#include "recalc/recalc.h"

namespace armure {

class CuttingTable : public QWidget {
  Q_OBJECT
 public:
  // Keeps copies of what it shows: a change of the order does not reach it.
  CuttingTable(const Design& design, const Order& order, QWidget* parent = nullptr);

  // Which piece of the pattern is shown, from 0.
  size_t piece() const { return piece_; }
  // Dots of the screen for a millimetre; from the preferences, else as the screen says of itself.
  QPointF dots() const { return dots_; }
  bool isMeasured() const { return measured_; }
  bool isMeasuring() const { return step_ != Step::None; }
  // The line whose length is asked for: its ends, in dots.
  QLineF measuredLine() const;
  // Where a point of the shown piece is, in dots.
  QPointF toScreen(Vec2 point) const;

 protected:
  void paintEvent(QPaintEvent*) override;
  void keyPressEvent(QKeyEvent* event) override;

 private:
  enum class Step { None, Across, Down };
  struct Shown {
    std::string name;  // as written beside it
    std::vector<DrawnLine> lines;
    Vec2 middle;
    Motion upright;
  };
  void typeLength(QKeyEvent* event);
  void acceptLength();
  void drawMeasuring(QPainter& painter) const;
  void drawPiece(QPainter& painter) const;
  QTransform motion() const;

  std::vector<Shown> pieces_;
  LengthFormat units_;
  size_t piece_ = 0;
  QPointF dots_, offset_;  // offset in mm
  int quarters_ = 0;
  bool mirrored_ = false, thick_ = false, dark_ = true, measured_ = false;
  Step step_ = Step::None;
  double acrossDots_ = 0;
  QString typed_, told_;
};

}  // namespace armure
