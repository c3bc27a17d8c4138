// Bones, eyelets and lists: channels within their pieces, cut lengths, laces against values worked by hand.
#include <catch2/catch.hpp>
#include <cmath>
#include <map>
#include <numeric>

#include "parts/bones/bones.h"
#include "parts/bones/eyelets.h"
#include "prepare/lists.h"
#include "tests/support/bodies.h"
#include "tests/support/design.h"

using namespace armure;
using namespace armure::testing;

namespace {

Order bonedIn(std::string_view style, size_t body, double cup = 95) {
  Order o = plainOrder();
  o.style = style;
  o.measures = measuresOf(realBodies()[body], cup);
  o.choices["balance.keep"] = "balanced";
  return o;
}

const Notion* notion(const CutList& list, std::string_view id) {
  const auto found = std::ranges::find(list.notions, id, &Notion::id);
  return found == list.notions.end() ? nullptr : &*found;
}

}  // namespace

TEST_CASE("a bone lies beside every panel seam and every edge of an opening, two where it is laced") {
  const Design zip = designOf(orderWith({{"opening.kind", "zip"}}));
  const auto of = [](const Design& d, auto&& wanted) {
    const auto channels = channelsOf(d.pattern, d.block, d.rules);
    return std::ranges::count_if(channels, wanted);
  };
  for (const Seam& s : zip.pattern.seams) {
    INFO(s.id);
    CHECK(of(zip, [&](const Channel& c) { return c.seam == s.id && c.count == 2; }) == 1);
  }
  const auto atOpening = [](const Channel& c) { return c.id.find("opening") != std::string::npos; };
  CHECK(of(zip, atOpening) == 1);
  CHECK(of(designOf(orderWith({{"opening.kind", "lacing"}})), atOpening) == 2);
  CHECK(of(designOf(orderWith({{"bones.are", "none"}})), [](const Channel&) { return true; }) == 0);
  // A centre seam has one bone, for both halves.
  CHECK(of(designOf(orderWith({{"opening.front", "seam"}})), [](const Channel& c) { return c.count == 1; }) == 1);
}

TEST_CASE("no two bones are further apart at the waist than asked, and none is there without need") {
  for (const char* apart : {"2 in", "3 in", "5 in"}) {
    const Design d = designOf(orderWith({{"bones.apart", apart}}));
    for (const Piece& p : d.pattern.pieces) {
      const auto waist = p.level(level::kWaist);
      if (!waist) continue;
      const auto channels = channelsOf(d.pattern, d.block, d.rules);
      const auto between = std::ranges::count_if(channels, [&](const Channel& c) {
        return &d.pattern.pieces[c.piece] == &p && c.seam.empty() && c.id.find("opening") == std::string::npos;
      });
      const bool folded = !p.onFold.empty();
      const double whole = waist->width() * (folded ? 2 : 1), most = d.rules.length(key::kBonesApart);
      const auto inWhole = static_cast<long>(std::ceil(whole / most)) - 1;
      CHECK(between == (folded ? (inWhole + 1) / 2 : inWhole));
    }
  }
}

TEST_CASE("flat steel where a channel is straight, spiral where it curves, plastic where it is chosen") {
  const Design d = designOf(orderWith({{"opening.kind", "lacing"}}));
  size_t flat = 0, spiral = 0;
  for (const Channel& c : channelsOf(d.pattern, d.block, d.rules)) {
    CHECK((c.kind == "flat") == (strayOf(c.middle) <= inches(0.125)));
    (c.kind == "flat" ? flat : spiral)++;
    if (c.id == "bone-back-1-opening") CHECK(c.kind == "flat");
    if (c.id == "bone-princess") CHECK(c.kind == "spiral");
  }
  CHECK((flat > 0 && spiral > 0));
  const Design light = designOf(orderWith({{"bones.are", "plastic"}}));
  for (const Channel& c : channelsOf(light.pattern, light.block, light.rules)) CHECK(c.kind == "plastic");
  CHECK(stockLength(boneKind("flat"), inches(9.8)) == Approx(inches(9.5)));
  CHECK(stockLength(boneKind("flat"), inches(9.5)) == Approx(inches(9.5)));
  CHECK(stockLength(boneKind("plastic"), inches(9.8)) == Approx(inches(9.8)));
  CHECK_THROWS_AS(boneKind("whale"), std::out_of_range);
}

