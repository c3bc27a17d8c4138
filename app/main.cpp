// app/main.cpp
//
// armure [FILE] [--demo] [--dark] [--drawing SVG] [--picture FILE [--stage client|block|...|fit] [--view
// VIEW]]
//
// --demo opens the demo orders, from a copy of one's own. --picture saves a picture of the window and ends; it serves
// the documentation and machines without a display.
#include <QApplication>
#include <QCommandLineParser>
#include <QDir>
#include <QFileInfo>
#include <QListWidget>
#include <QStandardPaths>
#include <QTimer>
#include <cstdio>
#include <functional>

#include "app/cutting_table.h"
#include "app/main_window.h"
#include "app/session_end.h"
#include "app/shipped_files.h"
#include "app/tracing_dialog.h"
#include "io/plain_numerals.h"
#include "io/version.h"
#include "quotable.h"

namespace {

// The demo orders are copied to the user's own folder once, so that saving never touches the program's files.
QString demoFolder() {
  const QString own = QStandardPaths::writableLocation(QStandardPaths::GenericDataLocation) + "/armure/demo";
  QDir().mkpath(own);
  const QDir source(armure::shippedFolder("demo"));
  for (const QFileInfo& info : source.entryInfoList({"*.armure", "*.armure-base"}, QDir::Files))
    if (!QFileInfo::exists(own + "/" + info.fileName())) QFile::copy(info.filePath(), own + "/" + info.fileName());
  return own;
}

// The demo has a client book of its own, filled from its measurement lists; the user's own is not touched.
void useDemoBook(armure::MainWindow& window) {
  std::vector<std::string> lists;
  for (const QFileInfo& info : QDir(armure::shippedFolder("demo")).entryInfoList({"*.csv"}, QDir::Files, QDir::Name))
    lists.push_back(info.filePath().toStdString());
  window.records().setFile((demoFolder() + "/clients.sqlite").toStdString());
  window.records().fillFrom(lists);
}

// What escapes from an event must not end the program with the work unsaved.
class Application : public QApplication {
 public:
  using QApplication::QApplication;
  bool notify(QObject* receiver, QEvent* event) override {
    try {
      return QApplication::notify(receiver, event);
    } catch (const std::exception& e) {
      if (onFault) onFault(QString::fromStdString(armure::quotable(e.what())));
      return true;
    }
  }
  std::function<void(const QString&)> onFault;
};

void arrange(armure::MainWindow& window, const QString& stage, const QString& view) {
  using namespace armure;
  for (int i = 0; i < kStages; ++i)
    if (stage.compare(stageName(static_cast<Stage>(i)), Qt::CaseInsensitive) == 0)
      window.stages().setStage(static_cast<Stage>(i));
  if (view == "book" || view == "dates")
    window.pages().setPage(view == "book" ? ClientPage::Book : ClientPage::TwoDates);
  if (view == "pattern") window.showTable(true);
  if (view == "block") window.table().setMode(TableMode::OnTheBlock);
  if (view == "apart") window.table().setMode(TableMode::Apart);
  if (view == "taped") window.table().setMode(TableMode::Taped);
  if (view == "combs") window.table().setCombs(true);
  if (view == "shelf") window.showShelf(true);
  if (view == "shifts") window.showShifts();
  if (view == "cups") {
    window.showCups();
    window.onBody().canvas().look(kFromTheSide / 3);
  }
  if (view.startsWith("body")) {  // body, body-pressure, body-standoff
    window.showOnBody(true);
    if (view == "body-pressure") {
      window.onBody().setColour(ClothColour::Pressure);
      window.onBody().canvas().look(kFromTheSide + 0.5);
    }
    if (view == "body-standoff") window.onBody().setColour(ClothColour::StandOff);
  }
  if (view == "walk") {
    window.session().select({.seam = "side"});
    window.walker().setFocus();
    window.walker().setFinger(38);
  }
  if (view == "sheet") {
    auto* rows = window.findChild<QListWidget*>("sheet");
    rows->setCurrentRow(0);
    emit rows->itemActivated(rows->item(0));
  }
  if (view == "layers") window.showCut();
  if (view == "cloth") window.showCloth();
  if (view == "rails") {
    window.rails().setFocus();
    window.rails().stand("waist", "princess");
  }
}

}  // namespace

