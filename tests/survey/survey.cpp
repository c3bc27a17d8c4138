// tests/survey/survey.cpp
//
// Balances many seeded random orders (bodies, styles, schools, openings, top edges) and reads every row of their
// sheets. Afterwards a row may fail only where it names a wish that no balancing can grant: more in one seam than it
// should take, a piece too narrow to sew, a curve the intakes ask for. Prints one line of figures for each order;
// tests/survey/survey.py adds them up and has the exports read by the independent checker. With --tried it tries shells
// on whom they were drafted for instead.
#include <fmt/format.h>

#include <CLI/CLI.hpp>
#include <algorithm>
#include <array>
#include <chrono>
#include <fstream>
#include <map>
#include <optional>
#include <random>
#include <vector>

#include "balance/balance.h"
#include "draft/ranges.h"
#include "io/pieces_json.h"
#include "prepare/marks.h"
#include "prepare/sewing.h"
#include "tests/support/bodies.h"
#include "tryon/tryon.h"

using namespace armure;

namespace {

constexpr size_t kPanelStyles = 11;  // the first of the table: the bust in the seam, no plunge

// What balancing answers for; the others are wishes of the draft.
bool isFault(CheckKind kind) {
  return kind != CheckKind::Wish && kind != CheckKind::Piece && kind != CheckKind::FreeEdge && kind != CheckKind::Body;
}

// What of it is not ready to cut: steps of sewing before what they enclose, or seams that are never sewn; notches that
// do not reach from the sewing line to the cutting line.
std::string notReady(const Design& d) {
  std::map<std::string, size_t> at;
  for (const SewingStep& step : sewingOrder(d.pattern, d.block, d.rules))
    for (const SewnSeam& s : step.seams) at.emplace(s.seam, at.size());
  std::string said;
  for (size_t i = 0; i < d.pattern.seams.size(); ++i)
    if (const Seam& s = d.pattern.seams[i];
        std::max(s.a.piece, s.b.piece) < d.pattern.shellPieces() && !at.contains(s.id))
      said += fmt::format(",never sewn ({})", s.id);
  for (const auto& [first, then] : enclosures(d.pattern))
    if (const Seam& a = d.pattern.seams[first], &b = d.pattern.seams[then]; at.at(a.id) > at.at(b.id))
      said += fmt::format(",sewing ({} after {})", a.id, b.id);
  for (size_t i = 0; i < d.pattern.pieces.size(); ++i) {
    Polyline cut = d.cutOutlines[i], sewn = d.pattern.pieces[i].outline(0.01);
    cut.push_back(cut.front()), sewn.push_back(sewn.front());
    for (const NotchStroke& s : strokesToCut(d.pattern.pieces[i], d.cutOutlines[i]))
      if (distanceToPolyline(s.sewn, sewn) > 0.1 || distanceToPolyline(s.cut, cut) > 0.1)
        said += fmt::format(",notch ({} {})", d.pattern.pieces[i].id, s.id);
  }
  return said.empty() ? said : said.substr(1);
}

void survey(Order order, size_t number, const std::string& folder) {
  // Layers that are the shell's pieces once more are read in one order of eight: they double what the checker reads.
  constexpr size_t kLayered = 8;
  if (number % kLayered != 0)
    for (const char* layer : {"layer.lining", "layer.strength", "layer.interfacing"}) order.choices[layer] = "none";
  const Result<Design> made = recalc(order);
  if (!made.ok()) return fmt::print("refused\t{}\t{}\n", number, made.problem().text());
  const Design& d = *made;
  const auto start = std::chrono::steady_clock::now();
  const Balanced again = balance(*d.drafted, balanceOptions(d.rules));
  const std::chrono::duration<double, std::milli> took = std::chrono::steady_clock::now() - start;

  std::string faults, wishes, hollows, advice;
  for (const CheckRow& r : d.sheet.rows) {
    if (r.verdict == Verdict::Note && r.kind == CheckKind::Piece) hollows += fmt::format("{}.{},", r.piece, r.edge);
    // A narrow piece is advice, and explains what the independent checker finds on it.
    const bool narrow = r.kind == CheckKind::Piece && r.verdict == Verdict::Advice;
    if (r.verdict == Verdict::Advice)
      advice += fmt::format("{}{} {}", advice.empty() ? "" : ",", checkName(r.kind), r.level);
    if (!r.fails() && !narrow) continue;
    // Where the sheet says that no shape near the draft fits, the rows fail as they did in the draft.
    const bool fault = isFault(r.kind) && d.balanced->unreachable.empty();
    std::string& into = fault ? faults : wishes;
    into += fmt::format("{}{}", into.empty() ? "" : ",", checkName(r.kind));
    if (fault) into += fmt::format(" ({}: {:.2f})", english(r.subject), r.amount);
  }
  if (const std::string unready = notReady(d); !unready.empty()) faults += (faults.empty() ? "" : ",") + unready;
  const BalanceCertificate& c = again.certificate;
  fmt::print("balanced\t{}\t{}\t{:.4f}\t{:.4f}\t{:.3f}\t{}\t{}\t{}\t{}\t{}\n", number, 2 * d.pattern.pieces.size(),
             c.largestMove, c.largestAcross, took.count(), c.iterations, faults, wishes, hollows, advice);
  if (!folder.empty()) std::ofstream(fmt::format("{}/{}.json", folder, number)) << piecesJson(order, d);
}

// Any choice with any other: each option one in four taken at random, each length one in ten anywhere within its
// bounds. Most such orders nobody would make; all must be drafted or refused with a reason.
std::vector<Order> anyChoices(size_t count, unsigned seed) {
  std::vector<Order> orders = testing::randomCombinations(count, seed);
  std::mt19937 dice(seed * 7919 + 13);
  for (Order& o : orders) {
    o.style = styleTable()[dice() % styleTable().size()].id;
    o.choices.clear();
    for (const RuleInfo& rule : ruleTable()) {
      if (rule.key == "balance.keep" || rule.stage == "Prepare") continue;
      if (rule.kind == RuleKind::Option && dice() % 4 == 0)
        o.choices[std::string(rule.key)] = rule.options[dice() % rule.options.size()].id;
      if (rule.kind != RuleKind::Option && dice() % 10 == 0) {
        const double value = rule.lowest + (rule.highest - rule.lowest) * (1 + dice() % 998) / 1000.0;
        o.choices[std::string(rule.key)] =
            rule.kind == RuleKind::Share ? fmt::format("{:.3f}", value) : fmt::format("{:.2f} mm", value);
      }
    }
  }
  return orders;
}

// A style with a few choices beside it, as jobs have them: each one of the rules that count there, an option at random
// of those that can be made beside the others, or a length anywhere within its range.
std::vector<Order> fewChoices(size_t count, unsigned seed) {
  constexpr size_t kFew = 6;
  std::vector<Order> orders = testing::randomCombinations(count, seed);
  std::mt19937 dice(seed * 7919 + 17);
  for (Order& o : orders) {
    o.style = styleTable()[dice() % styleTable().size()].id;
    o.choices.clear();
    Body body = completeBody(o.measures);
    const Figure figure = figureOf(body);
    if (!body.has(id::kCupUp)) body = body.with(factOf(id::kCupUp, o.measures));  // an upper edge may ask for it
    for (size_t tries = 0; o.choices.size() < kFew && tries < 20 * kFew; ++tries) {
      const RuleInfo& rule = ruleTable()[dice() % ruleTable().size()];
      const Rules now(o.choices, o.style, o.school, figure);
      if (rule.key == "balance.keep" || rule.stage == "Prepare" || rule.stage == "Balance" || !now.counts(rule))
        continue;
      const std::string key(rule.key);
      const RuleRange range = rangeOf(rule, now, body);
      const double value = range.lowest + (range.highest - range.lowest) * (1 + dice() % 998) / 1000.0;
      Choices then = o.choices;
      then[key] = rule.kind == RuleKind::Option  ? std::string(rule.options[dice() % rule.options.size()].id)
                  : rule.kind == RuleKind::Share ? fmt::format("{:.3f}", value)
                                                 : fmt::format("{:.2f} mm", value);
      if (Rules(then, o.style, o.school, figure).allFit()) o.choices = std::move(then);
    }
  }
  return orders;
}

// Every style on every body of the data set with three depths of cup, closed with a zip and laced.
std::vector<Order> everyStyle() {
  std::vector<Order> orders;
  for (const testing::RealBody& body : testing::realBodies())
    for (const double cup : {50.0, 95.0, 140.0})
      for (const Preset& style : styleTable())
        for (const char* opening : {"zip", "lacing"}) {
          Order o;
          o.title = style.id;
          o.style = style.id;
          o.measures = testing::measuresOf(body, cup);
          o.choices["opening.kind"] = opening;
          orders.push_back(std::move(o));
        }
  return orders;
}

// How far from where the body has it a place of the pattern lies, over many trials, mm.
class Offsets {
 public:
  void add(const std::optional<double>& off) {
    if (off) all_.push_back(std::abs(*off));
  }
  double part(double p) {
    std::sort(all_.begin(), all_.end());
    return all_.empty() ? 0 : all_[static_cast<size_t>(p * static_cast<double>(all_.size() - 1))];
  }

