// app/rails_view.h
//
// The rails below the table: per level a strip from centre front to centre back, panels solid, intakes as gaps. Drag a
// gap's side and the intake is held there while the others share the rest; type a number on it; a double click, or
// Delete, gives it back to the school, whose wish stands under it. The tick below a strip is the girth it closes to; it
// can be dragged and typed too.
//
// Keys: Up and Down from rail to rail, Left and Right from gap to gap and to the girth, + and - take in more or less,
// figures begin a number, Enter opens it, Delete gives back, H holds a gap where it is or gives it back, N adds a
// level, Shift+Delete takes a level of one's own away, Tab leaves.
#pragma once

#include <QLineEdit>
#include <QWidget>

#include "app/order_session.h"
#include "app/rails_layout.h"
#include "render/theme.h"

namespace armure {

class RailsView : public QWidget {
  Q_OBJECT
 public:
  explicit RailsView(OrderSession& session, QWidget* parent = nullptr);
  void setTheme(const Theme& theme);

  const std::vector<Rail>& rails() const { return rails_; }
  const RailsLayout& places() const { return layout_; }
  RailStop stop() const { return stop_; }
  // Goes to a line's gap on a level, if it is there.
  void stand(std::string_view level, std::string_view line);

  // Adds a level between two others: "ribs" first, then "belly", then by number.
  void addLevel();
  // Gives everything held by hand back to the school.
  void giveAllBack();
  bool anythingHeld() const;

 signals:
  void refused(const QString& why);  // what could not be set, in words

 protected:
  void paintEvent(QPaintEvent* event) override;
  void mousePressEvent(QMouseEvent* event) override;
  void mouseMoveEvent(QMouseEvent* event) override;
  void mouseReleaseEvent(QMouseEvent* event) override;
  void mouseDoubleClickEvent(QMouseEvent* event) override;
  void keyPressEvent(QKeyEvent* event) override;
  bool event(QEvent* event) override;  // figures are numbers here, not the window's shortcuts
  void resizeEvent(QResizeEvent*) override { relayout(); }
  void showEvent(QShowEvent*) override { refresh(); }
  bool eventFilter(QObject* object, QEvent* event) override;

 private:
  void refresh();
  void relayout();
  bool isWorkedOn() const { return window()->focusWidget() == this; }
  void drawRail(QPainter& painter, size_t rail) const;
  void drawGap(QPainter& painter, size_t rail, size_t gap) const;
  void drawAmounts(QPainter& painter, size_t rail) const;
  void drawTotals(QPainter& painter, size_t rail) const;

  void goTo(const RailStop& stop);
  void step(int along, int down);
  void nudge(double direction);
  void setTaken(size_t rail, size_t gap, double mm);
  void setGirth(size_t rail, double mm);
  void giveBack(const RailStop& stop);
  void removeLevel(size_t rail);
  double stepMm() const;  // what + and - change, and dragging snaps to
  double snapped(double mm) const;
  // Sets a choice; what cannot be drafted is taken back and refused.
  void choose(const std::string& key, const std::string& text);
  std::string asText(double mm) const;

  void openEditor(const QString& text);
  void closeEditor(bool accept);
  std::string keyOf(const RailStop& stop) const;

  OrderSession& session_;
  const Theme* theme_;
  std::vector<Rail> rails_;
  RailsLayout layout_;
  RailStop stop_;
  QLineEdit* editor_;

  struct Drag {
    std::optional<GapSide> side;
    std::optional<size_t> mark;
    double fromX = 0, fromMm = 0;
  };
  std::optional<Drag> drag_;
};

}  // namespace armure
