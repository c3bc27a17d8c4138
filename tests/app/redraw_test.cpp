// What is drawn again after a change is what changed, and nothing on screen is left from before: the screen itself is
// read, beside the same window drawn as a whole.
#include <QLabel>
#include <QListWidget>
#include <QScreen>
#include <QTimer>
#include <QtTest/QTest>
#include <catch2/catch.hpp>

#include "app/main_window.h"
#include "app/sheet_panel.h"
#include "app/workings_panel.h"
#include "parts/cups/depth.h"
#include "render/words.h"
#include "tests/support/bodies.h"

using namespace armure;
using namespace armure::testing;

namespace {

void shown(MainWindow& window, Stage stage) {
  QApplication::setCursorFlashTime(0);  // what blinks differs from picture to picture
  window.resize(1280, 800);
  window.show();
  REQUIRE(QTest::qWaitForWindowExposed(&window));
  window.activateWindow();
  window.openFile(QString::fromStdString(sourceDir()) + "/demo/2-lamp-room.armure");
  window.stages().setStage(stage);
  QTest::qWait(60);
}

// The screen once it has come to rest: idle choices are named after a pause; one round paints, another lets what was
// laid out anew move a scroll bar, and a busy machine needs more of them.
QImage onScreen(MainWindow& window) {
  const QTimer& pause = *window.findChild<WorkingsPanel*>()->findChild<QTimer*>();
  REQUIRE(QTest::qWaitFor([&] { return !pause.isActive(); }));
  constexpr int kStill = 5, kMost = 100;
  QImage last;
  for (int round = 0, still = 0; round < kMost && still < kStill; ++round) {
    QTest::qWait(20);
    const QImage now = window.screen()->grabWindow(window.winId()).toImage().convertToFormat(QImage::Format_RGB32);
    still = now == last ? still + 1 : 0;
    last = now;
  }
  return last;
}

QImage onScreenDrawnAsAWhole(MainWindow& window) {
  for (QWidget* w : window.findChildren<QWidget*>()) w->update();
  window.update();
  return onScreen(window);
}

int differing(const QImage& a, const QImage& b) {
  REQUIRE(a.size() == b.size());
  int count = 0;
  for (int y = 0; y < a.height(); ++y)
    for (int x = 0; x < a.width(); ++x) count += a.pixel(x, y) != b.pixel(x, y);
  return count;
}

// Every row of the list beside the row of the sheet it stands for.
void checkRows(MainWindow& window) {
  const std::vector<CheckRow>& rows = window.session().design()->sheet.rows;
  const QListWidget& list = *window.findChild<SheetPanel*>()->list();
  REQUIRE(list.count() == static_cast<int>(rows.size()));
  for (int i = 0; i < list.count(); ++i) {
    const CheckRow& r = rows[static_cast<size_t>(i)];
    const bool fails = r.fails();
    INFO(i << ": " << r.subject);
    CHECK(list.item(i)->data(Qt::AccessibleTextRole).toString().startsWith(words(r.subject)));
    CHECK(list.visualItemRect(list.item(i)).height() == (fails ? 48 : 24));
  }
}

}  // namespace

TEST_CASE("after dragged lines, cups and units the screen shows what a whole drawing would") {
  struct Step {
    Stage stage;
    const char *style, *key, *value;
  };
  MainWindow window;
  shown(window, Stage::Lines);
  for (const Step& s : {Step{Stage::Lines, "plunge-v-cups", "top.plunge", "2 in"},
                        {Stage::Lines, "covered-square", "neck.depth_front", "5 in"},
                        {Stage::Cups, "gathered-cup", "gather.gap", "2 in"},
                        {Stage::Cups, "straight-skirt", "dial.side", "0.4"}}) {
    INFO(s.style << ", " << s.key);
    window.session().setStyle(s.style);
    window.stages().setStage(s.stage);
    const QImage before = onScreen(window);
    window.session().setChoice(s.key, s.value);
    const QImage after = onScreen(window);
    CHECK(differing(before, after) > 100);  // it did change
    CHECK(differing(after, onScreenDrawnAsAWhole(window)) == 0);
  }
  window.session().toggleUnits();
  const QImage after = onScreen(window);
  CHECK(differing(after, onScreenDrawnAsAWhole(window)) == 0);
}

TEST_CASE("when the table was zoomed, going to another way of laying the pieces leaves nothing behind") {
  MainWindow window;
  shown(window, Stage::Lines);
  QTest::keyClick(&window.table(), Qt::Key_Plus);
  QTest::keyClick(&window.table(), Qt::Key_Plus);
  window.session().setChoice("hem.length", "6 in");
  CHECK(differing(onScreen(window), onScreenDrawnAsAWhole(window)) == 0);
  window.table().setMode(TableMode::Apart);
  CHECK(differing(onScreen(window), onScreenDrawnAsAWhole(window)) == 0);
  QTest::keyClick(&window.table(), Qt::Key_Minus);
  QTest::keyClick(&window.table(), Qt::Key_0);
  CHECK(differing(onScreen(window), onScreenDrawnAsAWhole(window)) == 0);
}

TEST_CASE("the balance sheet's rows follow the design, in words and in height") {
  MainWindow window;
  shown(window, Stage::Balance);
  window.session().setChoice("balance.keep", "drafted");
  window.session().settle();
  checkRows(window);
  const int failing = static_cast<int>(window.session().design()->sheet.failing());
  CHECK(failing > 0);
  window.session().setChoice("balance.keep", "balanced");
  CHECK(window.session().design()->sheet.failing() == 0);
  checkRows(window);
  window.session().setChoice("top.plunge", "1 in");
  window.session().setStyle("plunge-net-yoke");
  checkRows(window);
  window.session().undo();
  window.session().undo();
  window.session().undo();
  CHECK(static_cast<int>(window.session().design()->sheet.failing()) == failing);
  checkRows(window);
}

TEST_CASE("how deep the cup is follows the draft and the body at once") {
  MainWindow window;
  shown(window, Stage::Cups);
  const auto check = [&] {
    const Design& d = *window.session().design();
    const CupDepth fresh = cupDepth(d.block, BodyForm(d.body));
    const auto* words = window.findChild<QLabel*>("depthWords");
    REQUIRE(words);
    CHECK(words->text().toStdString() == say(depthInWords(fresh), window.session().order().units));
    const QString holds = QString("Holds %1 ml, the breast %2 ml")
                              .arg(fresh.patternVolume / 1000, 0, 'f', 0)
                              .arg(fresh.bodyVolume / 1000, 0, 'f', 0);
    const auto labels = window.findChildren<QLabel*>();
    CHECK(std::any_of(labels.begin(), labels.end(), [&](const QLabel* l) { return l->text().startsWith(holds); }));
  };
  check();
  const std::array<std::pair<const char*, const char*>, 3> choices{
      {{"dart.side", "2 in"}, {"cup.kind", "three"}, {"cup.kind", "moulded"}}};
  for (const auto& [key, value] : choices) {
    window.session().setChoice(key, value);
    check();
  }
  for (const auto& [measure, text] :
       {std::pair{"bust", "42"}, {"shoulder_to_underbust", "14 1/2"}, {"bust_span", "8"}}) {
    window.session().setMeasure(measure, text);
    check();
  }
  window.session().undo();
  check();
}
