// The rails and the guides in the real window: dragged with the mouse, worked by keys alone, undone, kept in the file.
#include <QPushButton>
#include <QTemporaryDir>
#include <QtTest/QTest>
#include <catch2/catch.hpp>

#include "tests/app/driver.h"

using namespace armure;
using namespace armure::testing;

namespace {

struct Driver : ShownWindow {
  explicit Driver(const std::string& style = "shaping-two-lines") {
    window.openFile(demoFile("1-ferry"));
    window.session().setStyle(style);
    window.session().settle();
    window.stages().setStage(Stage::Shape);
    settle();
  }
  RailsView& rails() { return window.rails(); }

  size_t railOf(const std::string& level) {
    for (size_t r = 0; r < rails().rails().size(); ++r)
      if (rails().rails()[r].level == level) return r;
    FAIL("no rail " << level);
    return 0;
  }
  size_t gapOf(size_t rail, const std::string& line) {
    const auto& gaps = rails().rails()[rail].gaps;
    for (size_t g = 0; g < gaps.size(); ++g)
      if (gaps[g].line == line) return g;
    FAIL("no gap " << line);
    return 0;
  }
  const RailGap& gap(const std::string& level, const std::string& line) {
    const size_t r = railOf(level);
    return rails().rails()[r].gaps[gapOf(r, line)];
  }
  QPoint sideOf(const std::string& level, const std::string& line, bool towardsBack) {
    const size_t r = railOf(level);
    const RailGap& g = gap(level, line);
    return QPointF(rails().places().x(towardsBack ? g.to : g.from), rails().places().strip(r).center().y()).toPoint();
  }
  // Presses, moves in steps as a hand does, lets go.
  void drag(QWidget& widget, QPoint from, QPoint to) {
    QTest::mousePress(&widget, Qt::LeftButton, Qt::NoModifier, from);
    for (int i = 1; i <= 5; ++i) QTest::mouseMove(&widget, from + (to - from) * i / 5);
    QTest::mouseRelease(&widget, Qt::LeftButton, Qt::NoModifier, to);
  }
  void key(Qt::Key k, Qt::KeyboardModifiers with = Qt::NoModifier) { QTest::keyClick(&rails(), k, with); }
};

}  // namespace

TEST_CASE("a gap's side is dragged: it is held, the others give, the end stays; a double click gives it back") {
  Driver d;
  const double before = d.gap("waist", "princess").taken, other = d.gap("waist", "front-line-2").taken;
  const double girth = d.design().block.levels.at("waist").finishedGirth;
  const size_t waist = d.railOf("waist");
  const double end = d.rails().places().strip(waist).right();
  const QImage table = d.window.table().grab().toImage();

  const QPoint side = d.sideOf("waist", "princess", true);
  d.drag(d.rails(), side, side + QPoint(12, 0));
  const double moved = 12 * d.rails().places().mmPerPixel();
  CHECK(d.gap("waist", "princess").held);
  CHECK(d.gap("waist", "princess").taken - before == Approx(moved).margin(1.7));  // to a sixteenth, and a pixel
  CHECK(d.gap("waist", "front-line-2").taken < other);
  CHECK(d.design().block.levels.at("waist").finishedGirth == girth);
  CHECK(d.rails().places().strip(waist).right() == Approx(end));
  CHECK(d.order().choices.contains("hold.waist.princess"));
  CHECK(d.window.table().grab().toImage() != table);  // live on the table

  QTest::mouseDClick(&d.rails(), Qt::LeftButton, Qt::NoModifier, d.sideOf("waist", "princess", true));
  CHECK_FALSE(d.gap("waist", "princess").held);
  CHECK(d.gap("waist", "princess").taken == Approx(before).margin(1e-6));
}

TEST_CASE("one drag is one step of undo") {
  Driver d;
  const Order before = d.order();
  const QPoint side = d.sideOf("waist", "back-line", false);
  d.drag(d.rails(), side, side + QPoint(-6, 0));
  CHECK(d.order().choices.contains("hold.waist.back-line"));
  const Order after = d.order();
  QTest::keyClick(&d.rails(), Qt::Key_Z, Qt::ControlModifier);
  CHECK(d.order() == before);
  QTest::keyClick(&d.rails(), Qt::Key_Z, Qt::ControlModifier | Qt::ShiftModifier);
  CHECK(d.order() == after);
}

