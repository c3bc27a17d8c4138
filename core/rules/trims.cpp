#include "rules/trims.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <stdexcept>

#include "parts/bow/rules.h"
#include "parts/collar/rules.h"
#include "parts/edging/rules.h"
#include "parts/flounce/rules.h"
#include "parts/frill/rules.h"
#include "parts/garter_tabs/rules.h"
#include "parts/godet/rules.h"
#include "parts/hanging_sleeve/rules.h"
#include "parts/loops/rules.h"
#include "parts/peplum/rules.h"
#include "parts/pleats/rules.h"
#include "parts/pocket/rules.h"
#include "parts/ruffle/rules.h"
#include "parts/sleeve/rules.h"
#include "parts/tie/rules.h"
#include "quotable.h"
#include "rules/plain_id.h"

namespace armure {
namespace {

constexpr std::array<std::string_view, 3> kArm{"bicep", "arm_length", "wrist"};
constexpr std::array<std::string_view, 1> kUpperArm{"bicep"}, kRoundShoulders{"round_shoulder"};

constexpr std::array<TrimKindInfo, 15> kTrimKinds{{
    {TrimKind::Frill, "frill", "Frill", "a strip gathered or pleated to the edge it is sewn to", frill::kRows},
    {TrimKind::Ruffle, "ruffle", "Ruffle off the shoulders",
     "pleated strips round both arms that cross in front, free over the arms", ruffle::kRows, kRoundShoulders, "top"},
    {TrimKind::Flounce, "flounce", "Flounce", "a ring that falls in folds from the edge it is sewn to", flounce::kRows},
    {TrimKind::Peplum, "peplum", "Peplum", "a skirt of its own along the hem: a peplum, a tail, a train",
     peplum::kRows},
    {TrimKind::Sleeve, "sleeve", "Sleeve", "a plain sleeve, set into the armhole", sleeve::kRows, kArm, "armhole"},
    {TrimKind::HangingSleeve, "hanging-sleeve", "Hanging sleeve", "stiff and double, pleated to part of the armhole",
     hanging_sleeve::kRows, kUpperArm, "armhole"},
    {TrimKind::Collar,
     "collar",
     "Collar",
     "a stand or a collar that is turned down, along the neckline",
     collar::kRows,
     {},
     "top"},
    {TrimKind::Edging,
     "edging",
     "Edging",
     "a binding, piping, lace or braid along an edge or in a seam",
     edging::kRows,
     {},
     "top"},
    {TrimKind::Loops, "loops", "Loops", "of a narrow tube, evenly along an edge", loops::kRows, {}, "opening"},
    {TrimKind::Tie, "tie", "Tie or belt", "folded strips, caught where its stretch begins", tie::kRows, {}, "opening"},
    {TrimKind::Bow, "bow", "Bow", "with tails or without, where its stretch begins", bow::kRows, {}, "top"},
    {TrimKind::Pocket, "pocket", "Pocket", "a bag in a seam", pocket::kRows, {}, "side"},
    {TrimKind::Godet, "godet", "Godet", "a wedge let into the lower end of a seam", godet::kRows, {}, "side"},
    {TrimKind::GarterTabs, "garter-tabs", "Garter tabs", "hanging from the lower edge", garter_tabs::kRows},
    {TrimKind::Pleats, "pleats", "Pleats", "or tucks, laid over a piece of the shell", pleats::kRows, {}, "", true},
}};

constexpr std::string_view kOn = "on", kFrom = "from", kTo = "to";
constexpr size_t kLongestName = 24;
constexpr double kFarthest = 5000;  // mm on from a mark

bool isPlace(std::string_view field) { return field == kOn || field == kFrom || field == kTo; }

bool isPlainName(std::string_view name) { return isPlainId(name, kLongestName); }

const RuleInfo* fieldOf(TrimKind kind, std::string_view field) {
  const auto fields = trimKind(kind).fields;
  const auto found = std::ranges::find(fields, field, &RuleInfo::key);
  return found == fields.end() ? nullptr : &*found;
}

Problem wrongPlace(const TrimKey& key, std::string_view value) {
  return {verbatim(key.text()), msg("\"{}\" is no place on a line", quotable(value)),
          "write a mark, and how far on from it or back: \"side\", \"side + 1 1/2 in\", \"end - 1/4 in\""};
}

// "side + 1 1/2 in": the mark and what follows it, with its sign.
struct PlaceText {
  std::string_view mark, on;
  char sign = '+';
};
PlaceText placeText(std::string_view value) {
  for (const std::string_view between : {" + ", " - "})
    if (const size_t at = value.find(between); at != std::string_view::npos)
      return {value.substr(0, at), value.substr(at + between.size()), between[1]};
  return {value, {}};
}

TrimPlace trimPlaceOf(std::string_view value) {
  const PlaceText text = placeText(value);
  const double on = text.on.empty() ? 0 : parseLength(text.on, Unit::Millimetre).value();
  return {std::string(text.mark), text.sign == '-' ? -on : on};
}

Result<std::string> checkPlace(const TrimKey& key, std::string_view value, Unit bareUnit) {
  const PlaceText text = placeText(value);
  if (!isPlainName(text.mark)) return wrongPlace(key, value);
  if (text.on.empty()) return std::string(text.mark);
  const Result<TypedLength> on = readLength(text.on, bareUnit);
  if (!on.ok() || on->mm < 0 || on->mm > kFarthest) return wrongPlace(key, value);
  return fmt::format("{} {} {}", text.mark, text.sign, on->text());
}

}  // namespace

std::span<const TrimKindInfo> trimKinds() { return kTrimKinds; }

const TrimKindInfo& trimKind(TrimKind kind) { return *std::ranges::find(kTrimKinds, kind, &TrimKindInfo::kind); }

std::string TrimKey::text() const { return fmt::format("{}.{}.{}", trimKind(kind).id, name, field); }

std::optional<TrimKey> parseTrimKey(std::string_view key) {
  const size_t first = key.find('.'), second = first == std::string_view::npos ? first : key.find('.', first + 1);
  if (second == std::string_view::npos) return std::nullopt;
  const auto kind = std::ranges::find(kTrimKinds, key.substr(0, first), &TrimKindInfo::id);
  const std::string_view name = key.substr(first + 1, second - first - 1), field = key.substr(second + 1);
  if (kind == kTrimKinds.end() || !isPlainName(name)) return std::nullopt;
  if (!isPlace(field) && !fieldOf(kind->kind, field)) return std::nullopt;
  return TrimKey{kind->kind, std::string(name), std::string(field)};
}

Result<std::string> checkTrimChoice(const TrimKey& key, std::string_view value, Unit bareUnit) {
  if (key.field == kOn) {
    if (isPlainName(value)) return std::string(value);
    return Problem{verbatim(key.text()), msg("\"{}\" is no line of a garment", quotable(value)),
                   "choose top, hem, armhole, or another line that the garment has"};
  }
  if (isPlace(key.field)) return checkPlace(key, value, bareUnit);
  Result<std::string> kept = keptRuleText(*fieldOf(key.kind, key.field), value, bareUnit);
  if (!kept.ok()) return Problem{verbatim(key.text()), kept.problem().what, kept.problem().remedy};
  return kept;
}

Message trimKeyName(const TrimKey& key) {
  const Message title = TrimChoice(key.kind, key.name).title();
  if (key.field == kOn) return msg("{}, sewn to", title);
  if (key.field == kFrom) return msg("{}, from", title);
  if (key.field == kTo) return msg("{}, to", title);
  return msg("{}: {}", title, known(fieldOf(key.kind, key.field)->label));
}

std::vector<TrimForm> trimForms() {
  std::vector<TrimForm> forms;
  for (const TrimKindInfo& kind : kTrimKinds) {
    const auto add = [&](std::string_view field, std::string values, std::string_view reason) {
      forms.push_back({fmt::format("{}.NAME.{}", kind.id, field), std::move(values), reason});
    };
    add(kOn, kind.onPiece ? "PIECE" : "top|hem|armhole|SEAM|...", kind.reason);
    if (!kind.onPiece) add(kFrom, "MARK [+ LENGTH]", "where on that line it begins; without it, at its start");
    if (!kind.onPiece) add(kTo, "MARK [- LENGTH]", "where it ends");
    for (const RuleInfo& f : kind.fields) {
      std::string values;
      for (const RuleOption& o : f.options) {
        if (!values.empty()) values += '|';
        values += o.id;
      }
      if (f.kind == RuleKind::Length)
        values = fmt::format("{:.4g} to {:.4g} in", f.lowest / kMmPerInch, f.highest / kMmPerInch);
      if (f.kind == RuleKind::Number) values = fmt::format("{:g} to {:g}", f.lowest, f.highest);
      add(f.key, std::move(values), f.reason);
    }
  }
  return forms;
}

TrimChoice::TrimChoice(TrimKind kind, std::string name) : kind_(kind), name_(std::move(name)) {
  for (const RuleInfo& f : trimKind(kind).fields) values_.push_back(defaultValue(f, Figure::Medium));
}

void TrimChoice::set(std::string_view field, std::string_view value) {
  if (field == kOn) {
    on_ = value;
  } else if (field == kFrom) {
    from_ = trimPlaceOf(value);
    fromChosen_ = true;
  } else if (field == kTo) {
    to_ = trimPlaceOf(value);
    toChosen_ = true;
  } else {
    const auto fields = trimKind(kind_).fields;
    const RuleInfo* row = fieldOf(kind_, field);
    if (!row) throw std::invalid_argument("TrimChoice: no such field");
    RuleValue& mine = values_[static_cast<size_t>(row - fields.data())];
    mine = readRuleValue(*row, value, Unit::Millimetre).value();
    mine.chosen = true;
  }
}

std::string TrimChoice::id() const { return fmt::format("{}-{}", trimKind(kind_).id, name_); }

Message TrimChoice::title() const { return msg("{} {}", known(trimKind(kind_).label), verbatim(name_)); }

const RuleValue& TrimChoice::value(std::string_view field) const {
  const auto fields = trimKind(kind_).fields;
  const RuleInfo* row = fieldOf(kind_, field);
  if (!row) throw std::out_of_range("TrimChoice: no such field");
  return values_[static_cast<size_t>(row - fields.data())];
}

bool TrimChoice::counts(const RuleInfo& field) const {
  const auto conditions = field.conditions();
  return conditions.empty() ||
         std::ranges::any_of(conditions, [&](const Condition& c) { return c.holdsFor(value(c.key).choice); });
}

Term TrimChoice::term(LengthKey key, char sign, double factor) const {
  const RuleValue& v = value(key.text);
  return {sign, known(fieldOf(kind_, key.text)->label), factor * v.number, v.source};
}

}  // namespace armure
