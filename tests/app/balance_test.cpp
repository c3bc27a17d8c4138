// The stage Balance in the real window: the proposal, taking it, and which side of a seam gives way.
#include <QComboBox>
#include <QLabel>
#include <QListWidget>
#include <QPushButton>
#include <QtTest/QTest>
#include <catch2/catch.hpp>

#include "tests/app/driver.h"

using namespace armure;
using namespace armure::testing;

namespace {

struct Driver : ShownWindow {
  Driver() {
    window.openFile(demoFile("2-lamp-room"));
    window.session().setChoice("balance.keep", "drafted");  // new orders, the demo's too, are balanced
    window.session().settle();
    window.stages().setStage(Stage::Balance);
    settle();
  }
  QComboBox* box(const char* name) {
    auto* found = window.findChild<QComboBox*>(name);
    REQUIRE(found);
    return found;
  }
  // Chooses the n-th option by keys.
  void choose(QComboBox* box, int n) {
    box->setFocus();
    QTest::keyClick(box, Qt::Key_Home);
    for (int i = 0; i < n; ++i) QTest::keyClick(box, Qt::Key_Down);
  }
  size_t marks(Ink mark) {
    size_t n = 0;
    for (const SceneItem& item : window.table().scene().items) n += item.mark == mark;
    return n;
  }
};

}  // namespace

TEST_CASE("the proposal is shown over the draft and changes nothing until it is taken") {
  Driver d;
  CHECK(d.design().sheet.failing() > 0);
  CHECK_FALSE(d.design().balanced);
  CHECK(d.marks(Ink::Before) > 2);
  CHECK(d.marks(Ink::Moved) == d.marks(Ink::Before));
  auto* summary = d.window.findChild<QLabel*>("balanceSummary");
  CHECK(summary->text().contains("at most"));

  d.choose(d.box("balance.keep"), 1);
  REQUIRE(d.design().balanced);
  for (const CheckRow& r : d.design().sheet.rows)
    if (r.kind == CheckKind::Stretch || r.kind == CheckKind::Join) CHECK_FALSE(r.fails());
  CHECK(d.marks(Ink::Before) > 2);  // what moved is still shown

  QTest::keyClick(&d.window.table(), Qt::Key_Z, Qt::ControlModifier);
  CHECK_FALSE(d.design().balanced);
  CHECK(d.design().sheet.failing() > 0);
}

TEST_CASE("a seam can be left, or one side made to follow the other; the rest is solved again") {
  Driver d;
  d.choose(d.box("balance.keep"), 1);
  d.choose(d.box("seam.princess"), 6);
  CHECK(d.window.session().order().choices.at("seam.princess") == "leave");
  bool princessFails = false;
  for (const CheckRow& r : d.design().sheet.rows)
    if (r.kind == CheckKind::Stretch && !r.passes()) {
      CHECK(r.seam == "princess");
      princessFails = true;
    }
  CHECK(princessFails);
  d.choose(d.box("seam.princess"), 1);
  const Seam& seam = d.design().pattern.seams[0];
  CHECK(d.design().pattern.sidePath(seam.a).cubics() == d.design().drafted->sidePath(seam.a).cubics());
  d.choose(d.box("seam.princess"), 0);
  CHECK_FALSE(d.window.session().order().choices.contains("seam.princess"));
}

TEST_CASE("a measure typed while the balance is kept is followed by balanced pieces") {
  Driver d;
  d.choose(d.box("balance.keep"), 1);
  d.window.session().setMeasure("waist", "30 in");
  REQUIRE(d.design().balanced);
  for (const CheckRow& r : d.design().sheet.rows)
    if (r.kind == CheckKind::Stretch || r.kind == CheckKind::Girth) CHECK(!r.fails());
}