TEST_CASE("the knob of the girth is dragged: the waist closes to less, and the cautions stand beside it") {
  Driver d;
  d.window.session().setChoice("reduction.waist", "0");
  d.window.session().settle();
  const size_t waist = d.railOf("waist");
  const double girth = d.rails().rails()[waist].finishedGirth;
  auto* reduction = d.window.findChild<QWidget*>("reduction");
  CHECK_FALSE(reduction->isVisible());
  const QPoint knob = QPointF(d.rails().places().markX(waist), d.rails().places().strip(waist).top() - 4).toPoint();
  d.drag(d.rails(), knob, knob + QPoint(-20, 0));
  CHECK(girth - d.rails().rails()[waist].finishedGirth == Approx(40 * d.rails().places().mmPerPixel()).margin(3.5));
  CHECK(d.order().choices.contains("reduction.waist"));
  CHECK(reduction->isVisible());
  bool cautioned = false;
  for (QLabel* label : reduction->findChildren<QLabel*>())
    cautioned = cautioned || label->text().contains("unless a doctor has said yes");
  CHECK(cautioned);
}

TEST_CASE("by keys alone: to a gap, more and less, a number, held, given back, a level more, its height, and away") {
  Driver d;
  QTest::keyClick(&d.window, Qt::Key_R);
  REQUIRE(d.rails().hasFocus());
  for (int i = 0; i < 8; ++i) d.key(Qt::Key_Up);
  while (d.rails().rails()[d.rails().stop().rail].level != "waist") d.key(Qt::Key_Down);
  for (int i = 0; i < 12; ++i) d.key(Qt::Key_Left);
  CHECK(d.rails().stop() == RailStop{d.railOf("waist"), RailStop::Kind::Gap, 0});
  CHECK(d.window.session().selection().working == "front.waist.side");

  const double before = d.gap("waist", "princess").taken;
  d.key(Qt::Key_Plus);
  d.key(Qt::Key_Plus);
  CHECK(d.gap("waist", "princess").taken - before == Approx(inches(0.25)).margin(1.7));
  d.key(Qt::Key_Minus);
  CHECK(d.gap("waist", "princess").taken - before == Approx(inches(0.125)).margin(1.7));
  d.key(Qt::Key_Delete);
  CHECK(d.gap("waist", "princess").taken == Approx(before).margin(1e-6));
  d.key(Qt::Key_H);
  CHECK(d.gap("waist", "princess").held);
  CHECK(d.gap("waist", "princess").taken == Approx(before).margin(0.02));
  d.key(Qt::Key_H);
  CHECK_FALSE(d.gap("waist", "princess").held);

  // A number typed on the gap, mixed units and all.
  auto* editor = d.rails().findChild<QLineEdit*>("railNumber");
  d.key(Qt::Key_3);
  REQUIRE(editor->isVisible());
  QTest::keyClicks(editor, "/4 in");
  QTest::keyClick(editor, Qt::Key_Return);
  CHECK_FALSE(editor->isVisible());
  CHECK(d.gap("waist", "princess").taken == Approx(inches(0.75)).margin(1e-6));
  d.key(Qt::Key_Return);
  QTest::keyClicks(editor, "9");
  QTest::keyClick(editor, Qt::Key_Escape);
  CHECK(d.gap("waist", "princess").taken == Approx(inches(0.75)).margin(1e-6));

  // The girth at the end of the rail.
  for (int i = 0; i < 12; ++i) d.key(Qt::Key_Right);
  CHECK(d.rails().stop().kind == RailStop::Kind::Girth);
  d.key(Qt::Key_2);
  QTest::keyClicks(editor, "4 1/2");
  QTest::keyClick(editor, Qt::Key_Return);
  CHECK(d.design().block.levels.at("waist").finishedGirth == Approx(inches(24.5)).margin(0.02));

  // A level more, moved, and away again.
  const size_t rails = d.rails().rails().size();
  d.key(Qt::Key_N);
  REQUIRE(d.rails().rails().size() == rails + 1);
  CHECK(d.rails().stop() == RailStop{d.railOf("ribs"), RailStop::Kind::Height, 0});
  d.key(Qt::Key_2);
  QTest::keyClick(editor, Qt::Key_Return);
  CHECK(d.order().choices.at("rail.ribs") == "2 in");
  d.key(Qt::Key_Right);
  d.key(Qt::Key_Plus);
  CHECK(d.order().choices.contains("hold.ribs.princess"));
  d.key(Qt::Key_Delete, Qt::ShiftModifier);
  CHECK(d.rails().rails().size() == rails);
  for (const auto& choice : d.order().choices) CHECK(choice.first.find("ribs") == std::string::npos);
}

TEST_CASE("what cannot be drafted is refused with words, and nothing has changed") {
  Driver d;
  d.window.session().setChoice("intake.centre_share", "0.5");  // half of 8 in is more than the centre front has
  d.window.session().settle();
  const Order before = d.order();
  QTest::keyClick(&d.window, Qt::Key_R);
  while (d.rails().rails()[d.rails().stop().rail].level != "waist") d.key(Qt::Key_Down);
  for (int i = 0; i < 12; ++i) d.key(Qt::Key_Left);
  auto* editor = d.rails().findChild<QLineEdit*>("railNumber");
  d.key(Qt::Key_8);
  QTest::keyClick(editor, Qt::Key_Return);
  CHECK(d.order().choices == before.choices);
  CHECK(d.window.bandText().contains("wide there"));
  d.key(Qt::Key_9);
  QTest::keyClick(editor, Qt::Key_Return);
  CHECK(d.window.bandText().contains("give a length between"));
  CHECK(d.order().choices == before.choices);
}

