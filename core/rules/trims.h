// core/rules/trims.h
//
// What is sewn on to a stretch of an edge, kept among the choices of an order:
//
//   KIND.NAME.on      the line it is sewn to: "top", "hem", "side" (parts/trims/lines.h); it is there while this is
//   KIND.NAME.from    where on that line it begins: a mark, and how far on from it: "side", "side + 1 1/2 in", "start"
//   KIND.NAME.to      and where it ends; without them it goes from end to end
//   KIND.NAME.FIELD   the rest, by the kind's own table: "frill.1.deep", "flounce.hem.turns"
//
// KIND is of trimKinds(), NAME the maker's: small letters, figures and hyphens. To add a kind: a folder of core/parts
// with its rules.h and how it is made, a row in trims.cpp, and one in garment/trim_makers.cpp.
#pragma once

#include <optional>
#include <span>
#include <string>
#include <string_view>
#include <vector>

#include "result.h"
#include "rules/rule_value.h"
#include "units/length.h"
#include "working.h"

namespace armure {

enum class TrimKind {
  Frill,
  Ruffle,
  Flounce,
  Peplum,
  Sleeve,
  HangingSleeve,
  Collar,
  Edging,
  Loops,
  Tie,
  Bow,
  Pocket,
  Godet,
  GarterTabs,
  Pleats,
};

struct TrimKindInfo {
  TrimKind kind{};
  std::string_view id, label, reason;  // "frill", "Frill"
  std::span<const RuleInfo> fields;
  std::span<const std::string_view> measures = {};  // of the client that it is made from, beyond those of every draft
  std::string_view usuallyOn = "hem";               // the line it is sewn to most often
  bool onPiece = false;                             // it lies over a piece, whose id stands in place of a line's
};
std::span<const TrimKindInfo> trimKinds();
const TrimKindInfo& trimKind(TrimKind kind);

// A place on a line: a mark on it, and how far on (mm, negative: back).
struct TrimPlace {
  std::string mark;
  double on = 0;
};

struct TrimKey {
  TrimKind kind{};
  std::string name, field;  // "on", "from", "to", or one of the kind's fields
  std::string text() const;
};
// The key, or nothing when it is not of this form or the kind has no such field.
std::optional<TrimKey> parseTrimKey(std::string_view key);

// The value as kept in the order; the Problem says what would be right.
Result<std::string> checkTrimChoice(const TrimKey& key, std::string_view value, Unit bareUnit);
// "Frill 1, deep", for undo and lists.
Message trimKeyName(const TrimKey& key);

// How the keys are written, for lists.
struct TrimForm {
  std::string form, values;
  std::string_view reason;
};
std::vector<TrimForm> trimForms();

// One trim with all that is chosen of it.
class TrimChoice {
 public:
  TrimChoice(TrimKind kind, std::string name);
  // Takes one checked value.
  void set(std::string_view field, std::string_view value);

  TrimKind kind() const { return kind_; }
  const std::string& name() const { return name_; }
  std::string id() const;                        // "frill-1", of its piece
  Message title() const;                         // "Frill 1"
  const std::string& on() const { return on_; }  // empty: it is nowhere
  const TrimPlace& from() const { return from_; }
  // Else it begins at the line's start and ends at its end, or where its kind says.
  bool fromIsChosen() const { return fromChosen_; }
  bool toIsChosen() const { return toChosen_; }
  const TrimPlace& to() const { return to_; }

  const RuleValue& value(std::string_view field) const;                  // throws std::out_of_range
  double length(LengthKey key) const { return value(key.text).number; }  // mm
  double number(NumberKey key) const { return value(key.text).number; }
  template <typename Option>
  Option option(OptionKey<Option> key) const {
    return static_cast<Option>(value(key.text).choice);
  }
  // Whether the field has any say beside the others.
  bool counts(const RuleInfo& field) const;
  // The field as a term of a working.
  Term term(LengthKey key, char sign = '+', double factor = 1) const;

 private:
  TrimKind kind_;
  std::string name_, on_;
  TrimPlace from_{"start", 0}, to_{"end", 0};
  bool fromChosen_ = false, toChosen_ = false;
  std::vector<RuleValue> values_;  // in the order of the kind's fields
};

}  // namespace armure
