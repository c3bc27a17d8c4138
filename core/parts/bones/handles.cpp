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
    const bool back = p.half == Half::Back;  // its edge nearer the centre is the right one
    const Vec2 centre = back ? line->b : line->a, away = unit((back ? line->a : line->b) - centre);
    for (const auto& [number, part] : handles.rules().bonesAt(p.id))
      handles.addPlacedShare(boneAtKey(p.id, number), {i, centre + part * line->width() * away}, away,
                             part * line->width(), 1 / line->width());
  }
}

}  // namespace armure
