// What the core says: data until it is shown, in the reader's units and language, from one list of texts.
#include <algorithm>
#include <catch2/catch.hpp>
#include <functional>
#include <set>
#include <sstream>

#include "balance/unreachable.h"
#include "message.h"
#include "prepare/drawing.h"
#include "rules/presets.h"
#include "tests/support/bodies.h"
#include "units/language.h"

using namespace armure;
using namespace armure::testing;

namespace {

// Calls for a message and for every one among its arguments.
void visit(const Message& m, const std::function<void(const Message&)>& call) {
  if (m.empty()) return;
  call(m);
  for (const MessageArgument& a : m.arguments())
    if (const Listed* listed = std::get_if<Listed>(&a))
      for (const Message& inner : listed->all) visit(inner, call);
}

void visit(const Working& w, const std::function<void(const Message&)>& call) {
  visit(w.title, call);
  visit(w.note, call);
  for (const Term& t : w.terms) visit(t.label, call);
}

void visit(const Pattern& p, const std::function<void(const Message&)>& call) {
  for (const Piece& piece : p.pieces) visit(piece.name, call);
  for (const Seam& seam : p.seams) visit(seam.name, call);
  for (const PatternLevel& level : p.levels) visit(level.name, call);
  for (const LayerLine& line : p.layerLines) visit(line.name, call);
  for (const Attachment& a : p.attachments) visit(a.name, call);
  for (const Working& w : p.workings) visit(w, call);
}

// Everything a design says.
void visit(const Design& d, const std::function<void(const Message&)>& call) {
  visit(d.pattern, call);
  const Boning boning = boningOf(d.pattern, d.block, d.rules);
  for (size_t i = 0; i < d.pattern.pieces.size(); ++i)
    for (const DrawnText& t : drawnTexts({d.pattern, d.rules, boning}, i, Motion())) visit(t.text, call);
  for (const Working& w : d.block.workings) visit(w, call);
  for (const Fact& f : d.body.facts()) visit(f.working, call);
  for (const CheckRow& r : d.sheet.rows)
    for (const Message* m : {&r.subject, &r.detail, &r.remedy}) visit(*m, call);
  for (const Question& q : d.questions) visit(q.text, call);
  if (!d.balanced) return;
  for (const EdgeMove& move : d.balanced->moves) visit(move.why, call);
  for (const Unreachable& u : d.balanced->unreachable) visit(wordsOf(u, d.pattern).line(), call);
}

// The msgids of docs/messages.pot.
std::set<std::string, std::less<>> listedTexts() {
  std::set<std::string, std::less<>> texts;
  std::istringstream list(readText(sourceDir() + "/docs/messages.pot"));
  for (std::string line; std::getline(list, line);) {
    constexpr std::string_view kId = "msgid \"";
    if (!line.starts_with(kId)) continue;
    std::string text;
    for (size_t i = kId.size(); i + 1 < line.size(); ++i) {
      if (line[i] == '\\') ++i;
      text += line[i];
    }
    texts.insert(std::move(text));
  }
  return texts;
}

// Each style on three bodies, lined and padded, and orders of many choices, some of which cannot be drafted.
std::vector<Order> manyOrders() {
  std::vector<Order> orders = randomCombinations(40, 1509);
  const std::vector<RealBody> bodies = realBodies();
  size_t n = 0;
  for (const Preset& style : styleTable()) {
    Order o = plainOrder();
    o.measures = measuresOf(bodies[n * 7 % bodies.size()], 20.0 + 30.0 * static_cast<double>(n % 5));
    o.style = style.id;
    o.choices["balance.keep"] = n % 3 == 0 ? "drafted" : "balanced";
    if (n % 2 == 0) o.choices["cup.inside"] = "both";
    ++n;
    orders.push_back(std::move(o));
  }
  return orders;
}

}  // namespace

