// render/words.h
//
// The core's texts and messages as the window and the paper write them.
#pragma once

#include <QString>
#include <string_view>

#include "units/language.h"

namespace armure {

inline QString q(std::string_view text) { return QString::fromUtf8(text.data(), static_cast<qsizetype>(text.size())); }
// For labels that read HTML.
inline QString escaped(std::string_view text) { return q(text).toHtmlEscaped(); }

// Where no length is in it.
inline QString words(const Message& message) { return QString::fromStdString(english(message)); }
inline QString words(const Message& message, LengthFormat units) { return QString::fromStdString(say(message, units)); }

}  // namespace armure
