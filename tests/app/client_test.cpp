// The stage Client in the real window: measures entered by keys alone, by the tape, on the figure; the client book.
#include <QApplication>
#include <QComboBox>
#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QProcess>
#include <QPushButton>
#include <QTableWidget>
#include <QTemporaryDir>
#include <QTextEdit>
#include <QtTest/QTest>
#include <catch2/catch.hpp>

#include "app/main_window.h"
#include "io/measurement_csv.h"
#include "measure/takings.h"
#include "tests/support/bodies.h"

using namespace armure;
using namespace armure::testing;

namespace {

std::string list(const char* name) { return sourceDir() + "/demo/" + name + ".csv"; }

struct Hand {
  MainWindow window;
  Hand() {
    window.show();
    REQUIRE(QTest::qWaitForWindowExposed(&window));
    window.activateWindow();
    REQUIRE(QTest::qWaitForWindowActive(&window));
  }
  template <typename Widget = QPushButton>
  Widget* find(const QString& name) {
    auto* found = window.findChild<Widget*>(name);
    INFO(name.toStdString());
    REQUIRE(found != nullptr);
    return found;
  }
  // Keys go where the focus is: nothing is clicked, nothing is set.
  void keys(const QString& text) { QTest::keyClicks(QApplication::focusWidget(), text); }
  void enter() { QTest::keyClick(QApplication::focusWidget(), Qt::Key_Return); }
  std::string focused() { return QApplication::focusWidget()->objectName().toStdString(); }
  void type(const QString& name, const QString& text) {
    auto* field = find<QLineEdit>(name);
    field->setFocus();
    QTest::keySequence(field, QKeySequence::SelectAll);
    QTest::keyClicks(field, text);
  }
  QString shownUnder(const QString& row) {
    QStringList all;
    for (QLabel* label : find<MeasureRow>(row)->findChildren<QLabel*>())
      if (label->isVisible()) all << label->text();
    return all.join(" | ");
  }
  QPushButton* button(const QString& accessibleName) {
    for (QPushButton* b : window.findChildren<QPushButton*>())
      if (b->accessibleName() == accessibleName || b->text() == accessibleName) return b;
    FAIL("no button " << accessibleName.toStdString());
    return nullptr;
  }
  void press(QPushButton* b) { QTest::mouseClick(b, Qt::LeftButton); }
  const MeasureSet& measures() { return window.session().order().measures; }
};

void checkSame(const MeasureSet& made, const MeasureSet& wanted) {
  CHECK(made.all().size() == wanted.all().size());
  for (const auto& [id, m] : wanted.all()) {
    INFO(id);
    REQUIRE(made.has(id));
    CHECK(*made.mm(id) == Approx(m.mm).margin(0.051));
  }
}

// The stand-in for a tape, played through its standard input.
struct Tape {
  QTemporaryDir folder;
  QProcess program;
  QString socket = folder.filePath("tape");
  explicit Tape(const QStringList& arguments = {}) { start(arguments); }
  ~Tape() { stop(); }
  void start(const QStringList& arguments = {}) {
    program.start(ARMURE_TAPE_PROGRAM, QStringList{"--socket", socket} + arguments);
    REQUIRE(program.waitForReadyRead(20000));
  }
  void stop() {
    program.kill();
    program.waitForFinished(10000);
  }
  void say(const QByteArray& line) { program.write(line + "\n"); }
};

}  // namespace

TEST_CASE("the 20 measures of a demo client are entered by keys alone, in one go") {
  const MeasurementFile client = *readMeasurements(list("thomasin-autumn"));
  REQUIRE(client.measures.all().size() == 20);
  Hand hand;
  // The hand rests on the keys from the start: title, client, date, then the measures.
  for (const std::string& text : {std::string("Act I, the ferry"), client.client, client.date}) {
    hand.keys(QString::fromStdString(text));
    hand.enter();
  }
  for (const MeasureInfo* info : measuresInTapeOrder()) {
    REQUIRE(hand.focused() == std::string(info->id) + ".field");
    CHECK(QApplication::focusWidget()->visibleRegion().boundingRect().height() > 15);  // the tray has scrolled to it
    CHECK(hand.window.session().selection().working == "measure." + std::string(info->id));
    if (const TakenMeasure* m = client.measures.find(info->id))
      hand.keys(QString::fromStdString(m->typed.substr(0, m->typed.rfind(' '))));
    if (info != measuresInTapeOrder().back()) hand.enter();
  }
  checkSame(hand.measures(), client.measures);
  CHECK(hand.window.session().order().client == client.client);
  CHECK(hand.window.session().order().date == client.date);
  CHECK(hand.window.session().design() != nullptr);
  CHECK(hand.window.session().openQuestions() == 0);
}

