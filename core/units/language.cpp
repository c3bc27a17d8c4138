#include "units/language.h"

namespace armure {

Language languageOf(LengthFormat format) {
  Language language;
  language.length = [format](double mm) { return formatLengthWithUnit(mm, format); };
  return language;
}

std::string say(const Message& message, LengthFormat format) { return say(message, languageOf(format)); }

}  // namespace armure
