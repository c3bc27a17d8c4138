// app/order_files.h
//
// The window's dealings with files and the printer: asking where, doing it, saying in the band what went wrong. Unsaved
// work is set aside before another order takes its place, and offered again.
#pragma once

#include <QMenu>

#include "app/autosave.h"
#include "app/message_band.h"
#include "app/order_lock.h"
#include "app/order_session.h"
#include "app/remembered.h"
#include "render/exporters.h"

namespace armure {

class OrderFiles : public QObject {
  Q_OBJECT
 public:
  // Dialogs stand over `window`.
  OrderFiles(OrderSession& session, MessageBand& band, QWidget& window);

  void openFile(const QString& path);
  void newOrder();
  void askOpen();
  void askImport();
  void save();
  void askSaveAs();
  void exportAs(const Exporter& exporter);
  void print();
  // The orders of late, what is kept unsaved, and what can be done with files.
  void fillMenu(QMenu& menu);
  void askRecent();  // all of them, to be found by typing
  // New orders begin in the units and for the paper of late, and with what is preferred.
  void begin();

  // What is remembered, and that it is from now on: not of demos and pictures.
  Remembered& remembered() { return remembered_; }
  void remember() { remembers_ = true; }
  bool remembers() const { return remembers_; }

  // Offers what earlier runs left unsaved.
  void offerRecovery();
  // Writes unsaved work to the state folder now. False where it could not be written.
  bool keepWork() { return autosave_.writeNow(); }

 signals:
  void opened();  // another order stands there
  void begun();   // a new one

 private:
  // Another order takes the place of this one: what is unsaved is set aside, and the way back offered. False when it
  // could not be kept; the order stays then.
  bool makeRoom();
  void offerWayBack(const std::string& title);
  void takeUp(const Recovered& kept);
  void addKeptWork(QMenu& menu);
  void lockOrTell();  // the file that was opened
  void saveTo(const QString& path, bool force);
  // A file of another kind that stands there is asked about first.
  void writeTo(const QString& path, const Exporter& exporter, bool force = false);
  void tellNoPattern();
  void noteOpened(const QString& path);
  void notePaper();
  QStringList ofLate() const;  // orders opened lately, then those of the folder
  void addRecent(QMenu& menu);
  // Asks for a file to write, starting beside the order; adds `suffix`. Empty when the user gives up.
  QString askTarget(const QString& what, const QString& suffix);

  OrderSession& session_;
  MessageBand& band_;
  QWidget& window_;
  Autosave autosave_;
  OrderLock lock_;
  Remembered remembered_;
  bool remembers_ = false;
};

}  // namespace armure
