// tests/app/driver.h
//
// The real window, shown and active, as every test of it begins.
#pragma once

#include <QtTest/QTest>
#include <catch2/catch.hpp>

#include "app/main_window.h"
#include "tests/support/bodies.h"

namespace armure::testing {

inline QString demoFile(const char* name) { return QString::fromStdString(sourceDir()) + "/demo/" + name + ".armure"; }

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
};

}  // namespace armure::testing
