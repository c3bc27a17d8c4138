// render/words.h
//
// Messages of the core as the window and the paper write them.
#pragma once

#include <QString>

#include "units/language.h"

namespace armure {

// Where no length is in it.
inline QString words(const Message& message) { return QString::fromStdString(english(message)); }
inline QString words(const Message& message, LengthFormat units) { return QString::fromStdString(say(message, units)); }

}  // namespace armure
