#include "measure/plausibility.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <optional>

#include "measure/measure_table.h"
#include "measure/predict.h"
#include "measure/takings.h"

namespace armure {
namespace {

constexpr double kAskAt = 3, kNoteAt = 2.5;  // spreads from the expectation
constexpr double kSlipFits = 1.5;            // spreads within which a slip explains a value

constexpr double kAgree = inches(0.5);  // between takings that confirm each other

struct InOrder {
  std::string_view lesser, greater;
  Severity severity;
  std::string_view reason;
};

constexpr auto kNever = Severity::Contradiction;
constexpr auto kAsk = Severity::Question;

constexpr std::array kOrders{
    InOrder{id::kShoulderToChest, id::kShoulderToBust, kNever, "the chest line lies above the bust"},
    InOrder{id::kShoulderToBust, id::kShoulderToUnderbust, kNever, "the bust lies above the underbust"},
    InOrder{id::kShoulderToUnderbust, id::kShoulderToWaist, kNever, "the underbust lies above the waist"},
    InOrder{id::kShoulderToBust, id::kShoulderToWaist, kNever, "the bust lies above the waist"},
    InOrder{id::kWaistToHighHip, id::kWaistToHip, kNever, "the high hip lies above the hip"},
    InOrder{"side_length", id::kBackWaistLength, kNever, "the side begins under the arm"},
    InOrder{id::kFrontBustArc, id::kBust, kNever, "the arc is a part of the girth"},
    InOrder{id::kFrontUnderbustArc, id::kUnderbust, kNever, "the arc is a part of the girth"},
    InOrder{id::kBustSpan, id::kFrontBustArc, kNever, "the span is a part of the arc"},
    InOrder{"cup_in", id::kBustSpan, kNever, "from the bust point to the centre it is about half the span"},
    InOrder{"wrist", "bicep", kNever, "the arm tapers"},
    InOrder{"waist_to_knee", "waist_to_floor", kNever, "the knee lies above the floor"},
    InOrder{"waist_to_floor", id::kStature, kNever, "the waist lies below the head"},
    InOrder{id::kUpperBust, "round_shoulder", kNever, "the arms are taken round with it"},
    InOrder{id::kUnderbust, id::kBust, kAsk, "was one of them noted in the other's place?"},
    InOrder{id::kUpperBust, id::kBust, kAsk, "was one of them noted in the other's place?"},
};

// A usual slip: what was noted, times `factor`, would have been right.
struct Slip {
  double factor;
  std::string_view asks;  // with a place for what it would be
};
constexpr std::array kSlips{
    Slip{4, "was a quarter noted? the whole would be {}"},
    Slip{2, "was a half noted? the whole would be {}"},
    Slip{0.5, "was it taken double? half of it would be {}"},
    Slip{2.54, "were inches noted as centimetres? it would be {}"},
    Slip{1 / 2.54, "were centimetres noted as inches? it would be {}"},
    Slip{10, "did the point slip? it would be {}"},
    Slip{0.1, "did the point slip? it would be {}"},
};

class Asker {
 public:
  explicit Asker(const MeasureSet& taken) : taken_(taken), known_(taken) {}

  std::vector<Question> all() && {
    for (const InOrder& row : kOrders) askOrder(row);
    askCup();
    askOverBreast();
    askLengths();
    askRatios();
    askExpectations();
    std::stable_sort(found_.begin(), found_.end(), [](const Question& a, const Question& b) {
      return a.severity != b.severity ? a.severity > b.severity : findMeasure(a.measure) < findMeasure(b.measure);
    });
    return std::move(found_);
  }

 private:
  bool has(std::string_view id) const { return taken_.has(id); }
  double mm(std::string_view id) const { return *taken_.mm(id); }
  static Message name(std::string_view id) { return known(findMeasure(id)->name); }
  Message named(std::string_view id) const { return msg("{} {}", name(id), shown(id, mm(id))); }
  static Message shown(std::string_view id, double v) {
    return id == id::kWeight ? msg("{:.3g} kg", v) : msg("{}", Length{v});
  }
  void ask(std::string_view id, Severity severity, Message text, std::string_view other = {}) {
    found_.push_back({std::string(id), std::string(other), severity, std::move(text)});
  }

