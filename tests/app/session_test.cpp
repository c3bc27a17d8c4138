// The model behind the window, without a window.
#define CATCH_CONFIG_EXTERNAL_INTERFACES
#include <unistd.h>
#include <QApplication>
#include <QTemporaryDir>

#include <catch2/catch.hpp>
#include <filesystem>

#include "app/autosave.h"
#include "app/order_session.h"
#include "app/table_scene.h"
#include "app/workings_panel.h"
#include "io/atomic_file.h"
#include "parts/bones/bones.h"
#include "render/theme.h"
#include "tests/support/bodies.h"
#include "tests/support/qt_application.h"

using namespace armure;
using namespace armure::testing;

namespace {

struct Application : QtApplication<QApplication> {
  using QtApplication::QtApplication;
  void prepare() override {
    QApplication::setStyle("Fusion");
    if (!loadFonts()) throw std::runtime_error("the built-in font cannot be read");
    QApplication::setFont(uiFont());
  }
};
CATCH_REGISTER_LISTENER(Application)

bool isBone(const Design& d, std::string_view id) { return boneWorking(d.pattern, d.block, d.rules, id).has_value(); }

void typePlain(OrderSession& s) {
  const MeasureSet figure = plainFigure();
  for (const auto& [id, m] : figure.all()) REQUIRE_FALSE(s.setMeasure(id, m.typed));
}

}  // namespace

TEST_CASE("an order grows measure by measure until there is a pattern") {
  OrderSession s;
  CHECK(s.design() == nullptr);
  s.setMeasure("bust", "36");
  s.setMeasure("waist", "28");
  CHECK(s.design() == nullptr);
  REQUIRE(s.problem());
  CHECK(english(s.problem()->where) == "hip");
  s.setMeasure("hip", "38");
  CHECK(s.design() != nullptr);
  CHECK_FALSE(s.problem());
}

TEST_CASE("text that cannot be read changes nothing and says what would be right") {
  OrderSession s;
  typePlain(s);
  const Order before = s.order();
  for (const char* text : {"9 1/", "abc", "-3", "3", "40000"}) {
    const auto problem = s.setMeasure("waist", text);
    REQUIRE(problem);
    CHECK_FALSE(problem->remedy.empty());
    CHECK(s.order() == before);
  }
  CHECK(s.setChoice("hem.length", "80"));
  CHECK(s.order() == before);
}

TEST_CASE("undo goes back to the start, redo to the end, the pattern with it") {
  OrderSession s;
  const Order start = s.order();
  typePlain(s);
  s.setChoice("hem.length", "6");
  s.setStyle("sweetheart-laced");
  s.toggleUnits();
  const Order end = s.order();
  const double side = s.design()->block.front.at("waist").side;
  while (s.canUndo()) s.undo();
  CHECK(s.order() == start);
  while (s.canRedo()) s.redo();
  CHECK(s.order() == end);
  CHECK(s.design()->block.front.at("waist").side == side);
}

TEST_CASE("saved and opened again it is the same pattern; a broken file changes nothing") {
  const QTemporaryDir folder;
  const std::string path = folder.filePath("a.armure").toStdString();
  OrderSession s;
  typePlain(s);
  CHECK_FALSE(s.isSaved());
  REQUIRE_FALSE(s.save(path).problem);
  CHECK(s.isSaved());
  OrderSession t;
  REQUIRE_FALSE(t.open(path));
  CHECK(t.order() == s.order());
  REQUIRE_FALSE(writeFileAtomically(folder.filePath("b.armure").toStdString(), "{ \"format\""));
  const auto problem = t.open(folder.filePath("b.armure").toStdString());
  REQUIRE(problem);
  CHECK(english(problem->where).find("line 1") != std::string::npos);
  CHECK(t.order() == s.order());
  CHECK(t.path() == path);
  CHECK(t.save(folder.filePath("none/c.armure").toStdString()).problem);  // cannot be written
  CHECK(t.path() == path);
}

TEST_CASE("while the measures contradict each other the last pattern stays") {
  OrderSession s;
  typePlain(s);
  s.setMeasure("shoulder_to_underbust", "10");
  REQUIRE(s.problem());
  CHECK(s.design() != nullptr);
  s.undo();
  CHECK_FALSE(s.problem());
}

