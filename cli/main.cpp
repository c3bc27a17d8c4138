// cli/main.cpp
//
// armure-cli: the same core as the window, with no display. Only the PDF needs Qt's fonts, on its offscreen platform.
#include <CLI/CLI.hpp>
#include <QGuiApplication>
#include <QHashFunctions>
#include <exception>
#include <memory>
#include <optional>
#include <sstream>

#include "cli/alter_options.h"
#include "cli/commands.h"
#include "cli/complaints.h"
#include "cli/help.h"
#include "io/plain_numerals.h"
#include "io/version.h"
#include "quotable.h"
#include "render/exporters.h"
#include "render/theme.h"

namespace {

struct NoDisplay {
  explicit NoDisplay(char** argv) : name(argv[0]) {
    qputenv("QT_QPA_PLATFORM", "offscreen");
    QHashSeed::setDeterministicGlobalSeed();  // fonts stand in the PDF in the order of a hash: the same every time
    // What Qt has to say of the missing desktop is no concern of the user's.
    qInstallMessageHandler([](QtMsgType, const QMessageLogContext&, const QString&) {});
    app = std::make_unique<QGuiApplication>(count, arguments);
    armure::usePlainNumerals();
    armure::loadFonts();
  }
  char* name;
  int count = 1;
  char* arguments[2] = {name, nullptr};
  std::unique_ptr<QGuiApplication> app;
};

// Fonts are there where one of the files needs them.
int exportWith(char** argv, armure::cli::Printer& out, const armure::cli::ExportArguments& arguments) {
  std::unique_ptr<NoDisplay> display;
  for (const armure::Exporter& e : armure::exporterTable())
    if (e.needsFonts && !display && arguments.asksFor(e.id)) display = std::make_unique<NoDisplay>(argv);
  return armure::cli::exportFiles(out, arguments);
}

}  // namespace

