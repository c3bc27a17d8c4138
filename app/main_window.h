// app/main_window.h
//
// The window: stages on top, the tray of the stage on the left, the table in the middle, workings and balance sheet on
// the right. It only puts the parts together; what they show and change is in OrderSession.
#pragma once

#include <QLabel>
#include <QMainWindow>
#include <QPushButton>
#include <QSplitter>
#include <QStackedWidget>
#include <functional>

#include "app/alter_panel.h"
#include "app/body_view.h"
#include "app/client_pages.h"
#include "app/client_records.h"
#include "app/client_tray.h"
#include "app/cloth_view.h"
#include "app/cup_depth_panel.h"
#include "app/cut_panel.h"
#include "app/findings_panel.h"
#include "app/fit_panel.h"
#include "app/keys_dialog.h"
#include "app/message_band.h"
#include "app/order_files.h"
#include "app/order_session.h"
#include "app/preferences.h"
#include "app/rules_tray.h"
#include "app/sheet_panel.h"
#include "app/shift_view.h"
#include "app/stage_bar.h"
#include "app/strips.h"
#include "app/style_shelf.h"
#include "app/table_view.h"
#include "app/workings_panel.h"

namespace armure {

class CuttingTable;
class TracingDialog;

class MainWindow : public QMainWindow {
  Q_OBJECT
 public:
  explicit MainWindow(QWidget* parent = nullptr);
  ~MainWindow() override;

  OrderSession& session() { return session_; }
  StageBar& stages() { return *stages_; }
  SeamWalker& walker() { return walkerStrip_->walker(); }
  TableView& table() { return *table_; }
  RailsView& rails() { return railsStrip_->rails(); }
  ClientTray& client() { return *client_; }
  ClientRecords& records() { return records_; }
  ClientPages& pages() { return *pages_; }
  // The pattern on the table, also in the stage Client, whose own pages stand there else.
  void showTable(bool shown);
  void showCups();  // on the body, from near
  // Layers, cloths and bones, in the tray of Prepare.
  void showCut();
  void showShelf(bool shown);   // the styles, in place of the table
  void showOnBody(bool shown);  // tried on, in place of the table
  BodyView& onBody() { return *onBody_; }
  void showCloth();  // the pieces on their cloths
  ClothView& onCloth() { return *onCloth_; }
  // The pieces at true size, for a projector over the cutting table or a large screen, in a window of its own.
  CuttingTable* showCuttingTable();
  void showShifts();  // the table of shifts, where the order has one
  // Opens a drawing to be named and kept as a base, in a dialog over the window; nullptr where it cannot be read.
  TracingDialog* readDrawing(const QString& file);
  ShiftView& shifts() { return *shifts_; }

  void openFile(const QString& path) { files_->openFile(path); }  // a Problem is shown in the band
  void setDark(bool dark);
  bool isDark() const { return dark_; }
  // Takes up where the last sitting ended (remembered.h), and remembers this one: of the program as its user started
  // it. The order of then is opened where `order` says so.
  void recall(bool order);
  // Offers what earlier runs left unsaved, in the band.
  void offerRecovery() { files_->offerRecovery(); }
  QString bandText() const { return band_->text(); }
  // Writes unsaved work to the state folder now; for the end of the session.
  void keepWork() { files_->keepWork(); }
  // After something the program did not expect: the work is kept, and the user told.
  void tellFault(const QString& what);

 protected:
  void closeEvent(QCloseEvent* event) override;
  bool eventFilter(QObject* object, QEvent* event) override;

 private:
  QWidget* makeHeader();
  QWidget* makeMiddle();
  QWidget* makeTable();
  QWidget* makeColumn();
  QWidget* makeFooter();
  QWidget* makePrepareTools();
  void makeTrays();
  void makeShortcuts();
  void makeShortcutsToPlaces();
  void key(const QKeySequence& keys, const QString& what, const std::function<void()>& action);
  void findChoice();
  QPushButton* plainButton(const QString& name, const QString& text, const QString& hint, std::function<void()> action);

  void refresh();
  void refreshOpenSeam();
  void refreshSide();
  void showStage(Stage stage);
  void showRule(const std::string& key);        // its stage, its field ready to be typed in
  void mend(const CheckRow& row);               // takes the way the balance sheet offers
  LaidVersion versionShown(Stage stage) const;  // what lies over the pieces on this stage
  void toggleDark();
  void toggleUnits();
  OrderSession session_;
  ClientRecords records_;
  MessageBand* band_ = nullptr;
  OrderFiles* files_ = nullptr;
  StageBar* stages_ = nullptr;
  TableView* table_ = nullptr;
  QStackedWidget *middle_ = nullptr, *lower_ = nullptr;
  QSplitter* column_ = nullptr;
  RailsStrip* railsStrip_ = nullptr;
  WalkerStrip* walkerStrip_ = nullptr;
  QPushButton *combs_ = nullptr, *openSeam_ = nullptr, *side_ = nullptr;
  ClientPages* pages_ = nullptr;
  ClientTray* client_ = nullptr;
  FindingsPanel* findings_ = nullptr;
  QPushButton* toFigure_ = nullptr;
  CupDepthPanel* depth_ = nullptr;
  CutPanel* cut_ = nullptr;
  FitPanel* fit_ = nullptr;
  AlterPanel* alter_ = nullptr;
  ShiftView* shifts_ = nullptr;
  StyleShelf* shelf_ = nullptr;
  BodyView* onBody_ = nullptr;
  ClothView* onCloth_ = nullptr;
  QPushButton *toCups_ = nullptr, *toBody_ = nullptr;
  WorkingsPanel* workings_ = nullptr;
  SheetPanel* sheet_ = nullptr;
  QStackedWidget* trays_ = nullptr;
  std::vector<RulesTray*> rulesTrays_;  // by stage, from Block on
  QPushButton *title_ = nullptr, *undo_ = nullptr, *redo_ = nullptr, *units_ = nullptr, *attention_ = nullptr;
  QLabel *subtitle_ = nullptr, *saved_ = nullptr, *facts_ = nullptr;
  std::vector<QPushButton*> pills_;
  std::vector<KeyHint> keys_;
  bool dark_ = false;
};

}  // namespace armure
