#include "cli/alter_options.h"

namespace armure::cli {
namespace {

constexpr const char* kForce = "also over a file of another kind";

}  // namespace

AlterOptions::AlterOptions(CLI::App& app) {
  addBase(app);
  addRecalc(app);
  addShifts(app);
  addAlter(app);
  addFit(app);
}

std::optional<int> AlterOptions::run(Printer& out) const {
  if (*keeping_) return keepBase(out, kept_);
  if (*importing_) return importBase(out, imported_);
  if (*listing_) return listBases(out, folder_, json_);
  if (*recalculating_) return recalcFromBase(out, recalculated_);
  if (*shifting_) return shifts(out, order_, json_);
  if (*altering_) return alterOrder(out, altered_);
  if (*fitting_) return fit(out, fitted_);
  return std::nullopt;
}

void AlterOptions::addBase(CLI::App& app) {
  auto* base = app.add_subcommand("base", "trusted base patterns: kept from orders, imported, listed");
  base->require_subcommand(1);
  keeping_ = base->add_subcommand("keep", "an order's pattern as a base");
  keeping_->add_option("order", kept_.order, "order file")->required();
  keeping_->add_option("--measured", kept_.measured,
                       "CSV of what was measured on it as made; else what it was drafted for");
  keeping_->add_option("--name", kept_.name, "what it is called; else as the order");
  keeping_->add_option("--date", kept_.date, "when it was made up; else today");
  keeping_->add_option("-o,--output", kept_.output, "base file to write; else into the library");
  keeping_->add_flag("--force", kept_.force, kForce);
  importing_ = base->add_subcommand("import", "pieces of an SVG or DXF drawing as a base");
  importing_->add_option("drawing", imported_.drawing, "SVG or DXF (ASCII)")->required();
  importing_->add_option("--scale", imported_.scale, "every length of the drawing times this");
  importing_->add_option("--known", imported_.known, "X,Y,X,Y=LENGTH: two places of it, mm, and their true distance");
  importing_->add_option("--names", imported_.names,
                         "JSON of what its lines are (docs/format/tracing.schema.json); without it what is guessed is "
                         "written, to be corrected");
  importing_->add_option("--measured", imported_.measured, "CSV of what it measures as made; needed with --names");
  importing_->add_option("--name", imported_.name, "what it is called; else as the file");
  importing_->add_option("--date", imported_.date, "when it was made up; else today");
  importing_->add_option("-o,--output", imported_.output, "base file to write; else into the library");
  importing_->add_flag("--force", imported_.force, kForce);
  listing_ = base->add_subcommand("list", "the bases of the library, or of a folder");
  listing_->add_option("folder", folder_, "folder");
  listing_->add_flag("--json", json_, "as JSON");
}

void AlterOptions::addRecalc(CLI::App& app) {
  recalculated_.from = "waist";
  recalculated_.rest = "lines";
  recalculating_ = app.add_subcommand("recalc", "an order from a base, recalculated for a client");
  recalculating_->add_option("--base", recalculated_.base, "base file")->required();
  recalculating_->add_option("--measurements", recalculated_.measurements, "CSV with measure,value,unit,note")
      ->required();
  recalculating_->add_option("--from", recalculated_.from, "waist or underbust: where both sides are solved from");
  recalculating_->add_option("--rest", recalculated_.rest, "lines or sides: where what would spoil the side goes");
  recalculating_->add_option("--cell", recalculated_.cells,
                             "CELL=LENGTH, written over a cell: waist.x, bust.f, e0, ...");
  recalculating_->add_option("--set", recalculated_.settings, "KEY=VALUE, see `armure-cli keys`");
  recalculating_->add_option("--title", recalculated_.title, "name of the order");
  recalculating_->add_option("-o,--output", recalculated_.output, "order file to write")->required();
  recalculating_->add_flag("--force", recalculated_.force, kForce);
}

void AlterOptions::addShifts(CLI::App& app) {
  shifting_ = app.add_subcommand("shifts", "the table of shifts of a recalculated order");
  shifting_->add_option("order", order_, "order file")->required();
  shifting_->add_flag("--json", json_, "as JSON, in mm");
}

void AlterOptions::addAlter(CLI::App& app) {
  altered_.sides = "both";
  altered_.half = "both";
  altering_ = app.add_subcommand("alter", "another order with an alteration more, or one switched on or off");
  altering_->add_option("order", altered_.order, "order file")->required();
  altering_->add_option("--seam,--line", altered_.line, "seam, PIECE.EDGE, or every-line (with --along)");
  altering_->add_option("--from", altered_.from, "level it runs out at above, or top");
  altering_->add_option("--to", altered_.to, "level it runs out at below, or hem");
  altering_->add_option("--by", altered_.by, "length of the whole seam: let out, or (less than nothing) taken in");
  altering_->add_option("--side", altered_.sides, "both edges, a, b, or over: what a gains b loses");
  altering_->add_option("--half", altered_.half, "of the body, as the wearer has it: both, left or right");
  altering_->add_flag("--along", altered_.along, "lengthen, or shorten, between the levels");
  altering_->add_option("--name", altered_.name, "what it is called");
  altering_->add_option("--date", altered_.date, "else today");
  altering_->add_option("--why", altered_.why, "what was seen");
  altering_->add_option("--on", altered_.on, "switch this alteration on");
  altering_->add_option("--off", altered_.off, "switch it off");
  altering_->add_option("--remove", altered_.remove, "take it away");
  altering_->add_flag("--list", altered_.list, "only list the order's alterations");
  altering_->add_flag("--json", altered_.json, "the list as JSON");
  altering_->add_option("-o,--output", altered_.output, "order file to write");
  altering_->add_flag("--force", altered_.force, kForce);
}

void AlterOptions::addFit(CLI::App& app) {
  fitting_ = app.add_subcommand("fit", "a note of a fitting; with --take the pattern altered as its notes ask");
  fitting_->add_option("order", fitted_.order, "order file")->required();
  fitting_->add_option("--date", fitted_.date, "of the fitting; one of that date is added to; else today");
  fitting_->add_option("--on", fitted_.on, "toile or garment");
  fitting_->add_option("--gap", fitted_.gap, "worn closed to this");
  fitting_->add_option("--complaint", fitted_.complaint, "what was seen, by its id; see --complaints");
  fitting_->add_option("--seam,--line", fitted_.line, "seam, or every-line");
  fitting_->add_option("--work", fitted_.work,
                       "take-in, let-out, raise, lower, lengthen, shorten, deeper, shallower, forward, backward");
  fitting_->add_option("--from", fitted_.from, "level it runs out at above, or top");
  fitting_->add_option("--to", fitted_.to, "level it runs out at below, or hem");
  fitting_->add_option("--by", fitted_.by, "length of the whole seam, or of the whole girth (of one half: of that)");
  fitting_->add_option("--half", fitted_.half, "of the body, as the wearer has it: both (also unsaid), left or right");
  fitting_->add_option("--seen", fitted_.seen, "in your own words");
  fitting_->add_flag("--take", fitted_.take, "alter the pattern as all notes of the fitting ask");
  fitting_->add_flag("--complaints", fitted_.complaints, "only list the usual complaints");
  fitting_->add_flag("--json", fitted_.json, "the list as JSON");
  fitting_->add_option("-o,--output", fitted_.output, "order file to write");
  fitting_->add_flag("--force", fitted_.force, kForce);
}

}  // namespace armure::cli