  void askOrder(const InOrder& row) {
    if (!has(row.lesser) || !has(row.greater) || mm(row.lesser) < mm(row.greater)) return;
    const bool never = row.severity == Severity::Contradiction;
    ask(row.lesser, row.severity,
        never ? msg("{} is not less than {}: {}; one of the two is wrong", named(row.lesser), named(row.greater),
                    known(row.reason))
              : msg("{} is not less than {}: {}", named(row.lesser), named(row.greater), known(row.reason)),
        never ? row.greater : std::string_view{});
  }

  // Bust point, cup down and underbust lie on one line over the breast.
  void askCup() {
    if (!has(id::kCupDown) || !has(id::kShoulderToBust) || !has(id::kShoulderToUnderbust)) return;
    const double off = mm(id::kShoulderToBust) + mm(id::kCupDown) - mm(id::kShoulderToUnderbust);
    if (std::abs(off) < inches(1)) return;
    ask(id::kCupDown, Severity::Contradiction,
        off > 0 ? msg("{} and {} end {} below {}: they go over the same breast; one of them is wrong",
                      named(id::kShoulderToBust), named(id::kCupDown), Length{off}, named(id::kShoulderToUnderbust))
                : msg("{} and {} end {} above {}: they go over the same breast; one of them is wrong",
                      named(id::kShoulderToBust), named(id::kCupDown), Length{-off}, named(id::kShoulderToUnderbust)),
        id::kShoulderToUnderbust);
  }

  // Less than straight through the air from bust point to underbust no tape over the breast can read.
  void askOverBreast() {
    constexpr double kStraight = 0.92;  // of the length over the breast, less the spread of its estimate
    const bool byHeights = has(id::kShoulderToBust) && has(id::kShoulderToUnderbust);
    if (!has(id::kBust) || !has(id::kUpperBust) || (!has(id::kCupDown) && !byHeights)) return;
    if (mm(id::kBust) <= mm(id::kUpperBust)) return;  // one of the girths is asked about
    const double down = has(id::kCupDown) ? mm(id::kCupDown) : mm(id::kShoulderToUnderbust) - mm(id::kShoulderToBust);
    const double expected = lengthOverBreast(known_);
    if (down <= 0 || down >= kStraight * expected) return;
    ask(has(id::kCupDown) ? id::kCupDown : id::kShoulderToUnderbust, Severity::Question,
        msg("from bust point to underbust there are {}: over a bust of this size about {} are expected, and {} even "
            "in a straight line; measure it over the fullest part, in the bra that is worn",
            Length{down}, Length{expected}, Length{kStraight * expected}));
  }

  void askLengths() {
    if (has(id::kShoulderToWaist) && has(id::kBackWaistLength)) {
      const double surplus = mm(id::kShoulderToWaist) - mm(id::kBackWaistLength);
      if (surplus < 0)
        ask(id::kBackWaistLength, Severity::Question,
            msg("the back waist length is {} more than the front one: the front is usually the longer, by the "
                "side bust dart",
                Length{-surplus}));
      if (surplus > inches(2.25))
        ask(id::kShoulderToWaist, surplus > inches(3) ? Severity::Question : Severity::Note,
            msg("the front waist length is {} more than the back one: {} to {} is usual", Length{surplus},
                Length{inches(0.5)}, Length{inches(2)}));
    }
    if (has(id::kShoulderToUnderbust) && has(id::kShoulderToBust)) {
      const double down = mm(id::kShoulderToUnderbust) - mm(id::kShoulderToBust);
      if (down > 0 && (down < inches(2.25) || down > inches(4.75)))
        ask(id::kShoulderToUnderbust, Severity::Question,
            msg("from bust point to underbust there are {}: {} to {} is usual", Length{down}, Length{inches(2.5)},
                Length{inches(4.5)}));
    }
    if (has(id::kWaist) && has(id::kUnderbust) && mm(id::kWaist) > mm(id::kUnderbust) + inches(4))
      ask(id::kWaist, Severity::Note,
          msg("the waist is {} more than the underbust: right for a fuller middle, else measure again",
              Length{mm(id::kWaist) - mm(id::kUnderbust)}));
  }

