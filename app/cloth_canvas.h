// app/cloth_canvas.h
//
// One cloth with what lies on it. A piece can be taken and laid elsewhere: it goes to the nearest place where it lies
// over nothing, and is kept there; a double click lets it go. Keys: G from piece to piece, arrows lay the picked one
// further (Shift: finely), X turns it round, Enter keeps it where it lies, Delete lets it go, Escape leaves.
#pragma once

#include <QTransform>
#include <QWidget>
#include <memory>
#include <optional>

#include "laying/laying_table.h"
#include "prepare/cloth_laying.h"
#include "prepare/label_place.h"
#include "render/theme.h"

namespace armure {

class ClothCanvas : public QWidget {
  Q_OBJECT
 public:
  explicit ClothCanvas(QWidget* parent = nullptr);
  void setTheme(const Theme& theme);
  // What is shown; `names`, `labels` and `grains` by item. A layout without items shows the bare cloth.
  struct Shown {
    ClothLaying laying;
    StripLayout layout;
    std::vector<QString> names;                 // "2", by item
    std::vector<LabelPlace> labels;             // where its name stands, for a block of kLabel, in the piece's axes
    std::vector<std::pair<Vec2, Vec2>> grains;  // by item, in the piece's axes
    static constexpr double kLabel = 70;        // mm
  };
  void show(std::shared_ptr<const Shown> shown);

  std::optional<size_t> picked() const { return picked_; }
  void pick(std::optional<size_t> item);
  bool isHeld() const { return pressed_ && picked_; }  // by the mouse
  // Where an item's middle is on the widget; for drivers.
  QPointF middleOf(size_t item) const;
  const Shown* shown() const { return shown_.get(); }

 signals:
  void laid(size_t item, const LaidItem& place);  // by hand, to be kept there
  void letGo(size_t item);
  void pickedChanged();
  void left();

 protected:
  void paintEvent(QPaintEvent*) override;
  void resizeEvent(QResizeEvent*) override { fit(); }
  void mousePressEvent(QMouseEvent* event) override;
  void mouseMoveEvent(QMouseEvent* event) override;
  void mouseReleaseEvent(QMouseEvent* event) override;
  void mouseDoubleClickEvent(QMouseEvent* event) override;
  void keyPressEvent(QKeyEvent* event) override;

 private:
  void fit();
  bool isLaid() const { return shown_ && !shown_->layout.items.empty(); }
  bool isLocked(size_t item) const { return shown_->laying.problem.items[item].locked.has_value(); }
  LaidItem placeOf(size_t item) const;
  std::optional<size_t> itemAt(QPointF point) const;
  LayingTable& table();  // made when a piece is first moved
  void layAt(size_t item, const LaidItem& wish);
  void drawCopy(QPainter& painter, size_t item, const Motion& motion, const Polyline& outline) const;

  std::shared_ptr<const Shown> shown_;
  std::unique_ptr<LayingTable> table_;
  const Theme* theme_;
  QTransform toWidget_;  // from the opened cloth, mm
  std::optional<size_t> picked_;
  std::optional<LaidItem> held_;  // where the picked one lies while it is dragged
  QPointF pressedAt_;
  bool pressed_ = false;
  Vec2 from_;
};

}  // namespace armure
