// core/measure/measure_set.h
//
// The measures taken on one client on one day, as typed and in millimetres. Only what was taken stands here; what is
// estimated is in a Body (estimate.h).
#pragma once

#include <map>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace armure {

// One reading of the tape.
struct Taking {
  double mm = 0;      // for `weight`: kilograms
  std::string typed;  // as the maker wrote it, with its unit: "9 1/2 in"
  bool operator==(const Taking&) const = default;
};

// Which of several takings counts.
enum class Use { Last, Mean };

struct TakenMeasure {
  double mm = 0;      // what counts
  std::string typed;  // as written; several takings are divided by semicolons
  std::string note{};
  std::vector<Taking> takings{};  // first to last, when there is more than one; else empty
  Use use = Use::Last;
  bool operator==(const TakenMeasure&) const = default;
};

class MeasureSet {
 public:
  void set(std::string_view id, TakenMeasure measure) { taken_.insert_or_assign(std::string(id), std::move(measure)); }
  void erase(std::string_view id) {
    if (const auto it = taken_.find(id); it != taken_.end()) taken_.erase(it);
  }
  bool has(std::string_view id) const { return taken_.contains(id); }
  std::optional<double> mm(std::string_view id) const {
    const auto it = taken_.find(id);
    return it == taken_.end() ? std::nullopt : std::optional(it->second.mm);
  }
  // The measure, or nullptr.
  const TakenMeasure* find(std::string_view id) const {
    const auto it = taken_.find(id);
    return it == taken_.end() ? nullptr : &it->second;
  }
  // By id, alphabetically. Ids the program does not know are kept here too.
  const std::map<std::string, TakenMeasure, std::less<>>& all() const { return taken_; }
  bool operator==(const MeasureSet&) const = default;

 private:
  std::map<std::string, TakenMeasure, std::less<>> taken_;
};

}  // namespace armure
