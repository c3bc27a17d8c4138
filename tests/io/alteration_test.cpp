// Alterations, fittings, recalculations and revisions in order files; base files.
#include <unistd.h>

#include <catch2/catch.hpp>
#include <filesystem>
#include <fstream>

#include "io/base_file.h"
#include "io/order_file.h"
#include "order/order_words.h"
#include "recalc/bases.h"
#include "tests/support/bodies.h"
#include "tests/support/design.h"

using namespace armure;
using namespace armure::testing;
namespace fs = std::filesystem;

namespace {

Order fullOrder() {
  Order o = plainOrder();
  o.base = Recalculation{};
  o.base->base.name = "Base \"one\"";
  o.base->base.measures = allMeasuresOf(realBodies()[50], 90);
  o.base->base.made.set("waist", {700.5, "", "on the toile"});
  o.base->base.choices = choicesOfNewOrders();
  o.base->base.alterations = {{.id = "1", .name = "of the base"}};
  o.base->from = SolvedFrom::Underbust;
  o.base->rest = RestGoes::ToSides;
  o.base->cells = {{"waist.x", -3.25}, {"e0", 0}};
  Alteration a{.id = "a", .name = "side", .date = "2026-11-30", .why = "stands off", .on = false, .fitting = "1"};
  a.shifts = {{"side", ShiftSides::Over, ShiftWay::Across, {{"bust", 0}, {"bust~underbust", -2.5}, {"hem", 1}}},
              {"every-line", ShiftSides::Both, ShiftWay::Along, {{"top", -6}, {"bust", 0}}, BodySide::Left},
              {"front-1.fold", ShiftSides::A, ShiftWay::Across, {{"top", 3}}}};
  o.alterations = {a, {.id = "b", .name = "nothing"}};
  Fitting f{.id = "1", .date = "2026-10-02", .on = FittedOn::Garment, .gap = 50.8};
  for (const FitWork w : {FitWork::TakeIn, FitWork::LetOut, FitWork::Raise, FitWork::Lower, FitWork::Lengthen,
                          FitWork::Shorten, FitWork::Deeper, FitWork::Shallower, FitWork::Forward, FitWork::Backward}) {
    FitNote n;
    n.work = w;
    n.line = "side";
    n.from = "waist";
    n.to = "hem";
    n.mm = 6;
    n.seen = "leans";
    if (w == FitWork::Forward) n.half = BodySide::Right;
    f.notes.push_back(n);
  }
  o.fittings = {f};
  return withRevision(o, "before the toile", "2026-09-01");
}

std::string exchanged(std::string text, const std::string& from, const std::string& to) {
  const size_t at = text.find(from);
  REQUIRE(at != std::string::npos);
  return text.replace(at, from.size(), to);
}

}  // namespace

TEST_CASE("which side of the body is kept where it is one, and not said where it is both") {
  const std::string text = orderText({fullOrder(), "", {}});
  const auto count = [&](const char* said) {
    size_t n = 0;
    for (size_t at = text.find(said); at != std::string::npos; at = text.find(said, at + 1)) ++n;
    return n;
  };
  CHECK(count("\"half\": \"left\"") == 2);  // and once in the revision
  CHECK(count("\"half\": \"right\"") == 2);
  CHECK(count("\"half\": \"both\"") == 0);
  const auto wrong = parseOrder(exchanged(text, "\"half\": \"left\"", "\"half\": \"upper\""), "o");
  REQUIRE_FALSE(wrong.ok());
  CHECK(wrong.problem().text().find("half") != std::string::npos);
  CHECK(wrong.problem().text().find("left") != std::string::npos);
}

TEST_CASE("alterations, fittings, base and revisions are read back as they were written") {
  const Order o = fullOrder();
  const std::string text = orderText({o, "", {}});
  const auto read = parseOrder(text, "o");
  REQUIRE(read.ok());
  CHECK(read->warnings.empty());
  CHECK(read->order == o);
  CHECK(orderText(*read) == text);
  // Members that are not known stay with their alteration, wherever it goes.
  const std::string more = exchanged(text, "\"name\": \"side\"", "\"name\": \"side\",\n      \"seenBy\": \"M.\"");
  OrderFile changed = parseOrder(more, "o").value();
  CHECK(orderText(changed) == more);
  std::swap(changed.order.alterations[0], changed.order.alterations[1]);
  CHECK(orderText(changed).find("\"seenBy\": \"M.\"") != std::string::npos);
  changed.order.alterations.clear();
  changed.order.fittings.clear();
  changed.order.base.reset();
  changed.order.revisions.clear();
  for (const char* gone : {"alterations", "fittings", "recalculation", "revisions"})
    CHECK(orderText(changed).find(gone) == std::string::npos);
}