TEST_CASE("a client in centimetres, with units and commas typed as they come") {
  const MeasurementFile client = *readMeasurements(list("perpetua-autumn"));
  Hand hand;
  hand.type("upper_bust.field", "");
  for (const MeasureInfo* info : measuresInTapeOrder()) {
    if (const TakenMeasure* m = client.measures.find(info->id)) hand.keys(QString::fromStdString(m->typed));
    if (info != measuresInTapeOrder().back()) hand.enter();
  }
  checkSame(hand.measures(), client.measures);
  QTest::keyClick(QApplication::focusWidget(), Qt::Key_Up);
  hand.window.session().toggleUnits();
  CHECK(hand.find<QLineEdit>("shoulder_to_bust.field")->text() == "27.5");
}

TEST_CASE("the same 20 measures by the digital tape") {
  const MeasurementFile client = *readMeasurements(list("thomasin-autumn"));
  Tape tape;
  qputenv("ARMURE_TAPE", tape.socket.toLocal8Bit());
  Hand hand;
  for (int i = 0; i < 3; ++i) hand.enter();  // past title, client and date
  hand.window.client().tape().link().start();
  REQUIRE(
      QTest::qWaitFor([&] { return hand.window.client().tape().link().state() == TapeLink::State::Connected; }, 5000));
  CHECK(hand.find<QLabel>("tapeState")->text() == "Tape: Workroom tape");
  for (const MeasureInfo* info : measuresInTapeOrder()) {
    REQUIRE(hand.focused() == std::string(info->id) + ".field");
    const TakenMeasure* m = client.measures.find(info->id);
    if (!m) {  // not measured on this client: on to the next by key
      if (info != measuresInTapeOrder().back()) QTest::keyClick(QApplication::focusWidget(), Qt::Key_Down);
      continue;
    }
    tape.say(QByteArray::fromStdString(m->typed));
    REQUIRE(QTest::qWaitFor([&] { return hand.measures().has(info->id); }, 5000));
  }
  checkSame(hand.measures(), client.measures);
  CHECK(hand.window.session().design() != nullptr);
}

TEST_CASE("a tape that serves a list by itself fills field after field") {
  QTemporaryDir folder;
  const QString csv = folder.filePath("girths.csv");
  QFile file(csv);
  REQUIRE(file.open(QFile::WriteOnly));
  file.write(
      "measure,value,unit\nupper_bust,33,in\nbust,36,in\nunderbust,30,in\nwaist,28,in\nhigh_hip,35,in\nhip,38,in\n");
  file.close();
  Tape tape({"--from", csv, "--every", "5"});
  Hand hand;
  for (int i = 0; i < 3; ++i) hand.enter();
  hand.window.client().tape().link().start(tape.socket);
  REQUIRE(QTest::qWaitFor([&] { return hand.measures().all().size() == 6; }, 8000));
  CHECK(*hand.measures().mm("hip") == Approx(inches(38)));
  CHECK(hand.focused() == "shoulder_to_chest.field");
}

