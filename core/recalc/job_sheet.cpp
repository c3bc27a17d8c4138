#include "recalc/job_sheet.h"

#include <algorithm>

#include "parts/bones/bones.h"
#include "prepare/by_hand.h"
#include "prepare/cloth_laying.h"
#include "prepare/drawing.h"
#include "prepare/lists.h"
#include "prepare/marks.h"
#include "prepare/sewing.h"
#include "recalc/idle.h"
#include "rules/prepare_rules.h"

namespace armure {
namespace {

std::vector<Message> factsOf(const Order& order, const Design& design) {
  std::vector<Message> facts;
  for (const std::string& text : {order.client, order.date})
    if (!text.empty()) facts.push_back(verbatim(text));
  if (const Preset* style = findStyle(order.style)) facts.push_back(known(style->name));
  if (const Preset* school = findSchool(order.school)) facts.push_back(known(school->name));
  facts.push_back(msg("version {}", verbatim(patternVersion(design.cutOutlines))));
  return facts;
}

Message sourceOf(const Fact& fact) {
  switch (fact.source) {
    case Source::Taken:
      return "taken";
    case Source::Estimated:
      return msg("estimated, give or take {}", Length{fact.spread});
    case Source::ByHand:
      return "by hand";
    case Source::Rule:
      return "by rule";
    case Source::Computed:
      break;
  }
  return "worked out";
}

class JobSheet {
 public:
  JobSheet(const Order& order, const Design& design)
      : order_(order), design_(design), list_(cutList(design.pattern, design.block, design.rules)) {}

  Document make() && {
    document_.title = order_.title.empty() ? Message("Job sheet") : msg("Job sheet: {}", verbatim(order_.title));
    document_.facts = factsOf(order_, design_);
    document_.sections.push_back({"The garment", {}, {}, true});
    cautions();
    measures();
    choices();
    balance();
    halfGirths();
    cutting();
    bones();
    notions();
    sewing();
    if (!order_.notes.empty()) document_.sections.push_back({"Notes", {verbatim(order_.notes)}});
    return std::move(document_);
  }

 private:
  DocumentSection& section(Message title) {
    document_.sections.push_back({std::move(title)});
    return document_.sections.back();
  }

  void cautions() {
    const ReductionClass reduction = design_.reduction();
    if (reduction.percent <= 0) return;
    DocumentSection& s = section("Before it is worn");
    s.paragraphs.push_back(msg("Waist {}, closed {}: {:.1f} % less, {}.", Length{reduction.body},
                               Length{reduction.finished}, reduction.percent, known(reduction.name)));
    for (const std::string_view c : reductionCautions()) s.paragraphs.push_back(known(c));
  }

  void measures() {
    const std::vector<Idle> idle = idleIn(order_, design_);
    const auto isIdle = [&](const std::string& id) {
      return std::ranges::any_of(idle, [&](const Idle& i) { return i.measure == id; });
    };
    DocumentSection& s = section("Measures as used");
    s.table.head = {"measure", "length", "from"};
    for (const Fact& f : design_.body.facts()) {
      const MeasureInfo* info = findMeasure(f.id);
      if (!info || (f.source == Source::Estimated && f.id == id::kStature)) continue;
      s.table.rows.push_back({known(info->name), msg("{}", Length{f.mm}),
                              isIdle(f.id) ? Message("taken, not used in this garment") : sourceOf(f)});
    }
    for (const Idle& i : idle)
      if (!i.measure.empty() && !design_.body.has(i.measure))
        if (const TakenMeasure* m = order_.measures.find(i.measure))
          s.table.rows.push_back({findMeasure(i.measure) ? known(findMeasure(i.measure)->name) : verbatim(i.measure),
                                  msg("{}", Length{m->mm}), "taken, not used in this garment"});
  }

