// A base read from a drawing in the real window, by mouse and keys: named, scaled, measured, kept; and what is made of
// it.
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QScrollArea>
#include <QTemporaryDir>
#include <QtTest/QTest>
#include <catch2/catch.hpp>
#include <fstream>

#include "app/choice_box.h"
#include "app/tracing_dialog.h"
#include "geometry/path_distance.h"
#include "io/base_file.h"
#include "io/svg.h"
#include "recalc/bases.h"
#include "tests/app/driver.h"

using namespace armure;
using namespace armure::testing;

namespace {

// The drawing of a bodice of ours, as a stranger would send it: without ids, layers and words, at half its size.
std::string strangersDrawing() {
  Order o = plainOrder();
  o.style = "straight-zip";
  const Result<Design> d = recalc(o);
  REQUIRE(d.ok());
  std::string out = "<svg xmlns='http://www.w3.org/2000/svg' viewBox='0 0 2000 2000' width='1000mm' height='1000mm'>";
  double x = 40;
  for (size_t i = 0; i < d->pattern.shellPieces(); ++i) {
    const Piece& p = d->pattern.pieces[i];
    double left = HUGE_VAL, right = -HUGE_VAL;
    for (const Vec2 q : p.outline(1)) left = std::min(left, q.x), right = std::max(right, q.x);
    const auto line = [&](const Path& path) {
      out += "<path d='M" + std::to_string(path.start().x + x - left) + " " + std::to_string(path.start().y + 40);
      for (const Cubic& c : path.cubics())
        for (const auto& [letter, q] : {std::pair{"C", c.p1}, {" ", c.p2}, {" ", c.p3}})
          out += letter + std::to_string(q.x + x - left) + " " + std::to_string(q.y + 40);
      out += "'/>";
    };
    for (const Edge& e : p.edges) line(e.path);
    for (const LevelLine& l : p.levelLines()) line(Path::line(l.a, l.b));
    line(Path::line(p.grainBottom, p.grainTop));
    x += right - left + 60;
  }
  return out + "</svg>";
}

// Folders of the user's own for one test; before the window and gone after it.
struct OwnFolders {
  QTemporaryDir folder;
  QByteArray state = qgetenv("XDG_STATE_HOME"), data = qgetenv("XDG_DATA_HOME");
  OwnFolders() {
    qputenv("XDG_STATE_HOME", (folder.path() + "/state").toLocal8Bit());
    qputenv("XDG_DATA_HOME", (folder.path() + "/data").toLocal8Bit());
  }
  ~OwnFolders() {
    qputenv("XDG_STATE_HOME", state);
    qputenv("XDG_DATA_HOME", data);
  }
};

struct Naming : OwnFolders, ShownWindow {
  TracingDialog* dialog = nullptr;

  Naming() {
    std::ofstream(file()) << strangersDrawing();
    openDrawing();
  }
  std::string file() const { return (folder.path() + "/stranger.svg").toStdString(); }
  void openDrawing() {
    dialog = window.readDrawing(QString::fromStdString(file()));
    REQUIRE(dialog);
    dialog->resize(1200, 740);
    settle();
  }
  TracingCanvas& canvas() { return dialog->canvas(); }
  template <typename Widget>
  Widget* in(const QString& name) {
    auto* found = dialog->findChild<Widget*>(name);
    INFO(name.toStdString());
    REQUIRE(found);
    return found;
  }
  void click(Vec2 mm) {
    QTest::mouseClick(&canvas(), Qt::LeftButton, {}, canvas().toScreen(mm).toPoint());
    settle();
  }
  QString state() {
    for (const char* name : {"wrong", "lesser"})
      for (QLabel* label : dialog->findChildren<QLabel*>(name))
        if (label->parentWidget() == dialog) return label->text();
    FAIL("no state");
    return {};
  }
  const TracingSession& naming() { return *dialog->findChild<TracingSession*>(); }
  const NamedPiece& piece(size_t i) { return naming().names().pieces.at(i); }
  std::vector<Path> edges(size_t i) { return edgePaths(naming(), piece(i)); }
  static Vec2 middle(const Path& p) { return p.pointAt(p.length() / 2); }
  // The number of the edge of a piece that lies furthest to one side of it.
  size_t outermost(size_t i, bool right) {
    const auto paths = edges(i);
    size_t best = 0;
    for (size_t k = 0; k < paths.size(); ++k)
      if (right ? middle(paths[k]).x > middle(paths[best]).x : middle(paths[k]).x < middle(paths[best]).x) best = k;
    return best;
  }
  void measureIt() {
    for (const auto& [id, text] : {std::pair{"made.upper_bust", "33"},
                                   {"made.bust", "36"},
                                   {"made.underbust", "30"},
                                   {"made.waist", "28"},
                                   {"made.high_hip", "35"},
                                   {"made.hip", "38"}})
      type(id, text);
  }
};

}  // namespace

