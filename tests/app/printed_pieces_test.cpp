// Which pieces go on paper and into drawings, ticked in the real window by mouse and keys.
#include <QApplication>
#include <QTemporaryDir>
#include <QTimer>
#include <catch2/catch.hpp>

#include "app/printed_pieces.h"
#include "io/atomic_file.h"
#include "tests/app/driver.h"

using namespace armure;
using namespace armure::testing;

namespace {

struct Driver : ShownWindow {
  PrintedPieces* tree = nullptr;

  explicit Driver(const char* order = "2-lamp-room") {
    openAt(order, Stage::Prepare);
    tree = find<PrintedPieces>("printedPieces");
    for (QWidget* w = tree; w; w = w->parentWidget())
      if (auto* area = qobject_cast<QScrollArea*>(w)) area->ensureWidgetVisible(tree);
    settle();
  }
  // On the box before its name.
  void tick(QTreeWidgetItem* item) {
    const QRect row = tree->visualItemRect(item);
    QTest::mouseClick(tree->viewport(), Qt::LeftButton, {}, {row.left() + 10, row.center().y()});
    settle();
  }
  std::string written(const QString& button, const QString& name) {
    const QTemporaryDir folder;
    const QString path = folder.filePath(name);
    answerFileDialog(path);
    press(button);
    const Result<std::string> text = readFile(path.toStdString());
    return text.ok() ? *text : "";
  }
  static size_t cutLines(const std::string& svg) {
    size_t count = 0;
    for (size_t at = 0; (at = svg.find("id=\"cut-", at)) != std::string::npos; ++at) ++count;
    return count;
  }
};

}  // namespace

TEST_CASE("a piece that is not ticked is in no drawing, and lies below the sheets") {
  Driver d;
  d.session().setChoice("paper.size", "a4");
  d.settle();
  REQUIRE(d.tree->topLevelItemCount() == 1);
  QTreeWidgetItem* shell = d.tree->topLevelItem(0);
  CHECK(shell->checkState(0) == Qt::Checked);
  CHECK(Driver::cutLines(d.written("svg", "all.svg")) == 4);
  d.tree->setFocus();
  d.tree->setCurrentItem(shell);
  QTest::keyClick(d.tree, Qt::Key_Right);  // opens it
  REQUIRE(shell->isExpanded());
  for (QWidget* w = d.tree; w; w = w->parentWidget())
    if (auto* area = qobject_cast<QScrollArea*>(w)) area->ensureWidgetVisible(d.tree);
  d.settle();
  QTest::keyClick(d.tree, Qt::Key_Down);
  QTest::keyClick(d.tree, Qt::Key_Space);
  d.settle();
  CHECK(shell->checkState(0) == Qt::PartiallyChecked);
  CHECK(d.session().leftOut().size() == 1);
  const PrintWishes wishes = d.session().printWishes();
  CHECK(wishes.pieces == std::vector<size_t>{1, 2, 3});
  const std::string svg = d.written("svg", "some.svg");
  CHECK(Driver::cutLines(svg) == 3);
  CHECK(svg.find("id=\"cut-front-1\"") == std::string::npos);
  // On the table the sheets hold the others.
  const auto saysSo = [&] {
    const auto& labels = d.window.table().scene().labels;
    return std::ranges::any_of(labels, [](const auto& l) { return l.text.contains("Left out"); });
  };
  REQUIRE(QTest::qWaitFor(saysSo, 8000));
  const auto lies = [&](const char* piece) { return d.window.table().scene().place(d.design(), piece, {0, 0}).y(); };
  CHECK(lies("front-1") > lies("front-2"));
}

TEST_CASE("a layer is left out with one click, and nothing at all is not printed") {
  Driver d("1-ferry");
  d.session().setChoice("layer.strength", "panels");
  d.settle();
  for (QWidget* w = d.tree; w; w = w->parentWidget())
    if (auto* area = qobject_cast<QScrollArea*>(w)) area->ensureWidgetVisible(d.tree);
  d.settle();
  const size_t all = d.session().whole()->pattern.pieces.size();
  d.tick(d.tree->topLevelItem(0));
  CHECK(d.session().leftOut().size() >= 1);
  const bool nothing = d.session().printsNothing();
  CHECK(nothing == (d.session().leftOut().size() == all));
  for (int i = 1; i < d.tree->topLevelItemCount(); ++i) d.tick(d.tree->topLevelItem(i));
  CHECK(d.session().printsNothing());
  d.press("svg");
  CHECK(d.window.findChild<MessageBand*>()->message().contains("No piece is ticked"));
  // Another order begins with all of its pieces.
  d.window.openFile(demoFile("3-harbour-wall"));
  d.settle();
  CHECK(d.session().leftOut().empty());
  CHECK(d.tree->topLevelItem(0)->checkState(0) == Qt::Checked);
}

TEST_CASE("what there is of a cloth is typed, and the pieces are laid within it") {
  Driver d;
  d.choose("clothEdited", "satin");
  d.type("clothEdited.remnant", "0 x 0; 60 x 0; 60 x 40; 0 x 54");
  d.type("clothEdited.apart", "1/4");
  d.type("clothEdited.off-grain", "3");
  const ListedCloth* satin = d.design().rules.cloth("satin");
  REQUIRE(satin);
  CHECK(satin->remnant.size() == 4);
  CHECK(satin->apart == Approx(inches(0.25)));
  CHECK(satin->offGrain == Approx(3));
  // What cannot be an outline changes nothing and says what would be right.
  d.type("clothEdited.remnant", "60 by 40");
  CHECK(d.design().rules.cloth("satin")->remnant.size() == 4);
  d.session().undo();
  d.session().undo();
  d.session().undo();
  CHECK(d.design().rules.cloth("satin")->remnant.empty());
}
