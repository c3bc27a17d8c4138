// cli/import_command.cpp
//
// `base import`: pieces of a drawing, SVG or DXF, as a base. Without names it writes what it guesses of the drawing,
// to be corrected and given again.
#include <array>
#include <charconv>
#include <filesystem>

#include "cli/alter_commands.h"
#include "cli/complaints.h"
#include "cli/order_stream.h"
#include "cli/said.h"
#include "io/atomic_file.h"
#include "io/base_file.h"
#include "io/dxf_reader.h"
#include "io/file_kind.h"
#include "io/measurement_csv.h"
#include "io/tracing_json.h"
#include "recalc/bases.h"
#include "tracing/guess.h"
#include "tracing/outlines.h"
#include "units/language.h"

namespace armure::cli {
namespace {

// "X,Y,X,Y=LENGTH": two places of the drawing and what lies between them on the paper.
Result<double> knownLength(const std::string& said) {
  const size_t equals = said.find('=');
  std::array<double, 4> at{};
  size_t count = 0;
  const char *from = said.data(), *end = from + std::min(equals, said.size());
  for (; count < at.size(); ++count) {
    const auto [to, error] = std::from_chars(from, end, at[count]);
    if (error != std::errc() || (count < 3 ? to == end || *to != ',' : to != end)) break;
    from = to + 1;
  }
  if (equals == std::string::npos || count != at.size())
    return Problem{"--known", msg("\"{}\" cannot be read", quotable(said)),
                   "two places of the drawing in mm and their distance: 0,0,0,254=10 in"};
  const Result<double> length = parseLength(said.substr(equals + 1), Unit::Millimetre);
  if (!length.ok()) return Problem{"--known", length.problem().what, length.problem().remedy};
  return scaleByLength({at[0], at[1]}, {at[2], at[3]}, *length);
}

Result<double> scaleOf(const ImportArguments& a, double named) {
  if (!a.known.empty() && !a.scale.empty()) return Problem{"--known", "is said beside --scale", "say one of them"};
  if (!a.known.empty()) return knownLength(a.known);
  if (a.scale.empty()) return named;
  double factor = 0;
  const char* end = a.scale.data() + a.scale.size();
  const auto [to, error] = std::from_chars(a.scale.data(), end, factor);
  if (error != std::errc() || to != end || !(factor >= 1e-3 && factor <= 1e3))
    return Problem{"--scale", msg("\"{}\" is no factor", quotable(a.scale)), "a number from 0.001 to 1000: 1, 25.4"};
  return factor;
}

// On standard error, so that the names can be written to a file.
void tellDrawing(const std::string& file, const LineDrawing& drawing, double scale) {
  const auto tell = [&](const Message& m) { fmt::print(stderr, "armure-cli: {}: {}\n", quotable(file), english(m)); };
  tell(drawing.units);
  for (const Message& m : drawing.left) tell(m);
  for (const TracedOutline& o : outlinesOf(scaled(drawing, scale)))
    if (o.isTestSquare) tell(msg("a square of {:.2f} mm is drawn to test the scale", o.path.length() / 4));
}

void tellPieces(Printer& out, const Pattern& p) {
  out.print("{} pieces, {} seams\n", p.pieces.size(), p.seams.size());
  for (const PatternLevel& l : p.levels)
    if (l.ring) out.print("  {:10} {:8.1f} mm\n", l.id, l.finishedGirth);
}

}  // namespace

int importBase(Printer& out, const ImportArguments& a) {
  const std::string file = quotable(a.drawing);
  const Result<std::string> text = readFile(a.drawing);
  if (!text.ok()) return complain(text.problem());
  const Result<LineDrawing> drawing = parseDrawing(*text, file);
  if (!drawing.ok()) return complain(drawing.problem());
  TracingNames names;
  if (!a.names.empty()) {
    const Result<std::string> said = readFile(a.names);
    if (!said.ok()) return complain(said.problem());
    Result<TracingFile> read = parseTracing(*said, quotable(a.names));
    if (!read.ok()) return complain(read.problem());
    warn(a.names, read->warnings);
    names = std::move(read.value().names);
  }
  const Result<double> scale = scaleOf(a, names.scale);
  if (!scale.ok()) return complain(scale.problem());
  names.scale = *scale;
  tellDrawing(a.drawing, *drawing, *scale);
  if (a.names.empty()) {
    names = guessedNames(*drawing, {.scale = *scale});
    out.print("{}", tracingText(names));
    return kDone;
  }
  Result<Pattern> pattern = tracedPattern(*drawing, names);
  if (!pattern.ok()) return complain(inFile(a.names, pattern.problem()));
  if (a.measured.empty() && names.made.all().empty())
    return complain({"--measured", "is missing", "give what the pattern measures as made, at the client's places"});
  if (!a.measured.empty()) {
    const Result<MeasurementFile> made = measurementsFrom(a.measured);
    if (!made.ok()) return complain(made.problem());
    warn(a.measured, made->warnings);
    for (const auto& [id, measure] : made->measures.all()) names.made.set(id, measure);
  }
  const std::string name = a.name.empty() ? std::filesystem::path(a.drawing).stem().string() : a.name;
  tellPieces(out, *pattern);
  Result<BasePattern> base =
      baseFromDrawing(std::move(pattern).value(), names.opening, names.made, name, a.date.empty() ? today() : a.date);
  if (!base.ok()) return complain(inFile(a.measured.empty() ? a.names : a.measured, base.problem()));
  std::filesystem::path path = a.output;
  if (a.output.empty()) {
    std::error_code error;
    std::filesystem::create_directories(baseFolder(), error);
    path = newBasePath(baseFolder(), name);
  }
  if (const auto problem = whyNotWritten({path, FileKind::Base}, {a.drawing, a.names, a.measured}, a.force))
    return complain(*problem);
  if (const auto problem = writeBase(path, BaseFile{std::move(base).value(), {}, {}})) return complain(*problem);
  if (a.output.empty()) out.print("{}\n", quotable(path.string()));
  return kDone;
}

}  // namespace armure::cli