TEST_CASE("a stranger's drawing is scaled by a known length, named, measured and kept as a base") {
  Naming n;
  REQUIRE(n.naming().names().pieces.size() == 4);
  // The fold of the first piece is known to be as long as it was before it was halved.
  const auto fold = n.edges(0)[n.outermost(0, false)];
  n.press("knownLength");
  n.click(fold.start());
  n.click(fold.end());
  n.type("knownIs", QString("%1 mm").arg(2 * fold.length(), 0, 'f', 4));
  CHECK(n.naming().names().scale == Approx(2).epsilon(1e-4));

  // Names by clicking: every edge is picked on the drawing, then said what it is.
  const char* const names[] = {"front-1", "front-2", "back-2", "back-1"};
  for (size_t i = 0; i < 4; ++i) {
    n.click(n.naming().names().scale * n.piece(i).at);
    CHECK(n.naming().picked().piece == n.piece(i).id);
    n.type("tracedPiece", names[i]);
    n.choose("tracedHalf", i < 2 ? "front" : "back");
    n.type("tracedOrdinal", i == 0 || i == 3 ? "1" : "2");
  }
  n.click(n.middle(n.edges(0)[n.outermost(0, false)]));
  n.choose("tracedRole", "fold");
  n.click(n.middle(n.edges(3)[n.outermost(3, true)]));
  n.choose("tracedRole", "opening");
  n.type("tracedAllowance", "3/4");
  for (size_t i = 0; i + 1 < 4; ++i) {
    n.click(n.middle(n.edges(i)[n.outermost(i, true)]));
    n.press("clickPartner");
    n.click(n.middle(n.edges(i + 1)[n.outermost(i + 1, false)]));
  }
  CHECK(n.naming().names().seams.size() == 3);
  INFO(n.state().toStdString());
  REQUIRE(n.naming().pattern().ok());
  CHECK_FALSE(n.in<QPushButton>("keepTraced")->isEnabled());  // not measured yet
  CHECK(n.state().contains("not measured"));
  n.measureIt();
  CHECK(n.state() == "Nothing is missing.");
  CHECK(n.naming().pattern()->level("waist")->ring);

  n.type("baseName", "Stranger's bodice");
  n.press("keepTraced");
  const auto bases = basesIn(baseFolder());
  REQUIRE(bases.size() == 1);
  const Result<BaseFile> base = readBase(bases.front());
  REQUIRE(base.ok());
  CHECK(base->base.name == "Stranger's bodice");
  CHECK(n.window.bandText().contains("kept"));
  // It is a base like any other: for a client it is recalculated to her measures.
  MeasureSet client = base->base.made;
  client.set("waist", {28.5 * 25.4, "", ""});
  const Result<Design> d = recalc(orderFromBase(base->base, client));
  REQUIRE(d.ok());
  const PatternLevel* waist = d->pattern.level("waist");
  CHECK(d->pattern.closedGirth(*waist) == Approx(waist->finishedGirth).margin(0.1));
  CHECK(waist->finishedGirth ==
        Approx(base->base.traced.shell->level("waist")->finishedGirth + 0.5 * 25.4).margin(1e-6));
}

TEST_CASE("what was said of a drawing is undone, and is there again when it is opened again") {
  Naming n;
  const TracingNames before = n.naming().names();
  n.click(n.naming().names().scale * n.piece(0).at);
  n.type("tracedPiece", "centre-front");
  CHECK(n.piece(0).id == "centre-front");
  n.type("tracedPiece", "/two");  // refused, and said under the field
  CHECK(n.piece(0).id == "centre-front");
  n.press("tracingUndo");
  CHECK(n.naming().names() == before);
  n.press("tracingRedo");
  CHECK(n.piece(0).id == "centre-front");
  n.dialog->reject();
  n.settle();
  n.openDrawing();
  CHECK(n.piece(0).id == "centre-front");
  CHECK(n.naming().wasKept());
}

