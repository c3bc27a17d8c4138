// armure-cli list: what is cut and what is bought, in words or as JSON.
#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "cli/commands.h"
#include "cli/complaints.h"
#include "cli/order_stream.h"
#include "io/bounded_json.h"
#include "io/order_file.h"
#include "prepare/cloth_laying.h"
#include "prepare/lists.h"
#include "prepare/sewing.h"
#include "recalc/recalc.h"
#include "units/language.h"

namespace armure::cli {
namespace {

double rounded(double mm) { return std::round(mm * 1e3) / 1e3; }

Json sewingJson(const std::vector<SewingStep>& steps) {
  Json all = Json::array();
  for (const SewingStep& step : steps) {
    Json seams = Json::array();
    for (const SewnSeam& s : step.seams)
      seams.push_back({{"seam", s.seam}, {"name", english(s.name)}, {"length", rounded(s.length)}});
    all.push_back({{"work", workRow(step.work).id}, {"what", english(step.what)}, {"seams", std::move(seams)}});
  }
  return all;
}

// How much of every cloth is needed, as it is laid in a moment.
std::vector<OnCloth> laidQuickly(const Design& design, const CutList& list) {
  std::vector<OnCloth> all;
  for (ClothLaying& laying : clothLayings(design.pattern, design.cutOutlines, list, design.rules.keptPlaces())) {
    StripLayout layout = laying.unfit ? StripLayout{} : quickLayout(laying);
    all.push_back({std::move(laying), std::move(layout)});
  }
  return all;
}

Json clothJson(const OnCloth& c) {
  Json one{{"cloth", c.laying.cloth.cloth},          {"name", c.laying.cloth.as.name},
           {"width", rounded(c.laying.cloth.width)}, {"lies", c.laying.cloth.as.folded ? "folded" : "open"},
           {"oneWay", c.laying.cloth.as.oneWay},     {"shrinks", c.laying.cloth.as.shrinkage},
           {"note", c.laying.cloth.as.note}};
  if (c.laying.unfit) {
    one["problem"] = c.laying.unfit->text();
    return one;
  }
  one["length"] = rounded(c.layout.length);
  one["needed"] = rounded(c.laying.needed(c.layout));
  one["utilisation"] = rounded(c.laying.utilisation(c.layout));
  return one;
}

Json listJson(const Pattern& pattern, const CutList& list, const std::vector<OnCloth>& laid,
              const std::vector<SewingStep>& steps) {
  Json pieces = Json::array(), bones = Json::array(), notions = Json::array(), cloths = Json::array();
  for (const CutPiece& c : list.pieces) {
    const Piece& p = pattern.pieces[c.piece];
    pieces.push_back({{"piece", c.id},
                      {"name", english(c.name)},
                      {"number", p.number},
                      {"layer", c.layer},
                      {"cloth", c.cloth},
                      {"copies", c.copies},
                      {"mirrored", c.mirrored},
                      {"onFold", c.onFold}});
  }
  for (const BoneLine& b : list.bones) {
    Json bone{{"kind", b.kind->id},
              {"width", rounded(b.width)},
              {"channelLength", rounded(b.channelLength)},
              {"cutLength", rounded(b.cutLength)},
              {"stockLength", rounded(b.stockLength)},
              {"count", b.count},
              {"inAllowance", b.inAllowance}};
    bone[b.seam.empty() ? "piece" : "seam"] = b.seam.empty() ? b.piece : b.seam;
    bones.push_back(std::move(bone));
  }
  for (const Notion& n : list.notions) {
    Json notion{{"id", n.id}, {"name", english(n.name)}, {"count", n.count}};
    if (n.length > 0) notion["length"] = rounded(n.length);
    notion["note"] = english(n.note);
    notions.push_back(std::move(notion));
  }
  for (const OnCloth& c : laid) cloths.push_back(clothJson(c));
  return {{"pieces", std::move(pieces)},
          {"bones", std::move(bones)},
          {"notions", std::move(notions)},
          {"cloths", std::move(cloths)},
          {"sewing", sewingJson(steps)}};
}

std::string cutWords(const CutPiece& c) {
  if (c.onFold) return fmt::format("cut {} on the fold", c.copies);
  return fmt::format("cut {}{}", c.copies, c.mirrored ? ", half of them mirrored" : "");
}

void printList(Printer& out, const Pattern& pattern, const CutList& list, const std::vector<OnCloth>& laid,
               LengthFormat units) {
  for (const OnCloth& c : laid) {
    const ClothLine& cloth = c.laying.cloth;
    out.print(
        "{} ({}), {} wide, {}{}: {}\n", cloth.as.name, cloth.cloth, formatLengthWithUnit(cloth.width, units),
        cloth.as.folded ? "folded" : "open", cloth.as.oneWay ? ", one way" : "",
        c.laying.unfit ? c.laying.unfit->text() : formatLengthWithUnit(c.laying.needed(c.layout), units) + " needed");
    for (const CutPiece& cut : list.pieces)
      if (const Piece& p = pattern.pieces[cut.piece]; cut.cloth == cloth.cloth)
        out.print("  {:>2} of {:<3} {:<34} {}\n", p.number, p.of, say(cut.name, units), cutWords(cut));
  }
  if (!list.bones.empty()) out.print("\nbones\n");
  for (const BoneLine& b : list.bones)
    out.print("  {:>2} x {:<17} {:>10} long, {} wide, channel {}; {}{}\n", b.count, b.kind->name,
              formatLengthWithUnit(b.cutLength, units), formatLengthWithUnit(b.width, units),
              formatLengthWithUnit(b.channelLength, units), b.seam.empty() ? "in " + b.piece : "on the seam " + b.seam,
              b.inAllowance ? ", in its allowance" : "");
  out.print("\nnotions\n");
  for (const Notion& n : list.notions)
    out.print("  {:>2} x {:<28} {:>10}  {}\n", n.count, say(n.name, units),
              n.length > 0 ? formatLengthWithUnit(n.length, units) : "", say(n.note, units));
}

}  // namespace

int listAll(Printer& out, const std::string& path, bool asJson) {
  const Result<OrderFile> file = orderFrom(out, path);
  if (!file.ok()) return complain(file.problem());
  warn(path, file->warnings);
  const Result<Design> design = recalc(file->order);
  if (!design.ok()) return complain(inFile(path, design.problem()));
  const CutList list = cutList(design->pattern, design->block, design->rules);
  const std::vector<OnCloth> laid = laidQuickly(*design, list);
  if (asJson)
    out.print("{}\n", listJson(design->pattern, list, laid, sewingOrder(design->pattern, design->block, design->rules))
                          .dump(1, ' ', false, Json::error_handler_t::replace));
  else
    printList(out, design->pattern, list, laid, file->order.units);
  return kDone;
}

}  // namespace armure::cli
