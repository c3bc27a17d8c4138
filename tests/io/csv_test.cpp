// Measurement lists: what is read, and what is refused with its line.
#include <catch2/catch.hpp>

#include "io/measurement_csv.h"
#include "measure/takings.h"
#include "tests/support/bodies.h"

using namespace armure;

namespace {

std::string problemOf(const std::string& text) {
  const auto r = parseMeasurements(text, "m.csv");
  REQUIRE_FALSE(r.ok());
  CHECK_FALSE(r.problem().what.empty());
  CHECK_FALSE(r.problem().remedy.empty());
  return english(r.problem().where);
}

const std::string kHeader = "measure,value,unit,note\n";

}  // namespace

TEST_CASE("a list in inches and centimetres, with fractions, comments and notes") {
  const auto r = parseMeasurements(
      "\xEF\xBB\xBF# taken standing\r\nmeasure,value,unit,note\r\n\r\nclient,Ann Example,,\ndate,2026-01-02,,\nbust,36 "
      "1/2,in,\nwaist,\"71,5\",cm,\"said \"\"snug\"\"\"\nhip,38½,in,\nknee_dimple,3,in,\nweight,62.5,kg,\n",
      "m.csv");
  REQUIRE(r.ok());
  CHECK(r->client == "Ann Example");
  CHECK(r->date == "2026-01-02");
  CHECK(*r->measures.mm("bust") == Approx(927.1));
  CHECK(*r->measures.mm("waist") == Approx(715));
  CHECK(*r->measures.mm("hip") == Approx(38.5 * 25.4));
  CHECK(r->measures.all().find("waist")->second.note == "said \"snug\"");
  CHECK(*r->measures.mm("weight") == Approx(62.5));
  CHECK(r->measures.has("knee_dimple"));  // kept
  REQUIRE(r->warnings.size() == 1);       // and warned about
  CHECK(r->warnings[0].find("line 9") != std::string::npos);
  CHECK(r->unit == Unit::Inch);
}

TEST_CASE("what is wrong is named with its line") {
  CHECK(problemOf("") == "m.csv");
  CHECK(problemOf("\n \n") == "m.csv");
  CHECK(problemOf(std::string("\x7F"
                              "ELF\0\x01\x02",
                              7)) == "m.csv");
  CHECK(problemOf("\xFF\xFE"
                  "b,u") == "m.csv");
  CHECK(problemOf("name,number\nbust,36\n") == "m.csv, line 1");
  CHECK(problemOf(kHeader) == "m.csv");
  CHECK(problemOf(kHeader + "bust,36,,\n") == "m.csv, line 2");  // no unit
  CHECK(problemOf(kHeader + "bust,36,ft,\n") == "m.csv, line 2");
  CHECK(problemOf(kHeader + "# note\nbust,9 1/,in,\n") == "m.csv, line 3");
  CHECK(problemOf(kHeader + "bust,-36,in,\n") == "m.csv, line 2");
  CHECK(problemOf(kHeader + "bust,4000,cm,\n") == "m.csv, line 2");
  CHECK(problemOf(kHeader + "bust,NaN,in,\n") == "m.csv, line 2");
  CHECK(problemOf(kHeader + "bust,,in,\n") == "m.csv, line 2");
  CHECK(problemOf(kHeader + "bust,36,in,\nbust,37,in,\n") == "m.csv, line 3");
  CHECK(problemOf(kHeader + "bust,36,in,\"open\n") == "m.csv, line 2");
  CHECK(problemOf(kHeader + "weight,62,in,\n") == "m.csv, line 2");
}

TEST_CASE("a list that was written is read back the same") {
  const std::string text =
      kHeader + "client,\"Example, Ann\",,\nbust,36 1/2,in,\nwaist,71.5,cm,\nhip,965.2,mm,loose\nodd_one,3,in,\n";
  const auto first = parseMeasurements(text, "a");
  REQUIRE(first.ok());
  const std::string written = writeMeasurements(first->measures, first->client, first->date);
  const auto second = parseMeasurements(written, "b");
  REQUIRE(second.ok());
  CHECK(second->measures == first->measures);
  CHECK(second->client == first->client);
  CHECK(written == writeMeasurements(second->measures, second->client, second->date));
}

TEST_CASE("no text makes the reader fail otherwise than with a problem") {
  std::string base = kHeader + "bust,36 1/2,in,\nwaist,\"71,5\",cm,x\n";
  for (size_t i = 0; i < base.size(); ++i) {
    for (char c : {'\0', '"', ',', '\n', '/', '9', '-', '\xC2'}) {
      std::string broken = base;
      broken[i] = c;
      const auto r = parseMeasurements(broken, "m.csv");
      if (!r.ok()) CHECK_FALSE(r.problem().text().empty());
    }
    (void)parseMeasurements(base.substr(0, i), "m.csv");
  }
}

TEST_CASE("of several takings the list carries the one that counts, and tells the others in the note") {
  MeasureSet m;
  m.set("waist", measureOf(*readTakings("waist", "26; 26 1/2", Unit::Inch), Use::Last, ""));
  m.set("hip", measureOf(*readTakings("hip", "37; 37 1/2", Unit::Inch), Use::Mean, ""));
  m.set("bust", measureOf(*readTakings("bust", "34; 35", Unit::Inch), Use::Mean, "her own note"));
  const std::string text = writeMeasurements(m, "", "");
  CHECK(text.find("waist,26 1/2,in,last of 26 in; 26 1/2 in") != std::string::npos);
  CHECK(text.find("hip,946.15,mm,mean of 37 in; 37 1/2 in") != std::string::npos);
  CHECK(text.find("her own note") != std::string::npos);
  const auto back = parseMeasurements(text, "m.csv");
  REQUIRE(back.ok());
  for (const auto& [id, measure] : m.all()) CHECK(*back->measures.mm(id) == Approx(measure.mm));
}
