#include "recalc/idle.h"

#include <fmt/format.h>

#include <algorithm>
#include <set>

#include "garment/trim_makers.h"
#include "layers/recipe.h"
#include "measure/measure_table.h"
#include "parts/bones/bones.h"
#include "prepare/cloth_laying.h"
#include "prepare/lists.h"
#include "recalc/bases.h"
#include "rules/rule_search.h"

namespace armure {
namespace {

bool sameEdges(const Piece& a, const Piece& b) {
  if (a.edges.size() != b.edges.size() || a.lines() != b.lines()) return false;
  for (size_t i = 0; i < a.lines(); ++i) {
    const Edge &x = a.lineAt(i), &y = b.lineAt(i);
    if (x.id != y.id || x.role != y.role || x.allowance != y.allowance || x.path.cubics() != y.path.cubics())
      return false;
  }
  return true;
}

bool samePiece(const Piece& a, const Piece& b) {
  return a.id == b.id && a.layer == b.layer && a.cloth == b.cloth && a.copies == b.copies && a.onFold == b.onFold &&
         a.marks.size() == b.marks.size() && sameEdges(a, b);
}

// Whether two drafts cut the same cloth and are held against the same girths and caps.
bool sameGarment(const Design& a, const Design& b) {
  const Pattern &p = a.pattern, &q = b.pattern;
  const auto sameLevel = [](const PatternLevel& x, const PatternLevel& y) {
    return x.id == y.id && x.finishedGirth == y.finishedGirth && x.gaps.sum() == y.gaps.sum();
  };
  const auto sameSeam = [](const Seam& x, const Seam& y) { return x.id == y.id && x.ease() == y.ease(); };
  const auto sameIntake = [](const Intake& x, const Intake& y) { return x.cap == y.cap && x.amount == y.amount; };
  return std::equal(p.pieces.begin(), p.pieces.end(), q.pieces.begin(), q.pieces.end(), samePiece) &&
         std::equal(p.levels.begin(), p.levels.end(), q.levels.begin(), q.levels.end(), sameLevel) &&
         std::equal(p.seams.begin(), p.seams.end(), q.seams.begin(), q.seams.end(), sameSeam) &&
         std::equal(a.block.intakes.begin(), a.block.intakes.end(), b.block.intakes.begin(), b.block.intakes.end(),
                    sameIntake);
}

class IdleFinder {
 public:
  IdleFinder(const Order& order, const Design& design) : design_(design), choices_(order.choices), order_(order) {
    // What is not known cannot count: it is left out of what is tried.
    std::erase_if(order_.choices, [](const auto& choice) { return !isChoiceKey(choice.first); });
    order_.choices["balance.keep"] = "drafted";
    if (Result<Design> drafted = recalc(order_); drafted.ok()) now_ = std::move(drafted).value();
  }

  std::vector<Idle> find() && {
    if (!now_) return {};
    for (const auto& [key, value] : choices_)
      if (const Message reason = whyIdle(key, value); !reason.empty()) idle_.push_back({key, reason});
    for (const auto& [id, measure] : order_.measures.all()) {
      const MeasureInfo* info = findMeasure(id);
      if (!info) {
        idle_.push_back({"measure " + id, "it is not known; it is kept", id});
      } else if (!needs(order_, *info) && !matters(id)) {
        idle_.push_back({"measure " + id, "nothing in this garment is drafted from it", id});
      }
    }
    if (order_.base && order_.base->base.traced && order_.style != order_.base->base.style)
      idle_.push_back({"style", "the pattern was read from a drawing: it is altered, not drafted"});
    for (const IdleShift& s : design_.idleShifts) {
      const auto from = std::ranges::find(order_.alterations, s.alteration, &Alteration::id);
      const bool named = from != order_.alterations.end() && !from->name.empty();
      idle_.push_back({"alteration " + (named ? from->name : s.alteration), s.what});
    }
    return std::move(idle_);
  }

 private:
  // Whether the order, changed, makes another garment. One that cannot be drafted is another.
  bool changes(const Order& other) const {
    const Result<Design> made = recalc(other);
    return !made.ok() || !sameGarment(*made, *now_);
  }