int main(int argc, char** argv) {
  const std::string version(armure::programVersion());
  if (argc == 2 && (argv[1] == std::string_view("--version") || argv[1] == std::string_view("-v"))) {
    std::printf("armure %s\n", version.c_str());  // needs no display
    return 0;
  }
  Application app(argc, argv);
  armure::usePlainNumerals();
  QApplication::setApplicationName("armure");
  QApplication::setApplicationVersion(QString::fromStdString(version));
  QGuiApplication::setDesktopFileName("armure");
  QApplication::setWindowIcon(QIcon::fromTheme("armure"));
  QApplication::setStyle("Fusion");
  if (!armure::loadFonts()) std::fprintf(stderr, "armure: the built-in font could not be read\n");
  app.setFont(armure::uiFont());

  QCommandLineParser parser;
  parser.setApplicationDescription("Drafts boned bodices from measurements.");
  parser.addHelpOption();
  parser.addVersionOption();
  parser.addPositionalArgument("file", "an order to open", "[file]");
  const QCommandLineOption demo("demo", "open the demo orders"), dark("dark", "start dark");
  const QCommandLineOption picture("picture", "save a picture of the window and end", "file"),
      stage("stage", "stage to show", "stage"),
      view("view",
           "block, apart, taped, combs, rails, walk, sheet, shelf, shifts, cups, layers, cloth, cutting-table, body, "
           "body-pressure or body-standoff; of the client: book, dates or pattern",
           "view"),
      select("select", "key of the working to show", "key");
  const QCommandLineOption drawing("drawing", "an SVG or DXF to be named and kept as a base", "file");
  parser.addOptions({demo, dark, picture, stage, view, select, drawing});
  parser.process(app);

  armure::MainWindow window;
  app.onFault = [&window](const QString& what) { window.tellFault(what); };
  const armure::SessionEnd end([&window] { window.keepWork(); });
  // Demos and pictures are the same for everyone.
  if (!parser.isSet(demo) && !parser.isSet(picture)) window.recall(parser.positionalArguments().isEmpty());
  if (parser.isSet(dark)) window.setDark(true);
  if (!parser.positionalArguments().isEmpty()) {
    window.openFile(parser.positionalArguments().first());
  } else if (parser.isSet(demo)) {
    const QFileInfoList orders = QDir(demoFolder()).entryInfoList({"*.armure"}, QDir::Files, QDir::Name);
    if (!orders.isEmpty()) window.openFile(orders.first().filePath());
  }
  if (parser.isSet(demo)) useDemoBook(window);
  if (!parser.isSet(picture)) window.offerRecovery();
  window.show();
  arrange(window, parser.value(stage), parser.value(view));
  if (parser.isSet(select)) {
    const std::string key = parser.value(select).toStdString();
    window.session().select({.working = key});
    if (key.starts_with("measure.")) window.client().goTo(key.substr(8));
  }
  QWidget* shown = &window;
  if (parser.isSet(drawing))
    if (QWidget* dialog = window.readDrawing(parser.value(drawing))) shown = dialog;
  if (parser.value(view) == "cutting-table")
    if (QWidget* table = window.showCuttingTable()) shown = table;
  if (parser.isSet(picture)) {
    constexpr int kDrawn = 900, kTriedOn = 3000;  // ms
    const bool tries =
        parser.value(view).startsWith("body") || parser.value(view) == "cups" || parser.value(view) == "cloth";
    QTimer::singleShot(tries ? kTriedOn : kDrawn, &app, [&] {
      const bool done = shown->grab().save(parser.value(picture));
      if (!done)
        std::fprintf(stderr, "armure: %s: the picture cannot be written; choose another folder\n",
                     qPrintable(parser.value(picture)));
      QApplication::exit(done ? 0 : 2);
    });
  }
  return QApplication::exec();
}
