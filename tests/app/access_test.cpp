// Access: every control says what it is and what it holds to those who do not see it, by Qt's accessibility interface,
// which AT-SPI hands on; and the keys of the window are listed.
#include <QAbstractButton>
#include <QAbstractItemView>
#include <QAbstractSpinBox>
#include <QAccessible>
#include <QShortcut>
#include <QTreeWidget>

#include "app/keys_dialog.h"
#include "tests/app/driver.h"

using namespace armure;
using namespace armure::testing;

namespace {

bool isControl(const QWidget& w) {
  return qobject_cast<const QAbstractButton*>(&w) || qobject_cast<const QComboBox*>(&w) ||
         qobject_cast<const QLineEdit*>(&w) || qobject_cast<const QAbstractSpinBox*>(&w) ||
         qobject_cast<const QAbstractItemView*>(&w) || w.focusPolicy() & Qt::TabFocus;
}

// The controls that can be seen and have no name of their own.
QStringList unnamed(const QWidget& window) {
  QStringList found;
  for (QWidget* w : window.findChildren<QWidget*>()) {
    const bool part = qobject_cast<QComboBox*>(w->parentWidget()) ||
                      qobject_cast<QAbstractSpinBox*>(w->parentWidget()) || w->objectName().startsWith("qt_") ||
                      qobject_cast<QScrollArea*>(w);
    if (!w->isVisible() || part || !isControl(*w)) continue;
    QAccessibleInterface* to = QAccessible::queryAccessibleInterface(w);
    if (!to || to->text(QAccessible::Name).trimmed().isEmpty())
      found << QString("%1 \"%2\" in \"%3\"")
                   .arg(w->metaObject()->className(), w->objectName(), w->parentWidget()->objectName());
  }
  found.removeDuplicates();
  return found;
}

}  // namespace

TEST_CASE("no control that can be seen is without a name, on any stage and page") {
  ShownWindow d;
  d.window.openFile(demoFile("3-harbour-wall"));
  for (int i = 0; i < kStages; ++i) {
    d.window.stages().setStage(static_cast<Stage>(i));
    d.settle();
    INFO(stageName(static_cast<Stage>(i)));
    CHECK(unnamed(d.window).join("\n").toStdString() == "");
  }
  for (const ClientPage page : {ClientPage::Figure, ClientPage::Book, ClientPage::TwoDates}) {
    d.window.stages().setStage(Stage::Client);
    d.window.showTable(false);
    d.window.pages().setPage(page);
    d.settle();
    CHECK(unnamed(d.window).join("\n").toStdString() == "");
  }
  d.window.showShelf(true);
  d.settle();
  CHECK(unnamed(d.window).join("\n").toStdString() == "");
  d.window.showCloth();
  d.settle();
  CHECK(unnamed(d.window).join("\n").toStdString() == "");
}

TEST_CASE("a box says what it is for beside what it holds") {
  ShownWindow d;
  d.openAt("1-ferry", Stage::Lines);
  int boxes = 0;
  for (QComboBox* box : d.window.findChildren<QComboBox*>()) {
    if (!box->isVisible()) continue;
    ++boxes;
    QAccessibleInterface* to = QAccessible::queryAccessibleInterface(box);
    INFO(box->objectName().toStdString());
    CHECK(to->role() == QAccessible::ComboBox);
    CHECK(to->text(QAccessible::Name) == box->accessibleName());
    CHECK_FALSE(box->accessibleName().isEmpty());
    CHECK(to->text(QAccessible::Value) == box->currentText());
  }
  CHECK(boxes > 5);
}

TEST_CASE("F1 lists every key of the window, none of them twice") {
  ShownWindow d;
  QStringList keys, texts;
  QTimer::singleShot(100, [&] {
    auto* dialog = QApplication::activeModalWidget();
    REQUIRE(dialog != nullptr);
    auto* list = dialog->findChild<QTreeWidget*>("keys");
    for (int i = 0; i < list->topLevelItemCount(); ++i) {
      keys << list->topLevelItem(i)->text(0);
      texts << list->topLevelItem(i)->text(1);
    }
    QTest::keyClick(dialog, Qt::Key_Escape);
  });
  QTest::keyClick(&d.window.table(), Qt::Key_F1);
  CHECK(keys.size() > 35);
  CHECK_FALSE(texts.contains(""));
  const auto shortcuts = d.window.findChildren<QShortcut*>();
  for (const QShortcut* shortcut : shortcuts)
    CHECK(keys.count(shortcut->key().toString(QKeySequence::NativeText)) >= 1);
  QStringList windows = keys.mid(0, keys.size() - static_cast<qsizetype>(keysOfViews().size()));
  CHECK(windows.removeDuplicates() == 0);
}
