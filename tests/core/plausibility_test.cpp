// Questions about the measures: where they are asked, what they say, and where they are not.
#include <catch2/catch.hpp>

#include "io/measurement_csv.h"
#include "measure/measure_table.h"
#include "measure/plausibility.h"
#include "measure/takings.h"
#include "tests/support/bodies.h"
#include "units/language.h"

using namespace armure;
using namespace armure::testing;

namespace {

MeasureSet plainWith(const char* id, double inch) {
  MeasureSet m = plainFigure();
  m.set(id, {inches(inch), formatExact(inches(inch), Unit::Inch) + " in"});
  return m;
}

std::vector<Question> about(const MeasureSet& measures, std::string_view id) {
  std::vector<Question> found;
  for (Question& q : questionsAbout(measures))
    if (q.measure == id || q.other == id) found.push_back(std::move(q));
  return found;
}

bool asked(const MeasureSet& measures, std::string_view id) {
  const auto found = about(measures, id);
  return !found.empty() && found.front().severity != Severity::Note;
}

std::vector<MeasurementFile> demoClients() {
  std::vector<MeasurementFile> files;
  for (const char* name :
       {"thomasin-autumn", "thomasin-spring", "odalys-autumn", "odalys-spring", "perpetua-autumn", "perpetua-spring"})
    files.push_back(*readMeasurements(sourceDir() + "/demo/" + name + ".csv"));
  return files;
}

// Every way to swap two digits of a text.
std::vector<std::string> swaps(const std::string& typed) {
  std::vector<std::string> all;
  for (size_t i = 0; i < typed.size(); ++i)
    for (size_t k = i + 1; k < typed.size(); ++k) {
      if (!isdigit(typed[i]) || !isdigit(typed[k]) || typed[i] == typed[k]) continue;
      std::string swapped = typed;
      std::swap(swapped[i], swapped[k]);
      all.push_back(swapped);
    }
  return all;
}

}  // namespace

TEST_CASE("a plain figure is asked nothing") { CHECK(questionsAbout(plainFigure()).empty()); }

TEST_CASE("two measures that cannot both be true contradict each other, and both are named") {
  const auto contradicts = [](const char* id, double inch, std::string_view other) {
    const auto found = about(plainWith(id, inch), id);
    REQUIRE_FALSE(found.empty());
    INFO(found.front().text);
    CHECK(found.front().severity == Severity::Contradiction);
    CHECK((found.front().other == other || found.front().measure == other));
    const auto names = [&](std::string_view measure) {  // within the sentence it begins with a small letter
      const std::string rest(findMeasure(measure)->name.substr(1));
      return english(found.front().text).find(rest) != std::string::npos;
    };
    CHECK(names(id));
    CHECK(names(other));
    CHECK_FALSE(about(plainWith(id, inch), other).empty());  // it stands at the other one as well
  };
  contradicts("shoulder_to_underbust", 10.4, "shoulder_to_bust");
  contradicts("shoulder_to_underbust", 18, "shoulder_to_waist");
  contradicts("waist_to_high_hip", 8.5, "waist_to_hip");
  contradicts("front_bust_arc", 37, "bust");
  contradicts("front_underbust_arc", 31, "underbust");
  contradicts("side_length", 16.5, "back_waist_length");
  contradicts("cup_down", 5, "shoulder_to_underbust");
}

TEST_CASE("the rules of practice are asked as questions or noted, with the reason") {
  CHECK(asked(plainWith("underbust", 37), "underbust"));
  CHECK(asked(plainWith("back_waist_length", 18.5), "back_waist_length"));
  CHECK(asked(plainWith("bust_span", 10), "bust_span"));
  CHECK(asked(plainWith("bust_span", 5.5), "bust_span"));
  CHECK(asked(plainWith("shoulder_to_underbust", 12.5), "shoulder_to_underbust"));
  CHECK(about(plainWith("shoulder_to_waist", 18.5), "shoulder_to_waist").front().severity == Severity::Note);
  CHECK_FALSE(asked(plainWith("waist_to_high_hip", 4.75), "waist_to_high_hip"));
}

TEST_CASE("a usual slip is named, with what would be right") {
  const auto says = [](const MeasureSet& m, const char* id, const char* text) {
    const auto found = about(m, id);
    REQUIRE_FALSE(found.empty());
    INFO(found.front().text);
    CHECK(say(found.front().text, {Unit::Inch, 8}).find(text) != std::string::npos);
  };
  says(plainWith("bust_span", 7.25 / 2), "bust_span", "0.16");  // by its ratio
  says(plainWith("hip", 19.7), "hip", "was a half noted? the whole would be");
  says(plainWith("high_hip", 53), "high_hip", "were two digits swapped? it would be 35 in");
  says(plainWith("waist", 28 * 2.54), "waist", "were centimetres noted as inches? it would be 28 in");
  MeasureSet centimetres = plainFigure();
  centimetres.set("shoulder_to_waist", {445 / 1.0, "44.5 cm"});
  CHECK_FALSE(asked(centimetres, "shoulder_to_waist"));
}

