#include "parts/bones/handles.h"

#include "rules/prepare_choices.h"

namespace armure {
namespace {

// The line across a piece along which a bone is moved: the waist, or its longest level.
std::optional<LevelLine> lineAcross(const Piece& piece) {
  if (auto waist = piece.level(level::kWaist)) return waist;
  std::optional<LevelLine> longest;
  for (const LevelLine& l : piece.levelLines())
    if (!longest || l.width() > longest->width()) longest = l;
  return longest;
}

}  // namespace

void addBoneHandles(Handles& handles) {
  if (!handles.isOf("Prepare")) return;
  const Pattern& pattern = handles.pattern();
  for (size_t i = 0; i < pattern.shellPieces(); ++i) {
    const Piece& p = pattern.pieces[i];
    const std::optional<LevelLine> line = lineAcross(p);
    if (!line || line->width() < 1) continue;
    if (p.side == BodySide::Right) continue;  // the left one's handle moves both
    const bool turned = hasCentreOnRight(p), unfolded = isUnfolded(p);
    const Vec2 centre = unfolded ? lerp(line->a, line->b, 0.5) : turned ? line->b : line->a;
    const Vec2 away = unit((turned ? line->a : line->b) - centre);
    const double width = unfolded ? line->width() / 2 : line->width();
    for (const auto& [number, part] : handles.rules().bonesAt(chosenAs(p)))
      handles.addPlacedShare(boneAtKey(chosenAs(p), number), {i, centre + part * width * away}, away, part * width,
                             1 / width);
  }
}

}  // namespace armure