TEST_CASE("a difference is eased in between two notches that are chosen, and told") {
  Driver d;
  d.choose(d.box("balance.keep"), 1);
  d.choose(d.box("seam.princess"), 3);
  CHECK(d.window.session().order().choices.at("seam.princess") == "ease bust underbust");
  CHECK(std::abs(d.design().pattern.seams[0].ease()) == Approx(inches(0.125)));  // as much as may be
  CHECK(d.design().sheet.pass());                                                // what is planned is no fault
  d.choose(d.box("easeFrom.princess"), 0);
  CHECK(d.window.session().order().choices.at("seam.princess") == "ease top underbust");
  // The end cannot come to lie above the beginning.
  d.choose(d.box("easeFrom.princess"), 3);
  CHECK(d.window.session().order().choices.at("seam.princess") == "ease waist hem");
}

TEST_CASE("an edge is held with a button; two that fight are named; undo gives it free") {
  Driver d;
  d.choose(d.box("balance.keep"), 1);
  QPushButton* hold = nullptr;
  for (QPushButton* b : d.window.findChildren<QPushButton*>())
    if (b->isVisible() && b->text() == "hold 1") hold = b;
  REQUIRE(hold);
  QTest::mouseClick(hold, Qt::LeftButton);
  CHECK(d.window.session().order().choices.at("lock.front-1.princess") == "yes");
  CHECK(d.design().pattern.pieces[0].edge("princess").path.cubics() ==
        d.design().drafted->pieces[0].edge("princess").path.cubics());
  CHECK(d.design().sheet.pass());
  d.choose(d.box("seam.princess"), 2);  // and the other side is asked to lead
  auto* summary = d.window.findChild<QLabel*>("balanceSummary");
  CHECK(summary->text().contains("Princess seam"));
  CHECK(summary->text().contains("held with these choices"));
  QTest::keyClick(&d.window.table(), Qt::Key_Z, Qt::ControlModifier);
  CHECK_FALSE(summary->text().contains("held with these choices"));
  // Every option passed on the way was a step.
  for (int i = 0; i < 4 && d.window.session().order().choices.contains("lock.front-1.princess"); ++i)
    QTest::keyClick(&d.window.table(), Qt::Key_Z, Qt::ControlModifier);
  CHECK_FALSE(d.window.session().order().choices.contains("lock.front-1.princess"));
  CHECK(d.design().balanced);
}

TEST_CASE("what moved is listed with its reason; a click shows the edge") {
  Driver d;
  auto* moves = d.window.findChild<QListWidget*>("moves");
  REQUIRE(moves->count() > 2);
  CHECK(moves->item(0)->text().contains(" mm)"));
  CHECK(moves->item(0)->text().contains("\nfor "));
  const EdgeMove& first = d.window.session().balanced()->moves.front();
  QTest::mouseClick(moves->viewport(), Qt::LeftButton, {}, moves->visualItemRect(moves->item(0)).center());
  CHECK(d.window.session().selection().edge == first.edge);
  CHECK(d.window.session().selection().seam == first.seam);
}

TEST_CASE("the walker's finger is dragged along the ruler and lights two points that are sewn together") {
  Driver d;
  SeamWalker& walker = d.window.walker();
  REQUIRE(walker.isVisible());
  CHECK(walker.seam() == "princess");
  const auto at = [&](double mm) { return QPoint(static_cast<int>(walker.screenX(mm)), 60); };
  QTest::mousePress(&walker, Qt::LeftButton, {}, at(0));
  QTest::mouseMove(&walker, at(30));
  QTest::mouseRelease(&walker, Qt::LeftButton, {}, at(30));
  REQUIRE(walker.finger());
  CHECK(*walker.finger() == Approx(30).margin(2));
  CHECK(walker.reading().contains("below the underbust"));
  // By keys: to the ends, and to the next seam.
  QTest::keyClick(&walker, Qt::Key_Home);
  const double top = *walker.finger();
  QTest::keyClick(&walker, Qt::Key_Right);
  CHECK(*walker.finger() > top);
  QTest::keyClick(&walker, Qt::Key_Left, Qt::ShiftModifier);
  CHECK(*walker.finger() == Approx(top));
  QTest::keyClick(&walker, Qt::Key_Down);
  CHECK(walker.seam() == "side");
  CHECK(d.window.session().selection().seam == "side");
  QTest::keyClick(&walker, Qt::Key_Escape);
  CHECK_FALSE(walker.finger());
}

