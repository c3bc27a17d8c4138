// core/rules/rules.h
//
// The choices of one order, and the rules in force that follow from them.
#pragma once

#include <map>
#include <optional>
#include <set>
#include <string>
#include <string_view>
#include <vector>

#include "measure/estimate.h"
#include "result.h"
#include "rules/prepare_choices.h"
#include "rules/presets.h"
#include "rules/rule_table.h"
#include "rules/rule_value.h"
#include "rules/seam_choices.h"
#include "rules/shaping_keys.h"
#include "rules/trims.h"
#include "units/length.h"
#include "working.h"

namespace armure {

// What the maker has chosen away from the defaults: key -> text as typed ("1 1/2 in", "lacing", "0.4").
using Choices = std::map<std::string, std::string, std::less<>>;

// Whether `value` can be the choice `key`; a bare number is read in `bareUnit`. Returns the value as kept in the order
// (lengths with their unit). The Problem names the key, the value, and what would be right.
Result<std::string> checkChoice(std::string_view key, std::string_view value, Unit bareUnit);

// What an order begins with that is new: its pieces are kept balanced, so that what is shown, printed and exported fits
// together. An order that says nothing of it, from an earlier version, stays as drafted.
Choices choicesOfNewOrders();

// What of a whole order's choices cannot be meant, or nothing: a hold, a guide or a girth at a level that is neither of
// the draft nor one the maker added. Orders from files are not refused for it; it is then idle.
std::optional<Problem> choicesProblem(const Choices& choices);

// Whether a key is of a form that exists: a rule, or one of the forms of shaping_keys.h and seam_choices.h.
bool isChoiceKey(std::string_view key);

// A level of the maker's own.
struct OwnLevel {
  std::string id;
  double aboveWaist = 0;        // mm; negative below it
  std::optional<double> girth;  // finished, where the maker gave it
};

// All rules in force for an order, resolved once: the maker's choice, else the style's, else the school's, else that of
// the kind of garment, else the default of the figure. Values in `choices` must have passed checkChoice
// (std::invalid_argument otherwise).
class Rules {
 public:
  Rules(const Choices& choices, std::string_view style, std::string_view school, Figure figure);

  const RuleValue& value(std::string_view key) const;  // throws std::out_of_range for an unknown key
  const RuleValue& value(LengthKey key) const { return value(key.text); }
  double length(LengthKey key) const { return value(key.text).number; }  // mm
  double share(ShareKey key) const { return value(key.text).number; }
  template <typename Option>
  Option option(OptionKey<Option> key) const {
    return static_cast<Option>(value(key.text).choice);
  }
  std::string_view option(TextKey key) const { return value(key.text).option; }
  bool isDefault(std::string_view key) const { return !value(key).chosen; }
  // Whether a rule, or a place the hand sets, was chosen.
  bool isChosen(std::string_view key) const;
  bool isDefault(LengthKey key) const { return isDefault(key.text); }
  // Whether the rule has any say, beside the other choices in force.
  bool counts(const RuleInfo& rule) const;
  // Whether an option can be made beside them.
  bool fits(const RuleOption& option) const;
  // Whether every option in force can.
  bool allFit() const;

  // What the maker's hand set (rules/shaping_keys.h).
  std::optional<double> held(std::string_view level, std::string_view line) const;
  std::optional<double> guide(std::string_view level, std::string_view line) const;
  std::optional<double> shareAt(std::string_view level, std::string_view line) const;
  std::optional<double> swing(std::string_view edge, std::string_view line) const;
  bool anyHeld(std::string_view level) const;
  std::vector<OwnLevel> ownLevels() const;  // from the top down
  // What becomes of the difference in a seam, where the maker chose, and the edges she holds (rules/seam_choices.h).
  const std::map<std::string, SeamChoice, std::less<>>& seamChoices() const { return seamChoices_; }
  const std::set<EdgeName>& locks() const { return locks_; }

  // Of cutting and boning (rules/prepare_choices.h).
  const std::vector<std::string>& layerOrder() const { return layerOrder_; }  // as far as the maker gave it
  const std::vector<KeptPlace>& keptPlaces() const { return kept_; }          // of pieces on their cloths
  const std::vector<ListedCloth>& cloths() const { return cloths_; }          // of the list, those of her own behind
  const ListedCloth* cloth(std::string_view id) const;                        // nullptr where there is none
  // The id of the cloth chosen for a layer or a piece; nothing where none was.
  std::optional<std::string> chosenCloth(std::string_view layerOrPiece) const;
  // Bones of her own on a piece: what part of its width each stands from the edge nearer the centre, by number.
  std::map<int, double> bonesAt(std::string_view piece) const;
  bool isBoneOff(std::string_view bone) const { return bonesOff_.find(bone) != bonesOff_.end(); }

  // What is sewn on (rules/trims.h), by kind and name.
  const std::vector<TrimChoice>& trims() const { return trims_; }

  // The rule as a term of a working: its label, value and source.
  Term term(std::string_view key, char sign = '+', double factor = 1) const;
  Term term(LengthKey key, char sign = '+', double factor = 1) const { return term(key.text, sign, factor); }

 private:
  void prepare(const PrepareKey& key, const std::string& text);
  void sewOn(const TrimKey& key, const std::string& text);
  std::optional<double> shaping(ShapingKind kind, std::string_view level, std::string_view line) const;

  std::vector<RuleValue> values_;                      // in the order of ruleTable()
  std::vector<std::pair<ShapingKey, double>> byHand_;  // mm, or the share
  std::map<std::string, SeamChoice, std::less<>> seamChoices_;
  std::set<EdgeName> locks_;
  std::vector<std::string> layerOrder_;
  std::vector<ListedCloth> cloths_;
  std::vector<KeptPlace> kept_;
  std::map<std::string, std::string, std::less<>> clothOf_;
  std::map<std::string, std::map<int, double>, std::less<>> bonesAt_;
  std::set<std::string, std::less<>> bonesOff_;
  std::vector<TrimChoice> trims_;
};

}  // namespace armure