TEST_CASE("bones end at the high hip where the panels run on as a skirt") {
  const Design d = designOf(bonedIn("seamed-sheath", 20));
  for (const Channel& c : channelsOf(d.pattern, d.block, d.rules)) {
    const auto line = d.pattern.pieces[c.piece].level(level::kHighHip);
    if (!line) continue;  // above the waist seam
    for (const Vec2 q : c.middle) CHECK(cross(unit(line->b - line->a), q - line->a) < 0.01);
  }
}

TEST_CASE("eyelets stand at the maker's spacing, closer beside the waist, alike on both edges") {
  const Design d = designOf(orderWith({{"opening.kind", "lacing"}}));
  const std::vector<EyeletRow> rows = eyeletsOf(d.pattern, d.block, d.rules);
  REQUIRE(rows.size() == 1);
  const EyeletRow& row = rows.front();
  const Piece& p = d.pattern.pieces[row.piece];
  const Path& edge = p.edge(row.edge).path;
  CHECK(row.length == Approx(edge.length()));
  for (size_t i = 0; i < row.places.size(); ++i)
    CHECK(distanceToPolyline(row.places[i], edge.flattened(0.01)) == Approx(inches(0.5)).margin(0.05));
  // Half an inch from the ends; by hand: of an edge of L with the waist well inside, (L - 1 - 4) / 1 + 4 / 0.75 spaces.
  const double spaces = (row.length / kMmPerInch - 1 - 4) + 4 / 0.75;
  CHECK(row.places.size() == static_cast<size_t>(std::lround(spaces)) + 1);
  const LevelLine waist = *p.level(level::kWaist);
  for (size_t i = 0; i + 1 < row.places.size(); ++i) {
    const double apart = distance(row.places[i], row.places[i + 1]);
    const Vec2 middle = lerp(row.places[i], row.places[i + 1], 0.5);
    const double off = std::abs(cross(unit(waist.b - waist.a), middle - waist.a));
    const double scale = spaces / std::lround(spaces);
    if (off < inches(1.5)) CHECK(apart == Approx(scale * inches(0.75)).margin(0.3));
    if (off > inches(2.5)) CHECK(apart == Approx(scale * inches(1)).margin(0.3));
  }
}

TEST_CASE("the length of a lace, against a value worked by hand") {
  // 12 rows over 11 in, an inch apart, opened to 8 in, half an inch from the edge; 2 m for the bow:
  // 2 x 12 x sqrt(9^2 + 1^2) in + 2 m = 24 x 9.0554 in + 2 m = 217.33 in + 2 m = 5520.2 mm + 2000.25 mm
  const Rules rules({{"opening.kind", "lacing"}}, "straight-zip", "quarter-grid", Figure::Medium);
  EyeletRow row;
  row.places.assign(12, {});
  row.length = inches(12);
  row.aside = inches(0.5);
  CHECK(laceLength(row, rules) == Approx(5520.2 + inches(78.75)).margin(0.5));
  row.loops = true, row.aside = 0;  // on the edge: 24 x sqrt(8^2 + 1) in = 193.5 in
  CHECK(laceLength(row, rules) == Approx(24 * std::sqrt(65.0) * kMmPerInch + inches(78.75)).margin(0.01));
  row.places.resize(1);
  CHECK_THROWS_AS(laceLength(row, rules), std::invalid_argument);
}