 private:
  std::vector<double> all_;
};

// What many trials say of where a pattern sits: a median and what nine in ten stay within, against what is allowed.
class Seats {
 public:
  void add(const TryOn& t, double ms) {
    ++runs_;
    moving_ += t.settled ? 0 : 1;
    ms_ += ms;
    for (const LevelSeat& l : t.levels) {
      if (l.level == "bust") all_[0].offsets.add(l.side), all_[1].offsets.add(l.back);
      if (l.level == "waist") all_[3].offsets.add(l.side);
    }
    all_[2].offsets.add(t.bustPoint);
    double behind = 0, under = 0;
    for (const EdgeStand& e : t.top) {
      if (e.angle > 165) behind = std::max(behind, e.off);
      if (e.angle > 82 && e.angle < 98) under = std::max(under, e.off);
    }
    all_[4].offsets.add(behind), all_[5].offsets.add(under);
  }

  static void printHead() {
    fmt::print("tried\tcup\truns\tnot settled");
    for (const Place& p : Seats().all_) fmt::print("\t{}", p.name);
    fmt::print("\tms\n");
  }
  void print(const std::string& name) {
    fmt::print("tried\t{}\t{}\t{}", name, runs_, moving_);
    for (Place& p : all_) fmt::print("\t{:.1f} ({:.1f})", p.offsets.part(0.5), p.offsets.part(0.9));
    fmt::print("\t{:.0f}\n", ms_ / static_cast<double>(std::max<size_t>(1, runs_)));
  }
  bool hold() {
    return runs_ > 0 && std::all_of(all_.begin(), all_.end(), [](Place& p) {
             return p.offsets.part(0.5) <= p.median && p.offsets.part(0.9) <= p.most;
           });
  }

