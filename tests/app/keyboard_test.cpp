// Everything by keys, nothing clipped, and work taken up again, in the real window.
#include <unistd.h>

#include <QComboBox>
#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QPushButton>
#include <QtTest/QTest>
#include <catch2/catch.hpp>
#include <filesystem>
#include <set>

#include "app/main_window.h"
#include "io/atomic_file.h"
#include "tests/support/bodies.h"

using namespace armure;
using namespace armure::testing;

namespace {

QString demo(const char* name) { return QString::fromStdString(sourceDir()) + "/demo/" + name + ".armure"; }

void show(MainWindow& window, const QString& file = {}) {
  window.show();
  REQUIRE(QTest::qWaitForWindowExposed(&window));
  window.activateWindow();
  if (!file.isEmpty()) window.openFile(file);
  REQUIRE(QTest::qWaitForWindowActive(&window));
}

}  // namespace

TEST_CASE("stages, views and the sheet are reached by keys") {
  MainWindow window;
  show(window, demo("2-lamp-room"));
  window.table().setFocus();
  for (int i = 0; i < kStages; ++i) {
    QTest::keyClick(&window.table(), static_cast<Qt::Key>(Qt::Key_1 + i), Qt::AltModifier);
    CHECK(window.stages().stage() == static_cast<Stage>(i));
  }
  window.table().setFocus();
  for (int i = 0; i < 3; ++i) {
    QTest::keyClick(&window.table(), static_cast<Qt::Key>(Qt::Key_1 + i));
    CHECK(window.table().mode() == static_cast<TableMode>(i));
  }
  QTest::keyClick(&window.table(), Qt::Key_B);
  auto* list = window.findChild<QListWidget*>("sheet");
  CHECK(list->hasFocus());
  QTest::keyClick(list, Qt::Key_Down);
  QTest::keyClick(list, Qt::Key_Return);
  REQUIRE(window.session().selection().row);
  window.stages().setFocus();
  QTest::keyClick(&window.stages(), Qt::Key_Left);
  CHECK(window.stages().stage() == Stage::Prepare);
}

TEST_CASE("Tab reaches every field and button of a stage") {
  MainWindow window;
  show(window, demo("1-ferry"));
  for (int stage = 0; stage < kStages; ++stage) {
    window.stages().setStage(static_cast<Stage>(stage));
    std::set<QWidget*> reached;
    window.table().setFocus();
    for (int i = 0; i < 120; ++i) {
      QTest::keyClick(QApplication::focusWidget(), Qt::Key_Tab);
      if (QApplication::focusWidget()) reached.insert(QApplication::focusWidget());
    }
    for (QLineEdit* field : window.findChildren<QLineEdit*>())
      if (field->isVisible()) CHECK(reached.contains(field));
    for (QComboBox* box : window.findChildren<QComboBox*>())
      if (box->isVisible()) CHECK(reached.contains(box));
    CHECK((reached.contains(&window.table()) || !window.table().isVisible()));
  }
}

TEST_CASE("at 1280 x 800 no label and no button is clipped, in inches or centimetres") {
  MainWindow window;
  show(window, demo("2-lamp-room"));
  CHECK(window.width() == 1280);
  CHECK(window.height() == 800);
  for (int units = 0; units < 2; ++units) {
    for (int stage = 0; stage < kStages; ++stage) {
      window.stages().setStage(static_cast<Stage>(stage));
      QTest::qWait(10);
      for (QLabel* label : window.findChildren<QLabel*>()) {
        if (!label->isVisible() || label->text().isEmpty()) continue;
        INFO(stageName(static_cast<Stage>(stage)) << ": " << label->text().toStdString());
        const int needed = label->wordWrap() ? label->heightForWidth(label->width()) : label->sizeHint().height();
        CHECK(label->height() >= needed - 1);
        if (!label->wordWrap()) CHECK(label->width() >= label->sizeHint().width() - 1);
      }
      for (QPushButton* button : window.findChildren<QPushButton*>()) {
        if (!button->isVisible() || button->menu()) continue;
        INFO(button->text().toStdString());
        CHECK(button->width() >= button->fontMetrics().horizontalAdvance(button->text()));
      }
    }
    window.session().toggleUnits();
  }
}