TEST_CASE("late, double, noisy and impossible readings are shown and write nothing; a lost tape is found again") {
  Tape tape;
  Hand hand;
  TapeStrip& strip = hand.window.client().tape();
  const auto message = [&] {
    QStringList all;
    for (QLabel* label : strip.findChildren<QLabel*>()) all << label->text();
    return all.join(" | ");
  };
  const auto until = [&](const char* text) {
    const bool came = QTest::qWaitFor([&] { return message().contains(text); }, 6000);
    INFO(message().toStdString() << " should say " << text);
    REQUIRE(came);
  };
  hand.window.client().goTo("waist");
  strip.link().start(tape.socket);
  until("Tape: Workroom tape");
  tape.say("26 in");
  REQUIRE(QTest::qWaitFor([&] { return hand.measures().has("waist"); }, 5000));
  CHECK(hand.focused() == "high_hip.field");

  tape.say("");  // the last reading once more
  until("came twice");
  tape.say("garbage");
  until("nothing was read");
  tape.say("late 33 in");
  until("10 seconds ago");
  CHECK(hand.measures().all().size() == 1);
  hand.press(hand.button("Use the late reading"));
  CHECK(*hand.measures().mm("high_hip") == Approx(inches(33)));
  CHECK(hand.focused() == "hip.field");
  tape.say("3 in");
  until("cannot be right");
  CHECK_FALSE(hand.measures().has("hip"));
  CHECK(hand.focused() == "hip.field");  // one stays where one stands

  tape.say("drop");
  until("Workroom tape");
  tape.stop();
  until("lost");
  CHECK(hand.measures().all().size() == 2);
  tape.start();
  until("Tape: Workroom tape");
  tape.say("37 in");
  REQUIRE(QTest::qWaitFor([&] { return hand.measures().has("hip"); }, 5000));
  hand.window.client().goTo("weight");
  tape.say("37 in");
  until("weight is not taken with the tape");
  hand.press(hand.button("Digital tape"));
  until("off");
}

TEST_CASE("going back to a measure with the tape takes it again") {
  Tape tape;
  Hand hand;
  hand.window.client().goTo("waist");
  hand.window.client().tape().link().start(tape.socket);
  tape.say("26 in");
  REQUIRE(QTest::qWaitFor([&] { return hand.focused() == "high_hip.field"; }, 5000));
  QTest::keyClick(QApplication::focusWidget(), Qt::Key_Up);
  tape.say("26 1/2 in");
  REQUIRE(QTest::qWaitFor([&] { return hand.measures().find("waist")->takings.size() == 2; }, 5000));
  CHECK(hand.shownUnder("waist").contains("taken 2 times, 1/2 apart"));
  QTest::keyClick(QApplication::focusWidget(), Qt::Key_Z, Qt::ControlModifier);
  CHECK(hand.measures().find("waist")->takings.empty());
}

TEST_CASE("several takings: the spread is shown, and mean or last is chosen by key") {
  Hand hand;
  hand.type("waist.field", "26; 26 3/8;26 1/4");
  CHECK(*hand.measures().mm("waist") == Approx(inches(26.25)));
  CHECK(hand.shownUnder("waist").contains("taken 3 times, 3/8 apart"));
  QPushButton* use = hand.button("Waist, which taking counts");
  REQUIRE(use->isVisible());
  use->setFocus();
  QTest::keyClick(use, Qt::Key_Space);
  CHECK(*hand.measures().mm("waist") == Approx(inches((26 + 26.375 + 26.25) / 3)));
  CHECK(use->text().startsWith("mean"));
  hand.type("waist.field", "26");
  CHECK_FALSE(use->isVisible());
}

TEST_CASE("a question stands at its field while one types, blocks nothing, and goes with its reason") {
  Hand hand;
  REQUIRE_FALSE(hand.window.session().importMeasures(list("thomasin-autumn")));
  CHECK(hand.window.session().openQuestions() == 0);
  hand.type("hip.field", "73");  // 37
  CHECK(hand.shownUnder("hip").contains("Question: "));
  CHECK(hand.shownUnder("hip").contains("were two digits swapped? it would be 37 in"));
  CHECK(QApplication::activeModalWidget() == nullptr);
  CHECK(hand.find<QLabel>("findings")->text().contains("digits swapped"));
  hand.type("hip.field", "37");
  CHECK_FALSE(hand.shownUnder("hip").contains("Question"));
  hand.type("shoulder_to_bust.field", "15");
  CHECK(hand.shownUnder("shoulder_to_bust").contains("Contradiction: Shoulder to bust 15 in is not less than"));
  CHECK(hand.shownUnder("shoulder_to_underbust").contains("Contradiction: "));  // it stands at both
  emit hand.find<QLabel>("findings")->linkActivated("shoulder_to_underbust");
  CHECK(hand.focused() == "shoulder_to_underbust.field");
}

