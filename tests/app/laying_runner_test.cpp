// Layouts and sheets found in the background: begun, stopped, begun anew; what the table shows of them.
#include <QSignalSpy>
#include <QtTest/QTest>
#include <catch2/catch.hpp>

#include "app/laying_runner.h"
#include "tests/app/driver.h"

using namespace armure;
using namespace armure::testing;

namespace {

std::vector<ClothLaying> layingsOf(const char* style) {
  Order order = plainOrder();
  order.style = style;
  order.choices["cloth.satin.lies"] = "open";
  const Design design = recalc(order).value();
  return clothLayings(design.pattern, design.cutOutlines, pieceList(design.pattern, design.rules));
}

void checkSound(const std::vector<ClothLaying>& layings, const LayingRunner& runner) {
  const std::vector<StripLayout> layouts = runner.layouts();
  REQUIRE(layouts.size() == layings.size());
  for (size_t i = 0; i < layings.size(); ++i) {
    REQUIRE(layouts[i].items.size() == layings[i].items.size());
    CHECK(worstOverlap(layings[i].problem, layouts[i]) < 0.5);
  }
}

bool ended(LayingRunner& runner) {
  return QTest::qWaitFor([&] { return !runner.isBusy(); }, 30000);
}

size_t frames(const TableView& table) {
  return static_cast<size_t>(std::ranges::count(table.scene().items, Ink::PageFrame, &SceneItem::mark));
}

}  // namespace

TEST_CASE("layouts of all cloths are there when a search ends, and told of while it goes") {
  const std::vector<ClothLaying> layings = layingsOf("reducing-four-lines");
  LayingRunner runner;
  QSignalSpy better(&runner, &LayingRunner::better), end(&runner, &LayingRunner::ended);
  runner.start(layings, {}, 0.3);
  CHECK(runner.isBusy());
  REQUIRE(ended(runner));
  CHECK(better.count() >= static_cast<int>(layings.size()));
  CHECK(end.count() == 1);
  CHECK(runner.progress() == 1);
  checkSound(layings, runner);
}

TEST_CASE("a search that is stopped keeps the best so far") {
  const std::vector<ClothLaying> layings = layingsOf("reducing-four-lines");
  LayingRunner runner;
  QSignalSpy better(&runner, &LayingRunner::better);
  runner.start(layings, {}, 600);
  REQUIRE(QTest::qWaitFor([&] { return better.count() >= static_cast<int>(layings.size()); }, 30000));
  runner.stop();
  REQUIRE(ended(runner));
  checkSound(layings, runner);
}

TEST_CASE("a search begun anew takes the place of the one before, and begins with what it is given") {
  const std::vector<ClothLaying> first = layingsOf("reducing-four-lines"), second = layingsOf("shaping-two-lines");
  LayingRunner runner;
  runner.start(first, {}, 600);
  runner.start(second, {}, 0.2);
  REQUIRE(ended(runner));
  checkSound(second, runner);
  const std::vector<StripLayout> before = runner.layouts();
  runner.start(second, before, 0);
  REQUIRE(ended(runner));
  for (size_t i = 0; i < before.size(); ++i) CHECK(runner.layouts()[i].length <= before[i].length + 1e-9);
}

TEST_CASE("a runner that goes while it searches waits for the end of it") {
  LayingRunner runner;
  runner.start(layingsOf("reducing-four-lines"), {}, 600);
  CHECK(runner.isBusy());
}

TEST_CASE("on Prepare the table shows the sheets once they are laid, and those of another paper when it is chosen") {
  ShownWindow d;
  d.window.openFile(demoFile("2-lamp-room"));
  d.session().setChoice("paper.size", "a4");
  d.session().settle();
  d.window.stages().setStage(Stage::Prepare);
  REQUIRE(QTest::qWaitFor([&] { return frames(d.window.table()) > 0; }, 20000));
  const size_t a4 = frames(d.window.table());
  const Design& design = *d.session().whole();
  CHECK(a4 == layOnSheets(design.pattern, design.cutOutlines, d.session().printWishes()).tiling.tiles.size());
  d.session().setChoice("paper.size", "a3");
  d.session().settle();
  REQUIRE(QTest::qWaitFor([&] { return frames(d.window.table()) > 0 && frames(d.window.table()) < a4; }, 20000));
  // While an allowance changes the pieces stay where they lie.
  const Vec2 before = d.window.table().scene().arrangement[0].apply({});
  d.session().setChoice("allowance.hem", "5/8 in");
  CHECK(d.window.table().scene().arrangement[0].apply({}) == before);
  d.window.stages().setStage(Stage::Balance);
  CHECK(frames(d.window.table()) == 0);
}
