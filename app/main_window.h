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

#include "app/autosave.h"
#include "app/client_pages.h"
#include "app/client_records.h"
#include "app/client_tray.h"
#include "app/cup_depth_panel.h"
#include "app/findings_panel.h"
#include "app/order_lock.h"
#include "app/order_session.h"
#include "app/preferences.h"
#include "app/rails_view.h"
#include "app/sheet_panel.h"
#include "app/stage_bar.h"
#include "app/standing_view.h"
#include "app/style_shelf.h"
#include "app/table_view.h"
#include "app/workings_panel.h"
#include "io/atomic_file.h"
#include "render/exporters.h"

class QMenu;

namespace armure {

class MainWindow : public QMainWindow {
  Q_OBJECT
 public:
  explicit MainWindow(QWidget* parent = nullptr);
  ~MainWindow() override;

  OrderSession& session() { return session_; }
  StageBar& stages() { return *stages_; }
  SeamWalker& walker() { return *walker_; }
  TableView& table() { return *table_; }
  RailsView& rails() { return *rails_; }
  ClientTray& client() { return *client_; }
  ClientRecords& records() { return records_; }
  ClientPages& pages() { return *pages_; }
  // The pattern on the table, also in the stage Client, whose own pages stand there else.
  void showTable(bool shown);
  void showStanding(bool shown);  // the cup, in place of the table
  StandingView& standing() { return *standing_; }
  void showShelf(bool shown);  // the styles, in place of the table

  void openFile(const QString& path);  // a Problem is shown in the band
  void setDark(bool dark);
  // Offers what earlier runs left unsaved, in the band.
  void offerRecovery();
  QString bandText() const { return bandText_->text(); }
  // Writes unsaved work to the state folder now; for the end of the session.
  void keepWork() { autosave_.writeNow(); }
  // After something the program did not expect: the work is kept, and the user told.
  void tellFault(const QString& what);

 protected:
  void closeEvent(QCloseEvent* event) override;
  bool eventFilter(QObject* object, QEvent* event) override;

 private:
  QWidget* makeHeader();
  QWidget* makeMiddle();
  QWidget* makeTable();
  QWidget* makeRails();
  QWidget* makeWalker();
  QWidget* makeColumn();
  QWidget* makeFooter();
  QWidget* makeBand();
  QWidget* makePrepareTools();
  void makeTrays();
  void makeShortcuts();
  QPushButton* plainButton(const QString& name, const QString& text, const QString& hint, void (MainWindow::*slot)());

  void refresh();
  void refreshOpenSeam();
  void showStage(Stage stage);
  void mend(const CheckRow& row);  // takes the way the balance sheet offers
  QString optionLabel(std::string_view key) const;
  void showMessage(const QString& text);
  void showProblem(const Problem& problem) { showMessage(QString::fromStdString(problem.text())); }

  void newOrder();
  void askOpen();
  void askImport();
  void save();
  void askSaveAs();
  void exportAs(const Exporter& exporter);
  void print();
  void toggleDark() { setDark(!dark_); }
  void fillShelf();
  void addKeptWork(QMenu& menu);

  // Something to be answered in the band, with one button that does it and one that leaves it.
  struct BandQuestion {
    QString text, yes;
    std::function<void()> onYes;
  };
  void ask(BandQuestion question);
  void answer();
  void closeBand();

  // Another order takes the place of this one: what is unsaved is set aside, and the way back offered. False when it
  // could not be kept; the order stays then.
  bool makeRoom();
  void offerWayBack(const std::string& title);
  void takeUp(const Recovered& kept);
  void lockOrTell();  // the file that was opened
  void saveTo(const QString& path, bool force);
  // A file of another kind that stands there is asked about first.
  void writeTo(const QString& path, const Exporter& exporter, bool force = false);

  // Asks for a file to write, starting beside the order; adds `suffix`. Empty when the user gives up.
  QString askTarget(const QString& what, const QString& suffix);

  OrderSession session_;
  Autosave autosave_;
  OrderLock lock_;
  ClientRecords records_;
  StageBar* stages_ = nullptr;
  TableView* table_ = nullptr;
  QStackedWidget *middle_ = nullptr, *lower_ = nullptr;
  QSplitter* column_ = nullptr;
  RailsView* rails_ = nullptr;
  SeamWalker* walker_ = nullptr;
  QWidget* walkerBox_ = nullptr;
  QLabel* walkedSeam_ = nullptr;
  QPushButton* openSeam_ = nullptr;
  QWidget* railsBox_ = nullptr;
  QLabel* railsSchool_ = nullptr;
  QPushButton *combs_ = nullptr, *giveBack_ = nullptr;
  ClientPages* pages_ = nullptr;
  ClientTray* client_ = nullptr;
  FindingsPanel* findings_ = nullptr;
  QPushButton* toFigure_ = nullptr;
  CupDepthPanel* depth_ = nullptr;
  StyleShelf* shelf_ = nullptr;
  StandingView* standing_ = nullptr;
  QPushButton* toStanding_ = nullptr;
  WorkingsPanel* workings_ = nullptr;
  SheetPanel* sheet_ = nullptr;
  QStackedWidget* trays_ = nullptr;
  QPushButton *title_ = nullptr, *undo_ = nullptr, *redo_ = nullptr, *units_ = nullptr, *attention_ = nullptr;
  QLabel *subtitle_ = nullptr, *saved_ = nullptr, *facts_ = nullptr;
  QWidget* band_ = nullptr;
  QLabel* bandText_ = nullptr;
  QPushButton *bandYes_ = nullptr, *bandNo_ = nullptr;
  std::vector<QPushButton*> pills_;
  std::optional<BandQuestion> question_;
  QString message_;
  bool dark_ = false;
};

}  // namespace armure