TEST_CASE("a click on a measure of the figure goes to its field, and the field lights it up") {
  Hand hand;
  REQUIRE_FALSE(hand.window.session().importMeasures(list("odalys-autumn")));
  FigureView& figure = hand.window.pages().figure();
  for (const char* id : {"hip", "waist", "shoulder_to_bust", "back_waist_length", "side_length", "wrist", "stature"}) {
    const auto place = figure.placeOf(id);
    REQUIRE(place);
    QTest::mouseClick(&figure, Qt::LeftButton, Qt::NoModifier, place->toPoint());
    CHECK(hand.focused() == std::string(id) + ".field");
    const QImage picture = figure.grab().toImage();
    const QColor lit = picture.pixelColor(place->toPoint());
    INFO(id << ": " << lit.name().toStdString());
    CHECK(lit.blue() > lit.red() + 30);  // the working colour
  }
  const auto before = figure.grab().toImage();
  hand.type("waist.field", "38");
  CHECK(figure.grab().toImage() != before);  // the body has changed
}

TEST_CASE("bust and cup: the figure, its thresholds and the bra size follow the measures") {
  Hand hand;
  REQUIRE_FALSE(hand.window.session().importMeasures(list("thomasin-autumn")));
  auto* findings = hand.find<QLabel>("findings");
  CHECK(findings->text().contains("<b>small bust</b>"));
  CHECK(findings->text().contains("75 A"));  // 87.6 less 74.9 cm
  CHECK(findings->text().contains("orientation"));
  hand.type("bust.field", "39");
  CHECK(findings->text().contains("<b>full bust, from 5</b>"));
  hand.type("upper_bust.field", "35");
  CHECK(findings->text().contains("<b>medium bust, from 2 1/2</b>"));
}

TEST_CASE("estimates stand in the fields with their spread, and in the workings with their source") {
  Hand hand;
  for (const auto& [id, text] : {std::pair{"bust", "36"}, {"waist", "28"}, {"hip", "38"}, {"stature", "66"}})
    REQUIRE_FALSE(hand.window.session().setMeasure(id, text));
  const QString shown = hand.find<QLineEdit>("high_hip.field")->placeholderText();
  CHECK(shown.contains(QStringLiteral("±")));
  hand.window.client().goTo("high_hip");
  const QString workings = hand.find<QTextEdit>("workings")->toPlainText();
  for (const char* text : {"High hip, estimated", "x hip", "regression on 130 women", "Journal of Statistics Education",
                           "one standard deviation"})
    CHECK(workings.contains(text));
}

