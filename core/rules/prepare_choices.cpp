#include "rules/prepare_choices.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <utility>
#include <vector>

#include "geometry/polygon.h"
#include "quotable.h"
#include "rules/plain_id.h"

namespace armure {
namespace {

constexpr std::string_view kClothForm = "cloth", kBoneForm = "bone", kLayForm = "lay";
constexpr size_t kLongestId = 40, kLongestNote = 200;
constexpr int kMostCopies = 99;
constexpr double kNarrowest = inches(10), kWidest = inches(130);
constexpr double kMostApart = inches(2), kMostOffGrain = 15, kLongest = 20000, kLeastRemnant = 10000;  // mm^2

const std::array<ListedCloth, 12>& cloths() {
  static const std::array<ListedCloth, 12> all{{
      {"satin", "Duchesse satin", inches(54), true, true, 0, 0, "one way: its sheen runs"},
      {"firm-cotton", "Firm herringbone", inches(60), true, false, 0.03, 0, "wash before cutting"},
      {"soft-cotton", "Soft cotton lawn", inches(54), true, false, 0.03, 0, "next to the skin"},
      {"light-interfacing", "Light interfacing", inches(45), true, false, 0.01, 0, "to fuse"},
      {"stiff-net", "Stiff net", inches(60), false, false, 0, 0, "cut double where it carries"},
      {"net", "Fine net", inches(60), false, false, 0, 0, "for yokes and inserts"},
      {"lace", "Corded lace", inches(45), false, true, 0, 0, "lay the motifs first"},
      {"velvet", "Cotton velvet", inches(45), true, true, 0.02, 0, "one way: its pile runs"},
      {"wool", "Wool crepe", inches(60), true, false, 0.04, 0, "steam before cutting"},
      {"cup-foam", "Cup foam, 1/8 in", inches(60), false, false, 0, 0, "butted, no allowance"},
      {"wadding", "Cotton wadding", inches(45), false, false, 0, 0, "butted, no allowance"},
      {"calico", "Calico for toiles", inches(60), true, false, 0.03, 0, "the weight of the cloth to come"},
  }};
  return all;
}

constexpr std::array<std::pair<std::string_view, ClothField>, 10> kFields{{{"name", ClothField::Name},
                                                                           {"width", ClothField::Width},
                                                                           {"lies", ClothField::Lies},
                                                                           {"way", ClothField::Way},
                                                                           {"shrinks", ClothField::Shrinks},
                                                                           {"price", ClothField::Price},
                                                                           {"note", ClothField::Note},
                                                                           {"apart", ClothField::Apart},
                                                                           {"off-grain", ClothField::OffGrain},
                                                                           {"remnant", ClothField::Remnant}}};

constexpr std::array<PrepareForm, 15> kPrepareForms{{
    {"layers.order", "LAYER LAYER ...", "how the layers lie, from the outside inwards"},
    {"cloth.of.LAYER", "CLOTH", "the cloth a layer, or one piece of the shell, is cut of"},
    {"cloth.CLOTH.name", "text", "a cloth of your own: its name"},
    {"cloth.CLOTH.width", "10 to 130 in", "how wide the cloth lies"},
    {"cloth.CLOTH.lies", "folded|open", "how the cloth is laid"},
    {"cloth.CLOTH.way", "one-way|either-way", "whether pieces may be turned round on it"},
    {"cloth.CLOTH.shrinks", "0 to 0.2", "the part of its length it shrinks by"},
    {"cloth.CLOTH.price", "0 to 100000", "for a metre"},
    {"cloth.CLOTH.note", "text", "in your own words"},
    {"cloth.CLOTH.apart", "0 to 2 in", "the room left between pieces on it"},
    {"cloth.CLOTH.off-grain", "0 to 15", "degrees by which pieces may be turned off their grain"},
    {"cloth.CLOTH.remnant", "0 x 0; 40 x 0; ...",
     "what there is of it: the corners of its outline, along it x across it"},
    {"lay.CLOTH.PIECE.COPY", "ALONG ACROSS DEGREES [mirrored]", "this copy is kept there on the opened cloth; mm"},
    {"bone.at.PIECE.N", "0.05 to 0.95", "a bone of your own, this part of the width from the edge nearer the centre"},
    {"bone.off.BONE", "yes", "this bone is not laid"},
}};

bool isLetter(char c) { return (c >= 'a' && c <= 'z'); }

bool isPlainId(std::string_view id) { return !id.empty() && isLetter(id.front()) && armure::isPlainId(id, kLongestId); }

std::vector<std::string_view> splitAt(std::string_view text, char separator) {
  std::vector<std::string_view> parts;
  for (size_t at = 0; at <= text.size();) {
    const size_t end = std::min(text.find(separator, at), text.size());
    parts.push_back(text.substr(at, end - at));
    at = end + 1;
  }
  return parts;
}

Problem wrong(std::string_view key, std::string_view value, Message right) {
  return {verbatim(key), msg("there is no choice \"{}\" here", quotable(value)), std::move(right)};
}

Result<std::string> oneOf(std::string_view key, std::string_view value, std::string_view a, std::string_view b) {
  if (value == a || value == b) return std::string(value);
  return wrong(key, value, msg("choose {} or {}", verbatim(a), verbatim(b)));
}

Result<std::string> numberWithin(std::string_view key, std::string_view value, double lowest, double highest) {
  const Result<double> number = parseNumber(value);
  if (!number.ok()) return Problem{verbatim(key), number.problem().what, number.problem().remedy};
  if (*number < lowest || *number > highest)
    return wrong(key, value, msg("give a number between {} and {}", lowest, highest));
  return fmt::format("{:.6g}", *number);
}

Result<std::string> textOf(std::string_view key, std::string_view value) {
  if (value.size() <= kLongestNote && isUtf8(value) &&
      std::ranges::none_of(value, [](char c) { return static_cast<unsigned char>(c) < 0x20 || c == 0x7F; }))
    return std::string(value);
  return wrong(key, value, msg("write one line of at most {} letters", kLongestNote));
}

// "0 x 0; 40 x 0; 40 x 22": corners in turn, along the cloth and across it.
using TypedCorner = std::array<TypedLength, 2>;
Result<std::vector<TypedCorner>> readCorners(std::string_view key, std::string_view value, Unit bareUnit) {
  std::vector<TypedCorner> corners;
  for (const std::string_view corner : splitAt(value, ';')) {
    const std::vector<std::string_view> sides = splitAt(corner, 'x');
    if (sides.size() != 2) return wrong(key, value, "write its corners in turn: \"0 x 0; 40 x 0; 40 x 22; 0 x 30\"");
    corners.emplace_back();
    for (size_t k = 0; k < 2; ++k) {
      const Result<TypedLength> read = readLength(sides[k], bareUnit);
      if (!read.ok()) return Problem{verbatim(key), read.problem().what, read.problem().remedy};
      corners.back()[k] = *read;
    }
  }
  return corners;
}
Polyline outlineOf(const std::vector<TypedCorner>& corners) {
  Polyline outline;
  for (const auto& [along, across] : corners) outline.push_back({along.mm, across.mm});
  return outline;
}

Result<std::string> remnantOf(std::string_view key, std::string_view value, Unit bareUnit) {
  const Result<std::vector<TypedCorner>> corners = readCorners(key, value, bareUnit);
  if (!corners.ok()) return corners.problem();
  const Polyline outline = outlineOf(*corners);
  for (const Vec2 p : outline)
    if (p.x < 0 || p.y < 0 || p.x > kLongest || p.y > kWidest)
      return wrong(key, value,
                   msg("give corners up to {} along it and {} across it", Length{kLongest}, Length{kWidest}));
  if (outline.size() < 3 || !isSimple(outline) || std::abs(signedArea(outline)) < kLeastRemnant)
    return wrong(key, value, "give at least three corners, in turn round what there is");
  std::string text;
  for (const auto& [along, across] : *corners)
    text += (text.empty() ? "" : "; ") + along.text() + " x " + across.text();
  return text;
}

// "ALONG ACROSS DEGREES [mirrored]".
std::optional<KeptPlace> readPlace(std::string_view value) {
  KeptPlace place;
  const std::vector<std::string_view> parts = splitAt(value, ' ');
  if (parts.size() < 3 || parts.size() > 4 || (parts.size() == 4 && parts[3] != "mirrored")) return std::nullopt;
  std::array<double, 3> numbers{};
  for (size_t i = 0; i < 3; ++i) {
    const Result<double> number = parseNumber(parts[i]);
    if (!number.ok() || std::abs(*number) > kLongest) return std::nullopt;
    numbers[i] = *number;
  }
  return KeptPlace{{}, {}, 0, {numbers[0], numbers[1]}, numbers[2], parts.size() == 4};
}

Result<std::string> checkField(std::string_view key, ClothField field, std::string_view value, Unit bareUnit) {
  switch (field) {
    case ClothField::Name:
    case ClothField::Note:
      return textOf(key, value);
    case ClothField::Width: {
      const Result<TypedLength> typed = readLength(value, bareUnit);
      if (!typed.ok()) return Problem{verbatim(key), typed.problem().what, typed.problem().remedy};
      if (typed->mm < kNarrowest || typed->mm > kWidest)
        return wrong(key, value, msg("give a width between {} and {}", Length{kNarrowest}, Length{kWidest}));
      return typed->text();
    }
    case ClothField::Lies:
      return oneOf(key, value, "folded", "open");
    case ClothField::Way:
      return oneOf(key, value, "one-way", "either-way");
    case ClothField::Shrinks:
      return numberWithin(key, value, 0, 0.2);
    case ClothField::Apart: {
      const Result<TypedLength> typed = readLength(value, bareUnit);
      if (!typed.ok()) return Problem{verbatim(key), typed.problem().what, typed.problem().remedy};
      if (typed->mm < 0 || typed->mm > kMostApart)
        return wrong(key, value, msg("give a length between {} and {}", Length{0}, Length{kMostApart}));
      return typed->text();
    }
    case ClothField::OffGrain:
      return numberWithin(key, value, 0, kMostOffGrain);
    case ClothField::Remnant:
      return remnantOf(key, value, bareUnit);
    case ClothField::Price:
      break;
  }
  return numberWithin(key, value, 0, 100000);
}

// Words, each once.
Result<std::string> layerNames(std::string_view key, std::string_view value) {
  std::string text;
  std::vector<std::string_view> names;
  for (const std::string_view name : splitAt(value, ' ')) {
    if (name.empty()) continue;
    if (!isPlainId(name) || std::ranges::find(names, name) != names.end())
      return wrong(key, value, "name layers from the outside inwards, each once: \"overlay shell strength lining\"");
    names.push_back(name);
    if (!text.empty()) text.push_back(' ');
    text.append(name);
  }
  return text;
}

}  // namespace

std::span<const ListedCloth> clothTable() { return cloths(); }

std::span<const PrepareForm> prepareForms() { return kPrepareForms; }

std::optional<PrepareKey> parsePrepareKey(std::string_view key) {
  if (key == kLayersOrder) return PrepareKey{PrepareKind::LayerOrder, {}};
  if (const std::string_view form = key.substr(0, key.find('.'));
      form != kClothForm && form != kBoneForm && form != kLayForm)
    return std::nullopt;
  const std::vector<std::string_view> parts = splitAt(key, '.');
  if (parts.size() == 3 && parts[0] == kClothForm && parts[1] == "of" && isPlainId(parts[2]))
    return PrepareKey{PrepareKind::ClothOf, std::string(parts[2])};
  if (parts.size() == 3 && parts[0] == kClothForm && isPlainId(parts[1]))
    for (const auto& [name, field] : kFields)
      if (name == parts[2]) return PrepareKey{PrepareKind::ClothField, std::string(parts[1]), field};
  if (parts.size() == 4 && parts[0] == kBoneForm && parts[1] == "at" && isPlainId(parts[2]) && parts[3].size() == 1 &&
      parts[3][0] >= '1' && parts[3][0] <= '9')
    return PrepareKey{PrepareKind::BoneAt, std::string(parts[2]), {}, parts[3][0] - '0'};
  if (parts.size() == 4 && parts[0] == kLayForm && isPlainId(parts[1]) && isPlainId(parts[2]))
    if (const Result<double> copy = parseNumber(parts[3]);
        copy.ok() && *copy >= 1 && *copy <= kMostCopies && std::to_string(static_cast<int>(*copy)) == parts[3])
      return PrepareKey{
          PrepareKind::KeptPlace, std::string(parts[1]), {}, static_cast<int>(*copy), std::string(parts[2])};
  if (parts.size() == 3 && parts[0] == kBoneForm && parts[1] == "off" && isPlainId(parts[2]))
    return PrepareKey{PrepareKind::BoneOff, std::string(parts[2])};
  return std::nullopt;
}

std::string boneAtKey(std::string_view piece, int number) { return fmt::format("bone.at.{}.{}", piece, number); }
std::string boneOffKey(std::string_view bone) { return fmt::format("bone.off.{}", bone); }
std::string clothOfKey(std::string_view layerOrPiece) { return fmt::format("cloth.of.{}", layerOrPiece); }

Result<std::string> checkPrepareChoice(std::string_view key, const PrepareKey& parsed, std::string_view value,
                                       Unit bareUnit) {
  switch (parsed.kind) {
    case PrepareKind::LayerOrder:
      return layerNames(key, value);
    case PrepareKind::ClothOf:
      if (isPlainId(value)) return std::string(value);
      return wrong(key, value, "give the id of a cloth: small letters and figures joined by hyphens");
    case PrepareKind::ClothField:
      return checkField(key, parsed.field, value, bareUnit);
    case PrepareKind::BoneAt:
      return numberWithin(key, value, 0.05, 0.95);
    case PrepareKind::KeptPlace:
      if (const auto place = readPlace(value)) return place->text();
      return wrong(key, value, "give where it lies, along and across, in mm, and its turn: \"120.5 300 90\"");
    case PrepareKind::BoneOff:
      break;
  }
  if (value == "yes") return std::string(value);
  return wrong(key, value, "choose yes, or leave the choice away");
}

namespace {

Message ownOrListed(const std::string& text, const std::string ListedCloth::*member) {
  for (const ListedCloth& c : cloths())
    if (c.*member == text) return known(c.*member);
  return verbatim(text);
}

}  // namespace

Message clothName(const ListedCloth& cloth) { return ownOrListed(cloth.name, &ListedCloth::name); }
Message clothNote(const ListedCloth& cloth) { return ownOrListed(cloth.note, &ListedCloth::note); }

void setField(ListedCloth& cloth, ClothField field, const std::string& value) {
  switch (field) {
    case ClothField::Name:
      cloth.name = value;
      return;
    case ClothField::Width:
      cloth.width = parseLength(value, Unit::Millimetre).value();
      return;
    case ClothField::Lies:
      cloth.folded = value == "folded";
      return;
    case ClothField::Way:
      cloth.oneWay = value == "one-way";
      return;
    case ClothField::Shrinks:
      cloth.shrinkage = parseNumber(value).value();
      return;
    case ClothField::Price:
      cloth.price = parseNumber(value).value();
      return;
    case ClothField::Note:
      cloth.note = value;
      return;
    case ClothField::Apart:
      cloth.apart = parseLength(value, Unit::Millimetre).value();
      return;
    case ClothField::OffGrain:
      cloth.offGrain = parseNumber(value).value();
      return;
    case ClothField::Remnant:
      cloth.remnant = outlineOf(readCorners({}, value, Unit::Millimetre).value());
  }
}

std::string KeptPlace::text() const {
  return fmt::format("{:.10g} {:.10g} {:.12g}{}", at.x, at.y, degrees, mirrored ? " mirrored" : "");
}

std::string keptPlaceKey(const KeptPlace& place) {
  return fmt::format("{}.{}.{}.{}", kLayForm, place.cloth, place.piece, place.copy);
}

KeptPlace keptPlace(const PrepareKey& key, const std::string& value) {
  KeptPlace place = readPlace(value).value();
  place.cloth = key.of;
  place.piece = key.piece;
  place.copy = key.number;
  return place;
}

Message prepareName(const PrepareKey& key) {
  switch (key.kind) {
    case PrepareKind::LayerOrder:
      return "the order of the layers";
    case PrepareKind::ClothOf:
      return msg("the cloth of {}", verbatim(key.of));
    case PrepareKind::ClothField:
      return msg("the cloth {}", verbatim(key.of));
    case PrepareKind::BoneAt:
      return msg("bone {} on {}", key.number, verbatim(key.of));
    case PrepareKind::KeptPlace:
      return msg("where {} lies on {}", verbatim(key.piece), verbatim(key.of));
    case PrepareKind::BoneOff:
      break;
  }
  return msg("{} taken away", verbatim(key.of));
}

}  // namespace armure