TEST_CASE("one slip does not put its neighbours in question") {
  for (const char* id : {"hip", "waist", "high_hip", "upper_bust"}) {
    const double right = *plainFigure().mm(id) / kMmPerInch;
    for (const Question& q : questionsAbout(plainWith(id, right * 1.45)))
      if (q.severity == Severity::Question)
        CHECK((q.measure == id || q.measure == "underbust" || q.measure == "bust_span"));
  }
}

TEST_CASE("a measure taken again and found the same is noted, no longer asked") {
  MeasureSet m = plainWith("waist", 34.5);
  REQUIRE(asked(m, "waist"));
  m.set("waist", takenAgain(*m.find("waist"), {inches(34.75), "34 3/4 in"}));
  CHECK_FALSE(asked(m, "waist"));
  bool said = false;
  for (const Question& q : about(m, "waist")) said = said || english(q.text).find("taken 2 times") != std::string::npos;
  CHECK(said);
  m.set("waist", takenAgain(*m.find("waist"), {inches(28), "28 in"}));  // far apart: asked again
  m.set("waist", takenAgain(*m.find("waist"), {inches(34.5), "34 1/2 in"}));
  CHECK(asked(m, "waist"));
}

TEST_CASE("on the demo clients every swap of two digits that changes a quarter or more is questioned") {
  int changed = 0, refused = 0, questioned = 0;
  for (const MeasurementFile& file : demoClients())
    for (const auto& [id, m] : file.measures.all())
      for (const std::string& text : swaps(m.typed)) {
        const auto read = readTakings(id, text, file.unit);
        if (read.ok() && std::abs(read->back().mm / m.mm - 1) < 0.25) continue;
        ++changed;
        MeasureSet slipped = file.measures;
        if (read.ok()) slipped.set(id, measureOf(*read, Use::Last, ""));
        refused += !read.ok();
        questioned += read.ok() && asked(slipped, id);
        INFO(file.client << ", " << id << ": " << m.typed << " as " << text);
        CHECK((!read.ok() || asked(slipped, id)));
      }
  CHECK(changed == refused + questioned);
  CHECK(questioned > 20);  // not all are caught by the bounds alone
  CHECK(changed > 200);
}

TEST_CASE("on the demo clients every slip of unit, quarter, half, double or point is questioned") {
  int questioned = 0;
  for (const MeasurementFile& file : demoClients())
    for (const auto& [id, m] : file.measures.all())
      for (double factor : {0.25, 0.5, 2.0, 4.0, 2.54, 1 / 2.54, 10.0, 0.1}) {
        if (measureProblem(id, m.mm * factor)) continue;  // refused at the field
        MeasureSet slipped = file.measures;
        slipped.set(id, {m.mm * factor, ""});
        INFO(file.client << ", " << id << " x " << factor);
        CHECK(asked(slipped, id));
        ++questioned;
      }
  CHECK(questioned > 40);
}

TEST_CASE("at most 3 of 100 fields of real bodies are questioned") {
  size_t fields = 0, questions = 0, notes = 0;
  for (const RealBody& body : realBodies())
    for (double cup : {40.0, 100.0, 160.0}) {
      const MeasureSet m = allMeasuresOf(body, cup);
      fields += m.all().size();
      for (const Question& q : questionsAbout(m)) ++(q.severity == Severity::Note ? notes : questions);
    }
  WARN(questions << " questions and " << notes << " notes on " << fields << " fields of real bodies");
  CHECK(static_cast<double>(questions) <= 0.03 * static_cast<double>(fields));
  CHECK(static_cast<double>(notes) <= 0.03 * static_cast<double>(fields));
}

TEST_CASE("any set of measures within the bounds can be asked about") {
  std::mt19937 random(77);
  const auto part = [&] { return static_cast<double>(random()) / 4294967295.0; };
  for (int round = 0; round < 500; ++round) {
    MeasureSet m;
    for (const MeasureInfo& info : measureTable())
      if (part() < 0.6) m.set(info.id, {info.lowest + part() * (info.highest - info.lowest), ""});
    for (const Question& q : questionsAbout(m)) {
      CHECK(m.has(q.measure));
      CHECK_FALSE(q.text.empty());
      CHECK(english(q.text).find("nan") == std::string::npos);
    }
  }
}
