// Reading members of a JSON file one by one: what is wrong is said with its whole place, the first thing wrong counts.
#include "io/member_reader.h"

#include <catch2/catch.hpp>

#include "io/order_file.h"
#include "order/free_id.h"
#include "tests/support/bodies.h"
#include "tests/support/design.h"

using namespace armure;
using namespace armure::testing;

namespace {

enum class Colour { Red, Green };
std::string_view colourId(Colour c) { return c == Colour::Red ? "red" : "green"; }

std::string placeOfProblem(const MemberReader& in) { return in.problem() ? english(in.problem()->where) : ""; }

// An alteration of random shifts, and a fitting of random notes.
Alteration randomAlteration(Dice& dice, int n) {
  Alteration a{.id = std::to_string(n), .name = "alteration " + std::to_string(n), .on = dice.between(0, 1) < 0.7};
  if (dice.between(0, 1) < 0.5) a.why = "stands \"off\", \\ seated";
  const int shifts = static_cast<int>(dice.between(0, 3.99));
  for (int i = 0; i < shifts; ++i) {
    Shift s{i == 0 ? "side" : "front-1.fold",
            static_cast<ShiftSides>(static_cast<int>(dice.between(0, 3.99))),
            dice.between(0, 1) < 0.5 ? ShiftWay::Across : ShiftWay::Along,
            {}};
    for (const char* place : {"top", "bust", "bust~underbust", "waist", "hem"})
      if (dice.between(0, 1) < 0.6) s.at.push_back({place, dice.between(-30, 30)});
    a.shifts.push_back(std::move(s));
  }
  return a;
}

Fitting randomFitting(Dice& dice, int n) {
  Fitting f{.id = std::to_string(n), .date = "2026-10-0" + std::to_string(n % 9 + 1)};
  f.on = dice.between(0, 1) < 0.5 ? FittedOn::Toile : FittedOn::Garment;
  if (dice.between(0, 1) < 0.5) f.gap = dice.between(0, 120);
  const int notes = static_cast<int>(dice.between(0, 5.99));
  for (int i = 0; i < notes; ++i) {
    FitNote note;
    note.work = *(kFitWorks.begin() + static_cast<int>(dice.between(0, 9.99)));
    note.line = dice.between(0, 1) < 0.5 ? "side" : "";
    note.from = "bust";
    note.to = "hem";
    note.mm = dice.between(0.1, 40);
    if (dice.between(0, 1) < 0.5) note.complaint = "waist-low";
    f.notes.push_back(note);
  }
  return f;
}

}  // namespace

TEST_CASE("texts, numbers, yes and no, one of some words: each may be left out, and nothing else may stand there") {
  const Json doc = Json::parse(R"({"text": "a", "number": 2.5, "yes": true, "colour": "green"})");
  MemberReader in("f");
  std::string text = "before", other = "before";
  double number = 0, absent = 7;
  bool yes = false;
  Colour colour = Colour::Red;
  in.text(doc, "text", text);
  in.text(doc, "nothing", other);
  in.number(doc, "number", number, 0, 10);
  in.number(doc, "nothing", absent, 0, 10);
  in.flag(doc, "yes", yes);
  in.option(doc, "colour", colour, {Colour::Red, Colour::Green}, colourId);
  CHECK_FALSE(in.problem());
  CHECK((text == "a" && other == "before" && number == 2.5 && absent == 7 && yes && colour == Colour::Green));
  const auto wrong = [&](const char* json, auto read) {
    MemberReader reader("f");
    const Json object = Json::parse(json);
    read(reader, object);
    REQUIRE(reader.problem());
    CHECK_FALSE(reader.problem()->remedy.empty());
    return placeOfProblem(reader);
  };
  CHECK(wrong(R"({"t": 1})", [&](auto& r, auto& o) { r.text(o, "t", text); }) == "f, t");
  CHECK(wrong(R"({"n": "1"})", [&](auto& r, auto& o) { r.number(o, "n", number, 0, 10); }) == "f, n");
  CHECK(wrong(R"({"n": 11})", [&](auto& r, auto& o) { r.number(o, "n", number, 0, 10); }) == "f, n");
  CHECK(wrong(R"({"y": 1})", [&](auto& r, auto& o) { r.flag(o, "y", yes); }) == "f, y");
  CHECK(wrong(R"({"c": "blue"})", [&](auto& r, auto& o) {
          r.option(o, "c", colour, {Colour::Red, Colour::Green}, colourId);
        }) == "f, c");
}

