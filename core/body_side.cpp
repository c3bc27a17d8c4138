#include "body_side.h"

namespace armure {

Message onSide(Message thing, BodySide side) {
  switch (side) {
    case BodySide::Both:
      return thing;
    case BodySide::Left:
      return msg("{}, left", std::move(thing));
    case BodySide::Right:
      break;
  }
  return msg("{}, right", std::move(thing));
}

}  // namespace armure
