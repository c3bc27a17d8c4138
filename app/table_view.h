// app/table_view.h
//
// The table: the paper in the middle of the window. Shows a TableScene; the wheel zooms about the pointer, dragging the
// paper moves it, a click selects what lies there. A diamond on a panel line is its guide: dragging it across moves the
// line, a double click gives it back to the rule. Keys: + and - zoom, 0 shows everything, arrows move, C shows the
// curvature combs, O leaves the selected seam open when taped, G goes from guide to guide, which Shift with Left and
// Right moves and Delete gives back; Tab leaves.
#pragma once

#include <QTransform>
#include <QWidget>

#include "app/seam_walker.h"
#include "app/sheets_runner.h"
#include "app/table_scene.h"
#include "render/theme.h"

namespace armure {

class TableView : public QWidget {
  Q_OBJECT
 public:
  explicit TableView(OrderSession& session, QWidget* parent = nullptr);

  void setTheme(const Theme& theme);
  TableMode mode() const { return mode_; }
  void setMode(TableMode mode);
  void setPaperShown(bool shown);  // as they are printed, with frames of the sheets, in the mode "apart"
  void setGuidesShown(bool shown);
  void setLinesShown(std::string_view stage);  // the lines of this stage can be taken hold of when taped; "" for none
  void setBalanceShown(bool shown);            // what balancing moves, over what was drafted
  void setVersion(LaidVersion version);        // another version, over the pieces; an empty one for none
  // Points on pieces that are lit: where the seam walker's finger stands.
  void setFingers(const std::vector<Finger>& fingers);
  // In the mode "taped" a seam can be left open; the same again tapes it.
  void toggleOpen(const std::string& seam);
  bool isOpen(const std::string& seam) const { return openSeams_.contains(seam); }
  void showAll();
  void setCombs(bool shown);
  bool combs() const { return combs_; }

  const TableScene& scene() const { return scene_; }
  QPointF toScreen(QPointF mm) const { return transform_.map(mm); }
  // How many millimetres of pattern one millimetre of screen shows, taking 96 dots to the inch.
  double scaleDenominator() const;

 signals:
  void modeChanged();
  void combsChanged();
  void refused(const QString& why);
  void zoomed();

 protected:
  void paintEvent(QPaintEvent* event) override;
  void mousePressEvent(QMouseEvent* event) override;
  void mouseMoveEvent(QMouseEvent* event) override;
  void mouseReleaseEvent(QMouseEvent* event) override;
  void mouseDoubleClickEvent(QMouseEvent* event) override;
  void wheelEvent(QWheelEvent* event) override;
  void keyPressEvent(QKeyEvent* event) override;
  void resizeEvent(QResizeEvent* event) override;

 private:
  void rebuild();
  const Sheets* sheetsAsked();
  std::optional<SheetsJob> sheetsJob() const;
  void fit();
  void zoomAbout(QPointF screen, double factor);
  void drawItem(QPainter& painter, const SceneItem& item) const;
  void drawEdge(QPainter& painter, const QPainterPath& path) const;
  void drawLabel(QPainter& painter, const SceneLabel& label) const;
  void drawSpot(QPainter& painter) const;
  void drawFingers(QPainter& painter) const;
  void moveGuide(const GuideHandle& guide, double mm);
  std::string placedText(const std::string& key, double mm) const;
  void stepGuide(const GuideHandle& guide, QPointF arrow);
  const SceneItem* selectedGuide() const;
  void nextGuide(bool backwards);
  bool isSelected(const SceneItem& item) const;
  const SceneItem* itemAt(QPointF screen) const;

  OrderSession& session_;
  const Theme* theme_;
  TableMode mode_ = TableMode::OnTheBlock;
  bool paperShown_ = false;
  SheetsRunner sheets_;
  TableScene scene_;
  QTransform transform_;
  bool fitted_ = true;  // the whole is shown, and stays so when the window or the pattern changes
  QPointF pressedAt_, lastAt_;
  bool dragging_ = false;
  std::optional<GuideHandle> guide_;  // being dragged
  std::vector<Finger> fingers_;
  std::set<std::string> openSeams_;
  std::string_view linesShown_;
  LaidVersion version_;
  bool combs_ = false, guidesShown_ = false, balanceShown_ = false;
};

}  // namespace armure
