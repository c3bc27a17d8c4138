// core/tracing/naming_words.h
//
// What pieces and edges are called in files and on command lines: "panel", "front", "hem"; each table in the order in
// which a list offers them, with the word people read.
#pragma once

#include <array>
#include <stdexcept>
#include <string_view>

#include "message.h"
#include "pattern/pattern.h"

namespace armure {

template <typename Kind>
struct KindWord {
  Kind kind{};
  std::string_view id;
  const char* name;
};

inline constexpr std::array<KindWord<EdgeRole>, 11> kEdgeWords{{{EdgeRole::Seam, "seam", "seam"},
                                                                {EdgeRole::Fold, "fold", "fold"},
                                                                {EdgeRole::Top, "top", "top edge"},
                                                                {EdgeRole::Hem, "hem", "hem"},
                                                                {EdgeRole::Opening, "opening", "edge of an opening"},
                                                                {EdgeRole::Centre, "centre", "seam at the centre"},
                                                                {EdgeRole::Cup, "cup", "cup line"},
                                                                {EdgeRole::Yoke, "yoke", "yoke seam"},
                                                                {EdgeRole::Armhole, "armhole", "armhole"},
                                                                {EdgeRole::Strap, "strap", "edge of a strap"},
                                                                {EdgeRole::Mouth, "mouth", "mouth of a dart"}}};

inline constexpr std::array<KindWord<Half>, 3> kHalfWords{
    {{Half::Front, "front", "front"}, {Half::Back, "back", "back"}, {Half::Both, "both", "front and back"}}};

inline constexpr std::array<KindWord<Part>, 11> kPartWords{
    {{Part::Panel, "panel", "panel"},
     {Part::Cup, "cup", "cup"},
     {Part::CupBand, "cup-band", "upper band of a cup"},
     {Part::CupCover, "cup-cover", "cover of a cup"},
     {Part::Yoke, "yoke", "yoke"},
     {Part::Insert, "insert", "insert"},
     {Part::Skirt, "skirt", "skirt"},
     {Part::ShoulderBand, "shoulder-band", "band off the shoulder"},
     {Part::Strap, "strap", "strap"},
     {Part::Modesty, "modesty", "panel behind the opening"},
     {Part::Pad, "pad", "pad"}}};

inline constexpr std::array<KindWord<SeamKind>, 3> kSeamWords{{{SeamKind::Plain, "plain", "seam"},
                                                               {SeamKind::Shoulder, "shoulder", "shoulder seam"},
                                                               {SeamKind::Dart, "dart", "dart"}}};

// Throws std::out_of_range for a kind the table lacks: Raw edges are of layers, never of a drawing's pieces.
template <typename Kind, size_t n>
const KindWord<Kind>& wordOf(const std::array<KindWord<Kind>, n>& table, Kind kind) {
  for (const KindWord<Kind>& row : table)
    if (row.kind == kind) return row;
  throw std::out_of_range("a kind without a word");
}

}  // namespace armure
