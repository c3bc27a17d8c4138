// armure-cli try: the shell on the body, in words or as JSON.
#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <optional>

#include "cli/commands.h"
#include "cli/complaints.h"
#include "cli/order_stream.h"
#include "cli/said.h"
#include "io/bounded_json.h"
#include "io/order_file.h"
#include "order/order_words.h"
#include "parts/cups/rules.h"
#include "recalc/recalc.h"
#include "tryon/findings.h"
#include "tryon/tryon.h"

namespace armure::cli {
namespace {

Json orNull(const std::optional<double>& v) { return v ? Json(*v) : Json(nullptr); }

Json edgeJson(const std::vector<EdgeStand>& edge) {
  Json all = Json::array();
  for (const EdgeStand& e : edge)
    all.push_back(
        {{"piece", e.piece}, {"edge", e.edge}, {"degrees", e.angle}, {"off", e.off}, {"tensionNPerCm", e.tension}});
  return all;
}

Json tryOnJson(const TryOn& t, const std::vector<Finding>& findings) {
  Json levels = Json::array(), opening = Json::array(), found = Json::array();
  for (const LevelSeat& l : t.levels)
    levels.push_back({{"level", l.level},
                      {"belowFront", orNull(l.front)},
                      {"belowSide", orNull(l.side)},
                      {"belowBack", orNull(l.back)},
                      {"pressureKpa", l.pressure},
                      {"laplaceKpa", l.laplace}});
  for (const OpeningPull& o : t.opening) opening.push_back({{"y", o.y}, {"tensionNPerCm", o.tension}, {"gap", o.gap}});
  for (const Finding& f : findings) {
    Json one{{"text", english(f.text)}};
    if (f.mending) one["mending"] = {{"key", f.mending->key}, {"value", f.mending->text}};
    found.push_back(std::move(one));
  }
  return {{"unit", "mm"},
          {"settled", t.settled},
          {"levels", std::move(levels)},
          {"bustPointBelow", orNull(t.bustPoint)},
          {"top", edgeJson(t.top)},
          {"hem", edgeJson(t.hem)},
          {"armhole", edgeJson(t.armhole)},
          {"opening", std::move(opening)},
          {"sideLeansDegrees", t.side ? Json(t.side->lean) : Json(nullptr)},
          {"roomInCupsMl", t.cups ? Json{t.cups->emptyLeast, t.cups->emptyMost} : Json(nullptr)},
          {"pressedInCupsMl", t.cups ? Json{t.cups->pressedLeast, t.cups->pressedMost} : Json(nullptr)},
          {"findings", std::move(found)},
          {"note", kToileStays}};
}

std::string belowText(const char* where, const std::optional<double>& below) {
  if (!below) return {};
  return fmt::format("  {} {:.0f} mm {}", where, std::abs(*below), *below < 0 ? "above" : "below");
}

void printFindings(Printer& out, const std::vector<Finding>& findings) {
  if (findings.empty())
    out.print("Nothing stands off, presses or sits beside where it should by more than can be told.\n");
  for (const Finding& f : findings) {
    out.print("- {}\n", english(f.text));
    if (f.mending) out.print("    would mend it: {}={}\n", f.mending->key, f.mending->text);
  }
  out.print("\n");
}

void printOpening(Printer& out, const TryOn& t) {
  if (std::none_of(t.opening.begin(), t.opening.end(), [](const OpeningPull& o) { return o.gap > 1; })) return;
  out.print("Down the lacing\n");
  for (const OpeningPull& o : t.opening)
    out.print("{:>5.0f} mm down  open {:>3.0f} mm, tension {:.1f} N/cm\n", o.y, o.gap, std::max(0.0, o.tension));
}

void printTryOn(Printer& out, const TryOn& t) {
  out.print("Where the pattern's levels sit, against the body's\n");
  for (const LevelSeat& l : t.levels)
    out.print("{:<12}{}{}{}  pressing {:.1f} kPa\n", english(l.name), belowText("front", l.front),
              belowText("side", l.side), belowText("back", l.back), l.pressure);
  if (t.bustPoint) out.print("{:<12}{}\n", "Bust point", belowText("", t.bustPoint));
  out.print("Along the top edge, from centre front to centre back\n");
  for (const EdgeStand& e : t.top)
    out.print("{:>4.0f} degrees  {:>5.1f} mm {}, tension {:.1f} N/cm  {}.{}\n", e.angle, std::abs(e.off),
              e.off < 0 ? "pressed in" : "off the skin", e.tension, e.piece, e.edge);
  printOpening(out, t);
  out.print("\n{}\n", kToileStays);
}

}  // namespace

int tryOnBody(Printer& out, const std::string& path, const std::string& half, std::optional<double> laced,
              bool asJson) {
  const Result<OrderFile> file = orderFrom(out, path);
  if (!file.ok()) return complain(file.problem());
  warn(path, file->warnings);
  const Result<BodySide> side = oneOf("--half", half.empty() ? std::string(bodySideId(BodySide::Left)) : half,
                                      {BodySide::Left, BodySide::Right}, bodySideId);
  if (!side.ok()) return complain(side.problem());
  const Result<Design> made = recalc(file->order);
  if (!made.ok()) return complain(inFile(path, made.problem()));
  const Design* design = &made->half(*side);
  const Pattern pattern = design->balanced ? design->pattern : proposal(*design).pattern;
  const Result<TryOn> tried =
      tryOn(pattern, design->body, {.breasts = design->rules.option(key::kBreastShape), .laced = laced});
  if (!tried.ok()) return complain(inFile(path, tried.problem()));
  const std::vector<Finding> findings = findingsOf(*tried, pattern, design->body, design->rules);
  if (asJson) {
    out.print("{}\n", tryOnJson(*tried, findings).dump(1, ' ', false, Json::error_handler_t::replace));
  } else {
    printFindings(out, findings);
    printTryOn(out, *tried);
  }
  return kDone;
}

}  // namespace armure::cli