TEST_CASE("a failing row offers what would mend it, and the button does it") {
  Driver d;
  auto* list = d.window.findChild<QListWidget*>("sheet");
  REQUIRE(d.design().sheet.rows[0].kind == CheckKind::Stretch);
  QTest::mouseClick(list->viewport(), Qt::LeftButton, {}, list->visualItemRect(list->item(0)).center());
  QPushButton* mend = nullptr;
  for (QPushButton* b : d.window.findChildren<QPushButton*>())
    if (b->accessibleName() == "mend") mend = b;
  REQUIRE(mend);
  REQUIRE(mend->isVisible());
  CHECK(mend->text() == "Balance");
  CHECK(d.window.findChild<QLabel*>("remedy")->text().startsWith("Move the longer edge"));
  QTest::mouseClick(mend, Qt::LeftButton);
  CHECK(d.design().balanced);
  CHECK(d.design().sheet.pass());
}

TEST_CASE("what cannot be balanced is mended by letting both sides give again, in one step") {
  Driver d;
  OrderSession& session = d.window.session();
  for (const auto& [key, value] : {std::pair<const char*, const char*>{"balance.keep", "balanced"},
                                   {"seam.side", "follow-b"},
                                   {"lock.front-2.side", "yes"}}) {
    session.setChoice(key, value);
    session.settle();
  }
  REQUIRE(d.design().sheet.rows[0].kind == CheckKind::Wish);
  auto* list = d.window.findChild<QListWidget*>("sheet");
  QTest::mouseClick(list->viewport(), Qt::LeftButton, {}, list->visualItemRect(list->item(0)).center());
  for (QPushButton* b : d.window.findChildren<QPushButton*>())
    if (b->accessibleName() == "mend") QTest::mouseClick(b, Qt::LeftButton);
  CHECK(d.design().sheet.pass());
  CHECK_FALSE(session.order().choices.contains("seam.side"));
  CHECK_FALSE(session.order().choices.contains("lock.front-2.side"));
  QTest::keyClick(&d.window.table(), Qt::Key_Z, Qt::ControlModifier);
  CHECK(d.design().sheet.rows[0].kind == CheckKind::Wish);
}

TEST_CASE("a chosen seam is left open when the pieces are taped, and taped again") {
  Driver d;
  d.window.table().setMode(TableMode::Taped);
  d.window.session().select({.seam = "side"});
  const double taped = d.window.table().scene().bounds.width();
  QTest::keyClick(&d.window.table(), Qt::Key_O);
  CHECK(d.window.table().isOpen("side"));
  CHECK(d.window.table().scene().bounds.width() > taped + 40);
  QTest::keyClick(&d.window.table(), Qt::Key_O);
  CHECK(d.window.table().scene().bounds.width() == Approx(taped).margin(1));
}

TEST_CASE("a dart's legs are held like the sides of a seam, under their own names, and undone") {
  Driver d;
  d.session().setChoice("dial.side", "0.5");
  d.session().setChoice("balance.keep", "balanced");
  d.session().settle();
  d.settle();
  QPushButton* leg = nullptr;
  for (QPushButton* b : d.window.findChildren<QPushButton*>())
    if (b->text() == "leg 1" && b->isVisible()) leg = b;
  REQUIRE(leg);
  CHECK(leg->accessibleName().contains("dart in piece 2"));
  const auto moved = [&] {
    const Path &was = d.design().drafted->pieces[1].edge("dart-side-1").path,
               &is = d.design().pattern.pieces[1].edge("dart-side-1").path;
    return std::max(distance(was.start(), is.start()), distance(was.end(), is.end()));
  };
  CHECK(moved() > 1e-6);
  leg->click();
  d.session().settle();
  CHECK(d.design().rules.locks().contains({"front-2", "dart-side-1"}));
  CHECK(moved() < 1e-9);
  d.session().undo();
  CHECK(d.design().rules.locks().empty());
  CHECK(moved() > 1e-6);
}