TEST_CASE("the place of what is wrong is told through lists and objects, and the first thing wrong counts") {
  const Json doc = Json::parse(R"({"list": [{"n": 1}, {"n": "x"}, {"n": "y"}], "odd": [1], "long": [{}, {}, {}]})");
  MemberReader in("f");
  double n = 0;
  in.enter("outer");
  in.list(doc, "list", 5, [&](const Json& one) { in.number(one, "n", n, 0, 10); });
  in.leave();
  CHECK(placeOfProblem(in) == "f, outer.list.2.n");
  MemberReader odd("f");
  odd.list(doc, "odd", 5, [](const Json&) { FAIL("read"); });
  CHECK(placeOfProblem(odd) == "f, odd.1");
  MemberReader tooLong("f");
  tooLong.list(doc, "long", 2, [](const Json&) { FAIL("read"); });
  CHECK(placeOfProblem(tooLong) == "f, long");
  MemberReader none("f");
  none.list(doc, "nothing", 2, [](const Json&) { FAIL("read"); });
  CHECK_FALSE(none.problem());
}

TEST_CASE("twenty warnings are told, and how many more there are") {
  MemberReader in("f");
  for (int i = 0; i < 25; ++i) in.warn("odd " + std::to_string(i));
  const std::vector<std::string> told = std::move(in).warnings();
  REQUIRE(told.size() == 21);
  CHECK(told.back() == "and 5 more like these");
}

TEST_CASE("measures and choices are read as an order reads them, wherever they stand") {
  const Json doc = Json::parse(R"({"made": {"waist": {"mm": 700, "typed": "27 in"}, "elbow": {"mm": 3}},
                                   "choices": {"hem.length": "5 in", "future": "x"}})");
  MemberReader in("f");
  in.enter("base");
  MeasureSet made;
  Choices choices;
  in.measures(doc, "made", made);
  in.choices(doc, "choices", choices);
  in.leave();
  REQUIRE_FALSE(in.problem());
  CHECK(made.mm("waist") == 700);
  CHECK(choices.at("future") == "x");
  const std::vector<std::string> told = std::move(in).warnings();
  REQUIRE(told.size() == 3);
  CHECK(told[0].find("base.made.waist") != std::string::npos);  // 27 in are not 700 mm
  MemberReader wrong("f");
  MeasureSet none;
  const Json bad = Json::parse(R"({"made": {"waist": {"mm": 70000}}})");
  wrong.enter("base");
  wrong.measures(bad, "made", none);
  CHECK(placeOfProblem(wrong) == "f, base.made.waist");
}

TEST_CASE("whatever an order holds of alterations and fittings is read back as it was written") {
  Dice dice(31);
  for (int trial = 0; trial < 60; ++trial) {
    Order o = plainOrder();
    const int count = static_cast<int>(dice.between(0, 4.99));
    for (int n = 1; n <= count; ++n) {
      o.alterations.push_back(randomAlteration(dice, n));
      o.fittings.push_back(randomFitting(dice, n));
    }
    if (dice.between(0, 1) < 0.3) {
      Order state = withRevision(o, "kept", "2026-11-0" + std::to_string(trial % 9 + 1));
      o = state;
    }
    const std::string text = orderText({o, "", {}});
    const auto read = parseOrder(text, "o");
    if (!read.ok()) FAIL(read.problem().text());
    CHECK(read->order == o);
    CHECK(orderText(*read) == text);
  }
}

TEST_CASE("a new entry gets an id nobody has") {
  std::vector<Alteration> all;
  CHECK(freeId(all) == "1");
  all = {{.id = "2", .name = ""}, {.id = "3", .name = ""}};
  CHECK(freeId(all) == "4");  // the third, and 3 is taken
  all.push_back({.id = "4", .name = ""});
  CHECK(freeId(all) == "5");
}

TEST_CASE("what a revision holds that is not known stays in it") {
  const std::string text = orderText({withRevision(plainOrder(), "first", "2026-11-01"), "", {}});
  std::string more = text;
  const size_t at = more.find("\"name\": \"first\"");
  REQUIRE(at != std::string::npos);
  more.insert(at, "\"madeBy\": \"M.\",\n      ");
  const auto read = parseOrder(more, "o");
  REQUIRE(read.ok());
  CHECK(orderText(*read) == more);
  OrderFile changed = *read;
  changed.order = withRevision(changed.order, "second", "2026-11-02");
  CHECK(orderText(changed).find("\"madeBy\": \"M.\"") != std::string::npos);
  CHECK(parseOrder(orderText(changed), "o")->order.revisions.size() == 2);
}
