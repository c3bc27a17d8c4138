// armure-cli export and sheet: the pattern of an order as files; of many, into a folder.
#include <fmt/format.h>

#include <algorithm>
#include <filesystem>

#include "cli/commands.h"
#include "cli/complaints.h"
#include "cli/order_stream.h"
#include "io/bounded_json.h"
#include "render/exporters.h"
#include "rules/nearest.h"
#include "rules/paper_table.h"
#include "rules/prepare_rules.h"

namespace armure::cli {

bool ExportArguments::asksFor(std::string_view exporter) const {
  const auto named = files.find(exporter);
  return (named != files.end() && !named->second.empty()) || std::ranges::find(as, exporter) != as.end();
}

std::string papersInWords() {
  std::string all;
  for (size_t i = 0; i < kPaperTable.size(); ++i)
    all += fmt::format("{}{}", i == 0 ? "" : i + 1 < kPaperTable.size() ? ", " : " or ", kPaperTable[i].id);
  return all;
}

namespace {

bool isPaper(std::string_view id) {
  return std::any_of(kPaperTable.begin(), kPaperTable.end(), [&](const PaperSize& p) { return p.id == id; });
}

// What is asked for of the order's own paper, another, or a roll, and of which pieces.
Result<PrintWishes> wishesOf(const ExportArguments& a, const Design& design, LengthFormat units) {
  constexpr double kNarrowest = 200, kWidest = 2000;  // mm
  PrintWishes wishes{std::string(design.rules.option(key::kPaperSize)), design.rules.length(key::kPaperRoll), {}};
  if (!a.paper.empty()) wishes.paper = a.paper;
  if (!a.roll.empty()) {
    const Result<double> width = parseLength(a.roll, units.unit);
    if (!width.ok()) return Problem{"--roll", width.problem().what, width.problem().remedy};
    if (*width < kNarrowest || *width > kWidest)
      return Problem{"--roll", msg("\"{}\" is no width of a roll", quotable(a.roll)),
                     msg("give a width between {} and {}", Length{kNarrowest}, Length{kWidest})};
    if (!a.paper.empty() && a.paper != kPaperTable.back().id)
      return Problem{"--roll", msg("--paper {} is asked for too", verbatim(a.paper)), "leave one of the two away"};
    wishes.paper = kPaperTable.back().id;
    wishes.roll = *width;
  }
  if (a.only.empty() && a.layers.empty()) return wishes;
  Result<std::vector<size_t>> pieces = choosePieces(design.pattern, a.only, a.layers);
  if (!pieces.ok()) return pieces.problem();
  wishes.pieces = std::move(pieces).value();
  return wishes;
}

}  // namespace

namespace {

// A file that is to be written, or the stream.
struct Target {
  const Exporter* exporter = nullptr;
  std::string path;
};

std::string optionsInWords() {
  std::string all;
  for (const Exporter& e : exporterTable()) all += fmt::format("{}--{}", all.empty() ? "" : ", ", e.id);
  return all;
}

// Of several exporters with one suffix the first has the plain name: order.pdf, order-sheet.pdf.
std::string fileNameFor(const Exporter& exporter, const std::string& order) {
  const std::string stem = order == kStream ? "order" : std::filesystem::path(order).stem().string();
  const bool isFirst = std::ranges::find(exporterTable(), exporter.suffix, &Exporter::suffix)->id == exporter.id;
  return stem + (isFirst ? "" : fmt::format("-{}", exporter.id)) + std::string(exporter.suffix);
}

Result<std::vector<Target>> targetsNamed(const ExportArguments& a) {
  std::vector<Target> targets;
  for (const Exporter& e : exporterTable())
    if (const auto named = a.files.find(e.id); named != a.files.end() && !named->second.empty())
      targets.push_back({&e, named->second});
  if (targets.empty()) return Problem{"export", "nothing to export", msg("name at least one of {}", optionsInWords())};
  if (std::ranges::count(targets, kStream, &Target::path) > 0 && targets.size() > 1)
    return Problem{"export", "only one file can go to standard output", "write the others into files"};
  return targets;
}

Result<std::vector<Target>> targetsInto(const ExportArguments& a, const std::string& order) {
  std::vector<Target> targets;
  for (const std::string& id : a.as) {
    const auto found = std::ranges::find(exporterTable(), id, &Exporter::id);
    if (found == exporterTable().end()) {
      std::vector<std::string_view> ids;
      for (const Exporter& e : exporterTable()) ids.push_back(e.id);
      const auto meant = nearest(id, ids);
      return Problem{"--as", msg("\"{}\" is not known", quotable(id)),
                     meant ? msg("did you mean {}?", verbatim(*meant))
                           : msg("use some of {}", fmt::format("{}", fmt::join(ids, ", ")))};
    }
    targets.push_back({&*found, (std::filesystem::path(a.into) / fileNameFor(*found, order)).string()});
  }
  return targets;
}

// What is asked for cannot be meant together.
std::optional<Problem> contradiction(const ExportArguments& a) {
  const bool named = std::ranges::any_of(a.files, [](const auto& f) { return !f.second.empty(); });
  if (a.into.empty() && !a.as.empty()) return Problem{"--as", "--into is missing", "name the folder to write into"};
  if (a.into.empty() && a.orders.size() > 1)
    return Problem{"export", "several orders cannot become one file", "name a folder: --into DIR --as pdf,svg"};
  if (!a.into.empty() && named)
    return Problem{"--into", "files are named too", "say which kinds with --as: --into DIR --as pdf,svg"};
  if (!a.into.empty() && a.as.empty())
    return Problem{"--into", "it is not said what to write", "say which kinds with --as: --as pdf,svg"};
  if (!a.paper.empty() && !isPaper(a.paper))
    return Problem{"--paper", msg("\"{}\" is not known", quotable(a.paper)), msg("use {}", papersInWords())};
  for (size_t i = 0; i < a.orders.size(); ++i)
    for (size_t k = 0; k < i && !a.into.empty(); ++k)
      if (std::filesystem::path(a.orders[i]).stem() == std::filesystem::path(a.orders[k]).stem())
        return Problem{verbatim(nameOf(a.orders[i])), "another order has this name, and so would its files",
                       "export them into folders of their own"};
  return std::nullopt;
}

std::optional<Problem> written(Printer& out, const std::vector<Target>& targets, const Order& order,
                               const Design& design, const PrintWishes& wishes) {
  std::vector<FileToWrite> files;
  for (const auto& [exporter, path] : targets) {
    std::string content = exporter->make(order, &design, wishes);
    if (path == kStream)
      out.write(content);
    else
      files.push_back({path, std::move(content), exporter->readers});
  }
  return writeFilesAtomically(files);
}

// The files are checked against each other and against what stands there.
std::optional<Problem> whyNotExported(const std::vector<Target>& targets, const std::string& input, bool force) {
  for (size_t i = 0; i < targets.size(); ++i) {
    if (auto problem = whyNotTo(targets[i].path, targets[i].exporter->kind, {input}, force)) return problem;
    std::error_code error;
    for (size_t k = 0; k < i; ++k)
      if (targets[k].path == targets[i].path || std::filesystem::equivalent(targets[k].path, targets[i].path, error))
        return Problem{verbatim(quotable(targets[i].path)), "two exports have this name", "give each its own"};
  }
  return std::nullopt;
}

struct Exported {
  int code = kBadInput;
  Json done = nullptr;  // what was written, where it was
};

// One order into its files, all of them or none.
Exported exportOne(Printer& out, const ExportArguments& a, const std::string& path) {
  const Result<OrderFile> file = orderFrom(out, path);
  if (!file.ok()) return {complain(file.problem())};
  warn(path, file->warnings);
  const Result<std::vector<Target>> targets = a.into.empty() ? targetsNamed(a) : targetsInto(a, path);
  if (!targets.ok()) return {complain(targets.problem())};
  if (const auto problem = whyNotExported(*targets, path, a.force)) return {complain(*problem)};
  const Result<Design> design = recalc(file->order);
  if (!design.ok()) return {complain(inFile(path, design.problem()))};
  const Result<PrintWishes> wishes = wishesOf(a, *design, file->order.units);
  if (!wishes.ok()) return {complain(wishes.problem())};
  const bool ofSome = !a.only.empty() || !a.layers.empty();
  for (const Target& t : *targets)
    if (ofSome && !t.exporter->ofPieces)
      return {complain({verbatim(fmt::format("--{}", t.exporter->id)), "it always has everything",
                        "leave --only and --layers away, or write it by itself"})};
  if (const auto problem = written(out, *targets, file->order, *design, *wishes)) return {complain(*problem)};
  tellFailing(path, *design);
  Json files = Json::array();
  for (const Target& t : *targets) files.push_back(t.path);
  return {kDone, {{"order", path}, {"files", std::move(files)}, {"failing", design->sheet.failing()}}};
}

}  // namespace

int exportFiles(Printer& out, const ExportArguments& a) {
  if (const auto problem = contradiction(a)) return complain(*problem);
  if (!a.into.empty()) {
    std::error_code error;
    std::filesystem::create_directories(a.into, error);
    if (error)
      return complain({verbatim(quotable(a.into)), msg("the folder cannot be made: {}", verbatim(error.message())),
                       "name another"});
  }
  Json all = Json::array();
  int worst = kDone;
  for (const std::string& order : a.orders) {
    Exported exported = exportOne(out, a, order);
    worst = std::max(worst, exported.code);
    if (!exported.done.is_null()) all.push_back(std::move(exported.done));
  }
  if (a.json && !all.empty()) out.print("{}\n", text(a.orders.size() > 1 ? all : all.front()));
  return worst;
}

}  // namespace armure::cli
