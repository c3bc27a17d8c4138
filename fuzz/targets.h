// fuzz/targets.h
//
// What reads foreign bytes, as functions of them: order files, base patterns, lists of measures, choices as typed, the
// line of a digital tape, drawings and what is said of them, the client book. Each returns normally for every input
// there is; where an input is accepted, what is written from it must be read back the same, else it throws
// std::logic_error.
//
// Two drivers call them: libfuzzer.cpp (built by clang, see fuzz/run) looks for inputs nobody thought of, replay.cpp
// goes through the corpus and its mutations in ./test.
#pragma once

#include <span>
#include <string_view>

namespace armure::fuzz {

void order(std::string_view bytes);
void base(std::string_view bytes);
void csv(std::string_view bytes);
void choices(std::string_view bytes);  // lines KEY=VALUE
void tape(std::string_view bytes);
void drawing(std::string_view bytes);  // SVG or DXF
void tracing(std::string_view bytes);  // the names of a drawing
void book(std::string_view bytes);     // an SQLite file

struct Target {
  std::string_view name;
  void (*run)(std::string_view bytes);
};
std::span<const Target> targets();

}  // namespace armure::fuzz
