// On cloth, in print and on the cutting table, in the real window with mouse and keys.
#include <QApplication>
#include <QComboBox>
#include <QDialogButtonBox>
#include <QLineEdit>
#include <QPrintDialog>
#include <QProcess>
#include <QPushButton>
#include <QRadioButton>
#include <QSpinBox>
#include <QTemporaryDir>
#include <QTimer>
#include <QtTest/QTest>
#include <catch2/catch.hpp>
#include <cmath>

#include "app/cutting_table.h"
#include "app/preferences.h"
#include "io/atomic_file.h"
#include "tests/app/driver.h"

using namespace armure;
using namespace armure::testing;

namespace {

struct Driver : ShownWindow {
  Driver() { openAt("2-lamp-room", Stage::Prepare); }
  ClothCanvas& canvas() { return window.onCloth().canvas(); }
  void lay() {
    press("layOnCloth");
    REQUIRE(QTest::qWaitFor([&] { return !window.onCloth().isLooking(); }, 30000));
    REQUIRE(canvas().shown());
  }
  size_t locked() {
    size_t count = 0;
    for (const StripItem& i : canvas().shown()->laying.problem.items) count += i.locked.has_value();
    return count;
  }
  size_t kept() {
    size_t count = 0;
    for (const auto& [key, value] : window.session().order().choices) count += key.starts_with("lay.");
    return count;
  }
  double overlap() { return worstOverlap(canvas().shown()->laying.problem, canvas().shown()->layout); }
};

}  // namespace

TEST_CASE("a piece is dragged on the cloth, lies over nothing, is kept there and let go") {
  Driver d;
  d.lay();
  CHECK(d.overlap() < 1);
  const size_t last = d.canvas().shown()->layout.items.size() - 1;
  const QPoint from = d.canvas().middleOf(last).toPoint(), over = d.canvas().middleOf(0).toPoint();
  QTest::mousePress(&d.canvas(), Qt::LeftButton, {}, from);
  QTest::mouseMove(&d.canvas(), (from + over) / 2);
  QTest::mouseMove(&d.canvas(), over);
  QTest::mouseRelease(&d.canvas(), Qt::LeftButton, {}, over);
  CHECK(d.kept() == 1);
  CHECK(d.locked() == 1);
  REQUIRE(QTest::qWaitFor([&] { return !d.window.onCloth().isLooking(); }, 30000));
  CHECK(d.overlap() < 1);
  const LaidItem place = d.canvas().shown()->layout.items[last];
  CHECK(distance(place.at, d.canvas().shown()->laying.problem.items[last].locked->at) < 1e-6);
  d.window.session().undo();
  CHECK(d.kept() == 0);
  d.window.session().redo();
  REQUIRE(QTest::qWaitFor([&] { return !d.window.onCloth().isLooking(); }, 30000));
  QTest::mouseDClick(&d.canvas(), Qt::LeftButton, {}, d.canvas().middleOf(last).toPoint());
  CHECK(d.kept() == 0);
}

TEST_CASE("by keys a piece is picked, laid further, turned, kept and let go") {
  Driver d;
  d.window.session().setChoice("cloth.satin.way", "either-way");
  d.settle();
  d.lay();
  QTest::keyClick(&d.canvas(), Qt::Key_G);
  REQUIRE(d.canvas().picked() == 0u);
  QTest::keyClick(&d.canvas(), Qt::Key_G);
  QTest::keyClick(&d.canvas(), Qt::Key_Return);
  CHECK(d.kept() == 1);
  const Vec2 before = d.canvas().shown()->layout.items[1].at;
  QTest::keyClick(&d.canvas(), Qt::Key_Right);
  CHECK(distance(before, d.canvas().shown()->layout.items[1].at) > 0);
  CHECK(d.overlap() < 1);
  REQUIRE(d.canvas().shown()->laying.problem.items[1].turns.size() == 2);
  REQUIRE(d.canvas().picked() == 1u);
  const size_t turn = d.canvas().shown()->layout.items[1].turn;
  QTest::keyClick(&d.canvas(), Qt::Key_X);
  CHECK(d.canvas().shown()->layout.items[1].turn != turn);
  QTest::keyClick(&d.canvas(), Qt::Key_Delete);
  CHECK(d.kept() == 0);
  QTest::keyClick(&d.canvas(), Qt::Key_Escape);
  CHECK(d.window.table().isVisible());
}

TEST_CASE("pages 3 to 5 are printed again") {
  Driver d;
  d.window.session().setChoice("paper.size", "a4");
  d.settle();
  const QTemporaryDir folder;
  const QString file = folder.filePath("again.pdf");
  bool answered = false;
  QTimer::singleShot(300, [&] {
    auto* dialog = qobject_cast<QPrintDialog*>(QApplication::activeModalWidget());
    if (!dialog) return;
    auto* printers = dialog->findChild<QComboBox*>("printers");
    for (int i = 0; printers && i < printers->count(); ++i)
      if (printers->itemText(i).contains("PDF")) printers->setCurrentIndex(i);
    if (auto* name = dialog->findChild<QLineEdit*>("filename")) name->setText(file);
    if (auto* range = dialog->findChild<QRadioButton*>("printRange")) range->setChecked(true);
    if (auto* from = dialog->findChild<QSpinBox*>("from")) from->setValue(3);
    if (auto* to = dialog->findChild<QSpinBox*>("to")) to->setValue(5);
    answered = true;
    for (QPushButton* button : dialog->findChildren<QPushButton*>())
      if (button->isDefault()) return button->click();
    dialog->accept();
  });
  QTimer::singleShot(8000, [] {  // whatever stands there does not stand for ever
    if (QWidget* modal = QApplication::activeModalWidget()) modal->close();
  });
  d.press("print");
  REQUIRE(answered);
  QProcess info;
  info.start("pdfinfo", {file});
  REQUIRE(info.waitForFinished());
  CHECK(info.readAllStandardOutput().contains("Pages:           3"));
}

