#include "cli/help.h"

#include <algorithm>
#include <array>

#include "cli/complaints.h"
#include "prepare/cautions.h"
#include "rules/nearest.h"

namespace armure::cli {
namespace {

struct Topic {
  std::string_view id, what, text;
};

constexpr std::array kTopics{
    Topic{"exit-codes", "what a command's exit code says", R"(0  done; for check: every row of the balance sheet passes
1  check: a row of a balance sheet fails; lay: a piece has no room on its cloth, or there is not enough of it
2  bad input, or a file that must not be written; nothing was written of that order

Of many orders the exit code is the largest of theirs. Every complaint is one line on standard error:
    armure-cli: WHERE: WHAT IS WRONG; WHAT WOULD BE RIGHT
)"},
    Topic{
        "units", "how lengths are read and told",
        R"(Lengths are read as they are typed, in any locale: 9 1/2, 9.5, 9½, 9 4/8 in, 24.1 cm, 24,1 cm, 241 mm. Without a unit
they are in the order's own (units=in or units=cm of `armure-cli set`).

Answers are in the order's units. --units in, cm or mm before or after the command asks for others. Differences of edges
are told in mm unless --units is given. JSON is always in mm and degrees.
)"},
    Topic{
        "streams", "orders and files through pipes",
        R"(- in the place of a file is standard input or output, wherever an order or a list of measures is read, and wherever an
order or one exported file is written:

    armure-cli set order.armure waist="30 in" -o - | armure-cli check -
    armure-cli export order.armure --pieces - | jq .seams

What a command has to say beside the file goes to standard error then.
)"},
    Topic{"many", "many orders at once",
          R"(check takes any number of orders; each sheet stands under the name of its file; as JSON they are a list of
{"file", "sheet"}. export writes those of a folder into another, one set of files for each order:

    armure-cli check orders/*.armure
    armure-cli export orders/*.armure --into out --as pdf,svg,sheet

An order that cannot be drafted is named on standard error; the others are done all the same.
)"},
    Topic{
        "files", "the files that are read and written",
        R"(*.armure       an order: client, measures, choices, notes. JSON; readable by its owner only. Older versions open.
*.armure-base  a trusted base pattern
*.csv          a list of measures: measure,value,unit,note
--pieces       armure-pieces JSON, in mm: what `export` tells other programs
Every file is written whole or not at all. A file of another kind is not written over without --force.
)"},
    Topic{
        "choices", "how a garment is chosen",
        R"(armure-cli styles and armure-cli schools list where to begin; armure-cli keys lists every choice there is, and
`armure-cli keys WORD` those about something, by group, with what each option means. They are set as KEY=VALUE with
`new --set` and `set`; an empty value takes a choice back. A choice that cannot count here is said to be idle.
)"},
};

void printCautions(Printer& out) {
  for (const std::string_view c : reductionCautions()) out.print("{}\n", c);
}

std::vector<std::string> commandsOf(const CLI::App& app) {
  std::vector<std::string> names;
  for (const CLI::App* command : app.get_subcommands([](const CLI::App*) { return true; }))
    names.push_back(command->get_name());
  return names;
}

std::vector<std::string_view> viewsOf(const std::vector<std::string>& words) { return {words.begin(), words.end()}; }

void printOverview(Printer& out, const CLI::App& app) {
  // help() of the whole program would be that of the command that was asked for, this one.
  out.print("{}\nTopics of `armure-cli help`, beside the commands:\n",
            app.get_formatter()->make_help(&app, app.get_name(), CLI::AppFormatMode::Normal));
  for (const Topic& t : kTopics) out.print("  {:<12} {}\n", t.id, t.what);
  out.print("  {:<12} {}\n", "reduction", "the cautions about reducing a waist");
}

// The options of a command, as they are typed.
std::vector<std::string> optionsOf(const CLI::App& command) {
  std::vector<std::string> names;
  for (const CLI::Option* option : command.get_options())
    for (const std::string& name : option->get_lnames()) names.push_back("--" + name);
  return names;
}

const CLI::App* commandSaid(const CLI::App& app, int argc, const char* const* argv) {
  const CLI::App* at = &app;
  for (int i = 1; i < argc; ++i)
    for (const CLI::App* command : at->get_subcommands([](const CLI::App*) { return true; }))
      if (command->get_name() == argv[i]) {
        at = command;
        break;
      }
  return at;
}

}  // namespace

int help(Printer& out, const CLI::App& app, const std::string& topic) {
  if (topic.empty()) {
    printOverview(out, app);
    return kDone;
  }
  if (topic == "reduction") {
    printCautions(out);
    return kDone;
  }
  if (const auto found = std::ranges::find(kTopics, topic, &Topic::id); found != kTopics.end()) {
    out.print("{}", found->text);
    return kDone;
  }
  std::vector<std::string> known = commandsOf(app);
  if (std::ranges::find(known, topic) != known.end()) {
    out.print("{}", app.get_subcommand(topic)->help(app.get_name()));
    return kDone;
  }
  for (const Topic& t : kTopics) known.emplace_back(t.id);
  known.emplace_back("reduction");
  const auto meant = nearest(topic, viewsOf(known));
  return complain({"help", msg("\"{}\" is not known", quotable(topic)),
                   meant ? msg("did you mean {}?", verbatim(*meant)) : Message("armure-cli help lists what is")});
}

Problem unread(const CLI::App& app, const CLI::ParseError& error, int argc, const char* const* argv) {
  const CLI::App* command = commandSaid(app, argc, argv);
  const bool isApp = command == &app;
  const std::string where = isApp ? "command line" : command->get_name();
  const Message seeHelp = isApp ? Message("armure-cli help lists the commands")
                                : msg("see armure-cli help {}", verbatim(command->get_name()));
  const auto unknown = [&](const char* kind, const std::string& word, const std::vector<std::string>& known) {
    const auto meant = nearest(word, viewsOf(known));
    return Problem{verbatim(where), msg("there is no {} \"{}\"", kind, quotable(word)),
                   meant ? msg("did you mean {}?", verbatim(*meant)) : seeHelp};
  };
  if (isApp && argc > 1 && argv[1][0] != '-') return unknown("command", argv[1], commandsOf(app));
  const std::vector<std::string> options = optionsOf(*command);
  for (int i = 1; i < argc; ++i) {
    const std::string_view said = argv[i];
    const std::string word(said.substr(0, said.find('=')));
    if (word.size() > 2 && word.starts_with("--") && std::ranges::find(options, word) == options.end() &&
        !app.get_option_no_throw(word))
      return unknown("option", word, options);
  }
  return {verbatim(where), verbatim(quotable(error.what())), seeHelp};
}

}  // namespace armure::cli
