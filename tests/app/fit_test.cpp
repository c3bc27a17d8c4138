// From a note at a fitting to a sheet printed again, in the real window with mouse and keys; the shift table; another
// version laid over the pieces; states kept and taken up again.
#include <QApplication>
#include <QLineEdit>
#include <QPushButton>
#include <QScrollArea>
#include <QTemporaryDir>
#include <QTimer>
#include <QtTest/QTest>
#include <catch2/catch.hpp>
#include <cmath>
#include <fstream>
#include <sstream>

#include "app/choice_box.h"
#include "app/growing_list.h"
#include "io/base_file.h"
#include "recalc/bases.h"
#include "tests/app/driver.h"

using namespace armure;
using namespace armure::testing;

namespace {

struct Driver : ShownWindow {
  explicit Driver(const char* order = "2-lamp-room") { openAt(order, Stage::Fit); }
  QPoint onSeam(const std::string& seam) {
    for (const SceneItem& item : window.table().scene().items)
      if (item.mark == Ink::Edge && item.target.seam == seam)
        return window.table().toScreen(item.path.pointAtPercent(0.62)).toPoint();
    FAIL("no seam " << seam);
    return {};
  }
  bool overlaid() {
    for (const SceneItem& item : window.table().scene().items)
      if (item.mark == Ink::Other) return true;
    return false;
  }
  double waist() { return design().pattern.level("waist")->finishedGirth; }
  // Of the line that is chosen: take in between underbust and high hip.
  void sayTakeIn() {
    choose("fitWork", "take-in");
    choose("fitFrom", "underbust");
    choose("fitTo", "high_hip");
  }
  void note(const QString& complaint, const QString& by) {
    choose("complaint", complaint);
    type("fitAmount", by);
    press("noteIt");
  }
};

std::string textOf(const QString& path) {
  std::ifstream in(path.toStdString());
  std::stringstream text;
  text << in.rdbuf();
  return text.str();
}

}  // namespace

TEST_CASE("a fitting from note to reprinted sheet, by mouse and keys") {
  Driver d;
  const double before = d.waist();
  d.press("newFitting");
  REQUIRE(d.order().fittings.size() == 1);
  d.type("fittingDate", "2026-10-02");
  d.type("fittingGap", "2 1/4");
  CHECK(d.order().fittings[0].date == "2026-10-02");
  CHECK(d.order().fittings[0].gap == Approx(inches(2.25)));
  // The seam is picked on the table, the rest said with keys.
  QTest::mouseClick(&d.window.table(), Qt::LeftButton, Qt::NoModifier, d.onSeam("side"));
  d.settle();
  REQUIRE(d.find<QComboBox>("fitLine")->currentData().toString() == "side");
  d.sayTakeIn();
  d.type("fitAmount", "1/2");
  d.type("fitSeen", "stands off, seated");
  d.press("noteIt");
  REQUIRE(d.order().fittings[0].notes.size() == 1);
  CHECK(d.order().fittings[0].notes[0].seen == "stands off, seated");
  CHECK(d.order().fittings[0].notes[0].mm == Approx(12.7));
  // Proposed, and over the pieces; nothing is altered yet.
  CHECK(d.waist() == Approx(before));
  CHECK(d.overlaid());
  CHECK(d.find<QLabel>("proposal")->text().contains("Side seam"));
  d.press("takeProposal");
  REQUIRE(d.order().alterations.size() == 1);
  CHECK(d.waist() == Approx(before - 2 * 12.7));
  CHECK(d.design().sheet.failing() == 0);
  d.session().undo();
  CHECK(d.waist() == Approx(before));
  d.session().redo();
  CHECK(d.waist() == Approx(before - 2 * 12.7));
  // The sheet again.
  QTemporaryDir folder;
  const QString sheet = folder.filePath("sheet.html");
  d.window.stages().setStage(Stage::Prepare);
  d.settle();
  answerFileDialog(sheet);
  d.press("sheet-html");
  d.settle();
  const std::string text = textOf(sheet);
  CHECK(text.find("closed") != std::string::npos);
  CHECK(text.find("version") != std::string::npos);
}