TEST_CASE("the cutting table is measured in both directions, and shows true sizes from then on") {
  Driver d;
  {
    CuttingTable table(*d.window.session().whole(), d.window.session().order());
    table.resize(1000, 700);
    table.show();
    table.activateWindow();
    REQUIRE(QTest::qWaitForWindowActive(&table));
    REQUIRE(table.isMeasuring());
    const double across = table.measuredLine().length();
    QTest::keyClicks(&table, "soon");
    QTest::keyClick(&table, Qt::Key_Return);  // no length: asked again
    REQUIRE(table.isMeasuring());
    QTest::keyClicks(&table, "50 cm");
    QTest::keyClick(&table, Qt::Key_Return);
    const double down = table.measuredLine().length();
    CHECK(table.measuredLine().dx() == 0);
    QTest::keyClicks(&table, "16 in");
    QTest::keyClick(&table, Qt::Key_Enter);
    REQUIRE_FALSE(table.isMeasuring());
    CHECK(table.dots().x() == Approx(across / 500));
    CHECK(table.dots().y() == Approx(down / (16 * 25.4)));
  }
  CuttingTable table(*d.window.session().whole(), d.window.session().order());
  table.resize(1000, 700);
  table.show();
  table.activateWindow();
  REQUIRE(QTest::qWaitForWindowActive(&table));
  CHECK(table.isMeasured());
  CHECK_FALSE(table.isMeasuring());
  const QPointF dots = table.dots();
  const auto size = [&](QPointF a, QPointF b) { return std::hypot((b - a).x() / dots.x(), (b - a).y() / dots.y()); };
  for (const Qt::Key key : {Qt::Key_T, Qt::Key_R, Qt::Key_M, Qt::Key_I, Qt::Key_Right, Qt::Key_PageDown}) {
    QTest::keyClick(&table, key);
    const Polyline& outline = d.window.session().whole()->cutOutlines[table.piece()];
    for (size_t i = 0; i < outline.size(); i += 7) {
      const double mm = distance(outline[0], outline[i]);
      CHECK(size(table.toScreen(outline[0]), table.toScreen(outline[i])) == Approx(mm).margin(1e-6));
    }
  }
  CHECK(table.piece() == 1);
  QTest::keyClick(&table, Qt::Key_Escape);
  CHECK_FALSE(table.isVisible());
}

TEST_CASE("what cannot be the size of a screen is not believed, and the other preferences stay") {
  Preferences mine;
  mine.newOrdersAsDrafted = true;
  mine.dotsAcross = 2.5;
  mine.dotsDown = 2.25;
  REQUIRE_FALSE(writePreferences(mine));
  CHECK(readPreferences().dotsAcross == Approx(2.5));
  CHECK(readPreferences().dotsDown == Approx(2.25));
  CHECK(readPreferences().newOrdersAsDrafted);
  Preferences unmeasured;
  REQUIRE_FALSE(writePreferences(unmeasured));  // what was measured once is not lost
  CHECK(readPreferences().dotsAcross == Approx(2.5));
  for (const char* wrong : {"{\"cuttingTable\": {\"dotsAcross\": 0, \"dotsDown\": -3}}", "{\"cuttingTable\": 7}",
                            "{\"cuttingTable\": {\"dotsAcross\": \"wide\", \"dotsDown\": 1e9}}", "{}", "no file"}) {
    INFO(wrong);
    REQUIRE_FALSE(writeFileAtomically(preferencesFile(), wrong));
    CHECK(readPreferences().dotsAcross == 0);
    CHECK(readPreferences().dotsDown == 0);
    Driver d;
    CuttingTable table(*d.window.session().whole(), d.window.session().order());
    CHECK(table.isMeasuring());  // it asks
    CHECK(table.dots().x() > 0);
  }
}

TEST_CASE("measuring the cutting table again can be left, and what was measured stays") {
  Preferences mine;
  mine.dotsAcross = mine.dotsDown = 3;
  REQUIRE_FALSE(writePreferences(mine));
  Driver d;
  CuttingTable table(*d.window.session().whole(), d.window.session().order());
  table.resize(900, 600);
  table.show();
  table.activateWindow();
  REQUIRE(QTest::qWaitForWindowActive(&table));
  QTest::keyClick(&table, Qt::Key_C);
  CHECK(table.isMeasuring());
  QTest::keyClicks(&table, "1 mm");  // shorter than any line on a table
  QTest::keyClick(&table, Qt::Key_Return);
  CHECK(table.isMeasuring());
  QTest::keyClick(&table, Qt::Key_Escape);
  CHECK_FALSE(table.isMeasuring());
  CHECK(table.isVisible());
  CHECK(table.dots() == QPointF(3, 3));
  // Every piece in turn, and round.
  const size_t pieces = d.window.session().whole()->pattern.pieces.size();
  for (size_t i = 1; i <= pieces; ++i) {
    QTest::keyClick(&table, Qt::Key_PageDown);
    CHECK(table.piece() == i % pieces);
  }
  QTest::keyClick(&table, Qt::Key_PageUp);
  CHECK(table.piece() == pieces - 1);
}
