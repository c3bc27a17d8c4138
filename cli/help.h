// cli/help.h
//
// `armure-cli help TOPIC`, and what may have been meant by a misspelt command or option.
#pragma once

#include <CLI/CLI.hpp>
#include <string>

#include "cli/printer.h"

namespace armure::cli {

// What the topic is, or the commands and topics there are. Exit code 2 for a topic that is none.
int help(Printer& out, const CLI::App& app, const std::string& topic);

// The complaint about a command line that cannot be read, with what may have been meant.
Problem unread(const CLI::App& app, const CLI::ParseError& error, int argc, const char* const* argv);

}  // namespace armure::cli