TEST_CASE("a correction on one side: noted, seen on its half, cut as left and right") {
  Driver d;
  const double before = d.waist();
  const auto buttons = d.window.findChildren<QPushButton*>();
  const auto found = std::ranges::find_if(buttons, [](QPushButton* b) { return b->text().endsWith(" half"); });
  REQUIRE(found != buttons.end());
  QPushButton* other = *found;
  CHECK_FALSE(other->isVisible());
  d.press("newFitting");
  d.choose("fitLine", "side");
  d.sayTakeIn();
  d.choose("fitHalf", "right");
  d.type("fitAmount", "1/2");
  d.press("noteIt");
  REQUIRE(d.order().fittings[0].notes.size() == 1);
  CHECK(d.order().fittings[0].notes[0].half == BodySide::Right);
  CHECK(d.find<QLabel>("proposal")->text().contains("Side seam, right"));
  CHECK(d.overlaid());
  CHECK(d.find<QComboBox>("fitHalf")->currentIndex() == 0);  // the next note is of both again
  d.press("takeProposal");
  REQUIRE(d.session().whole()->halves.size() == 2);
  CHECK(d.design().level("waist")->finishedGirth == Approx(before - 12.7));  // both edges of one side
  CHECK(d.design().sheet.failing() == 0);
  // It is looked at where it was seen.
  CHECK(d.session().side() == BodySide::Right);
  const auto sideLength = [&] { return d.design().pattern.sidePath(d.design().pattern.seam("side")->a).length(); };
  const double right = sideLength();
  REQUIRE(other->isVisible());
  CHECK(other->text() == "to the left half");
  QTest::mouseClick(other, Qt::LeftButton);
  d.settle();
  CHECK(d.session().side() == BodySide::Left);
  CHECK(other->text() == "to the right half");
  CHECK(std::abs(sideLength() - right) > 0.1);
  d.window.table().setFocus();
  QTest::keyClick(&d.window.table(), Qt::Key_H);
  CHECK(d.session().side() == BodySide::Right);
  QTest::keyClick(&d.window.table(), Qt::Key_H);
  // A row of the sheet that speaks of a seam of the right half turns to it.
  d.session().select({.piece = "front-2-right", .edge = "side", .seam = "side-right"});
  CHECK(d.session().side() == BodySide::Right);
  CHECK(d.session().selection().seam == "side");
  CHECK(d.session().selection().piece == "front-2");
  // Cut: all pieces, and no half to turn to.
  d.window.stages().setStage(Stage::Prepare);
  d.settle();
  CHECK_FALSE(other->isVisible());
  CHECK(d.session().selection().seam == "side-right");
  CHECK(d.session().selection().piece == "front-2-right");
  CHECK(isSplit(d.design().pattern));
  QTemporaryDir folder;
  const QString sheet = folder.filePath("sheet.html");
  answerFileDialog(sheet);
  d.press("sheet-html");
  d.settle();
  const std::string text = textOf(sheet);
  CHECK(text.find("Side front, left") != std::string::npos);
  CHECK(text.find("Side front, right") != std::string::npos);
  // A cloth chosen for a piece, and a bone taken away, are of both sides.
  d.session().select({.working = "bone-princess-right"});
  d.settle();
  d.press("removeBone");
  CHECK(d.order().choices.contains("bone.off.bone-princess"));
  d.session().undo();
  d.session().undo();
  CHECK(d.session().whole()->halves.empty());
  CHECK(d.waist() == Approx(before));
}

TEST_CASE("five notes at once are answered together, and taken back as one") {
  Driver d;
  const double before = d.waist();
  d.press("newFitting");
  d.note("top-gapes", "1/4");
  d.note("waist-low", "3/8");
  d.note("side-leans-back", "1/4");
  d.note("cup-full", "1/4");
  d.note("gap-wide", "1/2");
  REQUIRE(d.order().fittings[0].notes.size() == 6);  // a cup that is too full wants a higher edge as well
  CHECK(d.find<QListWidget>("notes")->count() == 6);
  for (int i = 0; i < 6; ++i) CHECK_FALSE(d.find<QListWidget>("notes")->item(i)->text().contains("Not done"));
  d.press("takeProposal");
  CHECK(d.waist() == Approx(before + 12.7));
  CHECK(d.design().sheet.failing() == 0);
  CHECK(d.find<QListWidget>("alterations")->count() == 1);
  d.press("takeProposal");  // now: take it back
  CHECK(d.order().alterations.empty());
  CHECK(d.waist() == Approx(before));
  // A note is taken away again.
  d.find<QListWidget>("notes")->setCurrentRow(4);
  d.press("forgetNote");
  CHECK(d.order().fittings[0].notes.size() == 5);
}

TEST_CASE("an alteration is switched off by its tick, and what was before is laid over the pieces") {
  Driver d("3-harbour-wall");
  REQUIRE(d.order().alterations.size() == 1);
  CHECK(d.overlaid());
  CHECK(d.find<QListWidget>("differences")->count() > 0);
  auto* list = d.find<QListWidget>("alterations");
  list->setFocus();
  list->setCurrentRow(0);
  QTest::keyClick(list, Qt::Key_Space);
  d.settle();
  CHECK_FALSE(d.order().alterations[0].on);
  CHECK_FALSE(d.overlaid());
  d.session().undo();
  CHECK(d.order().alterations[0].on);
  d.choose("version", "");
  CHECK_FALSE(d.overlaid());
}

