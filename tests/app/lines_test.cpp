// Cups and lines in the real window: handles dragged on the taped figure and worked by keys, undone; a style taken from
// the shelf; the kind of cup chosen and seen.
#include <QComboBox>
#include <QLabel>
#include <QPushButton>
#include <QtTest/QTest>
#include <catch2/catch.hpp>

#include "parts/cups/rules.h"
#include "parts/edges/rules.h"
#include "render/sketch_painter.h"
#include "tests/app/driver.h"

using namespace armure;
using namespace armure::testing;

namespace {

struct Driver : ShownWindow {
  explicit Driver(Stage stage) {
    window.openFile(demoFile("1-ferry"));
    window.stages().setStage(stage);
    settle();
  }
  TableView& table() { return window.table(); }

  const SceneItem* handle(const std::string& key) {
    for (const SceneItem& item : table().scene().items)
      if (item.guide && item.guide->key == key) return &item;
    return nullptr;
  }
  QPoint placeOf(const std::string& key) {
    REQUIRE(handle(key));
    return table().toScreen(handle(key)->path.boundingRect().center()).toPoint();
  }
  void drag(QPoint from, QPoint by) {
    QTest::mousePress(&table(), Qt::LeftButton, Qt::NoModifier, from);
    for (int i = 1; i <= 6; ++i) QTest::mouseMove(&table(), from + by * i / 6);
    QTest::mouseRelease(&table(), Qt::LeftButton, Qt::NoModifier, from + by);
  }
};

}  // namespace

TEST_CASE("a plunge is dragged down on the taped figure, and undone") {
  Driver d(Stage::Lines);
  d.window.session().setChoice("top.shape", "plunge-v");
  d.window.session().settle();
  CHECK(d.table().mode() == TableMode::Taped);
  const double before = d.design().rules.length(key::kTopPlunge);
  d.drag(d.placeOf("top.plunge"), {0, 30});
  const double after = d.design().rules.length(key::kTopPlunge);
  CHECK(after > before + 4);
  CHECK(d.handle("top.plunge")->guide->placed);
  // What it is stands in the workings.
  CHECK(d.window.session().selection().working == "rule.top.plunge");
  // One drag is one step.
  d.window.session().undo();
  CHECK(d.design().rules.length(key::kTopPlunge) == Approx(before));
  CHECK(d.design().rules.option(key::kTopShape) == TopShape::PlungeV);
  d.window.session().redo();
  CHECK(d.design().rules.length(key::kTopPlunge) == Approx(after));
  // A double click gives the rule of thumb back.
  QTest::mouseDClick(&d.table(), Qt::LeftButton, Qt::NoModifier, d.placeOf("top.plunge"));
  CHECK(d.design().rules.isDefault(key::kTopPlunge));
}

TEST_CASE("a net yoke over a plunge is held by its handles: neck, plunge, armhole, each undone") {
  Driver d(Stage::Lines);
  for (const auto& [key, value] :
       {std::pair{"cover.kind", "covered"}, {"yoke.front", "net"}, {"top.shape", "plunge-v"}})
    d.window.session().setChoice(key, value);
  d.window.session().settle();
  struct Drag {
    const char* key;
    QPoint by;
  };
  for (const Drag& drag : {Drag{"neck.depth_front", {0, 25}}, {"top.plunge", {0, 20}}, {"yoke.armhole", {0, -15}}}) {
    INFO(drag.key);
    const double before = d.design().rules.value(drag.key).number;
    d.drag(d.placeOf(drag.key), drag.by);
    CHECK(d.design().rules.value(drag.key).number > before + 3);
    d.window.session().undo();
    CHECK(d.design().rules.value(drag.key).number == Approx(before));
  }
}

TEST_CASE("the dial is turned on the bust point: the dart opens at the side, and is undone") {
  Driver d(Stage::Cups);
  CHECK(d.table().mode() == TableMode::Taped);
  const auto wedges = [&] {
    int n = 0;
    for (const SceneItem& item : d.table().scene().items) n += item.mark == Ink::Dial;
    return n;
  };
  const int before = wedges();
  CHECK(before >= 2);
  d.drag(d.placeOf("dial.side"), {25, 0});
  CHECK(d.design().rules.share(key::kDialSide) > 0.2);
  CHECK(d.design().pattern.seam("dart-side") != nullptr);
  CHECK(wedges() == before + 1);
  CHECK(d.window.session().selection().working == "rule.dial.side");
  d.window.session().undo();
  CHECK(d.design().rules.share(key::kDialSide) == 0);
  CHECK(d.design().pattern.seam("dart-side") == nullptr);
  // A centre on the fold takes no dart, and offers no handle for one.
  CHECK(d.handle("dial.centre") == nullptr);
  d.window.session().setChoice("opening.front", "seam");
  d.drag(d.placeOf("dial.centre"), {-25, 0});
  CHECK(d.design().pattern.seam("dart-centre") != nullptr);
}

