// armure-cli lay: every piece on its cloth, in words, as JSON or as a drawing.
#include <fmt/format.h>

#include <algorithm>
#include <chrono>
#include <cmath>
#include <map>
#include <numbers>

#include "cli/commands.h"
#include "cli/complaints.h"
#include "cli/order_stream.h"
#include "io/bounded_json.h"
#include "io/cloth_svg.h"
#include "io/file_kind.h"
#include "io/order_file.h"
#include "layers/recipe.h"
#include "laying/search.h"
#include "rules/nearest.h"
#include "units/language.h"

namespace armure::cli {
namespace {

double rounded(double v, int figures) {
  const double unit = std::pow(10.0, figures);
  return std::round(v * unit) / unit;
}

// A layout found in `seconds`, or sooner where none can be shorter.
StripLayout laidWithin(const StripProblem& problem, double seconds) {
  using Clock = std::chrono::steady_clock;
  const auto end = Clock::now() + std::chrono::duration<double>(seconds);
  LayingSearch search(problem);
  while (!search.isShortest() && Clock::now() < end) search.step();
  return search.best();
}

double degreesOf(double angleRad) {
  const double degrees = std::remainder(angleRad, 2 * std::numbers::pi) * 180 / std::numbers::pi;
  return rounded(degrees <= -180 + 1e-9 ? degrees + 360 : degrees, 10);
}

// How far the pieces of a layer that are cut as the shell's lie from those where all are exported.
std::map<std::string, Vec2> shiftsInExports(const Design& design, const CutList& list) {
  std::map<std::string, Vec2> shifts;
  const Pattern exported = everyLayer(design.pattern, design.rules);
  for (const CutPiece& cut : list.pieces)
    for (const Piece& p : exported.pieces)
      if (p.id == cut.id) shifts[cut.id] = p.grainTop - design.pattern.pieces[cut.piece].grainTop;
  return shifts;
}

Json clothJson(const OnCloth& c, const CutList& list, const std::map<std::string, Vec2>& shifts) {
  const ClothLaying& laying = c.laying;
  Json one{{"cloth", laying.cloth.cloth},
           {"name", laying.cloth.as.name},
           {"width", rounded(laying.width, 3)},
           {"lies", laying.folded ? "folded" : "open"}};
  if (laying.unfit) {
    one["problem"] = laying.unfit->text();
    one["placements"] = Json::array();
    return one;
  }
  one["length"] = rounded(c.layout.length, 6);
  one["needed"] = rounded(laying.needed(c.layout), 3);
  one["utilisation"] = rounded(laying.utilisation(c.layout), 6);
  one["enough"] = laying.isEnough(c.layout);
  Json placements = Json::array();
  for (const ClothPlacement& p : laying.placements(c.layout)) {
    const Vec2 at = p.at - turned(p.turn).apply(shifts.at(list.pieces[p.piece].id));
    placements.push_back({{"piece", list.pieces[p.piece].id},
                          {"copy", p.copy},
                          {"mirrored", p.turn.mirrored},
                          {"x", rounded(at.x, 7)},
                          {"y", rounded(at.y, 7)},
                          {"degrees", degreesOf(p.turn.angleRad)}});
  }
  one["placements"] = std::move(placements);
  Json loosened = Json::array();
  for (const auto& [place, reason] : laying.loosened)
    loosened.push_back({{"key", keptPlaceKey(place)}, {"reason", english(reason)}});
  if (!loosened.empty()) one["loosened"] = std::move(loosened);
  return one;
}

void printCloth(Printer& out, const OnCloth& c, LengthFormat units) {
  const ClothLaying& laying = c.laying;
  out.print("{} ({}), {} wide, laid {}\n", laying.cloth.as.name, laying.cloth.cloth,
            formatLengthWithUnit(laying.width, units), laying.folded ? "folded" : "open");
  if (laying.unfit) return out.print("  {}\n", laying.unfit->text());
  if (laying.cloth.as.folded && !laying.folded && laying.problem.within.empty())
    out.print("  a piece is wider than half of it: it is laid open\n");
  out.print("  {} long, {:.1f} % of it cut", formatLengthWithUnit(c.layout.length, units),
            100 * laying.utilisation(c.layout));
  if (laying.cloth.as.shrinkage > 0)
    out.print("; {} to buy, for {:.1f} % it shrinks", formatLengthWithUnit(laying.needed(c.layout), units),
              100 * laying.cloth.as.shrinkage);
  out.print("\n");
  if (!laying.isEnough(c.layout)) out.print("  there is not enough of it: some pieces lie beyond its end\n");
  for (const auto& [place, reason] : laying.loosened) out.print("  {}: {}\n", keptPlaceKey(place), english(reason));
}

std::optional<Problem> noSuchCloth(const CutList& list, const std::string& id) {
  std::vector<std::string_view> ids;
  std::string all;
  for (const ClothLine& c : list.cloths) {
    ids.push_back(c.cloth);
    all += (all.empty() ? "" : ", ") + c.cloth;
  }
  if (std::ranges::find(ids, id) != ids.end()) return std::nullopt;
  return Problem{"--cloth", msg("nothing is cut of \"{}\"", quotable(id)), msg("use one of {}", verbatim(all))};
}

// The width of the cloth asked for, or of all.
std::optional<Problem> narrow(CutList& list, const LayArguments& a, LengthFormat units) {
  constexpr double kNarrowest = 100, kWidest = 5000;  // mm
  if (a.width.empty()) return std::nullopt;
  const Result<double> width = parseLength(a.width, units.unit);
  if (!width.ok()) return Problem{"--width", width.problem().what, width.problem().remedy};
  if (*width < kNarrowest || *width > kWidest)
    return Problem{"--width", msg("\"{}\" is no width of a cloth", quotable(a.width)),
                   msg("give a width between {} and {}", Length{kNarrowest}, Length{kWidest})};
  for (ClothLine& c : list.cloths)
    if (a.cloth.empty() || c.cloth == a.cloth) {
      c.width = c.as.width = *width;
      c.as.remnant.clear();
    }
  return std::nullopt;
}

}  // namespace

int lay(Printer& out, const LayArguments& a) {
  const Result<OrderFile> file = orderFrom(out, a.order);
  if (!file.ok()) return complain(file.problem());
  warn(a.order, file->warnings);
  if (!a.svg.empty())
    if (const auto problem = whyNotTo(a.svg, FileKind::Svg, {a.order}, a.force)) return complain(*problem);
  const Result<Design> design = recalc(file->order);
  if (!design.ok()) return complain(inFile(a.order, design.problem()));
  CutList list = pieceList(design->pattern, design->rules);
  if (!a.cloth.empty())
    if (const auto problem = noSuchCloth(list, a.cloth)) return complain(*problem);
  if (const auto problem = narrow(list, a, file->order.units)) return complain(*problem);
  std::vector<OnCloth> cloths;
  for (ClothLaying& laying : clothLayings(design->pattern, design->cutOutlines, list, design->rules.keptPlaces())) {
    if (!a.cloth.empty() && laying.cloth.cloth != a.cloth) continue;
    StripLayout layout = laying.unfit ? StripLayout{} : laidWithin(laying.problem, a.seconds);
    cloths.push_back({std::move(laying), std::move(layout)});
  }
  if (!a.svg.empty())
    if (const auto problem = writeFileAtomically(a.svg, clothSvg(design->pattern, list, cloths, file->order.units)))
      return complain(*problem);
  const std::map<std::string, Vec2> shifts = a.asJson ? shiftsInExports(*design, list) : std::map<std::string, Vec2>{};
  Json all = Json::array();
  bool fits = true;
  for (const OnCloth& c : cloths) {
    fits = fits && !c.laying.unfit && c.laying.isEnough(c.layout);
    a.asJson ? all.push_back(clothJson(c, list, shifts)) : printCloth(out, c, file->order.units);
  }
  if (a.asJson) out.print("{}\n", Json{{"cloths", std::move(all)}}.dump(1, ' ', false, Json::error_handler_t::replace));
  return fits ? kDone : kFails;
}

}  // namespace armure::cli
