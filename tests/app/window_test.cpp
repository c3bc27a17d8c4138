// The real window under a display, driven by mouse and keys as a person would.
#include <QComboBox>
#include <QLineEdit>
#include <QListWidget>
#include <QPushButton>
#include <QTemporaryDir>
#include <QTextEdit>
#include <QtTest/QTest>
#include <catch2/catch.hpp>

#include "app/value_row.h"
#include "tests/app/driver.h"

using namespace armure;
using namespace armure::testing;

namespace {

struct Driver : ShownWindow {
  explicit Driver(const QString& file = {}) {
    if (!file.isEmpty()) window.openFile(file);
    settle();
  }
  QLineEdit* field(const QString& name) {
    auto* found = window.findChild<QLineEdit*>(name);
    REQUIRE(found != nullptr);
    return found;
  }
  // Clicks into a field, replaces what stands there, key by key.
  void type(const QString& name, const QString& text) {
    QLineEdit* f = field(name + ".field");
    QTest::mouseClick(f, Qt::LeftButton);
    QTest::keySequence(f, QKeySequence::SelectAll);
    if (text.isEmpty()) QTest::keyClick(f, Qt::Key_Delete);
    QTest::keyClicks(f, text);
  }
  void clickTable(QPointF mm) {
    QTest::mouseClick(&window.table(), Qt::LeftButton, Qt::NoModifier, window.table().toScreen(mm).toPoint());
  }
  const Design& design() { return *window.session().design(); }
};

QString demo(const char* name) { return QString::fromStdString(sourceDir()) + "/demo/" + name + ".armure"; }

// Dark pixels of the table in a column round a point: where a line is drawn.
bool isInk(const QImage& picture, QPointF at) {
  for (int dx = -1; dx <= 1; ++dx)
    for (int dy = -1; dy <= 1; ++dy)
      if (qGray(picture.pixel(at.toPoint() + QPoint(dx, dy))) < 110) return true;
  return false;
}

}  // namespace

TEST_CASE("a new waist is typed and the side seam moves on the table, key by key") {
  Driver d(demo("1-ferry"));
  const auto sideOnTable = [&] {
    const HalfLevel& waist = d.design().block.front.at("waist");
    return QPointF(waist.side, waist.y + 25);  // below the handle
  };
  const QPointF before =
      d.window.table().toScreen({d.design().block.sideBelowDart.xAtDepth(sideOnTable().y()), sideOnTable().y()});
  CHECK(isInk(d.window.table().grab().toImage(), before));
  const double was = d.design().block.front.at("waist").side;
  d.type("waist", "29 1/2");
  CHECK(d.design().block.front.at("waist").side - was == Approx(inches(3.5 / 4)).margin(1e-6));
  const QPointF after =
      d.window.table().toScreen({d.design().block.sideBelowDart.xAtDepth(sideOnTable().y()), sideOnTable().y()});
  const QImage picture = d.window.table().grab().toImage();
  CHECK(isInk(picture, after));
  CHECK(std::abs(after.x() - before.x()) > 3);
}

TEST_CASE("a text in the making changes nothing until it can be read, and says why") {
  Driver d(demo("1-ferry"));
  const double was = *d.window.session().order().measures.mm("waist");
  d.type("waist", "9 1/");
  CHECK(*d.window.session().order().measures.mm("waist") == was);
  auto* row = d.window.findChild<ValueRow*>("waist");
  bool said = false;
  for (QLabel* label : row->findChildren<QLabel*>())
    said = said || (label->isVisible() && label->text().contains("not a length"));
  CHECK(said);
  d.type("hip", "37");  // leaving the field puts the old text back
  CHECK(d.field("waist.field")->text() == "26");
}