TEST_CASE("the client book: kept, kept again under another date, compared, used, deleted") {
  QTemporaryDir folder;
  const std::string file = folder.filePath("clients.sqlite").toStdString();
  Hand hand;
  hand.window.records().setFile(file);
  hand.press(hand.button("Keep in the client book"));
  CHECK(hand.window.bandText().contains("no name"));
  REQUIRE_FALSE(hand.window.session().importMeasures(list("odalys-spring")));
  CHECK(hand.find<QLabel>("recordState")->text() == "Not in the client book");
  hand.press(hand.button("Keep in the client book"));
  CHECK(hand.find<QLabel>("recordState")->text() == "As in the client book");
  const BookReference first = hand.window.session().order().book;
  REQUIRE_FALSE(hand.window.session().importMeasures(list("odalys-autumn")));
  CHECK(hand.find<QLabel>("recordState")->text() == "Not as in the client book");
  hand.press(hand.button("Keep in the client book"));
  const BookReference second = hand.window.session().order().book;
  CHECK(second.client == first.client);
  CHECK(second.set != first.set);

  QTest::keyClick(&hand.window.table(), Qt::Key_K);
  auto* clients = hand.find<QListWidget>("clients");
  auto* sets = hand.find<QListWidget>("sets");
  REQUIRE(clients->count() == 1);
  REQUIRE(sets->count() == 2);
  CHECK(sets->item(0)->text().contains("in this order"));

  hand.press(hand.find("compareSet"));
  auto* table = hand.find<QTableWidget>("compared");
  REQUIRE(table->isVisible());
  CHECK(hand.find<QComboBox>("firstDate")->currentText() == "2026-03-03");
  CHECK(hand.find<QComboBox>("secondDate")->currentText() == "2026-09-15");
  bool waist = false;
  for (int row = 0; row < table->rowCount(); ++row)
    if (table->item(row, 0)->text() == "Waist") {
      waist = true;
      CHECK(table->item(row, 1)->text() == "29 7/8");
      CHECK(table->item(row, 2)->text() == "31");
      CHECK(table->item(row, 3)->text() == "+1 1/8");
      CHECK(table->item(row, 3)->font().bold());
    }
  CHECK(waist);

  QTest::keyClick(&hand.window.table(), Qt::Key_K);
  sets->setCurrentRow(1);
  hand.press(hand.find("useSet"));
  CHECK(hand.window.session().order().date == "2026-03-03");
  CHECK(*hand.measures().mm("waist") == Approx(inches(29.875)));
  CHECK(hand.window.session().order().book == first);

  // Another name is another person, or a slip: never silently the one in the book.
  hand.type("client", "Somebody Else");
  hand.press(hand.button("Keep in the client book"));
  CHECK(hand.window.bandText().contains("belong to Odalys Brackenmoor, in this order to Somebody Else"));
  CHECK(clients->count() == 1);
  clients->item(0)->setText("Odalys B.");  // renamed in the book, and so in her order
  CHECK(hand.window.session().order().client == "Odalys B.");
  CHECK(sets->count() == 2);
  REQUIRE_FALSE(hand.window.session().importMeasures(list("thomasin-autumn")));
  CHECK(hand.window.session().order().book == BookReference{});  // another client's list
  hand.window.session().undo();

  auto* remove = hand.find("deleteSet");
  sets->setCurrentRow(0);
  hand.press(remove);
  CHECK(remove->text().contains("2026-09-15 goes for good"));
  CHECK(sets->count() == 2);  // not yet
  hand.press(remove);
  CHECK(sets->count() == 1);
  auto* removeClient = hand.find("deleteClient");
  hand.press(removeClient);
  hand.press(removeClient);
  CHECK(clients->count() == 0);
  CHECK(readText(file).find("Odalys") == std::string::npos);
  // The order stands on its own copy.
  CHECK(*hand.measures().mm("waist") == Approx(inches(29.875)));
  CHECK(hand.window.session().design() != nullptr);
}

TEST_CASE("a standard size starts a client, every measure of it marked as not taken on her") {
  QTemporaryDir folder;
  Hand hand;
  hand.window.records().setFile(folder.filePath("clients.sqlite").toStdString());
  QTest::keyClick(&hand.window.table(), Qt::Key_K);
  hand.find<QComboBox>("standardSize")->setCurrentIndex(6);
  hand.press(hand.find("useStandard"));
  CHECK(*hand.measures().mm("bust") == 1000);
  CHECK(hand.measures().find("hip")->note == "standard size, not taken on the client");
  CHECK(hand.window.session().design() != nullptr);
}

TEST_CASE("a book that cannot be opened is said in the band, and the order goes on") {
  QTemporaryDir folder;
  const QString path = folder.filePath("clients.sqlite");
  QFile file(path);
  REQUIRE(file.open(QFile::WriteOnly));
  file.write(QByteArray(2000, 'x'));
  file.close();
  Hand hand;
  REQUIRE_FALSE(hand.window.session().importMeasures(list("thomasin-autumn")));
  hand.window.records().setFile(path.toStdString());
  hand.press(hand.button("Keep in the client book"));
  CHECK(hand.window.bandText().contains("could not open the book"));
  CHECK(hand.window.session().order().book == BookReference{});
  CHECK(hand.window.session().design() != nullptr);
}
