// A rule's value as it is read and as it is kept, of every kind of rule.
#include <catch2/catch.hpp>

#include "parts/frill/rules.h"
#include "rules/rule_value.h"
#include "rules/trims.h"

using namespace armure;

namespace {

const RuleInfo& fieldRow(std::string_view field) {
  return *std::ranges::find(trimKind(TrimKind::Frill).fields, field, &RuleInfo::key);
}

}  // namespace

TEST_CASE("a rule's value is read within its bounds, and kept so that it reads back") {
  CHECK(defaultValue(fieldRow("full"), Figure::Small).number == Approx(2.5));
  CHECK(defaultValue(fieldRow("how"), Figure::Full).option == "gathered");
  CHECK(readRuleValue(fieldRow("full"), "3.25", Unit::Inch)->number == Approx(3.25));
  CHECK(readRuleValue(fieldRow("deep"), "4 1/2", Unit::Inch)->number == Approx(inches(4.5)));
  CHECK(readRuleValue(fieldRow("how"), "box", Unit::Inch)->choice == static_cast<int>(strip::Drawn::Box));
  for (const auto& [field, text] :
       {std::pair{"full", "7"}, {"full", "full"}, {"deep", "50"}, {"deep", ""}, {"how", ""}}) {
    INFO(field << " " << text);
    const auto read = readRuleValue(fieldRow(field), text, Unit::Inch);
    REQUIRE_FALSE(read.ok());
    CHECK_FALSE(read.problem().remedy.empty());
  }
  for (const auto& [field, text, kept] :
       {std::tuple{"full", "2,75", "2.75"}, {"deep", "3", "3 in"}, {"how", "knife", "knife"}}) {
    const auto once = keptRuleText(fieldRow(field), text, Unit::Inch);
    REQUIRE(once.ok());
    CHECK(*once == kept);
    CHECK(keptRuleText(fieldRow(field), *once, Unit::Centimetre).value() == *once);
  }
}

TEST_CASE("what is said of a number that is out of range names its bounds") {
  const auto read = readRuleValue(fieldRow("full"), "12", Unit::Inch);
  REQUIRE_FALSE(read.ok());
  CHECK(english(read.problem().remedy) == "give a number between 1 and 6");
}