TEST_CASE("saved, reopened: the same pattern; undone to the start") {
  const QTemporaryDir folder;
  const QString path = folder.filePath("ferry.armure");
  REQUIRE(QFile::copy(demo("1-ferry"), path));
  QFile::setPermissions(path, QFile::ReadOwner | QFile::WriteOwner);
  Driver d(path);
  const Order start = d.window.session().order();
  d.type("waist", "27 1/4");
  d.type("bust", "35");
  CHECK_FALSE(d.window.session().isSaved());
  QTest::keyClick(&d.window.table(), Qt::Key_S, Qt::ControlModifier);
  CHECK(d.window.session().isSaved());
  {
    Driver again(path);
    CHECK(again.window.session().order() == d.window.session().order());
    for (size_t i = 0; i < again.design().pattern.pieces.size(); ++i)
      for (size_t k = 0; k < 4; ++k) {
        // Balanced from another start; what is written to files is drafted anew, see the next check.
        const Path &a = again.design().pattern.pieces[i].edges[k].path, &b = d.design().pattern.pieces[i].edges[k].path;
        CHECK(distance(a.start(), b.start()) < 1e-4);
        CHECK(distance(a.pointAt(a.length() / 2), b.pointAt(b.length() / 2)) < 1e-4);
      }
  }
  d.window.activateWindow();
  REQUIRE(QTest::qWaitForWindowActive(&d.window));
  for (int i = 0; i < 10 && d.window.session().canUndo(); ++i)
    QTest::keyClick(&d.window.table(), Qt::Key_Z, Qt::ControlModifier);
  CHECK(d.window.session().order() == start);
  CHECK(d.field("waist.field")->text() == "26");
}

TEST_CASE("undo works on the order, also from within a field") {
  Driver d(demo("1-ferry"));
  const Order start = d.window.session().order();
  d.type("waist", "28 3/8");
  CHECK(d.field("waist.field")->text() == "28 3/8");
  for (int i = 0; i < 10 && d.window.session().canUndo(); ++i)
    QTest::keyClick(d.field("waist.field"), Qt::Key_Z, Qt::ControlModifier);
  CHECK(d.window.session().order() == start);
  CHECK(d.field("waist.field")->text() == "26");
  d.type("waist", "70 cm");  // another unit than the order's, as typed until the field is left
  CHECK(d.field("waist.field")->text() == "70 cm");
  CHECK(*d.window.session().order().measures.mm("waist") == Approx(700));
  QTest::keyClick(d.field("waist.field"), Qt::Key_Return);
  CHECK(d.field("waist.field")->text() == "27 9/16");
}

TEST_CASE("Enter goes from measure to measure; a client is entered by keys alone") {
  Driver d;
  QLineEdit* upper = d.field("upper_bust.field");
  upper->setFocus();
  for (const char* value : {"33", "34 1/2", "29 1/2", "26", "33", "37"}) {
    QWidget* now = QApplication::focusWidget();
    REQUIRE(now != nullptr);
    QTest::keyClicks(now, value);
    QTest::keyClick(now, Qt::Key_Return);
  }
  REQUIRE(d.window.session().design() != nullptr);
  CHECK(*d.window.session().order().measures.mm("hip") == Approx(inches(37)));
  CHECK(d.field("shoulder_to_bust.field")->placeholderText().contains(QStringLiteral("±")));
}

TEST_CASE("a click on a handle shows its arithmetic; one on an edge, its seam") {
  Driver d(demo("2-lamp-room"));
  d.window.stages().setStage(Stage::Block);
  const HalfLevel& waist = d.design().block.front.at("waist");
  d.clickTable({waist.side, waist.y});
  CHECK(d.window.session().selection().working == "front.waist.side");
  CHECK(d.window.findChild<QTextEdit*>("workings")->toPlainText().contains("finished quarter"));
  QTest::mouseClick(&d.window.stages(), Qt::LeftButton, Qt::NoModifier,
                    d.window.stages().stageRect(Stage::Prepare).center());
  CHECK(d.window.table().mode() == TableMode::Apart);
  const TableScene& scene = d.window.table().scene();
  const Path& edge = d.design().pattern.pieces[1].edge("side").path;
  d.clickTable(scene.place(d.design(), "front-2", edge.pointAt(edge.length() * 0.4)));
  CHECK(d.window.session().selection().seam == "side");
  CHECK(d.window.findChild<QTextEdit*>("workings")->toPlainText().contains("piece 2 joins piece 3"));
}