TEST_CASE("a message is a text and its arguments until it is said") {
  const Message m = msg("the {} line at {} is only {:.0f} mm wide, {} times", Message("Waist"), Length{241.3}, 12.4, 3);
  CHECK(m.id() == "the {} line at {} is only {:.0f} mm wide, {} times");
  REQUIRE(m.arguments().size() == 4);
  CHECK(std::get<Length>(m.arguments()[1]).mm == 241.3);
  CHECK(english(m) == "the waist line at 24.13 cm (9.5 in) is only 12 mm wide, 3 times");
  CHECK(say(m, {Unit::Inch, 8}) == "the waist line at 9 1/2 in is only 12 mm wide, 3 times");
  CHECK(say(m, {Unit::Centimetre, 8}) == "the waist line at 24.1 cm is only 12 mm wide, 3 times");
  CHECK(m == msg("the {} line at {} is only {:.0f} mm wide, {} times", Message("Waist"), Length{241.3}, 12.4, 3));
  CHECK_FALSE(m == msg("the {} line at {} is only {:.0f} mm wide, {} times", Message("Hip"), Length{241.3}, 12.4, 3));
}

TEST_CASE("a name begins with a small letter inside a sentence, and keeps what was typed") {
  const Message waist = "Waist";
  CHECK(english(msg("{} girth", waist)) == "Waist girth");
  CHECK(english(msg("the {}", waist)) == "the waist");
  CHECK(english(msg("cannot be: {}", waist)) == "cannot be: Waist");
  CHECK(english(msg("the {}", verbatim("Anna"))) == "the Anna");
  CHECK(english(msg("the {}", std::string("Anna"))) == "the Anna");
  CHECK(english(msg("the {} of the {}", msg("{} girth", waist), Message("Side front"))) ==
        "the waist girth of the side front");
  CHECK(capitalised("it is") == "It is");
}

TEST_CASE("several things are listed in the words of the language") {
  CHECK(english(msg("with {}", Listed{{"Waist"}})) == "with waist");
  CHECK(english(msg("with {}", Listed{{"Waist", "Hip"}})) == "with waist and hip");
  CHECK(english(msg("{} hold", Listed{{"Waist", "Hip", "Hem"}})) == "Waist, hip and hem hold");
  CHECK(english(msg("one of {}", Listed{{verbatim("A"), verbatim("B")}, Listed::By::Or})) == "one of A or B");
}

TEST_CASE("what is foreign can neither be read as a text nor break one") {
  CHECK(english(verbatim("{} {0:x} %s \"")) == "{} {0:x} %s \"");
  CHECK(english(msg("\"{}\" is not known", std::string("{}{}"))) == "\"{}{}\" is not known");
  CHECK(verbatim("").empty());
  const Language shouting{[](std::string_view) { return std::string("!"); }, {}};
  CHECK(say(verbatim("as it is"), shouting) == "as it is");
}

TEST_CASE("another language may put the arguments in another order") {
  const Language other{[](std::string_view id) {
                         if (id == "the {} edge of the {}") return std::string("{1}: Kante {0}");
                         if (id == "Side front") return std::string("Seitliches Vorderteil");
                         return std::string(id);
                       },
                       [](double mm) { return std::to_string(static_cast<int>(mm)) + " mm"; }};
  CHECK(say(msg("the {} edge of the {}", std::string("hem"), Message("Side front")), other) ==
        "Seitliches Vorderteil: Kante hem");
  CHECK(say(msg("{}", Length{12.5}), other) == "12 mm");
}

TEST_CASE("every text that is said is in the list for translators, and none is glued from others") {
  const auto listed = listedTexts();
  REQUIRE(listed.size() > 800);
  std::set<std::string> unknown, glued;
  const auto look = [&](const Message& m) {
    if (!m.isVerbatim() && !listed.contains(m.id())) unknown.insert(std::string(m.id()));
    for (const MessageArgument& a : m.arguments()) {
      const Verbatim* v = std::get_if<Verbatim>(&a);
      const bool isName = v && listed.contains(v->text) && v->text.find(' ') != std::string::npos;
      if (isName) glued.insert(std::string(m.id()) + " <- " + v->text);
    }
  };
  size_t drafted = 0, refused = 0;
  for (const Order& order : manyOrders()) {
    const Result<Design> d = recalc(order);
    if (d.ok()) {
      visit(*d, look);
      ++drafted;
    } else {
      visit(d.problem().line(), look);
      ++refused;
    }
  }
  INFO("drafted " << drafted << ", refused " << refused);
  CHECK(unknown == std::set<std::string>{});
  CHECK(glued == std::set<std::string>{});
}
