// core/rules/prepare_choices.h
//
// Choices about one thing that is cut or bought, kept among the choices of an order like every other:
//
//   layers.order             ids of layers, and "shell", from the outside inwards: "overlay shell strength lining"
//   cloth.of.LAYER           the cloth a layer is cut of, by id; cloth.of.PIECE that of one piece of the shell
//   cloth.ID.name            a cloth of the maker's own, or other values for one of the list: its name,
//   cloth.ID.width           from selvedge to selvedge,
//   cloth.ID.lies            folded | open
//   cloth.ID.way             one-way | either-way
//   cloth.ID.shrinks         this part of its length
//   cloth.ID.price           for a metre, in whatever the maker pays
//   cloth.ID.apart           the room left between pieces on it
//   cloth.ID.off-grain       how far pieces may be turned off their grain, degrees
//   cloth.ID.remnant         what there is of it: the corners of its outline, along it and across
//   cloth.ID.note            in her own words
//   lay.CLOTH.PIECE.COPY     where a copy of a piece is kept on the opened cloth: along it, across it, mm, and turned
//                            by so many degrees
//   bone.at.PIECE.N          a bone of the maker's own on that piece: this part of its width from the edge nearer the
//                            centre; N from 1 to 9
//   bone.off.BONE            "yes": this bone is not laid
//
// Ids are small letters and figures joined by hyphens.
#pragma once

#include <array>
#include <optional>
#include <span>
#include <string>
#include <string_view>
#include <vector>

#include "geometry/vec.h"
#include "message.h"
#include "result.h"
#include "units/length.h"

namespace armure {

// A cloth as it lies on the table.
struct ListedCloth {
  std::string id, name;
  double width = 0;  // mm, from selvedge to selvedge
  bool folded = true;
  bool oneWay = false;   // pieces must not be turned round on it
  double shrinkage = 0;  // part of its length
  double price = 0;      // for a metre; 0 where it is not known
  std::string note;
  double apart = 0, offGrain = 0;  // mm between pieces; degrees they may be turned off their grain
  std::vector<Vec2> remnant = {};  // the outline of what there is of it, from its beginning; empty: as much as needed
};

// A copy of a piece that is kept where it lies: a point p of its outline comes to
// R(degrees) (mirrored ? (-p.x, p.y) : p) + at, on the opened cloth, x along it, y across it.
struct KeptPlace {
  std::string cloth, piece;  // ids; of the piece as it is cut for its layer
  int copy = 0;              // from 1
  Vec2 at;
  double degrees = 0;
  bool mirrored = false;
  std::string text() const;  // as kept among the choices
};
std::string keptPlaceKey(const KeptPlace& place);
// What there is to begin with; invented, widths as common practice has them.
std::span<const ListedCloth> clothTable();

enum class PrepareKind { LayerOrder, ClothOf, ClothField, BoneAt, BoneOff, KeptPlace };
enum class ClothField { Name, Width, Lies, Way, Shrinks, Price, Note, Apart, OffGrain, Remnant };

struct PrepareKey {
  PrepareKind kind{};
  std::string of;          // the layer or piece, the cloth, the bone
  ClothField field{};      // of a cloth
  int number = 0;          // of a bone on its piece, or of a copy of it
  std::string piece = {};  // that is kept in its place
};

// The key, or nothing when it is of none of these forms.
std::optional<PrepareKey> parsePrepareKey(std::string_view key);
std::string boneAtKey(std::string_view piece, int number);
std::string boneOffKey(std::string_view bone);
std::string clothOfKey(std::string_view layerOrPiece);
inline constexpr std::string_view kLayersOrder = "layers.order";

// The value as kept in the order; the Problem says what would be right.
Result<std::string> checkPrepareChoice(std::string_view key, const PrepareKey& parsed, std::string_view value,
                                       Unit bareUnit);

// What a cloth is called, and what is noted of it: of the list, or in the maker's own words.
Message clothName(const ListedCloth& cloth);
Message clothNote(const ListedCloth& cloth);

// Sets one field of a cloth from a checked value.
void setField(ListedCloth& cloth, ClothField field, const std::string& value);
// The place a checked value gives.
KeptPlace keptPlace(const PrepareKey& key, const std::string& value);

// "the cloth of the lining", for undo and lists.
Message prepareName(const PrepareKey& key);

// How a key of each form is written, and what it does, for lists.
struct PrepareForm {
  std::string_view form, values, reason;
};
std::span<const PrepareForm> prepareForms();

}  // namespace armure
