// armure-cli try: the shell on the body, in words or as JSON.
#include <fmt/format.h>

#include <cmath>

#include "cli/commands.h"
#include "cli/complaints.h"
#include "io/bounded_json.h"
#include "io/order_file.h"
#include "recalc/recalc.h"
#include "tryon/tryon.h"

namespace armure::cli {
namespace {

constexpr const char* kToile =
    "How this cloth and this flesh give the program cannot know; stiffnesses are guesses of its makers. A toile is "
    "still "
    "sewn.";

Json orNull(const std::optional<double>& v) { return v ? Json(*v) : Json(nullptr); }

Json tryOnJson(const TryOn& t) {
  Json levels = Json::array(), top = Json::array();
  for (const LevelSeat& l : t.levels)
    levels.push_back({{"level", l.level},
                      {"belowFront", orNull(l.front)},
                      {"belowSide", orNull(l.side)},
                      {"belowBack", orNull(l.back)},
                      {"pressureKpa", l.pressure}});
  for (const EdgeStand& e : t.top)
    top.push_back(
        {{"piece", e.piece}, {"edge", e.edge}, {"degrees", e.angle}, {"off", e.off}, {"tensionNPerCm", e.tension}});
  return {{"unit", "mm"},
          {"settled", t.settled},
          {"levels", std::move(levels)},
          {"bustPointBelow", orNull(t.bustPoint)},
          {"top", std::move(top)},
          {"note", kToile}};
}

std::string belowText(const char* where, const std::optional<double>& below) {
  if (!below) return {};
  return fmt::format("  {} {:.0f} mm {}", where, std::abs(*below), *below < 0 ? "above" : "below");
}

void printTryOn(Printer& out, const Design& design, const TryOn& t) {
  if (!t.settled) out.print("The cloth was still moving when it was stopped: the figures are rough.\n");
  out.print("Where the pattern's levels sit, against the body's\n");
  for (const LevelSeat& l : t.levels)
    for (const PatternLevel& named : design.pattern.levels)
      if (named.id == l.level)
        out.print("{:<12}{}{}{}  pressing {:.1f} kPa\n", english(named.name), belowText("front", l.front),
                  belowText("side", l.side), belowText("back", l.back), l.pressure);
  if (t.bustPoint) out.print("{:<12}{}\n", "Bust point", belowText("", t.bustPoint));
  out.print("Along the top edge, from centre front to centre back\n");
  for (const EdgeStand& e : t.top)
    out.print("{:>4.0f} degrees  {:>5.1f} mm {}, tension {:.1f} N/cm  {}.{}\n", e.angle, std::abs(e.off),
              e.off < 0 ? "pressed in" : "off the skin", e.tension, e.piece, e.edge);
  out.print("\n{}\n", kToile);
}

}  // namespace

int tryOnBody(Printer& out, const std::string& path, bool asJson) {
  const Result<OrderFile> file = readOrder(path);
  if (!file.ok()) return complain(file.problem());
  warn(path, file->warnings);
  const Result<Design> design = recalc(file->order);
  if (!design.ok()) return complain(inFile(path, design.problem()));
  const Result<TryOn> tried = tryOn(design->pattern, design->body, {});
  if (!tried.ok()) return complain(inFile(path, tried.problem()));
  if (asJson)
    out.print("{}\n", tryOnJson(*tried).dump(1, ' ', false, Json::error_handler_t::replace));
  else
    printTryOn(out, *design, *tried);
  return kDone;
}

}  // namespace armure::cli