TEST_CASE("what was typed keeps its unit; a bare number means the order's unit") {
  OrderSession s;
  s.setMeasure("bust", "92 cm");
  CHECK(*s.order().measures.mm("bust") == Approx(920));
  s.setMeasure("bust", "36");
  CHECK(s.order().measures.all().find("bust")->second.typed == "36 in");
  s.toggleUnits();
  s.setMeasure("bust", "92");
  CHECK(*s.order().measures.mm("bust") == Approx(920));
  s.setMeasure("bust", "");
  CHECK_FALSE(s.order().measures.has("bust"));
}

TEST_CASE("choosing a style takes back what it overrules") {
  OrderSession s;
  typePlain(s);
  s.setChoice("top.shape", "straight");
  s.setStyle("sweetheart-zip");
  CHECK(s.rule("top.shape").option == "sweetheart");
  s.setSchool("quarter-grid-sixth");
  CHECK(s.rule("chest.school").option == "bust-sixth");
}

TEST_CASE("unsaved work is kept and taken up again after a crash") {
  OrderSession s;
  Autosave autosave(s);
  typePlain(s);
  for (const Recovered& r : autosave.kept()) Autosave::forget(r);  // of other tests
  autosave.writeNow();
  CHECK(autosave.kept().empty());  // the order that is open is not offered to itself
  // A run that has ended: the same file under the number of a process that is gone.
  const std::string own = autosave.file();
  CHECK(std::filesystem::status(own).permissions() ==
        (std::filesystem::perms::owner_read | std::filesystem::perms::owner_write));
  std::string text = readText(own);
  const std::string pid = "\"pid\": " + std::to_string(::getpid());
  REQUIRE(text.find(pid) != std::string::npos);
  text.replace(text.find(pid), pid.size(), "\"pid\": 4194303");
  REQUIRE_FALSE(writeFileAtomically(Autosave::folder() + "/dead.json", text));
  const auto left = autosave.kept();
  REQUIRE(left.size() == 1);
  OrderSession recovered;
  REQUIRE_FALSE(recovered.recover(left[0].text, left[0].path));
  CHECK(recovered.order() == s.order());
  CHECK_FALSE(recovered.isSaved());
  Autosave::forget(left[0]);
  CHECK(autosave.kept().empty());
  // One that cannot be read is offered as what it is.
  REQUIRE_FALSE(writeFileAtomically(Autosave::folder() + "/half.json", text.substr(0, text.size() / 2)));
  REQUIRE(autosave.kept().size() == 1);
  CHECK_FALSE(autosave.kept()[0].fault.empty());
  Autosave::forget(autosave.kept()[0]);
  const QTemporaryDir folder;
  REQUIRE_FALSE(s.save(folder.filePath("x.armure").toStdString()).problem);
  autosave.writeNow();
  CHECK_FALSE(std::filesystem::exists(own));  // saved work needs no copy
}

TEST_CASE("every view of the table holds every piece and something to click on") {
  OrderSession s;
  typePlain(s);
  for (TableMode mode : {TableMode::OnTheBlock, TableMode::Apart, TableMode::Taped}) {
    const TableScene scene = makeScene(*s.design(), mode, {.boned = true});
    CHECK(scene.bounds.width() > 200);
    size_t targets = 0;
    for (const SceneItem& item : scene.items) {
      targets += item.target != Selection{};
      // Every working a click asks for exists.
      if (!item.target.working.empty()) {
        INFO(item.target.working);
        CHECK((s.design()->working(item.target.working) != nullptr || isBone(*s.design(), item.target.working)));
      }
    }
    CHECK(targets > 12);
  }
}

TEST_CASE("the workings show every term of the arithmetic, in the user's units") {
  OrderSession s;
  typePlain(s);
  const auto text = [&](Selection selection) { return workingsText(s.order(), *s.design(), selection, lightTheme()); };
  const QString side = text({.working = "front.waist.side"});
  CHECK(side.contains("finished quarter"));
  CHECK(side.contains("<b>7</b>"));  // 28 / 4
  CHECK(side.contains("princess line"));
  CHECK(side.contains("<b>8 1/2</b>"));  // = 7 + 1 1/2
  CHECK(text({.working = "measure.bust"}).contains("taken"));
  CHECK(text({.piece = "front-2", .edge = "princess", .seam = "princess"}).contains("whole"));
  CHECK(text({.piece = "front-1"}).contains("1 of 4"));
  s.toggleUnits();
  CHECK(text({.working = "front.waist.side"}).contains("<b>21.6</b>"));
  s.setChoice("balance.keep", "drafted");
  Selection row;
  row.row = 0;
  CHECK(text(row).contains("To mend it"));
}