  void choices() {
    if (order_.choices.empty()) return;
    const Rules plain({}, order_.style, order_.school, figureOf(design_.body));
    DocumentSection& s = section("Chosen for this order");
    s.table.head = {"choice", "here", "in the style"};
    for (const auto& [key, value] : order_.choices) {
      const RuleInfo* rule = findRule(key);
      if (!rule) {
        s.table.rows.push_back({nameOf(key), verbatim(value), "nothing"});
        continue;
      }
      s.table.rows.push_back({known(rule->label), shown(*rule, design_.rules), shown(*rule, plain)});
    }
  }

  static Message nameOf(const std::string& key) {
    if (const auto shaping = parseShapingKey(key)) return shapingName(*shaping);
    if (const auto cut = parsePrepareKey(key)) return prepareName(*cut);
    if (const auto trim = parseTrimKey(key)) return trimKeyName(*trim);
    return verbatim(key);
  }

  static Message shown(const RuleInfo& rule, const Rules& rules) {
    const RuleValue& v = rules.value(rule.key);
    switch (rule.kind) {
      case RuleKind::Length:
        return msg("{}", Length{v.number});
      case RuleKind::Share:
      case RuleKind::Number:
        return msg("{:.2f}", v.number);
      case RuleKind::Option:
        break;
    }
    const auto found = std::ranges::find(rule.options, v.option, &RuleOption::id);
    return found == rule.options.end() ? verbatim(v.option) : known(found->label);
  }

  void balance() {
    const Sheet& sheet = design_.sheet;
    DocumentSection& s = section("Balance");
    s.paragraphs.push_back(sheet.failing() == 0 ? msg("All {} checks pass.", sheet.rows.size())
                                                : msg("{} of {} checks fail: mend them before cutting.",
                                                      sheet.failing(), sheet.rows.size()));
    s.paragraphs.push_back(msg("{} to consider, {} notes.", sheet.count(Verdict::Advice), sheet.count(Verdict::Note)));
    for (const CheckRow& r : sheet.rows)
      if (r.fails() || r.verdict == Verdict::Advice) s.paragraphs.push_back(msg("{}: {}", r.subject, r.detail));
  }

  void halfGirths() {
    DocumentSection& s = section("Half girths to check on the cloth");
    s.paragraphs = {"Measured flat on the finished half, before the sides are closed."};
    s.table.head = {"level", "half the finished girth", "of it open", "on the body"};
    for (const PatternLevel& l : design_.pattern.levels)
      if (l.ring)
        s.table.rows.push_back({l.name, msg("{}", Length{l.finishedGirth / 2}), msg("{}", Length{l.gaps.opening / 2}),
                                msg("{}", Length{l.bodyGirth / 2})});
  }

  void cutting() {
    const std::vector<ClothLaying> layings =
        clothLayings(design_.pattern, design_.cutOutlines, list_, design_.rules.keptPlaces());
    for (size_t k = 0; k < layings.size(); ++k) {
      const ClothLine& cloth = list_.cloths[k];
      DocumentSection& s = section(msg("Cut of {}", clothName(cloth.as)));
      s.paragraphs.push_back(
          msg("{} wide, {}, {}", Length{cloth.width}, cloth.as.folded ? Message("folded") : Message("open"),
              cloth.as.oneWay ? Message("one way: no piece is turned round") : Message("either way")));
      s.paragraphs.push_back(needed(layings[k]));
      if (cloth.as.shrinkage > 0)
        s.paragraphs.push_back(
            msg("shrinks by {:.0f} % of its length: wash or steam it first", 100 * cloth.as.shrinkage));
      if (!cloth.as.note.empty()) s.paragraphs.push_back(clothNote(cloth.as));
      s.table.head = {"piece", "number", "cut"};
      for (const CutPiece& c : list_.pieces) {
        if (c.cloth != cloth.cloth) continue;
        const Piece& p = design_.pattern.pieces[c.piece];
        s.table.rows.push_back({c.name, msg("{} of {}", p.number, p.of),
                                c.onFold     ? msg("{} on the fold", c.copies)
                                : c.mirrored ? msg("{}, half of them mirrored", c.copies)
                                             : msg("{}, all alike", c.copies)});
      }
    }
  }

