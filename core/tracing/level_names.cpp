#include "tracing/level_names.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cmath>
#include <optional>
#include <set>

#include "geometry/path_distance.h"

namespace armure {
namespace {

// Calls levels alike where they meet across the seams, and gives those that no word names the names of the body, from
// the top down: those that go through most pieces first.
class LevelNames {
 public:
  LevelNames(TracingNames& names, const Joined& joined) : names_(names), joined_(joined) {
    for (size_t i = 0; i < names.pieces.size(); ++i)
      for (size_t k = 0; k < names.pieces[i].levels.size(); ++k) levels_.push_back({i, k});
    for (size_t i = 0; i < levels_.size(); ++i) group_.push_back(i);
  }

  void give() {
    for (const auto& [seam, sides] : joined_) meet(sides.first, sides.second);
    const std::vector<size_t> order = fromTheTop();
    size_t most = 0;
    for (const size_t g : order) most = std::max(most, members(g).size());
    std::vector<size_t> through;  // groups without a word that go through most pieces
    std::set<std::string> known;
    for (const size_t g : order) {
      const std::string word = wordOf(g);
      if (!word.empty()) {
        call(g, word);
        known.insert(word);
      } else if (2 * members(g).size() > most) {
        through.push_back(g);
      }
    }
    static const std::array<std::vector<std::string>, 6> kByCount{{{},
                                                                   {"waist"},
                                                                   {"bust", "waist"},
                                                                   {"bust", "underbust", "waist"},
                                                                   {"bust", "underbust", "waist", "high_hip"},
                                                                   {"bust", "underbust", "waist", "high_hip", "hip"}}};
    const auto& wanted = kByCount[std::min(through.size(), kByCount.size() - 1)];
    size_t next = 0, extra = 0;
    for (const size_t g : order) {
      if (!wordOf(g).empty()) continue;
      std::string id;
      if (std::ranges::find(through, g) != through.end())
        while (next < wanted.size() && id.empty())
          if (!known.contains(wanted[next++])) id = wanted[next - 1];
      if (id.empty()) id = next == 0 && known.insert("chest").second ? "chest" : fmt::format("level-{}", ++extra);
      call(g, id);
    }
  }

 private:
  struct Level {
    size_t piece, number;
  };
  NamedLevel& at(const Level& l) { return names_.pieces[l.piece].levels[l.number]; }
  const NamedLevel& at(const Level& l) const { return names_.pieces[l.piece].levels[l.number]; }

  std::vector<size_t> members(size_t group) const {
    std::vector<size_t> all;
    for (size_t i = 0; i < levels_.size(); ++i)
      if (group_[i] == group) all.push_back(i);
    return all;
  }

  // Where a level ends on a stretch, along it.
  std::optional<double> placeOn(const TracedStretch& s, const Level& l) const {
    if (l.piece != s.piece) return std::nullopt;
    for (const Vec2 end : {at(l).a, at(l).b}) {
      const double place = nearestPlace(s.path, end);
      if (distance(s.path.pointAt(place), end) < 2 * kTouches) return place;
    }
    return std::nullopt;
  }

  // Of two levels that are each other's next across a seam each is the other's continuation.
  void meet(const TracedStretch& a, const TracedStretch& b) {
    constexpr double kMeet = 15;  // mm: sides that are not balanced yet
    struct End {
      size_t level;
      double at;
    };
    std::vector<End> mine, others;
    for (size_t i = 0; i < levels_.size(); ++i) {
      if (const auto x = placeOn(a, levels_[i])) mine.push_back({i, *x});
      if (const auto y = placeOn(b, levels_[i])) others.push_back({i, b.path.length() - *y});
    }
    const auto next = [](const std::vector<End>& ends, double to) {
      return std::ranges::min_element(ends, {}, [&](const End& e) { return std::abs(e.at - to); });
    };
    if (mine.empty() || others.empty()) return;
    for (const End& e : mine) {
      const auto other = next(others, e.at);
      if (std::abs(other->at - e.at) > kMeet || next(mine, other->at)->level != e.level) continue;
      std::ranges::replace(group_, size_t{group_[other->level]}, size_t{group_[e.level]});
    }
  }

  std::string wordOf(size_t group) const {
    for (const size_t i : members(group))
      if (!at(levels_[i]).id.empty()) return at(levels_[i]).id;
    return {};
  }
  void call(size_t group, const std::string& id) {
    for (const size_t i : members(group)) at(levels_[i]).id = id;
  }

  // Groups so that in every piece what lies above comes before.
  std::vector<size_t> fromTheTop() const {
    std::vector<size_t> left, order;
    for (const size_t g : group_)
      if (std::ranges::find(left, g) == left.end()) left.push_back(g);
    const auto isBelowAnother = [&](size_t g) {
      for (const size_t i : members(g))
        for (size_t k = 0; k < levels_.size(); ++k)
          if (levels_[k].piece == levels_[i].piece && levels_[k].number < levels_[i].number && group_[k] != g &&
              std::ranges::find(left, group_[k]) != left.end())
            return true;
      return false;
    };
    while (!left.empty()) {
      auto next = std::ranges::find_if_not(left, isBelowAnother);
      if (next == left.end()) next = left.begin();  // they cross each other: as drawn
      order.push_back(*next);
      left.erase(next);
    }
    return order;
  }

  TracingNames& names_;
  const Joined& joined_;
  std::vector<Level> levels_;
  std::vector<size_t> group_;  // by level: the first of those it is one with
};

}  // namespace

void nameLevels(TracingNames& names, const Joined& joined) { LevelNames(names, joined).give(); }

}  // namespace armure
