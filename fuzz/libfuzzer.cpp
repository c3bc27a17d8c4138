// One fuzzing program for each target: libFuzzer calls it with inputs it makes (https://llvm.org/docs/LibFuzzer.html).
#include <QCoreApplication>
#include <cstdint>
#include <cstdio>
#include <cstdlib>
#include <exception>

#include "fuzz/targets.h"

// The book needs an application object for its database driver.
extern "C" int LLVMFuzzerInitialize(int* argc, char*** argv) {
  static QCoreApplication app(*argc, *argv);
  return 0;
}

extern "C" int LLVMFuzzerTestOneInput(const uint8_t* data, size_t size) {
  try {
    armure::fuzz::ARMURE_FUZZ_TARGET({reinterpret_cast<const char*>(data), size});
  } catch (const std::exception& e) {
    std::fprintf(stderr, "%s\n", e.what());
    std::abort();
  }
  return 0;
}