TEST_CASE("at 1280 x 800 nothing is clipped on the pages of the client, and no choice of a combo box either") {
  MainWindow window;
  show(window, demo("3-harbour-wall"));
  window.records().setFile(Autosave::folder() + "/pages.sqlite");
  window.records().fillFrom({sourceDir() + "/demo/perpetua-spring.csv", sourceDir() + "/demo/perpetua-autumn.csv"});
  for (ClientPage page : {ClientPage::Figure, ClientPage::Book, ClientPage::TwoDates}) {
    window.pages().setPage(page);
    QTest::qWait(10);
    for (QLabel* label : window.findChildren<QLabel*>()) {
      if (!label->isVisible() || label->text().isEmpty()) continue;
      INFO(label->text().toStdString());
      const int needed = label->wordWrap() ? label->heightForWidth(label->width()) : label->sizeHint().height();
      CHECK(label->height() >= needed - 1);
      if (!label->wordWrap()) CHECK(label->width() >= label->sizeHint().width() - 1);
    }
  }
  for (int stage = 0; stage < kStages; ++stage) {
    window.stages().setStage(static_cast<Stage>(stage));
    QTest::qWait(10);
    for (QComboBox* box : window.findChildren<QComboBox*>()) {
      if (!box->isVisible()) continue;
      for (int i = 0; i < box->count(); ++i) {
        INFO(box->objectName().toStdString() << ": " << box->itemText(i).toStdString());
        CHECK(box->width() >= box->fontMetrics().horizontalAdvance(box->itemText(i)) + 24);
      }
    }
  }
}

TEST_CASE("unsaved work of a run that ended is offered in the band and taken up with a click") {
  std::string own;
  {
    OrderSession left;
    Autosave autosave(left);
    for (const Recovered& r : autosave.kept()) Autosave::forget(r);  // of other tests
    own = autosave.file();
    const MeasureSet figure = plainFigure();
    for (const auto& [id, m] : figure.all()) left.setMeasure(id, m.typed);
    left.setText(&Order::title, "The lost bodice", "title");
    autosave.writeNow();
  }
  std::string text = readText(own);
  std::filesystem::remove(own);
  const std::string pid = "\"pid\": " + std::to_string(::getpid());
  text.replace(text.find(pid), pid.size(), "\"pid\": 4194303");
  REQUIRE_FALSE(writeFileAtomically(Autosave::folder() + "/ended.json", text));

  MainWindow window;
  show(window);
  window.offerRecovery();
  CHECK(window.bandText().contains("The lost bodice"));
  auto* take = window.findChild<QPushButton*>("bandYes");
  REQUIRE(take->isVisible());
  QTest::mouseClick(take, Qt::LeftButton);
  CHECK(window.session().order().title == "The lost bodice");
  CHECK(window.session().design() != nullptr);
  CHECK_FALSE(window.session().isSaved());
  CHECK_FALSE(take->isVisible());
  CHECK_FALSE(std::filesystem::exists(Autosave::folder() + "/ended.json"));
  CHECK(Autosave(window.session()).kept().size() == 1);  // kept again at once, under this run
  for (const Recovered& r : Autosave(window.session()).kept()) Autosave::forget(r);
}

TEST_CASE("a measure that contradicts the others is explained in the band and the last pattern stays on the table") {
  MainWindow window;
  show(window, demo("1-ferry"));
  auto* field = window.findChild<QLineEdit*>("shoulder_to_bust.field");
  QTest::mouseClick(field, Qt::LeftButton);
  QTest::keySequence(field, QKeySequence::SelectAll);
  QTest::keyClicks(field, "14");
  CHECK(window.bandText().contains("underbust line"));
  CHECK(window.bandText().contains("last one that could be drafted"));
  CHECK(window.session().design() != nullptr);
  CHECK_FALSE(window.table().scene().items.empty());
  QTest::keyClick(field, Qt::Key_Z, Qt::ControlModifier);
  CHECK(window.bandText().isEmpty());
}