  bool matters(const std::string& measure) const {
    Order without = order_;
    without.measures.erase(measure);
    if (changes(without)) return true;
    // What is taken may be just what would be estimated.
    Order other = order_;
    TakenMeasure m = *order_.measures.find(measure);
    m.mm *= 1.01;
    m.takings.clear();
    other.measures.set(measure, m);
    return changes(other) || isChecked(measure);
  }

  // Measures the sheet holds the pieces against.
  bool isChecked(std::string_view measure) const {
    return std::any_of(design_.sheet.rows.begin(), design_.sheet.rows.end(),
                       [&](const CheckRow& r) { return r.kind == CheckKind::Body && r.level == measure; });
  }

  Message whyIdle(const std::string& key, const std::string& value) const {
    if (key == "balance.keep" || key == "balance.free_limit" || key == "paper.size" || key == "paper.roll" ||
        key == "breast.shape")
      return {};
    if (key == "balance.ease_limit") return anyEase() ? Message() : Message("no seam keeps its difference as ease");
    if (const auto seam = seamOfKey(key)) return whySeamIdle(*seam, value);
    if (const auto edge = lockOfKey(key)) return whyLockIdle(*edge);
    if (!isChoiceKey(key)) return "it is not known; it is kept";
    if (const auto cut = parsePrepareKey(key)) return whyCutIdle(key, *cut);
    if (const auto trim = parseTrimKey(key)) return whyTrimIdle(*trim);
    if (const RuleInfo* rule = findRule(key); rule && rule->stage == "Prepare")  // cut and bought, not drafted
      return now_->rules.counts(*rule) ? Message() : msg("it counts only with {}", conditionOf(*rule));
    Order other = order_;
    other.choices.erase(key);
    if (changes(other)) return {};
    if (order_.base && order_.base->base.traced)
      return isDraftChoice(key) ? Message("the pattern was read from a drawing: it is altered, not drafted")
                                : Message();
    for (const std::string& otherwise : alternatives(key, value)) {
      other.choices[key] = otherwise;
      if (changes(other)) return {};
    }
    const RuleInfo* rule = findRule(key);
    const bool counts = !rule || now_->rules.counts(*rule);
    return counts ? Message("it changes nothing beside the other choices and this style")
                  : msg("it counts only with {}", conditionOf(*rule));
  }

  // Other values the choice could have: every option, and lengths on either side.
  static std::vector<std::string> alternatives(const std::string& key, const std::string& value) {
    std::vector<std::string> all;
    const RuleInfo* rule = findRule(key);
    if (rule && rule->kind == RuleKind::Option) {
      for (const RuleOption& o : rule->options)
        if (o.id != value) all.emplace_back(o.id);
      return all;
    }
    const Result<double> now =
        rule && rule->kind == RuleKind::Share ? parseNumber(value) : parseLength(value, Unit::Millimetre);
    if (!now.ok()) return all;
    const bool share = rule && rule->kind == RuleKind::Share;
    const double step = share ? 0.05 : 4;
    for (const double v : {*now + step, *now - step}) {
      const std::string text = share ? fmt::format("{:.6g}", v) : fmt::format("{:.6g} mm", v);
      if (checkChoice(key, text, Unit::Millimetre).ok()) all.push_back(text);
    }
    return all;
  }

  bool anyEase() const {
    const auto& wishes = design_.rules.seamChoices();
    return std::any_of(wishes.begin(), wishes.end(), [](const auto& w) { return w.second.wish == SeamWish::Ease; });
  }

  Message whySeamIdle(const std::string& id, const std::string& value) const {
    const Seam* seam = now_->pattern.seam(id);
    if (!seam) return "this garment has no such seam";
    const auto choice = parseSeamChoice(value);
    if (!choice || choice->wish != SeamWish::Ease) return {};
    for (const std::string& place : {choice->from, choice->to}) {
      const bool known = place == "top" || place == "hem" || seam->notch(place);
      if (!known) return msg("this seam has no notch \"{}\"", place);
    }
    return {};
  }

