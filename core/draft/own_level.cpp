#include "draft/own_level.h"

#include <algorithm>
#include <cmath>

#include "draft/line_paths.h"
#include "geometry/spline.h"

namespace armure {
namespace {

// Where the levels of the draft stand, for the maker's own to be set between.
class OwnLevelMaker {
 public:
  OwnLevelMaker(const Levels& levels, double hem) : hem_(hem) {
    for (std::string_view id : {level::kBust, level::kUnderbust, level::kWaist, level::kHighHip, level::kHip})
      measured_.push_back(&levels.at(id));
    for (const Level* l : measured_) girths_.push_back({l->front, l->bodyGirth});
  }

  Result<MadeLevel> make(const OwnLevel& own) const {
    const double y = measured_[2]->front - own.aboveWaist;
    const Message name = verbatim(spoken(own.id));
    if (y < measured_[1]->front + kLeastFromOwn || y > hem_ - kLeastFromOwn)
      return problem(own, msg("the level \"{}\" does not stand between the underbust and the hem", spoken(own.id)));
    for (const Level* l : measured_)
      if (std::abs(l->front - y) < kLeastFromOwn)
        return problem(own, msg("the level \"{}\" is only {:.0f} mm from the {} line", spoken(own.id),
                                std::abs(l->front - y), l->name));
    Level l{own.id, name, y, 0, bodyGirth(y), 0, 0, 0};
    l.own = true;
    l.girthTaken = own.girth.has_value();
    Working w{"girth." + own.id, msg("{}, finished girth", name), {}, own.girth.value_or(0), ""};
    if (own.girth) {
      w.terms = {{'+', "given by the maker", *own.girth, Source::ByHand}};
    } else {
      const double less = reduction(y);
      w.terms = {{'+', "body, between the measured levels", l.bodyGirth, Source::Estimated},
                 {'-', "reduction, between its neighbours", less, Source::Computed}};
      w.result = l.bodyGirth - less;
      w.note = "one smooth curve down the body; measure the client there to be sure";
    }
    l.finishedGirth = w.result;
    return MadeLevel{std::move(l), std::move(w)};
  }

  static std::string spoken(std::string id) {
    std::replace(id.begin(), id.end(), '_', ' ');
    id[0] = static_cast<char>(id[0] - 'a' + 'A');
    return id;
  }

 private:
  static Problem problem(const OwnLevel& own, Message what) {
    return {verbatim("rail." + own.id), std::move(what),
            msg("set it at least {:.0f} mm from every other level, or take it away", kLeastFromOwn)};
  }
  double bodyGirth(double y) const {
    for (const Station& s : withStationsAt(girths_, {y}))
      if (s.y == y) return s.x;
    return girths_.back().x;
  }
  double reduction(double y) const {
    for (size_t i = 0; i + 1 < measured_.size(); ++i) {
      const Level &a = *measured_[i], &b = *measured_[i + 1];
      if (y > b.front) continue;
      const double ra = a.bodyGirth - a.finishedGirth, rb = b.bodyGirth - b.finishedGirth;
      return ra + (rb - ra) * (y - a.front) / (b.front - a.front);
    }
    return 0;
  }

  double hem_;
  std::vector<const Level*> measured_;
  std::vector<Station> girths_;
};

}  // namespace

Result<MadeLevel> makeOwnLevel(const Levels& levels, double lowerEdge, const OwnLevel& own) {
  return OwnLevelMaker(levels, lowerEdge).make(own);
}

}  // namespace armure
