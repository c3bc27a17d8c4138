// What is sewn on, chosen in the real window by mouse and keys: added, described, its ends dragged on the table, taken
// off.
#include <catch2/catch.hpp>

#include "tests/app/driver.h"

using namespace armure;
using namespace armure::testing;

namespace {

struct Driver : ShownWindow {
  Driver() { openAt("1-ferry", Stage::Lines); }
  const TrimChoice* trim(const std::string& id) {
    for (const TrimChoice& t : design().rules.trims())
      if (t.id() == id) return &t;
    return nullptr;
  }
  std::optional<QPoint> handle(const std::string& key) {
    for (const SceneItem& item : window.table().scene().items)
      if (item.guide && item.guide->key == key)
        return window.table().toScreen(item.path.boundingRect().center()).toPoint();
    return std::nullopt;
  }
  double covered(const std::string& id) {
    double sum = 0;
    for (const Attachment& a : design().pattern.attachments)
      if (a.trim == id) sum += a.to - a.from;
    return sum;
  }
  void drag(QPoint from, QPoint to) {
    TableView& table = window.table();
    QTest::mousePress(&table, Qt::LeftButton, {}, from);
    QTest::mouseMove(&table, (from + to) / 2);
    QTest::mouseMove(&table, to);
    QTest::mouseRelease(&table, Qt::LeftButton, {}, to);
    settle();
  }
};

}  // namespace

TEST_CASE("a frill is sewn on, described, shortened on the table, and taken off again") {
  Driver d;
  d.choose("trimKind", "frill");
  d.press("addTrim");
  REQUIRE(d.trim("frill-1"));
  CHECK(d.trim("frill-1")->on() == "hem");
  d.type("trim.full", "3");
  d.type("trim.deep", "2 1/2");
  CHECK(d.trim("frill-1")->value("full").number == Approx(3));
  CHECK(d.trim("frill-1")->value("deep").number == Approx(inches(2.5)));
  d.choose("trim.how", "knife");
  CHECK(d.find<QWidget>("trim.pleat")->isVisible());  // its rows follow
  d.choose("trim.how", "gathered");
  CHECK_FALSE(d.find<QWidget>("trim.pleat")->isVisible());
  const double whole = d.covered("frill-1");
  d.choose("trimTo", "side");
  CHECK(d.covered("frill-1") < 0.7 * whole);
  d.type("trimTo.on", "-1");
  CHECK(d.trim("frill-1")->to().on == Approx(-inches(1)));
  // Dragged along the hem, towards the side, on the pieces laid edge to edge.
  d.window.table().setMode(TableMode::Taped);
  d.settle();
  const double before = d.covered("frill-1");
  const auto from = d.handle("frill.1.from");
  REQUIRE(from);
  d.drag(*from, *from + QPoint(40, 0));
  CHECK(d.covered("frill-1") < before - 5);
  // What cannot be says so and changes nothing.
  d.type("trim.full", "0.2");
  CHECK(d.trim("frill-1")->value("full").number == Approx(3));
  d.press("takeOffTrim");
  CHECK_FALSE(d.trim("frill-1"));
  d.session().undo();
  CHECK(d.trim("frill-1"));
}

TEST_CASE("a flounce goes along the edge that is picked on the table; of two either can be edited") {
  Driver d;
  d.session().select({.piece = "front-1", .edge = "top"});
  d.choose("trimKind", "flounce");
  d.press("addTrim");
  REQUIRE(d.trim("flounce-1"));
  CHECK(d.trim("flounce-1")->on() == "top");
  d.press("addTrim");
  REQUIRE(d.trim("flounce-2"));
  d.choose("trimLine", "hem");
  CHECK(d.trim("flounce-2")->on() == "hem");
  d.choose("trimEdited", "flounce-1");
  d.type("trim.long", "4");
  CHECK(d.trim("flounce-1")->value("long").number == Approx(inches(4)));
  CHECK(d.trim("flounce-2")->value("long").number == Approx(inches(8)));
}

