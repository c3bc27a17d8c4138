// A maker's way through Prepare in the real window, with mouse and keys: cloths chosen, a bone placed, moved and taken
// away, a layer taken away, the toile's sheet made.
#include <QApplication>
#include <QLineEdit>
#include <QPushButton>
#include <QScrollArea>
#include <QTemporaryDir>
#include <QTimer>
#include <QtTest/QTest>
#include <catch2/catch.hpp>
#include <fstream>
#include <sstream>

#include "app/choice_box.h"
#include "parts/bones/bones.h"
#include "prepare/lists.h"
#include "rules/layer_rules.h"
#include "tests/app/driver.h"

using namespace armure;
using namespace armure::testing;

namespace {

struct Driver : ShownWindow {
  Driver() { openAt("2-lamp-room", Stage::Prepare); }
  TableView& table() { return window.table(); }

  QPoint inside(const std::string& piece, double across) {
    for (const SceneItem& item : table().scene().items)
      if (item.target.piece == piece && (item.mark == Ink::PieceFill || item.mark == Ink::PieceFillDeep)) {
        const QRectF box = item.path.boundingRect();
        return table().toScreen({box.left() + across * box.width(), box.center().y()}).toPoint();
      }
    FAIL("no piece " << piece);
    return {};
  }
  std::optional<QPoint> handle(const std::string& key) {
    for (const SceneItem& item : table().scene().items)
      if (item.guide && item.guide->key == key) return table().toScreen(item.path.boundingRect().center()).toPoint();
    return std::nullopt;
  }
  bool hasBone(std::string_view id) {
    const auto all = channelsOf(design().pattern, design().block, design().rules);
    return std::ranges::find(all, id, &Channel::id) != all.end();
  }
  std::string clothOfLayer(std::string_view layer) {
    const CutList list = cutList(design().pattern, design().block, design().rules);
    const auto found = std::ranges::find(list.pieces, layer, &CutPiece::layer);
    return found == list.pieces.end() ? "" : found->cloth;
  }
};

}  // namespace

TEST_CASE("cloths are chosen, a layer is taken away and given back, by keys") {
  Driver d;
  d.choose("cloth.of.lining", "velvet");
  CHECK(d.clothOfLayer("lining") == "velvet");
  d.choose("layer.lining", "none");
  CHECK(d.clothOfLayer("lining").empty());
  CHECK(d.design().rules.option(key::kLayerLining) == LayerReach::None);
  d.session().undo();
  CHECK(d.clothOfLayer("lining") == "velvet");
  // A cloth of her own, described and used.
  d.press("anotherCloth");
  auto* wide = d.find<QLineEdit>("clothEdited.width.field");
  wide->setFocus();
  QTest::keyClicks(wide, "28");
  QTest::keyClick(wide, Qt::Key_Return);
  d.settle();
  REQUIRE(d.design().rules.cloth("own-1"));
  CHECK(d.design().rules.cloth("own-1")->width == Approx(inches(28)));
  d.choose("cloth.of.shell", "own-1");
  CHECK(d.clothOfLayer("shell") == "own-1");
}

TEST_CASE("layers change places") {
  Driver d;
  d.choose("layer.strength", "all");
  auto* layers = d.find<QListWidget>("layers");
  REQUIRE(layers->count() == 3);
  CHECK(layers->item(0)->text() == "Shell");
  layers->setCurrentRow(2);
  d.press("layerOut");
  CHECK(d.order().choices.at("layers.order") == "shell lining strength");
  CHECK(layers->item(1)->text() == "Lining");
  CHECK(layers->currentRow() == 1);
}

TEST_CASE("a bone is put on the piece picked, dragged along it, and taken away; so is one of the style's") {
  Driver d;
  QTest::mouseClick(&d.table(), Qt::LeftButton, Qt::NoModifier, d.inside("front-2", 0.3));
  d.settle();
  REQUIRE(d.session().selection().piece == "front-2");
  d.press("placeBone");
  REQUIRE(d.hasBone("bone-front-2-own-1"));
  const auto place = [&] { return d.design().rules.bonesAt("front-2").at(1); };
  CHECK(place() == Approx(0.5));
  const QPoint from = d.handle("bone.at.front-2.1").value();
  QTest::mousePress(&d.table(), Qt::LeftButton, Qt::NoModifier, from);
  for (int i = 1; i <= 4; ++i) QTest::mouseMove(&d.table(), from + QPoint(-4 * i, 0));
  QTest::mouseRelease(&d.table(), Qt::LeftButton, Qt::NoModifier, from + QPoint(-16, 0));
  d.settle();
  CHECK(place() < 0.45);
  CHECK(place() > 0.05);
  d.session().undo();
  CHECK(place() == Approx(0.5));
  QTest::mouseDClick(&d.table(), Qt::LeftButton, Qt::NoModifier, d.handle("bone.at.front-2.1").value());
  d.settle();
  CHECK_FALSE(d.hasBone("bone-front-2-own-1"));
  REQUIRE(d.hasBone("bone-princess"));
  d.session().select({.working = "bone-princess", .piece = "front-1"});
  d.settle();
  d.press("removeBone");
  CHECK_FALSE(d.hasBone("bone-princess"));
}

TEST_CASE("the toile's sheet is made from the window") {
  Driver d;
  d.choose("cut.for", "toile");
  CHECK(d.clothOfLayer("lining").empty());
  CHECK(d.clothOfLayer("shell") == "calico");
  QTemporaryDir folder;
  const QString path = folder.filePath("toile.html");
  answerFileDialog(path);
  d.press("sheet-html");
  std::ifstream file(path.toStdString());
  std::stringstream text;
  text << file.rdbuf();
  CHECK(text.str().find("Cut of calico for toiles") != std::string::npos);
}
