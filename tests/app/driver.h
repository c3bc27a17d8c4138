// tests/app/driver.h
//
// The real window, shown and active, as every test of it begins.
#pragma once

#include <QApplication>
#include <QComboBox>
#include <QFileDialog>
#include <QLineEdit>
#include <QPushButton>
#include <QScrollArea>
#include <QTimer>
#include <QtTest/QTest>
#include <catch2/catch.hpp>

#include "app/main_window.h"
#include "tests/support/bodies.h"

namespace armure::testing {

inline QString demoFile(const char* name) { return QString::fromStdString(sourceDir()) + "/demo/" + name + ".armure"; }

// Answers the next dialog that asks for a file, however long it takes to come.
inline void answerFileDialog(const QString& path) {
  auto* asks = new QTimer(QApplication::instance());
  QObject::connect(asks, &QTimer::timeout, asks, [asks, path] {
    auto* dialog = qobject_cast<QFileDialog*>(QApplication::activeModalWidget());
    if (!dialog) return;
    asks->stop();
    asks->deleteLater();
    dialog->findChild<QLineEdit*>("fileNameEdit")->setText(path);
    QMetaObject::invokeMethod(dialog, "accept");
  });
  asks->start(100);
}

struct ShownWindow {
  MainWindow window;

  ShownWindow() {
    window.resize(1280, 800);
    window.show();
    REQUIRE(QTest::qWaitForWindowExposed(&window));
    window.activateWindow();
    settle();
  }
  void settle() { QTest::qWait(30); }
  // A demo order, at a stage.
  void openAt(const char* order, Stage stage) {
    window.openFile(demoFile(order));
    window.stages().setStage(stage);
    settle();
  }

  OrderSession& session() { return window.session(); }
  const Order& order() { return window.session().order(); }
  const Design& design() { return *window.session().design(); }

  template <typename Widget>
  Widget* find(const QString& name) {
    auto* found = window.findChild<Widget*>(name);
    INFO(name.toStdString());
    REQUIRE(found != nullptr);
    return found;
  }

  // Chooses an option of a box by keys, as one does who tabs to it.
  void choose(const QString& name, const QString& id) {
    auto* box = find<QComboBox>(name);
    REQUIRE(box->isVisible());
    const int to = box->findData(id);
    INFO(name.toStdString() << " " << id.toStdString());
    REQUIRE(to >= 0);
    box->setFocus();
    while (box->currentIndex() != to) {
      const int before = box->currentIndex();
      QTest::keyClick(box, before < to ? Qt::Key_Down : Qt::Key_Up);
      REQUIRE(box->currentIndex() != before);
    }
    settle();
  }
  // Types into the field of a row, over what stands there, and leaves it with Enter.
  void type(const QString& row, const QString& text) {
    auto* edit = find<QLineEdit>(row + ".field");
    edit->setFocus();
    edit->selectAll();
    QTest::keyClicks(edit, text);
    QTest::keyClick(edit, Qt::Key_Return);
    settle();
  }
  // Scrolls to a button and clicks on it.
  void press(const QString& name) {
    auto* button = find<QPushButton>(name);
    INFO(name.toStdString());
    for (QWidget* w = button; w; w = w->parentWidget())
      if (auto* area = qobject_cast<QScrollArea*>(w)) area->ensureWidgetVisible(button);
    settle();
    REQUIRE(button->isVisible());
    REQUIRE(button->isEnabled());
    QTest::mouseClick(button, Qt::LeftButton);
    settle();
  }
};

}  // namespace armure::testing
