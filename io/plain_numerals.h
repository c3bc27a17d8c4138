// io/plain_numerals.h
//
// Numbers are written one way on every machine. The program's own reading and writing does not ask the C library's
// locale; this keeps libraries that do (JSON, the SQLite part of Qt) from seeing a decimal comma. Call it once in
// main(), after the Qt application object, which sets the locale from the environment.
#pragma once

#include <clocale>

namespace armure {

inline void usePlainNumerals() { std::setlocale(LC_NUMERIC, "C"); }

}  // namespace armure
