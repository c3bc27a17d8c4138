#include "measure/plausibility.h"

#include <fmt/format.h>

#include "measure/measure_table.h"
#include "units/length.h"

namespace armure {
namespace {

std::string both(double mm) { return fmt::format("{:.1f} cm ({:.4g} in)", mm / kMmPerCm, mm / kMmPerInch); }

class Asker {
 public:
  explicit Asker(const Body& body) : body_(body) {}

  // `first` should be less than `second`.
  void less(std::string_view first, std::string_view second, std::string_view reason) {
    if (!body_.has(first) || !body_.has(second) || body_.mm(first) < body_.mm(second)) return;
    if (body_.fact(first).source != Source::Taken && body_.fact(second).source != Source::Taken) return;
    ask(first, fmt::format("{} {} is not less than {} {}: {}", name(first), both(body_.mm(first)), name(second),
                           both(body_.mm(second)), reason));
  }
  void between(std::string_view id, double value, double low, double high, const std::string& text) {
    if (value < low || value > high) ask(id, text);
  }
  void ask(std::string_view id, std::string text) { found_.push_back({std::string(id), std::move(text)}); }
  std::vector<Question> found() && { return std::move(found_); }

 private:
  static std::string_view name(std::string_view id) { return findMeasure(id)->name; }
  const Body& body_;
  std::vector<Question> found_;
};

}  // namespace

std::vector<Question> questionsAbout(const Body& body) {
  Asker a(body);
  a.less(id::kUnderbust, id::kBust, "was one of them noted in the other's place?");
  a.less(id::kShoulderToChest, id::kShoulderToBust, "the chest line lies above the bust");
  a.less(id::kShoulderToBust, id::kShoulderToUnderbust, "the bust lies above the underbust");
  a.less(id::kShoulderToUnderbust, id::kShoulderToWaist, "the underbust lies above the waist");
  a.less(id::kWaistToHighHip, id::kWaistToHip, "the high hip lies above the hip");

  const double surplus = body.mm(id::kShoulderToWaist) - body.mm(id::kBackWaistLength);
  if (surplus < 0)
    a.ask(id::kBackWaistLength, fmt::format("the back waist length is {} more than the front one: the front is usually "
                                            "the longer, by the side bust dart",
                                            both(-surplus)));
  if (surplus > inches(3))
    a.ask(id::kShoulderToWaist,
          fmt::format("the front waist length is {} more than the back one: 0.5 to 2 in is usual", both(surplus)));

  const double ratio = body.mm(id::kBustSpan) / body.mm(id::kBust);
  a.between(id::kBustSpan, ratio, 0.16, 0.24,
            fmt::format("the bust span is {:.2f} of the bust: 0.16 to 0.24 is usual", ratio));
  const double down = body.mm(id::kShoulderToUnderbust) - body.mm(id::kShoulderToBust);
  a.between(id::kShoulderToUnderbust, down, inches(2.25), inches(4.75),
            fmt::format("from bust point to underbust there are {}: 2.5 to 4.5 in is usual", both(down)));

  for (std::string_view girth : {id::kUpperBust, id::kUnderbust, id::kWaist, id::kHighHip, id::kHip}) {
    const double share = body.mm(girth) / body.mm(id::kBust);
    if (body.fact(girth).source == Source::Taken)
      a.between(girth, share, 0.6, 1.6,
                fmt::format("{} {} beside a bust of {}: was it noted in another unit, or as a half?",
                            findMeasure(girth)->name, both(body.mm(girth)), both(body.mm(id::kBust))));
  }
  const double waistOver = body.mm(id::kWaist) - body.mm(id::kUnderbust);
  if (waistOver > inches(4))
    a.ask(id::kWaist,
          fmt::format("the waist is {} more than the underbust: right for a fuller middle, else measure again",
                      both(waistOver)));
  return std::move(a).found();
}

}  // namespace armure
