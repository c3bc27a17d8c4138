// core/body_side.h
//
// Left and right as the wearer has them. A pattern is drawn for the left half and stands for both, as long as they are
// alike.
#pragma once

#include "message.h"

namespace armure {

enum class BodySide { Both, Left, Right };

// "Side seam, left"; the thing itself where it is of both.
Message onSide(Message thing, BodySide side);

}  // namespace armure