int main(int argc, char** argv) {
  using namespace armure::cli;
  armure::usePlainNumerals();
  CLI::App app{"Drafts boned bodices from measurements.", "armure-cli"};
  app.require_subcommand(1);
  app.set_version_flag("--version", "armure-cli " + std::string(armure::programVersion()));
  app.fallthrough();  // --units after the command as well
  std::string units;
  app.add_option("--units", units, "of the answer: in, cm or mm; else the order's")
      ->check(CLI::IsMember({"in", "cm", "mm"}));

  NewArguments made;
  made.style = "sweetheart-zip";
  made.school = "quarter-grid";
  auto* create = app.add_subcommand("new", "an order from a list of measures");
  create->add_option("--measurements", made.measurements, "CSV with measure,value,unit,note")->required();
  create->add_option("--style", made.style, "see `armure-cli styles`");
  create->add_option("--school", made.school, "see `armure-cli schools`");
  create->add_option("--title", made.title, "name of the order");
  create->add_option("--set", made.settings, "KEY=VALUE, see `armure-cli keys`");
  create->add_option("-o,--output", made.output, "order file to write")->required();

  std::string order;
  bool json = false;
  const char *kForce = "also over a file of another kind", *kDoneAsJson = "what was done, as JSON";
  create->add_flag("--force", made.force, kForce);
  create->add_flag("--json", made.json, kDoneAsJson);
  std::vector<std::string> orders;
  auto* checked = app.add_subcommand("check", "the balance sheet of orders");
  checked->add_option("orders", orders, "order files")->required();
  checked->add_flag("--json", json, "as JSON");

  auto* tried = app.add_subcommand("try", "the shell tried on the body: how levels, bust point and top edge sit");
  tried->add_option("order", order, "order file")->required();
  tried->add_flag("--json", json, "as JSON");
  std::optional<double> laced;
  std::string half;
  tried->add_option("--half", half, "left or right, where they are not alike; else left");
  tried->add_option("--laced", laced, "laced with this tension, N/cm, instead of to its gap")
      ->check(CLI::Range(0.0, 50.0));

  ExportArguments exported;
  auto* exporting = app.add_subcommand("export", "the pattern as files");
  exporting->add_option("orders", exported.orders, "order files; several with --into")->required();
  for (const armure::Exporter& e : armure::exporterTable())
    exporting->add_option(fmt::format("--{}", e.id), exported.files[std::string(e.id)], std::string(e.help));
  exporting->add_option("--paper", exported.paper, papersInWords() + "; the order's own (paper.size) where not given");
  exporting->add_option("--roll", exported.roll, "on a roll as wide as this, instead of --paper");
  exporting->add_option("--only", exported.only, "these pieces, by id: front-1,back-2")->delimiter(',');
  exporting->add_option("--layers", exported.layers, "the pieces of these layers: shell,lining")->delimiter(',');
  exporting->add_option("--into", exported.into, "a folder: every order's files, named as it");
  exporting->add_option("--as", exported.as, "what to write there, by option: pdf,svg,sheet")->delimiter(',');
  exporting->add_flag("--force", exported.force, kForce);
  exporting->add_flag("--json", exported.json, kDoneAsJson);

  ExportArguments sheets;
  std::string sheetPdf, sheetHtml;
  bool byHand = false;
  auto* sheet = app.add_subcommand("sheet", "the job sheet, or the block to draw by hand");
  sheets.orders.emplace_back();
  sheet->add_option("order", sheets.orders[0], "order file")->required();
  sheet->add_option("--pdf", sheetPdf, "as PDF");
  sheet->add_option("--html", sheetHtml, "as HTML");
  sheet->add_flag("--by-hand", byHand, "the block to draw by hand, with every number of it");
  sheet->add_flag("--force", sheets.force, kForce);
  sheet->add_flag("--json", sheets.json, kDoneAsJson);

  SetArguments changed;
  auto* setting = app.add_subcommand("set", "another order with some choices or measures changed");
  setting->add_option("order", changed.order, "order file")->required();
  setting->add_option("settings", changed.settings, "KEY=VALUE ...")->required();
  setting->add_option("-o,--output", changed.output, "order file to write")->required();
  setting->add_flag("--force", changed.force, kForce);
  setting->add_flag("--json", changed.json, kDoneAsJson);

  AlterOptions alteringOptions(app);

  auto* listed = app.add_subcommand("list", "what is cut and what is bought: pieces, bones, notions");
  listed->add_option("order", order, "order file")->required();
  listed->add_flag("--json", json, "as JSON, in mm");
  LayArguments laid;
  auto* laying = app.add_subcommand("lay", "every piece on its cloth: how much is needed, and where each lies");
  laying->add_option("order", laid.order, "order file")->required();
  laying->add_option("--cloth", laid.cloth, "this cloth alone");
  laying->add_option("--width", laid.width, "another width than the order's; of all cloths, or of the one named");
  laying->add_option("--seconds", laid.seconds, "how long to look for a shorter layout, for each cloth; 5 by default")
      ->check(CLI::Range(0.0, 3600.0));
  laying->add_option("--svg", laid.svg, "the layouts as a drawing at true size");
  laying->add_flag("--json", laid.asJson, "as JSON, in mm");
  laying->add_flag("--force", laid.force, kForce);
  auto* measured = app.add_subcommand("measures", "the measures in use, taken or estimated");
  measured->add_option("order", order, "order file")->required();
  measured->add_flag("--json", json, "as JSON");
  auto* listStyles = app.add_subcommand("styles", "the styles, one a line");
  listStyles->add_flag("--json", json, "as JSON");
  auto* listSchools = app.add_subcommand("schools", "the schools, one a line");
  listSchools->add_flag("--json", json, "as JSON");
  std::string about, topic;
  auto* listKeys = app.add_subcommand("keys", "every choice: key, type, range, default");
  listKeys->add_option("about", about, "only keys about this word, by group, with what every option means");
  listKeys->add_flag("--json", json, "as JSON");
  auto* helping = app.add_subcommand("help", "about a command or a topic: units, streams, exit-codes ...");
  helping->add_option("topic", topic, "command or topic");

  try {
    app.parse(argc, argv);
  } catch (const CLI::ParseError& e) {
    if (e.get_exit_code() != 0) return complain(unread(app, e, argc, argv));
    std::ostringstream answer, complaint;  // --help, --version
    app.exit(e, answer, complaint);
    Printer out;
    out.print("{}", answer.str());
    if (const auto problem = out.flush()) return complain(*problem);
    return kDone;
  }
  Printer out;
  if (!units.empty()) out.units = *armure::parseUnit(units);
  int code = kBadInput;
  try {
    if (*create) code = newOrder(out, made);
    if (*helping) code = help(out, app, topic);
    if (*checked) code = check(out, orders, json);
    if (*tried) code = tryOnBody(out, order, half, laced, json);
    if (*exporting) code = exportWith(argv, out, exported);
    if (*sheet) {
      sheets.files[byHand ? "by-hand" : "sheet"] = sheetPdf;
      sheets.files[byHand ? "by-hand-html" : "sheet-html"] = sheetHtml;
      code = exportWith(argv, out, sheets);
    }
    if (*setting) code = set(out, changed);
    if (const auto done = alteringOptions.run(out)) code = *done;
    if (*listed) code = listAll(out, order, json);
    if (*laying) code = lay(out, laid);
    if (*measured) code = measures(out, order, json);
    if (*listStyles) code = styles(out, json);
    if (*listSchools) code = schools(out, json);
    if (*listKeys) code = keys(out, about, json);
  } catch (const std::exception& e) {
    return complain({"armure-cli",
                     armure::msg("the program met something it did not expect ({})", armure::quotable(e.what())),
                     "nothing was written; please keep the files, this is a fault of the program"});
  }
  if (const auto problem = out.flush()) return complain(*problem);
  return code;
}