 private:
  struct Place {
    const char* name;
    double median, most;  // mm
    Offsets offsets = {};
  };
  std::array<Place, 6> all_{{{"bust at side", 5, 12},
                             {"bust behind", 5, 12},
                             {"bust point", 5, 15},
                             {"waist", 4, 12},
                             {"off at centre back", 3, 3},
                             {"at the armpit", 3, 6}}};
  size_t runs_ = 0, moving_ = 0;
  double ms_ = 0;
};

// Tries shells on whom they were drafted for: bodies of the data set, three depths of cup, six styles; of all these
// every so-manieth, so that a few already take in many bodies. Whether the medians over all stay within what the draft
// is held to.
bool tryMany(size_t every) {
  constexpr std::array kStyles{"straight-zip",   "sweetheart-zip",       "straight-laced",
                               "cup-two-pieces", "reducing-three-lines", "plunge-u"};
  constexpr std::array kCups{60.0, 100.0, 140.0};
  const std::vector<testing::RealBody> bodies = testing::realBodies();
  Seats all;
  std::array<Seats, kCups.size()> byCup;
  for (size_t i = 0; i < bodies.size() * kStyles.size() * kCups.size(); i += every) {
    const size_t cup = i / kStyles.size() % kCups.size();
    Order o;
    o.style = kStyles[i % kStyles.size()];
    o.measures = testing::measuresOf(bodies[i / kStyles.size() / kCups.size()], kCups[cup]);
    const Result<Design> design = recalc(o);
    if (!design.ok()) continue;
    const auto began = std::chrono::steady_clock::now();
    const Result<TryOn> t = tryOn(design->pattern, design->body, {});
    const double ms = std::chrono::duration<double, std::milli>(std::chrono::steady_clock::now() - began).count();
    if (!t.ok()) continue;
    byCup[cup].add(*t, ms), all.add(*t, ms);
  }
  Seats::printHead();
  for (size_t i = 0; i < kCups.size(); ++i) byCup[i].print(fmt::format("{:.0f} mm", kCups[i]));
  all.print("all");
  fmt::print("tried\t{}\n", all.hold() ? "held" : "NOT HELD");
  return all.hold();
}

}  // namespace

