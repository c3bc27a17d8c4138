// What is remembered of one sitting for the next, and the orders found again.
#include <QDialogButtonBox>
#include <QFile>
#include <QMenu>
#include <QSettings>
#include <QTemporaryDir>
#include <QTreeWidget>

#include "app/orders_dialog.h"
#include "app/remembered.h"
#include "io/order_file.h"
#include "tests/app/driver.h"

using namespace armure;
using namespace armure::testing;

namespace {

void forgetAll() {
  QSettings settings(QSettings::IniFormat, QSettings::UserScope, "armure", "armure");
  settings.clear();
  settings.sync();
}

// So many orders in a folder, numbered.
QStringList ordersIn(const QTemporaryDir& folder, int count) {
  QStringList files;
  for (int i = 0; i < count; ++i) {
    files << folder.filePath(QString("order-%1.armure").arg(i, 3, 10, QChar('0')));
    QFile::copy(demoFile("1-ferry"), files.back());
  }
  return files;
}

QStringList menuOf(ShownWindow& d) {
  QMenu* menu = nullptr;
  for (QPushButton* b : d.window.findChildren<QPushButton*>())
    if (b->accessibleName() == "Order") menu = b->menu();
  REQUIRE(menu != nullptr);
  emit menu->aboutToShow();
  QStringList texts;
  for (const QAction* a : menu->actions())
    if (!a->isSeparator()) texts << a->text();
  return texts;
}

}  // namespace

TEST_CASE("window, light and units of one sitting are those of the next") {
  forgetAll();
  bool dark = false;
  Unit units{};
  {
    ShownWindow d;
    d.window.recall(false);
    d.window.resize(1300, 820);
    d.settle();
    units = d.order().units.unit;
    QTest::keyClick(&d.window.table(), Qt::Key_U);
    CHECK(d.order().units.unit != units);
    dark = d.window.isDark();
    QTest::keyClick(&d.window.table(), Qt::Key_D);
    CHECK(d.window.isDark() != dark);
    d.window.close();
  }
  ShownWindow next;
  next.window.recall(false);
  CHECK(next.window.size() == QSize(1300, 820));
  CHECK(next.window.isDark() != dark);
  CHECK(next.order().units.unit != units);
  CHECK(next.session().isSaved());
  QTest::keyClick(&next.window.table(), Qt::Key_D);  // as the desktop is: it is followed again
  CHECK(Remembered().shade() == Shade::AsDesktop);
  forgetAll();
}

TEST_CASE("what is remembered is for its owner's eyes, and nonsense in it is as if nothing stood there") {
  forgetAll();
  Remembered().setPaper("a3");
  const QString file = QSettings(QSettings::IniFormat, QSettings::UserScope, "armure", "armure").fileName();
  CHECK(file.startsWith(qEnvironmentVariable("XDG_CONFIG_HOME")));
  CHECK((QFile::permissions(file) & (QFile::ReadGroup | QFile::ReadOther | QFile::WriteOther)) == 0);
  for (const QByteArray& text : {QByteArray("[General]\nwindow=none\nshade=7\nunits=ells\npaper=a99\nrecent=1\n"),
                                 QByteArray("\0\xff[[[", 6), QByteArray()}) {
    {
      QFile out(file);
      REQUIRE(out.open(QFile::WriteOnly));
      out.write(text);
    }
    ShownWindow d;
    d.window.recall(true);
    CHECK(d.session().path().empty());
    CHECK_FALSE(d.order().choices.contains("paper.size"));
    CHECK(d.window.bandText().isEmpty());
  }
  forgetAll();
}

TEST_CASE("the last order is opened again, unless it is gone") {
  forgetAll();
  const QTemporaryDir folder;
  const QStringList files = ordersIn(folder, 2);
  {
    ShownWindow d;
    d.window.recall(true);
    CHECK(d.session().path().empty());
    d.window.openFile(files[0]);
    d.window.openFile(files[1]);
  }
  {
    ShownWindow d;
    d.window.recall(true);
    CHECK(d.session().path() == files[1].toStdString());
  }
  QFile::remove(files[1]);
  ShownWindow d;
  d.window.recall(true);
  CHECK(d.session().path() == files[0].toStdString());
  forgetAll();
}

TEST_CASE("of five hundred orders the menu shows twenty, and typing finds any") {
  forgetAll();
  const QTemporaryDir folder;
  const QStringList files = ordersIn(folder, 500);
  ShownWindow d;
  d.window.recall(false);
  d.window.openFile(files[7]);
  d.window.openFile(files[499]);
  const QStringList menu = menuOf(d);
  CHECK(menu.indexOf("order-499") + 1 == menu.indexOf("order-007"));
  CHECK(menu.filter("order-").size() == 20);
  CHECK(menu.back() == QString::fromUtf8("All orders …"));

  QTimer::singleShot(100, [] {
    auto* dialog = qobject_cast<OrdersDialog*>(QApplication::activeModalWidget());
    REQUIRE(dialog != nullptr);
    auto* field = dialog->findChild<QLineEdit*>("orderFilter");
    auto* list = dialog->findChild<QTreeWidget*>("orders");
    CHECK(list->topLevelItemCount() == 500);
    QTest::keyClicks(field, "ORDER 12");
    int shown = 0;
    for (int i = 0; i < list->topLevelItemCount(); ++i) shown += list->topLevelItem(i)->isHidden() ? 0 : 1;
    CHECK(shown == 15);  // 012, 112, ..., 412 and 120 to 129
    QTest::keyClick(field, Qt::Key_Down);
    QTest::keyClick(field, Qt::Key_Return);
  });
  for (QPushButton* b : d.window.findChildren<QPushButton*>())
    if (b->accessibleName() == "Order") b->menu()->actions().back()->trigger();
  CHECK(QFileInfo(QString::fromStdString(d.session().path())).completeBaseName() == "order-112");
  forgetAll();
}

TEST_CASE("the paper something was printed on is that of the next order") {
  forgetAll();
  const QTemporaryDir folder;
  ShownWindow d;
  d.window.recall(false);
  d.window.openFile(demoFile("1-ferry"));
  REQUIRE_FALSE(d.session().setChoice("paper.size", "a3"));
  d.window.stages().setStage(Stage::Prepare);
  d.settle();
  answerFileDialog(folder.filePath("out.pdf"));
  d.press("pdf");
  REQUIRE(QFileInfo::exists(folder.filePath("out.pdf")));
  QTest::keySequence(&d.window, QKeySequence::New);
  CHECK(d.session().rule("paper.size").option == "a3");
  forgetAll();
}

TEST_CASE("the country decides the units of the first start") {
  forgetAll();
  const QLocale before;
  const bool metric = QLocale::system().measurementSystem() == QLocale::MetricSystem;
  CHECK(Remembered().units() == (metric ? Unit::Centimetre : Unit::Inch));
  Remembered().setUnits(Unit::Inch);
  CHECK(Remembered().units() == Unit::Inch);
  Remembered().setUnits(Unit::Centimetre);
  CHECK(Remembered().units() == Unit::Centimetre);
  forgetAll();
}