TEST_CASE("the list has every piece, every bone, and what the opening and the cups need") {
  const Design d = designOf(orderWith({{"opening.kind", "lacing"}, {"cup.kind", "two"}, {"cup.inside", "both"}}));
  const CutList list = cutList(d.pattern, d.block, d.rules);
  std::map<std::string, int> cut;  // by layer and piece
  for (const CutPiece& c : list.pieces) {
    const Piece& p = d.pattern.pieces[c.piece];
    CHECK(cut.emplace(c.layer + " " + p.id, c.copies).second);
    CHECK(c.onFold == !p.onFold.empty());
    CHECK(c.mirrored == (p.symmetry == Symmetry::Pair && p.part != Part::Strap));
  }
  for (const Piece& p : d.pattern.pieces) {
    CHECK(cut.at(p.layer + " " + p.id) == p.copies);
    for (const AlsoCut& again : p.alsoCut) CHECK(cut.at(again.layer + " " + p.id) == again.copies);
  }
  CHECK(list.bones.size() == channelsOf(d.pattern, d.block, d.rules).size());
  for (size_t i = 0; i + 1 < list.bones.size(); ++i)
    if (list.bones[i].kind == list.bones[i + 1].kind) CHECK(list.bones[i].cutLength >= list.bones[i + 1].cutLength);
  for (const BoneLine& b : list.bones) CHECK(b.seam.empty() != b.piece.empty());
  REQUIRE(notion(list, "wire"));
  double cupLine = 0;
  for (const Piece& p : d.pattern.pieces)
    for (const Edge& e : p.edges)
      if (p.layer == "shell" && p.part == Part::Panel && e.role == EdgeRole::Cup) cupLine += e.path.length();
  CHECK(notion(list, "wire")->length == Approx(cupLine - 2 * inches(0.375)).margin(0.01));
  REQUIRE(notion(list, "lace"));
  REQUIRE(notion(list, "eyelets"));
  CHECK(notion(list, "eyelets")->count ==
        2 * static_cast<int>(eyeletsOf(d.pattern, d.block, d.rules)[0].places.size()));
  CHECK_FALSE(notion(list, "zip"));
  std::vector<std::string> cloths;
  for (const ClothLine& c : list.cloths) cloths.push_back(c.cloth);
  CHECK(cloths == std::vector<std::string>{"satin", "wadding", "soft-cotton"});
  const CutList zipped =
      cutList(designOf(plainOrder()).pattern, designOf(plainOrder()).block, designOf(plainOrder()).rules);
  CHECK(notion(zipped, "zip"));
  CHECK_FALSE(notion(zipped, "lace"));
}

TEST_CASE("a bone is carried in an allowance that reaches under all of its channel, else it needs a casing") {
  const auto carried = [](const char* allowance) {
    const Design d = designOf(orderWith({{"allowance.seam", allowance}}));
    for (const BoneLine& b : cutList(d.pattern, d.block, d.rules).bones)
      if (b.seam == "princess") return b.inAllowance;
    return false;
  };
  CHECK(carried("1/2 in"));
  CHECK_FALSE(carried("1/4 in"));
}

TEST_CASE("no eyelet is set through a bone, be it wide or beside a zip") {
  for (const char* opening : {"lacing", "v-lacing", "zip-laced"})
    for (const char* wide : {"1/4 in", "1/2 in"}) {
      INFO(opening << ' ' << wide);
      const Design d = designOf(orderWith({{"opening.kind", opening}, {"bones.width", wide}}));
      const auto rows = eyeletsOf(d.pattern, d.block, d.rules);
      REQUIRE(rows.size() == 1);
      size_t beside = 0;
      for (const Channel& c : channelsOf(d.pattern, d.block, d.rules)) {
        if (c.piece != rows[0].piece || c.id.find("opening") == std::string::npos) continue;
        ++beside;
        for (const Vec2 eyelet : rows[0].places) CHECK(distanceToPolyline(eyelet, c.middle) > c.width / 2 + 3);
      }
      CHECK(beside == 2);
      // Nor does a bone lie over another.
      const auto channels = channelsOf(d.pattern, d.block, d.rules);
      for (const Channel& a : channels)
        for (const Channel& b : channels)
          if (&a != &b && a.piece == b.piece && a.piece == rows[0].piece && a.seam.empty() && b.seam.empty())
            CHECK(distanceToPolyline(lerp(a.middle.front(), a.middle.back(), 0.5), b.middle) > a.width);
    }
}