TEST_CASE("a state of the order is kept, compared and taken up again") {
  Driver d;
  const double before = d.waist();
  d.press("keepState");
  REQUIRE(d.order().revisions.size() == 1);
  d.session().setChoice("reduction.waist", "3 in");
  d.settle();
  REQUIRE(d.waist() < before - 20);
  d.choose("version", "revision0");
  CHECK(d.overlaid());
  d.press("takeUpState");
  CHECK(d.waist() == Approx(before));
  CHECK(d.order().revisions.size() == 1);
}

TEST_CASE("a correction comes back in the client's next order, of another style") {
  QTemporaryDir folder;
  const std::string first = folder.filePath("first.armure").toStdString(),
                    second = folder.filePath("second.armure").toStdString();
  Driver d;
  d.press("newFitting");
  d.note("pulls-to-bust", "1/4");
  d.press("takeProposal");
  REQUIRE_FALSE(d.session().save(first).problem);
  d.session().setStyle("cup-three-pieces");
  Order next = d.order();
  next.alterations.clear();
  next.fittings.clear();
  REQUIRE_FALSE(d.session().tryOrder(next, "next order"));
  REQUIRE_FALSE(d.session().save(second).problem);
  d.settle();
  REQUIRE(d.find<QComboBox>("earlier")->count() == 1);
  const double bust = d.design().pattern.level("bust")->finishedGirth;
  d.press("takeEarlier");
  REQUIRE(d.order().alterations.size() == 1);
  CHECK(d.order().alterations[0].shifts[0].line == "princess-cup");
  CHECK(d.design().pattern.level("bust")->finishedGirth == Approx(bust + 2 * 6.35));
  CHECK(d.design().idleShifts.empty());
}

TEST_CASE("the table of shifts is read, written over and given back") {
  QTemporaryDir folder;
  const std::string path = folder.filePath("recalculated.armure").toStdString();
  const auto base = readBase(sourceDir() + "/demo/ferry.armure-base");
  REQUIRE(base.ok());
  Order order = orderFromBase(base->base, plainFigure());
  REQUIRE_FALSE(writeOrder(path, {order, "", {}}));
  Driver d;
  d.window.openFile(QString::fromStdString(path));
  d.window.stages().setStage(Stage::Fit);
  d.settle();
  d.press("shiftTable");
  REQUIRE(d.window.shifts().isVisible());
  auto* table = d.find<QTableWidget>("shifts");
  int waist = -1;
  for (int r = 0; r < table->rowCount(); ++r)
    if (table->item(r, 0)->text() == "Waist") waist = r;
  REQUIRE(waist >= 0);
  constexpr int kUsedFront = 6;
  const double girth = d.waist(), x = d.design().fromBase->table.row("waist")->x.mm;
  const auto write = [&](const QString& text) {
    table->setFocus();
    table->setCurrentCell(waist, kUsedFront);
    table->editItem(table->item(waist, kUsedFront));
    auto* editor = table->findChild<QLineEdit*>();
    REQUIRE(editor);
    editor->selectAll();
    if (text.isEmpty())
      QTest::keyClick(editor, Qt::Key_Delete);
    else
      QTest::keyClicks(editor, text);
    QTest::keyClick(editor, Qt::Key_Return);
    d.settle();
  };
  write("1/4");
  CHECK(d.design().fromBase->table.row("waist")->x.mm == Approx(6.35));
  CHECK(d.order().base->cells.at("waist.x") == Approx(6.35));
  CHECK(d.waist() == Approx(girth).margin(1e-6));  // other lines take what is left
  CHECK(d.session().selection().working == "shift.waist.x");
  REQUIRE(d.design().working("shift.waist.x"));
  write("");
  CHECK(d.design().fromBase->table.row("waist")->x.mm == Approx(x));
  d.choose("solvedFrom", "underbust");
  CHECK(d.order().base->from == SolvedFrom::Underbust);
  d.session().undo();
  CHECK(d.order().base->from == SolvedFrom::Waist);
}

TEST_CASE("a pattern is kept as a base and recalculated for another client, from the window") {
  Driver d;
  const std::size_t before = basesIn(baseFolder()).size();
  d.press("keepBase");
  const std::vector<std::filesystem::path> kept = basesIn(baseFolder());
  REQUIRE(kept.size() == before + 1);
  d.window.openFile(demoFile("1-ferry"));
  d.window.stages().setStage(Stage::Fit);
  d.settle();
  answerFileDialog(QString::fromStdString(kept.back().string()));
  d.press("recalculate");
  d.settle();
  REQUIRE(d.order().base);
  REQUIRE(d.design().fromBase);
  CHECK(d.design().pattern.level("waist")->bodyGirth == Approx(d.order().measures.mm("waist").value()));
  CHECK(d.find<QLabel>("baseName")->text().contains("lamp room"));
  for (const auto& path : kept) std::filesystem::remove(path);
}