TEST_CASE("edges are split and made one, levels and grain said, by clicking") {
  Naming n;
  n.click(n.middle(n.edges(1)[n.outermost(1, true)]));
  const size_t edges = n.piece(1).edges.size();
  n.press("splitEdge");
  const Path side = n.edges(1)[n.outermost(1, true)];
  n.click(side.pointAt(0.35 * side.length()));
  CHECK(n.piece(1).edges.size() == edges + 1);
  n.press("oneEdge");
  CHECK(n.piece(1).edges.size() == edges);
  const size_t levels = n.piece(1).levels.size();
  n.press("noLevel");
  CHECK(n.piece(1).levels.size() == levels - 1);
  n.press("addLevel");
  const Path left = n.edges(1)[n.outermost(1, false)], right = n.edges(1)[n.outermost(1, true)];
  n.click(n.middle(left));
  n.click(n.middle(right));
  CHECK(n.piece(1).levels.size() == levels);
  n.choose("tracedLevel", "knee");
  CHECK(n.piece(1).levels.back().id == "knee");
  n.press("tracedGrain");
  n.click(n.middle(left));
  n.click(left.end().y > left.start().y ? left.end() : left.start());
  CHECK(distance(n.piece(1).grainTop, n.middle(left) / n.naming().names().scale) < 6);
  // By keys alone: round the piece, and on to the next.
  n.canvas().setFocus();
  QTest::keyClick(&n.canvas(), Qt::Key_Down);
  CHECK(n.naming().picked().piece == n.piece(2).id);
  QTest::keyClick(&n.canvas(), Qt::Key_Right);
  CHECK(n.naming().picked().edge == n.piece(2).edges[0].id);
  n.choose("tracedPartner", QString::fromStdString(n.piece(1).id + "." + n.piece(1).edges[0].id));
  CHECK(n.naming().names().seams.size() >= 1);
  n.press("noPiece");
  CHECK(n.naming().names().pieces.size() == 3);
}

TEST_CASE("a file that is no drawing is refused in the window's words") {
  ShownWindow w;
  QTemporaryDir folder;
  const std::string file = (folder.path() + "/x.svg").toStdString();
  std::ofstream(file) << "<svg";
  CHECK_FALSE(w.window.readDrawing(QString::fromStdString(file)));
  CHECK(w.window.bandText().contains("SVG"));
  CHECK_FALSE(w.window.readDrawing(QString::fromStdString(file) + ".gone"));
}

TEST_CASE("a pattern from a drawing has nothing to choose of its lines, and says so") {
  Naming n;
  n.measureIt();
  REQUIRE(n.naming().names().seams.size() >= 3);
  for (size_t i = 0; i < 4; ++i) {
    n.click(n.naming().names().scale * n.piece(i).at);
    n.choose("tracedHalf", i < 2 ? "front" : "back");
  }
  INFO(n.state().toStdString());
  REQUIRE(n.naming().pattern().ok());
  n.press("keepTraced");
  const auto bases = basesIn(baseFolder());
  REQUIRE(bases.size() == 1);
  MeasureSet client = plainFigure();
  OrderFile file;
  file.order = orderFromBase(readBase(bases.front())->base, client);
  const std::string order = (n.folder.path() + "/o.armure").toStdString();
  REQUIRE_FALSE(writeOrder(order, file));
  n.window.openFile(QString::fromStdString(order));
  n.window.stages().setStage(Stage::Lines);
  n.settle();
  CHECK(n.design().isTraced());
  bool told = false;
  for (QLabel* label : n.window.findChildren<QLabel*>("notDrafted")) told = told || label->isVisible();
  CHECK(told);
  CHECK_FALSE(n.find<QWidget>("style")->isVisible());
  for (const SceneItem& item : n.window.table().scene().items) CHECK(item.mark != Ink::Guide);
  CHECK(n.session().setChoice("hem.length", "9 in"));
  CHECK_FALSE(n.order().choices.contains("hem.length"));
}