TEST_CASE("a row of the balance sheet leads to its spot") {
  Driver d(demo("2-lamp-room"));
  auto* list = d.window.findChild<QListWidget*>("sheet");
  d.window.session().setChoice("balance.keep", "drafted");
  REQUIRE(list->count() > 20);
  QTest::mouseClick(list->viewport(), Qt::LeftButton, Qt::NoModifier, list->visualItemRect(list->item(0)).center());
  REQUIRE(d.window.session().selection().row);
  CHECK(*d.window.session().selection().row == 0);
  CHECK(d.window.table().mode() != TableMode::OnTheBlock);
  CHECK(d.window.findChild<QTextEdit*>("workings")->toPlainText().contains("To mend it"));
}

TEST_CASE("one key switches the units, but not while typing") {
  Driver d(demo("1-ferry"));
  d.window.table().setFocus();
  QTest::keyClick(&d.window.table(), Qt::Key_U);
  CHECK(d.window.session().order().units.unit == Unit::Centimetre);
  CHECK(d.field("waist.field")->text() == "66.0");
  QTest::keyClick(&d.window.table(), Qt::Key_U);
  CHECK(d.field("waist.field")->text() == "26");
  QLineEdit* title = d.field("client");
  QTest::mouseClick(title, Qt::LeftButton);
  QTest::keyClicks(title, "Ursula");
  CHECK(d.window.session().order().units.unit == Unit::Inch);
  CHECK(d.window.session().order().client.find("Ursula") != std::string::npos);
}

TEST_CASE("the cautions stand beside a reduction, and only there") {
  Driver d(demo("1-ferry"));
  d.window.stages().setStage(Stage::Block);
  auto* reduction = d.window.findChild<QWidget*>("reduction");
  CHECK_FALSE(reduction->isVisible());
  d.type("reduction.waist", "1");
  CHECK(reduction->isVisible());
  bool said = false;
  for (QLabel* label : reduction->findChildren<QLabel*>()) said = said || label->text().contains("no medical advice");
  CHECK(said);
}

TEST_CASE("where the reduction is not chosen its cautions are one line, all of them a click away") {
  Driver d(demo("2-lamp-room"));
  const auto said = [&] {
    for (QLabel* label : d.window.findChild<QWidget*>("reduction")->findChildren<QLabel*>())
      if (label->isVisible() && label->text().contains("no medical advice")) return true;
    return false;
  };
  auto* more = d.window.findChild<QPushButton*>("cautionsMore");
  for (const Stage stage : {Stage::Block, Stage::Shape}) {
    d.window.stages().setStage(stage);
    CHECK(said());
    CHECK_FALSE(more->isVisible());
  }
  for (const Stage stage : {Stage::Lines, Stage::Balance, Stage::Prepare}) {
    d.window.stages().setStage(stage);
    REQUIRE(more->isVisible());
    CHECK_FALSE(said());
    QTest::mouseClick(more, Qt::LeftButton);
    CHECK(said());
    QTest::mouseClick(more, Qt::LeftButton);
    CHECK_FALSE(said());
    QTest::mouseClick(more, Qt::LeftButton);  // it closes with the stage
  }
}

TEST_CASE("lines are chosen on the tray: style, hem, opening") {
  Driver d(demo("1-ferry"));
  d.window.stages().setStage(Stage::Lines);
  auto* style = d.window.findChild<QComboBox*>("style");
  style->setFocus();
  QTest::keyClick(style, Qt::Key_Home);
  CHECK(d.window.session().rule("top.shape").option == "sweetheart");
  auto* opening = d.window.findChild<QComboBox*>("opening.kind");
  opening->setFocus();
  QTest::keyClick(opening, Qt::Key_Home);
  QTest::keyClick(opening, Qt::Key_Down);
  CHECK(d.design().block.gapOn("waist") == Approx(inches(2)));
  CHECK(d.field("opening.gap.field")->isVisible());
  d.type("opening.gap", "3");
  CHECK(d.design().block.gapOn("waist") == Approx(inches(3)));
}

