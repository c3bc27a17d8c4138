#include "app/order_files.h"

#include <QDir>
#include <QFileDialog>
#include <QFileInfo>
#include <QPrintDialog>
#include <QPrintEngine>
#include <QPrinter>
#include <QPrinterInfo>
#include <algorithm>

#include "app/orders_dialog.h"
#include "app/preferences.h"
#include "io/atomic_file.h"
#include "io/order_file.h"
#include "render/print_plan.h"
#include "render/words.h"
#include "rules/prepare_rules.h"

namespace armure {
namespace {

constexpr const char* kNothingTicked = "No piece is ticked under On paper and in files; tick those that are wanted.";

QString keptName(const Recovered& r) {
  const QString title = r.title.empty() ? "an untitled order" : QString::fromStdString(r.title);
  return QString("%1, %2%3").arg(title, QString::fromStdString(r.time), r.fault.empty() ? "" : ", cannot be read");
}

}  // namespace

OrderFiles::OrderFiles(OrderSession& session, MessageBand& band, QWidget& window)
    : QObject(&window), session_(session), band_(band), window_(window), autosave_(session) {
  connect(&autosave_, &Autosave::failed, this, [this](const QString& what) { band_.tell(what); });
}

void OrderFiles::tellNoPattern() {
  band_.tell(session_.problem().value_or(Problem{"", "there is no pattern yet", "give bust, waist and hip"}));
}

void OrderFiles::openFile(const QString& path) {
  // Nothing is left for a file that cannot be opened.
  if (const auto file = readOrder(path.toStdString()); !file.ok()) return band_.tell(file.problem());
  const std::string before = session_.order().title;
  const bool wasSaved = session_.isSaved();
  if (!makeRoom()) return;
  if (const auto problem = session_.open(path.toStdString())) return band_.tell(*problem);
  band_.dropQuestion();
  band_.tell(QString());
  lockOrTell();
  noteOpened(path);
  if (!wasSaved) offerWayBack(before);
  emit opened();
}

void OrderFiles::noteOpened(const QString& path) {
  if (remembers_) remembered_.opened(path);
}

void OrderFiles::notePaper() {
  if (remembers_) remembered_.setPaper(session_.printWishes().paper);
}

void OrderFiles::begin() {
  Choices choices = readPreferences().choicesOfNew();
  if (!remembers_) return session_.startNew(choices);
  const std::string key(armure::key::kPaperSize.text), paper = remembered_.paper();
  if (!paper.empty() && checkChoice(key, paper, Unit::Inch).ok()) choices[key] = paper;
  session_.startNew(choices, remembered_.units());
}

void OrderFiles::newOrder() {
  const std::string before = session_.order().title;
  const bool wasSaved = session_.isSaved();
  if (!makeRoom()) return;
  begin();
  lock_.take({});
  band_.dropQuestion();
  band_.tell(QString());
  if (!wasSaved) offerWayBack(before);
  emit begun();
}

void OrderFiles::askOpen() {
  const QString path =
      QFileDialog::getOpenFileName(&window_, "Open an order", QFileInfo(QString::fromStdString(session_.path())).path(),
                                   "Orders (*.armure);;All files (*)");
  if (!path.isEmpty()) openFile(path);
}

void OrderFiles::askImport() {
  const QString path = QFileDialog::getOpenFileName(&window_, "Read measures", {}, "Measures (*.csv);;All files (*)");
  if (path.isEmpty()) return;
  if (const auto problem = session_.importMeasures(path.toStdString())) return band_.tell(*problem);
  band_.tell(QString());
}

void OrderFiles::save() {
  if (session_.path().empty()) return askSaveAs();
  if (session_.isForReading()) {
    if (!lock_.take(QString::fromStdString(session_.path()))) return askSaveAs();
    session_.setForReading(false);  // the other window is gone
  }
  saveTo(QString::fromStdString(session_.path()), true);
}

// To its own file an order is always written; elsewhere it does not write over a file of another kind unasked.
void OrderFiles::saveTo(const QString& path, bool force) {
  if (const auto problem = whyNotWritten({path.toStdString(), FileKind::Order}, {}, force)) {
    if (whyNotWritten({path.toStdString(), FileKind::Order}, {}, true)) return band_.tell(*problem);
    return band_.ask(
        {words(msg("{}: {}.", problem->where, problem->what)), "Write over it", [this, path] { saveTo(path, true); }});
  }
  if (!lock_.take(path)) {
    lock_.take(session_.isForReading() ? QString() : QString::fromStdString(session_.path()));
    return band_.tell("That order is open in another window: choose another name. Nothing was written.");
  }
  const OrderSession::Saving saving = session_.save(path.toStdString());
  if (saving.problem) return band_.tell(*saving.problem);
  autosave_.writeNow();
  noteOpened(path);
  band_.tell(saving.keptBeside.empty()
                 ? QString()
                 : "The file had been changed by another program since it was opened. What stood there is kept in " +
                       QFileInfo(QString::fromStdString(saving.keptBeside)).fileName() + ".");
}

QString OrderFiles::askTarget(const QString& what, const QString& suffix) {
  const QString beside = session_.path().empty()
                             ? QString::fromStdString(session_.order().title)
                             : QFileInfo(QString::fromStdString(session_.path())).path() + "/" +
                                   QFileInfo(QString::fromStdString(session_.path())).completeBaseName();
  QString path = QFileDialog::getSaveFileName(&window_, what, beside + suffix, QString("*%1").arg(suffix));
  if (!path.isEmpty() && QFileInfo(path).suffix().isEmpty()) path += suffix;
  return path;
}

void OrderFiles::askSaveAs() {
  const QString path = askTarget("Save the order", ".armure");
  if (!path.isEmpty()) saveTo(path, path.toStdString() == session_.path());
}

void OrderFiles::exportAs(const Exporter& exporter) {
  if (exporter.needsPattern && (!session_.design() || session_.problem())) return tellNoPattern();
  if (exporter.ofPieces && session_.printsNothing()) return band_.tell(kNothingTicked);
  const QString path =
      askTarget(QString::fromUtf8(exporter.label.data(), static_cast<qsizetype>(exporter.label.size())),
                QString::fromUtf8(exporter.suffix.data(), static_cast<qsizetype>(exporter.suffix.size())));
  if (path.isEmpty()) return;
  if (exporter.kind == FileKind::Pdf && exporter.ofPieces) notePaper();
  writeTo(path, exporter);
}

void OrderFiles::writeTo(const QString& path, const Exporter& exporter, bool force) {
  const Replacing target{path.toStdString(), exporter.kind};
  std::vector<std::filesystem::path> inputs;
  if (!session_.path().empty()) inputs.emplace_back(session_.path());
  if (const auto problem = whyNotWritten(target, inputs, force)) {
    if (whyNotWritten(target, inputs, true)) return band_.tell(*problem);
    return band_.ask({words(msg("{}: {}.", problem->where, problem->what)), "Write over it",
                      [this, path, &exporter] { writeTo(path, exporter, true); }});
  }
  // Drafted anew: what is written does not depend on the way the order came to be, not even in the last figure.
  const Result<Design> fresh = recalc(session_.order());
  const Design* design = fresh.ok() ? &*fresh : session_.whole();
  const std::string bytes = exporter.make(session_.order(), design, session_.printWishes());
  const auto problem = writeFileAtomically(target.path, bytes, exporter.readers);
  band_.tell(problem ? QString::fromStdString(problem->text()) : "Written: " + path);
}

void OrderFiles::print() {
  if (!session_.design() || session_.problem()) return tellNoPattern();
  if (session_.printsNothing()) return band_.tell(kNothingTicked);
  const PrintPlan plan(session_.order(), *session_.whole(), session_.printWishes());
  QPrinter printer(QPrinter::HighResolution);
  if (const QString last = remembered_.printer(); remembers_ && QPrinterInfo::availablePrinterNames().contains(last))
    printer.setPrinterName(last);
  printer.setPageLayout(QPageLayout(QPageSize(QSizeF(plan.pageWidth(), plan.pageHeight()), QPageSize::Millimeter),
                                    QPageLayout::Portrait, QMarginsF()));
  printer.setFullPage(true);
  // Nothing between here and the paper may make it smaller: an option of CUPS, under the number that Qt's own dialog
  // hands such options on by (PPK_CupsOptions); other systems leave it alone.
  constexpr auto kCupsOptions = static_cast<QPrintEngine::PrintEnginePropertyKey>(0xfe00);
  printer.printEngine()->setProperty(kCupsOptions, QStringList{"print-scaling", "none"});
  printer.setFromTo(1, plan.pages());
  QPrintDialog dialog(&printer, &window_);
  dialog.setMinMax(1, plan.pages());
  if (dialog.exec() != QDialog::Accepted) return;
  if (remembers_) remembered_.setPrinter(printer.printerName());
  notePaper();
  QPainter painter;
  if (!painter.begin(&printer))
    return band_.tell("The printer could not be started; choose another one, or write a PDF.");
  const auto [first, last] = std::pair(printer.fromPage() > 0 ? printer.fromPage() : 1,
                                       printer.toPage() > 0 ? std::min(printer.toPage(), plan.pages()) : plan.pages());
  for (int page = first - 1; page < last; ++page) {
    if (page >= first) printer.newPage();
    painter.save();
    painter.scale(printer.logicalDpiX() / kMmPerInch, printer.logicalDpiY() / kMmPerInch);
    plan.draw(painter, page);
    painter.restore();
  }
  band_.tell("Sent to the printer: measure a test square before cutting.");
}

// Unsaved work stands in the menu until it is saved, or thrown away here.
void OrderFiles::addKeptWork(QMenu& menu) {
  const std::vector<Recovered> kept = autosave_.kept();
  if (kept.empty()) return;
  menu.addSeparator();
  QMenu* away = nullptr;
  for (const Recovered& r : kept) menu.addAction("Not saved: " + keptName(r), this, [this, r] { takeUp(r); });
  away = menu.addMenu("Throw away what is not saved");
  for (const Recovered& r : kept) away->addAction(keptName(r), this, [r] { Autosave::forget(r); });
}

void OrderFiles::offerRecovery() {
  const std::vector<Recovered> kept = autosave_.kept();
  if (kept.empty()) return;
  const Recovered& r = kept.front();
  const QString title = r.title.empty() ? "an untitled order" : QString("\"%1\"").arg(QString::fromStdString(r.title));
  QString text = QString("Unsaved work on %1 was kept on %2.").arg(title, QString::fromStdString(r.time));
  if (!r.fault.empty())
    text += QString(" It cannot be read (%1); it lies in %2.")
                .arg(QString::fromStdString(r.fault), QString::fromStdString(r.file));
  if (kept.size() > 1) text += QString(" %1 more in the menu of orders.").arg(kept.size() - 1);
  band_.ask({text, "Take it up", [this, r] { takeUp(r); }});
}

void OrderFiles::takeUp(const Recovered& kept) {
  if (!kept.fault.empty())
    return band_.tell(QString("It cannot be read: %1. It lies in %2.")
                          .arg(QString::fromStdString(kept.fault), QString::fromStdString(kept.file)));
  if (const auto order = parseOrder(kept.text, "the work that was kept"); !order.ok())
    return band_.tell(QString("%1. It lies in %2.")
                          .arg(QString::fromStdString(order.problem().text()), QString::fromStdString(kept.file)));
  const std::string before = session_.order().title;
  const bool wasSaved = session_.isSaved();
  if (!makeRoom()) return;
  session_.recover(kept.text, kept.path);
  // The work is kept again under this run's name before the old copy goes.
  if (autosave_.writeNow()) Autosave::forget(kept);
  band_.tell(QString());
  lockOrTell();
  if (!wasSaved) offerWayBack(before);
}

bool OrderFiles::makeRoom() {
  if (autosave_.setAside()) return true;
  band_.tell("What is not saved could not be kept, so this order stays open. Save it first. " + band_.message());
  return false;
}

void OrderFiles::offerWayBack(const std::string& title) {
  const auto kept = autosave_.kept();
  const auto left = std::find_if(kept.begin(), kept.end(), [&](const Recovered& r) { return r.title == title; });
  if (left == kept.end()) return;
  const QString name = title.empty() ? "The order" : QString("\"%1\"").arg(QString::fromStdString(title));
  band_.ask({name + " is not saved; it is kept, and stands in the menu of orders.", "Back to it",
             [this, r = *left] { takeUp(r); }});
}

void OrderFiles::lockOrTell() {
  if (lock_.take(QString::fromStdString(session_.path()))) return;
  session_.setForReading(true);
  band_.tell("This order is open in another window. Here it can be read; what you change is saved under another name.");
}

void OrderFiles::fillMenu(QMenu& menu) {
  menu.clear();
  menu.addAction("New order", this, &OrderFiles::newOrder);
  menu.addAction("Open …", this, &OrderFiles::askOpen);
  menu.addAction("Read measures (CSV) …", this, &OrderFiles::askImport);
  menu.addAction("Save as …", this, &OrderFiles::askSaveAs);
  QAction* drafted = menu.addAction("New orders begin as drafted, not balanced");
  drafted->setCheckable(true);
  drafted->setChecked(readPreferences().newOrdersAsDrafted);
  connect(drafted, &QAction::toggled, this, [this](bool on) {
    if (const auto problem = writePreferences({on})) band_.tell(*problem);
  });
  addKeptWork(menu);
  addRecent(menu);
}

QStringList OrderFiles::ofLate() const {
  QStringList all = remembers_ ? remembered_.recent() : QStringList();
  if (session_.path().empty()) return all;
  const QDir folder = QFileInfo(QString::fromStdString(session_.path())).absoluteDir();
  for (const QFileInfo& info : folder.entryInfoList({"*.armure"}, QDir::Files, QDir::Name))
    if (!all.contains(info.absoluteFilePath())) all << info.absoluteFilePath();
  return all;
}

void OrderFiles::addRecent(QMenu& menu) {
  constexpr qsizetype kInMenu = 20;
  const QStringList all = ofLate();
  if (all.isEmpty()) return;
  menu.addSeparator();
  for (const QString& path : all.mid(0, kInMenu)) {
    QAction* order = menu.addAction(QFileInfo(path).completeBaseName(), this, [this, path] { openFile(path); });
    order->setToolTip(path);
  }
  menu.setToolTipsVisible(true);
  menu.addSeparator();
  menu.addAction("All orders …", this, &OrderFiles::askRecent);
}

void OrderFiles::askRecent() {
  OrdersDialog dialog(ofLate(), &window_);
  if (dialog.exec() == QDialog::Accepted) openFile(dialog.chosen());
}

}  // namespace armure
