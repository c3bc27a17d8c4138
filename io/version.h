// io/version.h
//
// The version of the program, as files and answers name it: "0.1.0".
#pragma once

#include <string_view>

namespace armure {

std::string_view programVersion();

}  // namespace armure
