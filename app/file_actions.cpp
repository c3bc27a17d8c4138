// app/file_actions.cpp
//
// The window's dealings with files and the printer: asking where, doing it, saying what went wrong.
#include <QFileDialog>
#include <QFileInfo>
#include <QPrintDialog>
#include <QPrinter>

#include "app/main_window.h"
#include "io/atomic_file.h"
#include "render/print_plan.h"

namespace armure {

void MainWindow::openFile(const QString& path) {
  // Nothing is left for a file that cannot be opened.
  if (const auto file = readOrder(path.toStdString()); !file.ok()) return showProblem(file.problem());
  const std::string before = session_.order().title;
  const bool wasSaved = session_.isSaved();
  if (!makeRoom()) return;
  if (const auto problem = session_.open(path.toStdString())) return showProblem(*problem);
  question_.reset();
  showMessage({});
  lockOrTell();
  if (!wasSaved) offerWayBack(before);
  if (stages_->stage() == Stage::Client) client_->begin();
}

void MainWindow::newOrder() {
  const std::string before = session_.order().title;
  const bool wasSaved = session_.isSaved();
  if (!makeRoom()) return;
  session_.startNew(readPreferences().choicesOfNew());
  lock_.take({});
  question_.reset();
  showMessage({});
  if (!wasSaved) offerWayBack(before);
  client_->begin();
}

void MainWindow::askOpen() {
  const QString path =
      QFileDialog::getOpenFileName(this, "Open an order", QFileInfo(QString::fromStdString(session_.path())).path(),
                                   "Orders (*.armure);;All files (*)");
  if (!path.isEmpty()) openFile(path);
}

void MainWindow::askImport() {
  const QString path = QFileDialog::getOpenFileName(this, "Read measures", {}, "Measures (*.csv);;All files (*)");
  if (path.isEmpty()) return;
  if (const auto problem = session_.importMeasures(path.toStdString())) return showProblem(*problem);
  showMessage({});
}

void MainWindow::save() {
  if (session_.path().empty()) return askSaveAs();
  if (session_.isForReading()) {
    if (!lock_.take(QString::fromStdString(session_.path()))) return askSaveAs();
    session_.setForReading(false);  // the other window is gone
  }
  saveTo(QString::fromStdString(session_.path()), true);
}

// To its own file an order is always written; elsewhere it does not write over a file of another kind unasked.
void MainWindow::saveTo(const QString& path, bool force) {
  if (const auto problem = whyNotWritten({path.toStdString(), FileKind::Order}, {}, force)) {
    if (whyNotWritten({path.toStdString(), FileKind::Order}, {}, true)) return showProblem(*problem);
    return ask({QString::fromStdString(problem->where + ": " + problem->what) + ".", "Write over it",
                [this, path] { saveTo(path, true); }});
  }
  if (!lock_.take(path)) {
    lock_.take(session_.isForReading() ? QString() : QString::fromStdString(session_.path()));
    return showMessage("That order is open in another window: choose another name. Nothing was written.");
  }
  const OrderSession::Saving saving = session_.save(path.toStdString());
  if (saving.problem) return showProblem(*saving.problem);
  autosave_.writeNow();
  showMessage(saving.keptBeside.empty()
                  ? QString()
                  : "The file had been changed by another program since it was opened. What stood there is kept in " +
                        QFileInfo(QString::fromStdString(saving.keptBeside)).fileName() + ".");
}

QString MainWindow::askTarget(const QString& what, const QString& suffix) {
  const QString beside = session_.path().empty()
                             ? QString::fromStdString(session_.order().title)
                             : QFileInfo(QString::fromStdString(session_.path())).path() + "/" +
                                   QFileInfo(QString::fromStdString(session_.path())).completeBaseName();
  QString path = QFileDialog::getSaveFileName(this, what, beside + suffix, QString("*%1").arg(suffix));
  if (!path.isEmpty() && QFileInfo(path).suffix().isEmpty()) path += suffix;
  return path;
}

void MainWindow::askSaveAs() {
  const QString path = askTarget("Save the order", ".armure");
  if (!path.isEmpty()) saveTo(path, path.toStdString() == session_.path());
}

void MainWindow::exportAs(const Exporter& exporter) {
  if (exporter.needsPattern && (!session_.design() || session_.problem()))
    return showProblem(session_.problem().value_or(Problem{"", "there is no pattern yet", "give bust, waist and hip"}));
  const QString path =
      askTarget(QString::fromUtf8(exporter.label.data(), static_cast<qsizetype>(exporter.label.size())),
                QString::fromUtf8(exporter.suffix.data(), static_cast<qsizetype>(exporter.suffix.size())));
  if (!path.isEmpty()) writeTo(path, exporter);
}

void MainWindow::writeTo(const QString& path, const Exporter& exporter, bool force) {
  const Replacing target{path.toStdString(), exporter.kind};
  std::vector<std::filesystem::path> inputs;
  if (!session_.path().empty()) inputs.emplace_back(session_.path());
  if (const auto problem = whyNotWritten(target, inputs, force)) {
    if (whyNotWritten(target, inputs, true)) return showProblem(*problem);
    return ask({QString::fromStdString(problem->where + ": " + problem->what) + ".", "Write over it",
                [this, path, &exporter] { writeTo(path, exporter, true); }});
  }
  // Drafted anew: what is written does not depend on the way the order came to be, not even in the last figure.
  const Result<Design> fresh = recalc(session_.order());
  const Design* design = fresh.ok() ? &*fresh : session_.design();
  const std::string bytes = exporter.make(session_.order(), design, session_.rule("paper.size").option);
  const auto problem = writeFileAtomically(target.path, bytes, exporter.readers);
  showMessage(problem ? QString::fromStdString(problem->text()) : "Written: " + path);
}

void MainWindow::print() {
  if (!session_.design() || session_.problem())
    return showProblem(session_.problem().value_or(Problem{"", "there is no pattern yet", "give bust, waist and hip"}));
  const PrintPlan plan(session_.order(), *session_.design(), session_.rule("paper.size").option);
  QPrinter printer(QPrinter::HighResolution);
  printer.setPageLayout(QPageLayout(QPageSize(QSizeF(plan.pageWidth(), plan.pageHeight()), QPageSize::Millimeter),
                                    QPageLayout::Portrait, QMarginsF()));
  printer.setFullPage(true);
  QPrintDialog dialog(&printer, this);
  if (dialog.exec() != QDialog::Accepted) return;
  QPainter painter;
  if (!painter.begin(&printer))
    return showMessage("The printer could not be started; choose another one, or write a PDF.");
  for (int page = 0; page < plan.pages(); ++page) {
    if (page > 0) printer.newPage();
    painter.save();
    painter.scale(printer.logicalDpiX() / kMmPerInch, printer.logicalDpiY() / kMmPerInch);
    plan.draw(painter, page);
    painter.restore();
  }
  showMessage("Sent to the printer: measure a test square before cutting.");
}

}  // namespace armure