int main(int argc, char** argv) {
  CLI::App app("Balances random orders and prints what came of each.");
  size_t from = 0, count = 100;
  unsigned seed = 1;
  std::string folder;
  bool styles = false, any = false, few = false;
  size_t every = 1;
  app.add_option("--from", from, "number of the first order of this run");
  app.add_option("--count", count, "how many");
  app.add_option("--seed", seed, "of the random numbers");
  app.add_option("--pieces", folder, "a folder for their exports");
  app.add_flag("--styles", styles, "every style on every body instead of random orders");
  app.add_flag("--any", any, "any choice with any other: only that nothing breaks");
  app.add_flag("--few", few, "a style with a few choices beside it");
  std::optional<size_t> only;
  app.add_option("--only", only, "survey this one alone, of those drawn");
  app.add_option("--every", every, "export only one in so many");
  size_t tried = 0;
  app.add_option("--tried", tried,
                 "try on instead, every so-manieth of body, cup and style, and say how far off each place lies");
  CLI11_PARSE(app, argc, argv);
  if (tried > 0) return tryMany(tried) ? 0 : 1;
  std::vector<Order> orders = any      ? anyChoices(count, seed + static_cast<unsigned>(from))
                              : few    ? fewChoices(count, seed + static_cast<unsigned>(from))
                              : styles ? everyStyle()
                                       : testing::randomCombinations(count, seed + static_cast<unsigned>(from));
  const size_t first = styles ? from : 0, last = styles ? std::min(orders.size(), from + count) : orders.size();
  bool broke = false;
  for (size_t i = first; i < last; ++i) {
    const size_t number = styles ? i : from + i;
    if (only && number != *only) continue;
    orders[i].choices["balance.keep"] = "balanced";
    if (!styles && !any &&
        !few) {  // random choices over the panel styles; cups and deep edges are surveyed style by style
      orders[i].style = styleTable()[number % kPanelStyles].id;
      orders[i].choices["cup.kind"] = "princess";
    }
    std::string choices;
    for (const auto& [key, value] : orders[i].choices) choices += fmt::format(" {}='{}'", key, value);
    if (only) {
      fmt::print("order\t{}\tstyle={}{}\n", number, orders[i].style, choices);
      for (const auto& [id, measure] : orders[i].measures.all()) fmt::print("measure\t{}={:.1f} mm\n", id, measure.mm);
    }
    try {
      survey(orders[i], number, number % every == 0 ? folder : "");
    } catch (const std::exception& e) {
      fmt::print("threw\t{}\t{}\tstyle={}{}\n", number, e.what(), orders[i].style, choices);
      broke = true;
    }
  }
  return broke ? 1 : 0;
}
