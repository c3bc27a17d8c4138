// The stage Balance in the real window: the proposal, taking it, and which side of a seam gives way.
#include <QComboBox>
#include <QLabel>
#include <QtTest/QTest>
#include <catch2/catch.hpp>

#include "app/main_window.h"
#include "tests/support/bodies.h"

using namespace armure;
using namespace armure::testing;

namespace {

struct Driver {
  MainWindow window;
  Driver() {
    window.show();
    REQUIRE(QTest::qWaitForWindowExposed(&window));
    window.activateWindow();
    window.openFile(QString::fromStdString(sourceDir()) + "/demo/2-lamp-room.armure");
    window.stages().setStage(Stage::Balance);
    QTest::qWait(30);
  }
  const Design& design() { return *window.session().design(); }
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
  size_t marks(Mark mark) {
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
  CHECK(d.marks(Mark::Before) > 2);
  CHECK(d.marks(Mark::Moved) == d.marks(Mark::Before));
  auto* summary = d.window.findChild<QLabel*>("balanceSummary");
  CHECK(summary->text().contains("At most"));

  d.choose(d.box("balance.keep"), 1);
  REQUIRE(d.design().balanced);
  for (const CheckRow& r : d.design().sheet.rows)
    if (r.kind == CheckKind::Stretch || r.kind == CheckKind::Join) CHECK(r.pass);
  CHECK(d.marks(Mark::Before) > 2);  // what moved is still shown

  QTest::keyClick(&d.window.table(), Qt::Key_Z, Qt::ControlModifier);
  CHECK_FALSE(d.design().balanced);
  CHECK(d.design().sheet.failing() > 0);
}

TEST_CASE("a seam can be left, or one side made to follow the other; the rest is solved again") {
  Driver d;
  d.choose(d.box("balance.keep"), 1);
  d.choose(d.box("seam.princess"), 3);
  CHECK(d.window.session().order().choices.at("seam.princess") == "leave");
  bool princessFails = false;
  for (const CheckRow& r : d.design().sheet.rows)
    if (r.kind == CheckKind::Stretch && !r.pass) {
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
    if (r.kind == CheckKind::Stretch || r.kind == CheckKind::Girth) CHECK((r.pass || r.note));
}