TEST_CASE("a handle moves by keys along its own way only") {
  Driver d(Stage::Lines);
  d.table().setFocus();
  QTest::keyClick(&d.table(), Qt::Key_G);
  const std::string working = d.window.session().selection().working;
  REQUIRE(working.starts_with("rule."));
  const std::string key = working.substr(5);
  const double before = d.design().rules.value(key).number;
  const bool upright = std::abs(d.handle(key)->guide->axis.y()) > 0.7;
  QTest::keyClick(&d.table(), upright ? Qt::Key_Left : Qt::Key_Up, Qt::ShiftModifier);
  CHECK(d.design().rules.value(key).number == Approx(before));
  QTest::keyClick(&d.table(), upright ? Qt::Key_Down : Qt::Key_Right, Qt::ShiftModifier);
  QTest::keyClick(&d.table(), upright ? Qt::Key_Up : Qt::Key_Left, Qt::ShiftModifier);
  CHECK(d.design().rules.value(key).number == Approx(before).margin(inches(1) / 16));
}

TEST_CASE("a handle is not drawn where its line is not, and a refused drag changes nothing") {
  Driver d(Stage::Lines);
  d.window.session().setChoice("top.shape", "straight");
  CHECK(d.handle("top.dip") == nullptr);
  CHECK(d.handle("top.plunge") == nullptr);
  CHECK(d.handle("cup.side") == nullptr);  // of another stage
  d.window.session().settle();
  const double before = d.design().rules.length(key::kHemLength);
  d.drag(d.placeOf("hem.length"), {0, -5000});
  CHECK(d.design().rules.length(key::kHemLength) <= before);
  CHECK(d.design().rules.length(key::kHemLength) >= inches(2.5) - 1e-9);
  CHECK_FALSE(d.window.session().problem());
}

TEST_CASE("a style is taken from the shelf by keys") {
  Driver d(Stage::Lines);
  auto* shelf = d.window.findChild<QPushButton*>("shelf");
  REQUIRE(shelf);
  QTest::mouseClick(shelf, Qt::LeftButton);
  auto* list = d.window.findChild<QListWidget*>("styleShelf");
  REQUIRE(list);
  CHECK(list->isVisible());
  CHECK(static_cast<size_t>(list->count()) == styleTable().size());
  CHECK(list->currentItem()->data(Qt::UserRole).toString().toStdString() == d.window.session().order().style);
  const std::string before = d.window.session().order().style;
  QTest::keyClick(list, Qt::Key_End);
  QTest::keyClick(list, Qt::Key_Return);
  CHECK_FALSE(list->isVisible());
  CHECK(d.window.session().order().style == styleTable().back().id);
  CHECK(d.table().isVisible());
  d.window.session().undo();
  CHECK(d.window.session().order().style == before);
  // Escape leaves it as it was.
  QTest::mouseClick(shelf, Qt::LeftButton);
  QTest::keyClick(list, Qt::Key_Home);
  QTest::keyClick(list, Qt::Key_Escape);
  CHECK(d.window.session().order().style == before);
}

TEST_CASE("the shelf keeps its drawings while the client stays the same") {
  Driver d(Stage::Lines);
  auto* list = d.window.findChild<QListWidget*>("styleShelf");
  const auto drawing = [&] {
    d.window.showShelf(true);
    const QImage image = list->item(0)->icon().pixmap(list->iconSize()).toImage();
    const auto kept = list->item(0);
    d.window.showShelf(false);
    return std::pair(kept, image);
  };
  const auto [first, image] = drawing();
  CHECK(drawing().first == first);  // the same item, not one made again
  d.window.session().setMeasure("waist", "34");
  const auto [other, wider] = drawing();
  CHECK(wider != image);
  d.window.session().undo();
  CHECK(drawing().second == image);
}

TEST_CASE("a cut cup is chosen at its stage, and how deep it is stands beside it") {
  Driver d(Stage::Cups);
  auto* box = d.window.findChild<QComboBox*>("cup.kind");
  REQUIRE(box);
  const size_t panels = d.design().pattern.shellPieces();
  box->setCurrentIndex(box->findData("three"));
  emit box->activated(box->currentIndex());
  CHECK(d.design().pattern.shellPieces() == panels + 3);
  CHECK(d.handle("cup.side") != nullptr);
  auto* words = d.window.findChild<QLabel*>("depthWords");
  REQUIRE(words);
  CHECK(words->text().contains("breast at the underbust"));
  // A seam of the cup can be chosen and walked like any other.
  d.window.session().select({.seam = "cup-1"});
  CHECK(d.design().pattern.seam("cup-1") != nullptr);
  d.drag(d.placeOf("cup.side"), {-20, 0});
  CHECK(d.design().rules.length(key::kCupSide) > inches(1.5));
  d.window.session().undo();
  CHECK(d.design().rules.length(key::kCupSide) == Approx(inches(1.5)));
}

TEST_CASE("every style's drawing is painted, both views") {
  for (const Preset& style : styleTable()) {
    INFO(style.id);
    Order order = plainOrder();
    order.style = style.id;
    const auto sketch = sketchOf(order);
    REQUIRE(sketch.ok());
    QImage picture(200, 110, QImage::Format_ARGB32_Premultiplied);
    picture.fill(Qt::transparent);
    QPainter p(&picture);
    drawSketch(p, *sketch, QRectF(2, 2, 196, 106), lightTheme());
    p.end();
    int left = 0, right = 0, rim = 0;
    for (int y = 0; y < picture.height(); ++y)
      for (int x = 0; x < picture.width(); ++x)
        if (qAlpha(picture.pixel(x, y)) > 0) {
          (x < 100 ? left : right)++;
          rim += x == 0 || x == 199;
        }
    CHECK(left > 1500);
    CHECK(right > 1000);
    CHECK(rim < 20);
  }
}
