// render/exporters.h
//
// Every way a pattern leaves the program as a file, in one table: the command line's options, the window's buttons and
// the filters of its dialogs follow from it. To add one, write a function from order and design to bytes, and a row
// here.
#pragma once

#include <span>
#include <string>
#include <string_view>

#include "io/atomic_file.h"
#include "io/file_kind.h"
#include "prepare/sheets.h"
#include "recalc/recalc.h"

namespace armure {

struct Exporter {
  std::string_view id;       // of the option (--svg) and the button
  std::string_view label;    // "Pattern as SVG"
  std::string_view help;     // for the command line
  std::string_view suffix;   // ".svg"
  FileKind kind{};           // what it writes, told by its content
  Readers readers{};         // measures are for their owner only
  bool needsPattern = true;  // else an order without a pattern can be written too
  bool needsFonts = false;   // draws text: a QGuiApplication must be there
  // `design` may be nullptr where no pattern is needed. Of the wishes counts what can count in such a file: the pieces
  // in every drawing of a pattern, the paper where it is drawn on paper.
  std::string (*make)(const Order& order, const Design* design, const PrintWishes& wishes) = nullptr;
  bool ofPieces = false;  // draws the pieces that are wished for
};

// In the order of the window.
std::span<const Exporter> exporterTable();

}  // namespace armure
