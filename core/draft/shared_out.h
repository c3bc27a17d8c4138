// core/draft/shared_out.h
//
// What the lines of a half take in when a school shares out the drop: on the underbust, the waist and the high hip the
// block is as wide as at the bust, and what the finished share leaves of it is divided among the lines and the side
// (distribute/distribution.h).
#pragma once

#include <functional>
#include <string>
#include <vector>

#include "draft/block.h"

namespace armure {

// What one line takes in on each level of a half, both sides together; mm.
struct LineTaking {
  double top = 0, under = 0, waist = 0, highHip = 0, hem = 0;
};

struct SharedOut {
  std::vector<LineTaking> takings;  // by line, from the centre out
  std::vector<Working> workings;
  std::vector<Intake> atSide;  // what the side takes with its cap; what the caps do not allow is in it, with the cures
};

// `width` is the half's width at the bust, `sideFrom` the depth from which the side runs in (on the front the end of
// the side dart's lower leg), `centreIntake` what is taken in at its centre at a depth. The school is the rule
// "distribution.school", not "thumb".
SharedOut shareOut(const Levels& levels, const Rules& rules, bool front, const std::vector<std::string>& lineIds,
                   double width, double sideFrom, const std::function<double(double)>& centreIntake);

}  // namespace armure