TEST_CASE("the wheel zooms about the pointer, a drag moves the paper, 0 shows all") {
  Driver d(demo("1-ferry"));
  TableView& table = d.window.table();
  const QPointF at(300, 400);
  const double before = table.scaleDenominator();
  QWheelEvent wheel(at, table.mapToGlobal(at), {}, {0, 240}, Qt::NoButton, Qt::NoModifier, Qt::NoScrollPhase, false);
  QApplication::sendEvent(&table, &wheel);
  CHECK(table.scaleDenominator() < before);
  const QPointF was = table.toScreen({0, 0});
  QTest::mousePress(&table, Qt::LeftButton, Qt::NoModifier, {300, 400});
  QTest::mouseMove(&table, {320, 410});
  QTest::mouseMove(&table, {360, 430});
  QTest::mouseRelease(&table, Qt::LeftButton, Qt::NoModifier, {360, 430});
  CHECK((table.toScreen({0, 0}) - was - QPointF(60, 30)).manhattanLength() < 2);
  table.setFocus();
  QTest::keyClick(&table, Qt::Key_0);
  CHECK(table.scaleDenominator() == Approx(before));
}

TEST_CASE("a broken file is refused in the band and the order stays") {
  const QTemporaryDir folder;
  const QString path = folder.filePath("cut.armure");
  QFile file(path);
  REQUIRE(file.open(QFile::WriteOnly));
  file.write(QByteArray::fromStdString(readText(demo("1-ferry").toStdString())).left(700));
  file.close();
  Driver d(demo("1-ferry"));
  const Order before = d.window.session().order();
  d.window.openFile(path);
  CHECK(d.window.bandText().contains("breaks off"));
  CHECK(d.window.session().order() == before);
}

TEST_CASE("light and dark, every stage and view can be drawn") {
  Driver d(demo("3-harbour-wall"));
  for (bool dark : {false, true}) {
    d.window.setDark(dark);
    for (int stage = 0; stage < kStages; ++stage) {
      d.window.stages().setStage(static_cast<Stage>(stage));
      const QImage picture = d.window.grab().toImage();
      CHECK(picture.width() >= 1280);
      CHECK((qGray(picture.pixel(640, 500)) < 128) == dark);
    }
  }
}

TEST_CASE("each stage shows what its row of the table says") {
  Driver d(demoFile("1-ferry"));
  for (int i = 0; i < kStages; ++i) {
    const auto stage = static_cast<Stage>(i);
    const StageInfo& info = infoOf(stage);
    INFO(info.name);
    d.window.stages().setStage(stage);
    d.window.showTable(true);
    CHECK(d.window.table().mode() == info.mode);
    CHECK(d.window.rails().isVisible() == (info.strip == Strip::Rails));
    CHECK(d.window.walker().isVisible() == (info.strip == Strip::Walker));
    const auto shows = [&](Ink ink) {
      const auto& items = d.window.table().scene().items;
      return std::any_of(items.begin(), items.end(), [&](const SceneItem& item) { return item.mark == ink; });
    };
    CHECK(shows(Ink::Moved) == info.moves);
  }
}

TEST_CASE("a choice is found by its name from any stage, and its field is ready to be typed in") {
  ShownWindow d;
  d.window.openFile(demoFile("1-ferry"));
  d.window.stages().setStage(Stage::Prepare);
  QTest::keySequence(&d.window, QKeySequence::Find);
  auto* finder = qobject_cast<QLineEdit*>(QApplication::focusWidget());
  REQUIRE(finder);
  CHECK(finder->objectName() == "finder");
  QTest::keyClicks(finder, "back line, waist");
  QTest::keyClick(finder, Qt::Key_Return);
  QTest::qWait(150);
  CHECK(d.window.stages().stage() == Stage::Shape);
  auto* field = qobject_cast<QLineEdit*>(QApplication::focusWidget());
  INFO((QApplication::focusWidget() ? QApplication::focusWidget()->metaObject()->className() : "nothing"));
  REQUIRE(field);
  CHECK(field->objectName() == "back.intake_waist.field");
  QTest::keyClicks(field, "1 1/4");
  CHECK(d.order().choices.at("back.intake_waist") == "1 1/4 in");
  // One that does not count beside the other choices says with what it would.
  QTest::keySequence(&d.window, QKeySequence::Find);
  finder = qobject_cast<QLineEdit*>(QApplication::focusWidget());
  REQUIRE(finder);
  QTest::keyClicks(finder, "sweetheart dip");
  QTest::keyClick(finder, Qt::Key_Return);
  QTest::qWait(150);
  CHECK(d.window.stages().stage() == Stage::Lines);
  CHECK(d.window.bandText().contains("top.shape = sweetheart"));
}
