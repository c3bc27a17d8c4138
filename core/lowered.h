// core/lowered.h
//
// Names as they stand inside a sentence and at its beginning.
#pragma once

#include <cctype>
#include <string>

namespace armure {

inline std::string lowered(std::string name) {
  if (!name.empty()) name[0] = static_cast<char>(std::tolower(static_cast<unsigned char>(name[0])));
  return name;
}

inline std::string raised(std::string name) {
  if (!name.empty()) name[0] = static_cast<char>(std::toupper(static_cast<unsigned char>(name[0])));
  return name;
}

}  // namespace armure