TEST_CASE("taped, what is sewn on is a wave along its edge; apart, it lies beside the pieces") {
  Driver d;
  d.session().setChoice("frill.1.on", "top");
  d.settle();
  const auto count = [&](auto&& which) {
    const auto& items = d.window.table().scene().items;
    return std::ranges::count_if(items, which);
  };
  const auto isPiece = [](const SceneItem& i) {
    return i.target.piece == "frill-1" && (i.mark == Ink::PieceFill || i.mark == Ink::PieceFillDeep);
  };
  const auto isWave = [](const SceneItem& i) { return i.target.working == "trim.frill-1" && !i.guide; };
  d.window.table().setMode(TableMode::Taped);
  d.settle();
  CHECK(count(isPiece) == 0);
  CHECK(count(isWave) >= 4);  // on every piece its edge lies on
  d.window.table().setMode(TableMode::Apart);
  d.settle();
  CHECK(count(isPiece) == 1);
  CHECK(count(isWave) == 0);
}

TEST_CASE("each kind begins where it is most often sewn; pleats on the piece that is picked") {
  Driver d;
  for (const auto& [kind, on] :
       {std::pair{"ruffle", "top"}, {"pocket", "side"}, {"loops", "opening"}, {"peplum", "hem"}}) {
    INFO(kind);
    d.choose("trimKind", kind);
    d.press("addTrim");
    REQUIRE(d.trim(std::string(kind) + "-1"));
    CHECK(d.trim(std::string(kind) + "-1")->on() == on);
  }
  d.session().select({.piece = "front-2"});
  d.choose("trimKind", "pleats");
  d.press("addTrim");
  REQUIRE(d.trim("pleats-1"));
  CHECK(d.trim("pleats-1")->on() == "front-2");
  // It lies over a piece: it has no places along a line, and another piece can be chosen.
  CHECK_FALSE(d.find<QWidget>("trimFrom")->isVisible());
  d.choose("trimLine", "front-1");
  CHECK(d.trim("pleats-1")->on() == "front-1");
  d.type("trim.count", "2");
  CHECK(d.trim("pleats-1")->value("count").number == Approx(2));
}

TEST_CASE("of every kind all choices can be read in its rows") {
  Driver d;
  for (const TrimKindInfo& kind : trimKinds()) {
    d.choose("trimKind", std::string(kind.id).c_str());
    d.press("addTrim");
    REQUIRE(d.trim(std::string(kind.id) + "-1"));
    for (const QComboBox* box : d.window.findChildren<QComboBox*>())
      if (box->isVisible() && box->objectName().startsWith("trim"))
        for (int i = 0; i < box->count(); ++i) {
          INFO(kind.id << " " << box->objectName().toStdString() << ": " << box->itemText(i).toStdString());
          CHECK(box->width() >= box->fontMetrics().horizontalAdvance(box->itemText(i)) + 24);
        }
  }
}

TEST_CASE("a click on what is sewn on shows its rows") {
  Driver d;
  d.session().setChoice("frill.1.on", "top");
  d.session().setChoice("edging.1.on", "hem");
  d.window.table().setMode(TableMode::Taped);
  d.settle();
  for (const char* id : {"frill-1", "edging-1"}) {
    INFO(id);
    const auto& items = d.window.table().scene().items;
    const auto wave = std::ranges::find_if(
        items, [&](const SceneItem& i) { return i.target.working == std::string("trim.") + id && !i.guide; });
    REQUIRE(wave != items.end());
    const QPointF at = wave->path.elementAt(wave->path.elementCount() / 16 * 8 + 4);  // a crest, clear of the edge
    QTest::mouseClick(&d.window.table(), Qt::LeftButton, {}, d.window.table().toScreen(at).toPoint());
    d.settle();
    CHECK(d.session().selection().working == std::string("trim.") + id);
    CHECK(d.find<QComboBox>("trimEdited")->currentData().toString() == id);
  }
}