  // How much of a cloth is needed, as it was laid in a moment; with more time less is.
  static Message needed(const ClothLaying& laying) {
    if (laying.unfit) return msg("{}; {}", laying.unfit->what, laying.unfit->remedy);
    const StripLayout layout = quickLayout(laying);
    const Length length{laying.needed(layout)};
    if (!laying.isEnough(layout)) return msg("{} needed: more than there is of it", length);
    if (laying.cloth.as.folded && !laying.folded)
      return msg("{} needed, laid open: a piece is wider than half of it", length);
    return msg("{} needed", length);
  }

  Message placeOf(const BoneLine& b) const {
    if (const Seam* seam = b.seam.empty() ? nullptr : design_.pattern.seam(b.seam)) return seam->name;
    for (const Piece& p : design_.pattern.pieces)
      if (p.id == b.piece) return msg("on {}", p.name);
    return verbatim(b.piece);
  }

  void bones() {
    if (list_.bones.empty()) return;
    DocumentSection& s = section("Bones");
    s.table.head = {"where", "how many", "kind", "channel", "cut to", "ready-made"};
    for (const BoneLine& b : list_.bones)
      s.table.rows.push_back(
          {b.inAllowance ? msg("{}, in its allowance", placeOf(b)) : msg("{}, in a casing", placeOf(b)),
           msg("{}", b.count), msg("{}, {} wide", known(b.kind->name), Length{b.width}),
           msg("{}", Length{b.channelLength}), msg("{}", Length{b.cutLength}),
           b.kind->stockStep > 0 ? msg("{}", Length{b.stockLength}) : Message("from the metre")});
  }

  void notions() {
    if (list_.notions.empty()) return;
    DocumentSection& s = section("Notions");
    s.table.head = {"what", "how many", "length", "how it came to be"};
    for (const Notion& n : list_.notions)
      s.table.rows.push_back(
          {n.name, msg("{}", n.count), n.length > 0 ? msg("{}", Length{n.length}) : Message("counted"), n.note});
  }

  // "Princess seam, 14 in: underbust at 6 1/4 in".
  static Message seamWords(const SewnSeam& seam) {
    Listed notches;
    for (const SeamNotch& n : seam.notches) notches.all.push_back(msg("{} at {}", verbatim(n.id), Length{n.a}));
    if (std::abs(seam.ease) > kMostEase)
      return msg("{}, {} long, {} gathered in", seam.name, Length{seam.length}, Length{std::abs(seam.ease)});
    if (notches.all.empty()) return msg("{}, {} long", seam.name, Length{seam.length});
    return msg("{}, {} long; notches from the upper end: {}", seam.name, Length{seam.length}, std::move(notches));
  }

  void sewing() {
    DocumentSection& s = section("Sewing, in this order");
    s.paragraphs = {"Begin every panel seam at the underbust notch and sew outwards from it."};
    s.table.head = {"step", "what", "seams"};
    int number = 0;
    for (const SewingStep& step : sewingOrder(design_.pattern, design_.block, design_.rules)) {
      bool first = true;
      if (step.seams.empty()) s.table.rows.push_back({msg("{}", ++number), step.what, ""});
      for (const SewnSeam& seam : step.seams) {
        s.table.rows.push_back(
            {first ? msg("{}", ++number) : Message(""), first ? step.what : Message(""), seamWords(seam)});
        first = false;
      }
    }
  }

  const Order& order_;
  const Design& design_;
  const CutList list_;
  Document document_;
};

}  // namespace

Document jobSheet(const Order& order, const Design& design) { return JobSheet(order, design).make(); }

Document byHandSheet(const Order& order, const Design& design) {
  return byHandSheet(design.block, factsOf(order, design));
}

}  // namespace armure
