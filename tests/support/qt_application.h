// tests/support/qt_application.h
//
// One Qt application for a whole test program, made before the first test; its state, data and runtime folders are its
// own and go with it. A program registers a listener derived from it (CATCH_REGISTER_LISTENER). Define
// CATCH_CONFIG_EXTERNAL_INTERFACES before the first include.
#pragma once

#include <QCoreApplication>
#include <QDir>
#include <QFile>
#include <QTemporaryDir>
#include <catch2/catch.hpp>
#include <memory>

namespace armure::testing {

template <typename App>
struct QtApplication : Catch::TestEventListenerBase {
  using Base = Catch::TestEventListenerBase;
  using Base::Base;  // of Catch2 2 and 3 alike

  void testRunStarting(const Catch::TestRunInfo&) override {
    static int count = 1;
    static char name[] = "tests";
    static char* arguments[] = {name, nullptr};
    static QTemporaryDir folder;
    for (const char* variable : {"XDG_STATE_HOME", "XDG_DATA_HOME", "XDG_CONFIG_HOME", "XDG_RUNTIME_DIR"}) {
      const QString path = folder.filePath(variable);
      QDir().mkpath(path);
      QFile::setPermissions(path, QFile::ReadOwner | QFile::WriteOwner | QFile::ExeOwner);
      qputenv(variable, path.toLocal8Bit());
    }
    app = std::make_unique<App>(count, arguments);
    prepare();
  }
  void testRunEnded(const Catch::TestRunStats&) override { app.reset(); }
  virtual void prepare() {}

  std::unique_ptr<App> app;
};

}  // namespace armure::testing