TEST_CASE("what cannot be meant is refused, and says where") {
  const std::string text = orderText({fullOrder(), "", {}});
  for (const auto& [from, to, where] :
       {std::tuple{"\"sides\": \"over\"", "\"sides\": \"left\"", "alterations.1.shifts.1"},
        {"\"mm\": -2.5", "\"mm\": 1e9", "alterations.1.shifts.1.at.2.mm"},
        {"\"mm\": -2.5", "\"mm\": \"a\"", "alterations.1.shifts.1.at.2.mm"},
        {"\"id\": \"b\"", "\"id\": \"a\"", "alterations"},
        {"\"on\": false", "\"on\": 0", "alterations.1.on"},
        {"\"work\": \"raise\"", "\"work\": \"up\"", "fittings.1.notes.3.work"},
        {"\"waist.x\": -3.25", "\"knee.x\": -3.25", "recalculation.cells.knee.x"},
        {"\"from\": \"underbust\"", "\"from\": \"knee\"", "recalculation.from"},
        {"\"mm\": 700.5", "\"mm\": 7", "recalculation.base.made.waist"}}) {
    const auto read = parseOrder(exchanged(text, from, to), "o");
    INFO(to);
    REQUIRE_FALSE(read.ok());
    INFO(read.problem().text());
    CHECK(read.problem().text().find(where) != std::string::npos);
  }
}

TEST_CASE("a state that was kept is taken up again, with all that were kept") {
  Order o = plainOrder();
  const Order first = withRevision(o, "one", "2026-11-01");
  Order changed = first;
  changed.choices["hem.length"] = "3 in";
  changed = withRevision(changed, "two", "2026-11-02");
  REQUIRE(changed.revisions.size() == 2);
  const Order again = takenUp(changed, changed.revisions[0]);
  CHECK(again.choices == o.choices);
  CHECK(again.revisions == changed.revisions);
  CHECK(changed.revisions[1].order->revisions.empty());
}

TEST_CASE("a base is kept, found in its folder, and read back") {
  const fs::path folder = fs::temp_directory_path() / ("armure-bases-" + std::to_string(::getpid()));
  fs::create_directories(folder);
  const Order o = plainOrder();
  MeasureSet made;
  made.set("waist", {712, "71.2 cm", ""});
  const auto base = keptAsBase(o, made, "Plain, made up / 2", "2026-11-30");
  REQUIRE(base.ok());
  const fs::path path = newBasePath(folder, base->name);
  CHECK(path.filename() == "Plain-made-up-2.armure-base");
  REQUIRE_FALSE(writeBase(path, {*base, "", {}}).has_value());
  CHECK(newBasePath(folder, base->name).filename() == "Plain-made-up-2-2.armure-base");
  CHECK(basesIn(folder) == std::vector<fs::path>{path});
  CHECK(basesIn(folder / "nowhere").empty());
  const auto read = readBase(path);
  REQUIRE(read.ok());
  CHECK(read->base == *base);
  CHECK(baseText(*read) == read->original);
  CHECK((fs::status(path).permissions() & (fs::perms::group_all | fs::perms::others_all)) == fs::perms::none);
  for (const auto& [from, to] : {std::pair{"armure-base", "armure-order"}, {"\"version\": 1", "\"version\": 2"}}) {
    const auto broken = parseBase(exchanged(read->original, from, to), "b");
    REQUIRE_FALSE(broken.ok());
    CHECK_FALSE(broken.problem().remedy.empty());
  }
  CHECK_FALSE(parseBase("", "b").ok());
  CHECK_FALSE(parseBase("{", "b").ok());
  fs::remove_all(folder);
}
