// app/file_actions.cpp
//
// The window's dealings with files and the printer: asking where, doing it, saying what went wrong.
#include <QFileDialog>
#include <QFileInfo>
#include <QPrintDialog>
#include <QPrinter>

#include "app/main_window.h"
#include "io/atomic_file.h"
#include "io/measurement_csv.h"
#include "io/pieces_json.h"
#include "io/svg.h"
#include "render/print_plan.h"

namespace armure {

void MainWindow::openFile(const QString& path) {
  autosave_.writeNow();
  if (const auto problem = session_.open(path.toStdString())) return showProblem(*problem);
  showMessage({});
  if (stages_->stage() == Stage::Client) client_->begin();
}

void MainWindow::newOrder() {
  autosave_.writeNow();
  session_.startNew();
  showMessage({});
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
  if (const auto problem = session_.save(session_.path())) return showProblem(*problem);
  autosave_.writeNow();
  showMessage({});
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
  if (path.isEmpty()) return;
  if (const auto problem = session_.save(path.toStdString())) return showProblem(*problem);
  autosave_.writeNow();
  showMessage({});
}

namespace {

// Writes what `make` gives for the present design; explains why not when there is none.
template <typename Make>
std::optional<Problem> writeDesign(const OrderSession& session, const QString& path, const Make& make) {
  if (!session.design() || session.problem())
    return session.problem().value_or(Problem{"", "there is no pattern yet", "give bust, waist and hip"});
  return writeFileAtomically(path.toStdString(), make(session.order(), *session.design()));
}

}  // namespace

void MainWindow::exportSvg() {
  const QString path = askTarget("Pattern as SVG", ".svg");
  if (path.isEmpty()) return;
  const auto problem = writeDesign(session_, path, patternSvg);
  showMessage(problem ? QString::fromStdString(problem->text()) : "Written: " + path);
}

void MainWindow::exportPieces() {
  const QString path = askTarget("Pieces as JSON", ".json");
  if (path.isEmpty()) return;
  const auto problem = writeDesign(session_, path, piecesJson);
  showMessage(problem ? QString::fromStdString(problem->text()) : "Written: " + path);
}

void MainWindow::exportPdf() {
  const QString path = askTarget("Pattern as PDF", ".pdf");
  if (path.isEmpty()) return;
  const auto problem = writeDesign(session_, path, [this](const Order& order, const Design& design) {
    return pdfBytes(PrintPlan(order, design, session_.rule("paper.size").option), order.title);
  });
  showMessage(problem ? QString::fromStdString(problem->text()) : "Written: " + path);
}

void MainWindow::exportMeasures() {
  const QString path = askTarget("Measures as CSV", ".csv");
  if (path.isEmpty()) return;
  const Order& order = session_.order();
  const auto problem =
      writeFileAtomically(path.toStdString(), writeMeasurements(order.measures, order.client, order.date));
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
