// core/balance/unreachable.h
//
// What a balancing cannot reach with the choices it was given, as data; and its words, which are made where it is
// shown.
#pragma once

#include <string>
#include <vector>

#include "pattern/pattern.h"
#include "rules/seam_choices.h"

namespace armure {

struct Unreachable {
  enum class Why {
    Conflict,  // these rows cannot hold together with what is held
    TooFar,    // an edge would have to move by `mm`; everything stays as drafted
    NoShape,   // no shape near the draft fits; everything stays as drafted
    SewnOn,    // the seam is to be trimmed at an end where it is sewn on
  };
  Why why{};
  std::string seam = {};            // id, where it is about one seam
  std::vector<Message> rows = {};   // "Side seam, bust to underbust", "Waist girth"; the first is the subject
  std::vector<EdgeName> held = {};  // edges of these rows that may not move
  double mm = 0;                    // what is left of it, or the movement
  bool atTop = false;               // SewnOn: at its upper end

  bool operator==(const Unreachable&) const = default;
};

// "Side seam: 3.0 mm are left; held with these choices: the side edge of the side front."
struct UnreachableWords {
  Message subject;  // empty where it is about everything
  Message detail;
  Message line() const { return subject.empty() ? detail : msg("{}: {}", subject, detail); }
};
UnreachableWords wordsOf(const Unreachable& what, const Pattern& pattern);

}  // namespace armure