TEST_CASE("without a fitting only what can be begun is shown, and a complaint fills in the note") {
  Driver d("1-ferry");
  CHECK_FALSE(d.find<QComboBox>("complaint")->isVisible());
  CHECK_FALSE(d.find<QComboBox>("fittings")->isVisible());
  d.press("newFitting");
  CHECK(d.find<QComboBox>("complaint")->isVisible());
  d.choose("complaint", "cuts-under-arm");
  CHECK(d.find<QComboBox>("fitLine")->currentData() == "side");
  CHECK(d.find<QComboBox>("fitWork")->currentData() == "lower");
  CHECK(d.find<QComboBox>("fitFrom")->currentData() == "top");
  CHECK_FALSE(d.find<QLineEdit>("fitAmount.field")->text().isEmpty());
  // An amount that cannot be read changes nothing and says so.
  d.type("fitAmount", "a lot");
  CHECK_FALSE(d.find<QPushButton>("noteIt")->isEnabled());
  CHECK(d.order().fittings[0].notes.empty());
  d.session().undo();
  CHECK(d.order().fittings.empty());
}

TEST_CASE("notes that contradict each other say what they get") {
  Driver d;
  d.press("newFitting");
  d.note("cup-empty", "1/2");
  d.note("pulls-to-bust", "1/4");
  auto* notes = d.find<QListWidget>("notes");
  REQUIRE(notes->count() == 2);
  for (int i = 0; i < 2; ++i) CHECK(notes->item(i)->text().contains("Another note says otherwise"));
  // Half way between a half inch less and a quarter more.
  const double before = d.design().pattern.level("bust")->finishedGirth;
  d.press("takeProposal");
  CHECK(d.design().pattern.level("bust")->finishedGirth == Approx(before - inches(0.25)));
}

TEST_CASE("another order is laid over this one, at the level that is chosen, and told edge by edge") {
  Driver d;
  answerFileDialog(demoFile("1-ferry"));
  d.choose("version", "other");
  auto* box = d.find<QComboBox>("version");
  emit box->activated(box->currentIndex());
  d.settle();
  REQUIRE(d.overlaid());
  auto* told = d.find<QListWidget>("differences");
  REQUIRE(told->count() > 3);
  d.choose("laidAt", "side/lower");
  CHECK(d.overlaid());
  d.choose("laidAt", "bust");
  REQUIRE(told->count() > 3);
  told->setFocus();
  told->setCurrentRow(0);
  QTest::keyClick(told, Qt::Key_Return);
  d.settle();
  CHECK_FALSE(d.session().selection().edge.empty());
  // It lies over the pieces on this stage only.
  d.window.stages().setStage(Stage::Prepare);
  d.settle();
  CHECK_FALSE(d.overlaid());
}

TEST_CASE("what a style has no line for is said beside the alteration") {
  Driver d;
  Order next = d.order();
  Alteration a{.id = "1", .name = "for another style"};
  a.shifts = {{"front-line-3", ShiftSides::Both, ShiftWay::Across, {{"waist", -3}}}};
  next.alterations = {a};
  REQUIRE_FALSE(d.session().step(next, "an alteration"));
  d.settle();
  auto* list = d.find<QListWidget>("alterations");
  REQUIRE(list->count() == 1);
  CHECK(list->item(0)->text().contains("Not done"));
  CHECK(list->item(0)->text().contains("front-line-3"));
  bool idle = false;
  for (const Idle& i : d.session().idle()) idle = idle || i.key.find("for another style") != std::string::npos;
  CHECK(idle);
  list->setCurrentRow(0);
  d.press("removeAlteration");
  CHECK(d.order().alterations.empty());
}

TEST_CASE("the finished girth is traced to every alteration that changed it") {
  Driver d;
  d.press("newFitting");
  d.note("gap-wide", "1/2");
  d.press("takeProposal");
  const Working* w = d.design().working("girth.waist");
  REQUIRE(w);
  REQUIRE(w->terms.size() == 2);
  CHECK(w->terms[1].mm == Approx(12.7));
  CHECK(english(w->terms[1].label).find("fitting of") != std::string::npos);
  double sum = 0;
  for (const Term& t : w->terms) sum += t.sign == '-' ? -t.mm : t.mm;
  CHECK(sum == Approx(w->result));
  CHECK(w->result == Approx(d.waist()));
}
