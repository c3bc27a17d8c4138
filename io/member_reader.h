// io/member_reader.h
//
// What the files of this program have in common as JSON: texts, measures with their takings, choices. Read member by
// member; the first thing that cannot be is kept as a Problem, what is only odd as a warning.
//
//   MemberReader in("order.armure");
//   in.text(doc, "title", order.title);
//   in.measures(doc, "measures", order.measures);
//   if (in.problem()) return *in.problem();
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "geometry/vec.h"
#include "io/bounded_json.h"
#include "measure/measure_set.h"
#include "result.h"
#include "rules/rules.h"

namespace armure {

class MemberReader {
 public:
  explicit MemberReader(std::string file) : file_(std::move(file)) {}

  const std::optional<Problem>& problem() const { return problem_; }
  std::vector<std::string> warnings() &&;  // at most twenty; more are counted

  // Members inside the member named here are told as "base.measures.bust".
  void enter(const std::string& member) { path_.push_back(member); }
  void leave() { path_.pop_back(); }

  Problem at(const std::string& member, Message what, Message remedy) const;
  void fail(const std::string& member, Message what, Message remedy);
  void warn(std::string text);

  // A text, a number, yes or no that may be left out; it fails where it is something else.
  void text(const Json& object, const char* member, std::string& into);
  void number(const Json& object, const char* member, double& into, double lowest, double highest);
  // A point as [x, y]; left out it stays what it was.
  void point(const Json& object, const char* member, Vec2& into);
  void flag(const Json& object, const char* member, bool& into);
  // One of several words.
  template <typename Option, typename Word>
  void option(const Json& object, const char* member, Option& into, std::initializer_list<Option> all, Word word) {
    std::string said(word(into)), allowed;
    text(object, member, said);
    for (const Option o : all) {
      if (word(o) == said) into = o;
      allowed += (allowed.empty() ? "" : ", ") + std::string(word(o));
    }
    if (word(into) != said) fail(member, "is not known", msg("use one of {}", allowed));
  }
  // A list of objects that may be left out: calls `read` with each, entered.
  template <typename Read>
  void list(const Json& object, const char* member, size_t most, Read read) {
    if (!object.contains(member)) return;
    if (!object[member].is_array()) return fail(member, "is not a list", "it should be a list of objects");
    if (object[member].size() > most) return fail(member, msg("has more than {} entries", most), "keep what counts");
    size_t place = 0;
    for (const Json& one : object[member]) {
      enter(std::string(member) + "." + std::to_string(++place));
      if (one.is_object()) {
        read(one);
      } else {
        fail("", "is not an object", "write its members in braces");
      }
      leave();
    }
  }
  void measures(const Json& object, const char* member, MeasureSet& into);
  void choices(const Json& object, const char* member, Choices& into);
  // Style and school, as in an order; unknown ones are told and kept.
  void presets(const Json& object, std::string& style, std::string& school);

 private:
  std::string named(const std::string& member) const;
  std::string optionalText(const std::string& member, const Json& entry, const char* key);
  void holdAgainst(const std::string& id, const std::string& member, const std::string& typed, double mm);
  void takings(const std::string& id, const std::string& member, const Json& entry, TakenMeasure& measure);

  std::string file_;
  std::vector<std::string> path_;
  std::vector<std::string> warnings_;
  size_t unsaid_ = 0;  // warnings
  std::optional<Problem> problem_;
};

// Measures in the order of the table, unknown ones after; members of an entry in `old` that are not known are kept.
Json measuresJson(const MeasureSet& measures, const Json& old);
Json choicesJson(const Choices& choices);
// [x, y], mm; nothing where it is not, or further than a kilometre.
std::optional<Vec2> readPoint(const Json& json);
Json pointJson(Vec2 point);
// The member of an object, or null.
Json memberOf(const Json& object, const char* member);

}  // namespace armure