TEST_CASE("everything held is given back at once; held values are kept in the file") {
  Driver d;
  const QTemporaryDir folder;
  const std::string path = folder.filePath("held.armure").toStdString();
  for (const char* line : {"princess", "back-line", "front-side"}) {
    const QPoint side = d.sideOf("waist", line, std::string(line) != "front-side");
    d.drag(d.rails(), side, side + QPoint(-3, 0));
  }
  REQUIRE(d.rails().anythingHeld());
  REQUIRE_FALSE(d.window.session().save(path).problem);
  {
    OrderSession again;
    REQUIRE_FALSE(again.open(path));
    CHECK(again.warnings().empty());
    CHECK(again.order() == d.order());
  }
  QPushButton* back = nullptr;
  for (QPushButton* b : d.window.findChildren<QPushButton*>())
    if (b->text() == "Give all back") back = b;
  REQUIRE(back);
  CHECK(back->isEnabled());
  QTest::mouseClick(back, Qt::LeftButton);
  CHECK_FALSE(d.rails().anythingHeld());
  CHECK_FALSE(back->isEnabled());
  for (const auto& choice : d.order().choices) CHECK(choice.first.find("hold.") == std::string::npos);
}

TEST_CASE("the x beside a level of one's own takes it away; the button adds it") {
  Driver d;
  QPushButton* add = nullptr;
  for (QPushButton* b : d.window.findChildren<QPushButton*>())
    if (b->text() == "Add a level") add = b;
  REQUIRE(add);
  const size_t rails = d.rails().rails().size();
  QTest::mouseClick(add, Qt::LeftButton);
  QTest::mouseClick(add, Qt::LeftButton);
  REQUIRE(d.rails().rails().size() == rails + 2);
  CHECK(d.railOf("ribs") < d.railOf("waist"));
  CHECK(d.railOf("belly") > d.railOf("waist"));
  QTest::mouseClick(&d.rails(), Qt::LeftButton, Qt::NoModifier,
                    d.rails().places().removeRect(d.railOf("ribs")).center().toPoint());
  CHECK(d.rails().rails().size() == rails + 1);
}

TEST_CASE("a line's guide is dragged across the table, moved by keys, and given back") {
  Driver d;
  const auto guide = [&]() -> GuideHandle {
    for (const SceneItem& item : d.window.table().scene().items)
      if (item.guide && item.guide->key == "guide.waist.front-line-2") return *item.guide;
    FAIL("no guide");
    return {};
  };
  const auto onScreen = [&] {
    const double y = d.design().block.front.at("waist").y;
    return d.window.table().toScreen({guide().mm, y}).toPoint();
  };
  const double before = guide().mm;
  const QPoint at = onScreen();
  d.drag(d.window.table(), at, at + QPoint(-14, 0));
  CHECK(guide().placed);
  CHECK(guide().mm < before - 4);
  CHECK(d.order().choices.contains("guide.waist.front-line-2"));
  const double placed = guide().mm;
  d.window.table().setFocus();
  QTest::keyClick(&d.window.table(), Qt::Key_Right, Qt::ShiftModifier);
  CHECK(guide().mm - placed == Approx(inches(0.125)).margin(1e-6));
  QTest::keyClick(&d.window.table(), Qt::Key_Delete);
  CHECK_FALSE(guide().placed);
  CHECK(guide().mm == Approx(before).margin(1e-6));
  // G goes to the next one.
  QTest::keyClick(&d.window.table(), Qt::Key_G);
  CHECK(d.window.session().selection().level != "waist");
  const QPoint again = onScreen();
  d.drag(d.window.table(), again, again + QPoint(8, 0));
  CHECK(guide().placed);
  QTest::mouseDClick(&d.window.table(), Qt::LeftButton, Qt::NoModifier, onScreen());
  CHECK_FALSE(guide().placed);
}

TEST_CASE("the combs are shown on demand, by key and by button") {
  Driver d;
  const auto combs = [&] {
    size_t n = 0;
    for (const SceneItem& item : d.window.table().scene().items) n += item.mark == Ink::Comb;
    return n;
  };
  CHECK(combs() == 0);
  QTest::keyClick(&d.window.table(), Qt::Key_C);
  CHECK(combs() > 8);
  QPushButton* pill = nullptr;
  for (QPushButton* b : d.window.findChildren<QPushButton*>())
    if (b->text() == "combs") pill = b;
  REQUIRE(pill);
  CHECK(pill->isChecked());
  QTest::mouseClick(pill, Qt::LeftButton);
  CHECK(combs() == 0);
}