  Message whyLockIdle(const EdgeName& name) const {
    for (size_t i = 0; i < now_->pattern.pieces.size(); ++i) {
      const Piece& p = now_->pattern.pieces[i];
      if (p.id != name.piece) continue;
      for (const Seam& s : now_->pattern.seams)
        for (const SeamSide* side : {&s.a, &s.b})
          if (side->piece == i && side->uses(name.edge)) return {};
      const bool has = std::any_of(p.edges.begin(), p.edges.end(), [&](const Edge& e) { return e.id == name.edge; });
      return has ? "this edge is not sewn: it follows the others" : "this piece has no such edge";
    }
    return "this garment has no such piece";
  }

  // What is cut and boned in the order with a choice taken away.
  std::set<std::string> bonesWithout(const std::string& key) const {
    Order other = order_;
    other.choices.erase(key);
    const Rules rules(other.choices, other.style, other.school, figureOf(now_->body));
    std::set<std::string> ids;
    for (const Channel& c : channelsOf(now_->pattern, now_->block, rules)) ids.insert(c.id);
    return ids;
  }

  Message whyPlaceIdle(const std::string& key) const {
    const CutList list = pieceList(now_->pattern, now_->rules);
    for (const ClothLaying& laying : clothLayings(now_->pattern, now_->cutOutlines, list, now_->rules.keptPlaces()))
      for (const auto& [place, reason] : laying.loosened)
        if (keptPlaceKey(place) == key) return reason;
    const auto isCut = [&](const KeptPlace& p) {
      return std::ranges::find(list.cloths, p.cloth, &ClothLine::cloth) != list.cloths.end();
    };
    return std::ranges::any_of(now_->rules.keptPlaces(),
                               [&](const KeptPlace& p) { return keptPlaceKey(p) == key && isCut(p); })
               ? Message()
               : Message("nothing is cut of this cloth");
  }

  Message whyTrimIdle(const TrimKey& key) const {
    for (const TrimChoice& trim : now_->rules.trims()) {
      if (trim.kind() != key.kind || trim.name() != key.name) continue;
      if (trim.on().empty())
        return msg("it is sewn to nothing: choose {}.on", verbatim(key.text().substr(0, key.text().rfind('.'))));
      if (const auto problem = trimProblem(now_->half(BodySide::Left).pattern, trim, now_->body, now_->rules))
        return msg("it is left out: {}", problem->what);
      for (const RuleInfo& field : trimKind(key.kind).fields)
        if (field.key == key.field && !trim.counts(field)) return "it counts only beside other choices of its own";
    }
    return {};
  }

  Message whyCutIdle(const std::string& key, const PrepareKey& cut) const {
    const Pattern& p = now_->pattern;
    const bool isPiece = std::ranges::find(p.pieces, cut.of, &Piece::id) != p.pieces.end();
    const CutList list = pieceList(p, now_->rules);
    switch (cut.kind) {
      case PrepareKind::LayerOrder:
        for (const std::string& layer : now_->rules.layerOrder())
          if (layer != "shell" && !findLayer(layer)) return msg("there is no layer \"{}\"", verbatim(layer));
        return {};
      case PrepareKind::ClothOf:
        if (isPiece || std::ranges::find(list.pieces, cut.of, &CutPiece::layer) != list.pieces.end()) return {};
        return cut.of == "toile" ? Message("it counts only for a toile")
                                 : Message("this garment has no such layer or piece");
      case PrepareKind::ClothField:
        if (std::ranges::find(list.cloths, cut.of, &ClothLine::cloth) != list.cloths.end()) return {};
        return "nothing is cut of this cloth";
      case PrepareKind::KeptPlace:
        return whyPlaceIdle(key);
      case PrepareKind::BoneAt:
      case PrepareKind::BoneOff:
        break;
    }
    const std::set<std::string> without = bonesWithout(key);
    if (cut.kind == PrepareKind::BoneOff)
      return without.contains(cut.of) ? Message() : Message("there is no such bone");
    std::set<std::string> with;
    for (const Channel& c : channelsOf(p, now_->block, now_->rules)) with.insert(c.id);
    if (with != without) return {};
    return isPiece ? Message("no bone finds room there") : Message("this garment has no such piece");
  }

  const Design& design_;
  const Choices& choices_;
  Order order_;
  std::optional<Design> now_;
  std::vector<Idle> idle_;
};

}  // namespace

std::vector<Idle> idleIn(const Order& order, const Design& design) { return IdleFinder(order, design).find(); }

}  // namespace armure
