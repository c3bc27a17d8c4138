#include "prepare/sheets.h"

#include <algorithm>
#include <cmath>
#include <numbers>
#include <set>
#include <stdexcept>

#include "laying/search.h"
#include "quotable.h"

namespace armure {
namespace {

constexpr double kEdge = 6;             // mm, so that no line falls on the edge of a sheet
constexpr double kApart = 4;            // mm between pieces
constexpr double kWidestFull = 880;     // mm
constexpr double kLongestSheet = 5000;  // mm: a PDF's page is no longer than 200 in (ISO 32000-1, annex C)
constexpr int kMostColumns = 10, kRounds = 20;

// A strip across the paper: what lies along it runs down the sheet.
StripProblem stripOf(const Pattern& pattern, const std::vector<Polyline>& cutOutlines,
                     const std::vector<size_t>& pieces) {
  StripProblem problem;
  problem.gap = kApart;
  for (const size_t i : pieces) {
    const Piece& piece = pattern.pieces[i];
    const double down = angleBetween(piece.grainBottom - piece.grainTop, {1, 0});
    StripItem item{problem.outlines.size(), {}, false, std::nullopt};
    for (const double quarter : {0, 2, 1, 3}) item.turns.push_back({down + quarter * std::numbers::pi / 2, false});
    problem.outlines.push_back(cutOutlines[i]);
    problem.items.push_back(std::move(item));
  }
  return problem;
}

// What the strip's x is runs down the paper, what its y is to the left: nothing is mirrored.
PaperLayout onPaper(const StripProblem& problem, const StripLayout& strip, const std::vector<size_t>& pieces) {
  const Motion turn =
      Motion::rotationAbout({}, std::numbers::pi / 2).then(Motion::translation({problem.width + kEdge, kEdge}));
  PaperLayout layout;
  for (size_t k = 0; k < pieces.size(); ++k) {
    const StripItem& item = problem.items[k];
    const LaidItem& laid = strip.items[k];
    layout.add(pieces[k], problem.outlines[item.outline],
               turned(item.turns[laid.turn]).then(Motion::translation(laid.at)).then(turn));
    layout.width = std::max(layout.width, layout.boxes.back().high.x + kEdge);
    layout.height = std::max(layout.height, layout.boxes.back().high.y + kEdge);
  }
  return layout;
}

StripLayout searched(const StripProblem& problem, int rounds) {
  LayingSearch search(problem);
  for (int i = 0; i < rounds && !search.isShortest(); ++i) search.step();
  return search.best();
}

// The layout that needs fewest sheets; of equals the one of fewer columns.
Sheets onTiles(const Pattern& pattern, const std::vector<Polyline>& cutOutlines, const std::vector<size_t>& pieces,
               const PaperSize& paper) {
  Sheets best{layOutOnPaper(pattern, cutOutlines, pieces, kWidestFull, kApart), paper, {}};
  best.tiling = tile(best.layout, paper);
  const double step = paper.width - 2 * kTileMargin - kTileOverlap;
  StripProblem problem = stripOf(pattern, cutOutlines, pieces);
  bool inOneRow = false;  // all of it, at the width before: wider is no use
  for (int columns = 1; columns <= kMostColumns; ++columns) {
    problem.width = columns * step + kTileOverlap - 2 * kEdge;
    if (tooWide(problem)) continue;
    const StripLayout strip = searched(problem, kRounds);
    PaperLayout layout = onPaper(problem, strip, pieces);
    Tiling tiling = tile(layout, paper);
    if (tiling.tiles.size() < best.tiling.tiles.size()) best = {std::move(layout), paper, std::move(tiling)};
    if (inOneRow) break;
    inOneRow = strip.length <= shortestLength(problem);
  }
  return best;
}

// One strip as wide as the roll; what is wider than that is divided like tiles.
Sheets onRoll(const Pattern& pattern, const std::vector<Polyline>& cutOutlines, const std::vector<size_t>& pieces,
              double width) {
  PaperSize roll = kPaperTable.back();
  roll.width = width;
  roll.height = kLongestSheet;
  const double step = width - 2 * kTileMargin - kTileOverlap;
  StripProblem problem = stripOf(pattern, cutOutlines, pieces);
  int columns = 1;
  do problem.width = columns * step + kTileOverlap - 2 * kEdge;
  while (tooWide(problem) && ++columns);
  PaperLayout layout = onPaper(problem, searched(problem, 5 * kRounds), pieces);
  roll.height = std::min(kLongestSheet, layout.height + 2 * kTileMargin);
  Tiling tiling = tile(layout, roll);
  return {std::move(layout), roll, std::move(tiling)};
}

Problem notThere(const char* where, const std::string& asked, const std::set<std::string>& all) {
  std::string words;
  for (const std::string& a : all) words += (words.empty() ? "" : ", ") + a;
  return {where, msg("the pattern has no \"{}\"", quotable(asked)), msg("it has {}", verbatim(words))};
}

}  // namespace

Sheets layOnSheets(const Pattern& pattern, const std::vector<Polyline>& cutOutlines, const PrintWishes& wishes) {
  const std::vector<size_t> pieces = wishes.pieces.empty() ? allPieces(pattern) : wishes.pieces;
  if (const PaperSize* paper = findPaper(wishes.paper)) return onTiles(pattern, cutOutlines, pieces, *paper);
  if (wishes.paper == kPaperTable.back().id) return onRoll(pattern, cutOutlines, pieces, wishes.roll);
  if (wishes.paper != kPaperTable.front().id) throw std::invalid_argument("layOnSheets: no such paper");
  Sheets one{layOutOnPaper(pattern, cutOutlines, pieces, kWidestFull), kPaperTable.front(), {1, 1, {}}};
  one.tiling.tiles.push_back({0, 0, "A1", {{0, 0}, {one.layout.width, one.layout.height}}});
  return one;
}

Result<std::vector<size_t>> choosePieces(const Pattern& pattern, const std::vector<std::string>& ids,
                                         const std::vector<std::string>& layers) {
  std::set<std::string> allIds, allLayers;
  for (const Piece& p : pattern.pieces) {
    allIds.insert(p.id);
    allLayers.insert(p.layer);
    for (const AlsoCut& again : p.alsoCut) allLayers.insert(again.layer);
  }
  for (const std::string& id : ids)
    if (!allIds.contains(id)) return notThere("--only", id, allIds);
  for (const std::string& layer : layers)
    if (!allLayers.contains(layer)) return notThere("--layers", layer, allLayers);
  const auto has = [](const auto& list, const std::string& one) { return std::ranges::find(list, one) != list.end(); };
  std::vector<size_t> chosen;
  for (size_t i = 0; i < pattern.pieces.size(); ++i) {
    const Piece& p = pattern.pieces[i];
    const bool inLayer = layers.empty() || has(layers, p.layer) ||
                         std::ranges::any_of(p.alsoCut, [&](const AlsoCut& again) { return has(layers, again.layer); });
    if (inLayer && (ids.empty() || has(ids, p.id))) chosen.push_back(i);
  }
  if (chosen.empty()) return Problem{"--only", "none of these pieces is in these layers", "leave one of the two away"};
  return chosen;
}

}  // namespace armure