  void askRatios() {
    if (!has(id::kBustSpan) || !has(id::kBust)) return;
    const double ratio = mm(id::kBustSpan) / mm(id::kBust);
    if (ratio < 0.16 || ratio > 0.24)
      ask(id::kBustSpan, Severity::Question,
          msg("the bust span is {:.2f} of the bust: 0.16 to 0.24 is usual, {} to {}", ratio,
              Length{0.16 * mm(id::kBust)}, Length{0.24 * mm(id::kBust)}));
  }

  struct Expected {
    std::string_view id;
    double z, mm, spread;
  };

  void askExpectations() {
    std::vector<std::string_view> left;
    for (const MeasureInfo& row : measureTable())
      if (has(row.id)) left.push_back(row.id);
    if (left.size() < 3) return;  // too few to tell which is wrong
    Known known = known_;
    std::vector<Expected> last;
    while (!left.empty()) {
      last.clear();
      for (std::string_view id : left) {
        const Prediction p = predict(id, known);
        last.push_back({id, (mm(id) - p.mm) / p.spread, p.mm, p.spread});
      }
      const auto worst = std::max_element(
          last.begin(), last.end(), [](const Expected& a, const Expected& b) { return std::abs(a.z) < std::abs(b.z); });
      if (std::abs(worst->z) <= kAskAt) break;
      askExpected(*worst, Severity::Question);
      known = known.without(worst->id);
      std::erase(left, worst->id);
    }
    for (const Expected& e : last)
      if (std::abs(e.z) > kNoteAt && std::abs(e.z) <= kAskAt) askExpected(e, Severity::Note);
  }

  void askExpected(const Expected& e, Severity severity) {
    const Message expected = msg("{} ± {}", shown(e.id, e.mm), shown(e.id, e.spread));
    const Message away = e.z > 0
                             ? msg("{} is more than the other measures lead one to expect ({})", named(e.id), expected)
                             : msg("{} is less than the other measures lead one to expect ({})", named(e.id), expected);
    if (severity == Severity::Note) return ask(e.id, severity, msg("{}; it happens", away));
    if (isConfirmed(e.id))
      return ask(e.id, Severity::Note,
                 msg("{}; it was taken {} times, so it stands", away, takingsOf(*taken_.find(e.id)).size()));
    const char* again =
        e.id == id::kWaist && e.z > 0 ? "right for a fuller middle, else measure it again" : "measure it again";
    ask(e.id, severity, msg("{}: {}", away, slip(e).value_or(again)));
  }

  // Taken more than once, and every time nearly the same.
  bool isConfirmed(std::string_view id) const {
    const TakenMeasure& m = *taken_.find(id);
    return !m.takings.empty() && takingSpread(m) <= kAgree;
  }

  // The slip that best explains the value, as a question.
  std::optional<Message> slip(const Expected& e) const {
    double best = std::min(kSlipFits * e.spread, 0.4 * std::abs(mm(e.id) - e.mm));
    std::optional<Message> found;
    const auto offer = [&](double value, std::string_view asks) {
      if (std::abs(value - e.mm) >= best) return;
      best = std::abs(value - e.mm);
      found = Message(asks, {Listed{{shown(e.id, value)}}});
    };
    for (const Slip& s : kSlips) offer(mm(e.id) * s.factor, s.asks);
    std::string digits = taken_.find(e.id)->typed;
    for (size_t i = 0; i < digits.size(); ++i) {
      size_t k = i + 1;
      while (k < digits.size() && !isDigit(digits[k])) ++k;
      if (!isDigit(digits[i]) || k >= digits.size() || digits[i] == digits[k]) continue;
      std::swap(digits[i], digits[k]);
      const Result<std::vector<Taking>> swapped = readTakings(e.id, digits, Unit::Millimetre);
      if (swapped.ok()) offer(swapped->back().mm, "were two digits swapped? it would be {}");
      std::swap(digits[i], digits[k]);
    }
    return found;
  }
  static bool isDigit(char c) { return c >= '0' && c <= '9'; }

  const MeasureSet& taken_;
  const Known known_;
  std::vector<Question> found_;
};

}  // namespace

std::vector<Question> questionsAbout(const MeasureSet& taken) { return Asker(taken).all(); }

const char* severityName(Severity severity) {
  switch (severity) {
    case Severity::Note:
      return "note";
    case Severity::Question:
      return "question";
    case Severity::Contradiction:
      break;
  }
  return "contradiction";
}

}  // namespace armure
