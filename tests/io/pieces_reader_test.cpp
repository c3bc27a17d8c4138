// The pieces export reread by a reader of its own: everything is measured again from the numbers in the file, by plain
// polyline arithmetic that shares nothing with the program's curves.
#include <catch2/catch.hpp>
#include <cmath>
#include <map>
#include <nlohmann/json.hpp>
#include <optional>

#include "io/pieces_json.h"
#include "operations/darts.h"
#include "tests/support/bodies.h"

using namespace armure;
using namespace armure::testing;

namespace {

using PieceJson = nlohmann::json;
struct P {
  double x, y;
};
using Line = std::vector<P>;

P point(const PieceJson& j) { return {j[0].get<double>(), j[1].get<double>()}; }

Line line(const PieceJson& j) {
  Line out;
  for (const PieceJson& p : j) out.push_back(point(p));
  return out;
}

double far(P a, P b) { return std::sqrt((a.x - b.x) * (a.x - b.x) + (a.y - b.y) * (a.y - b.y)); }

double length(const Line& l) {
  double sum = 0;
  for (size_t i = 1; i < l.size(); ++i) sum += far(l[i - 1], l[i]);
  return sum;
}

P along(const Line& l, double s) {
  for (size_t i = 1; i < l.size(); ++i) {
    const double d = far(l[i - 1], l[i]);
    if (s <= d) return {l[i - 1].x + (l[i].x - l[i - 1].x) * s / d, l[i - 1].y + (l[i].y - l[i - 1].y) * s / d};
    s -= d;
  }
  return l.back();
}

// A cubic Bezier by repeated halving of its sides, 1024 pieces: de Casteljau, written anew.
Line bezier(const PieceJson& j) {
  const P a = point(j[0]), b = point(j[1]), c = point(j[2]), d = point(j[3]);
  const auto mix = [](P p, P q, double t) { return P{p.x + t * (q.x - p.x), p.y + t * (q.y - p.y)}; };
  Line out;
  for (int i = 0; i <= 1024; ++i) {
    const double t = i / 1024.0;
    const P ab = mix(a, b, t), bc = mix(b, c, t), cd = mix(c, d, t);
    out.push_back(mix(mix(ab, bc, t), mix(bc, cd, t), t));
  }
  return out;
}

const PieceJson& byId(const PieceJson& list, const std::string& id) {
  for (const PieceJson& j : list)
    if (j["id"] == id) return j;
  throw std::out_of_range(id);
}

Line side(const PieceJson& doc, const PieceJson& seamSide) {
  Line whole;
  for (const PieceJson& use : seamSide["edges"]) {
    Line l = line(byId(byId(doc["pieces"], seamSide["piece"])["edges"], use["id"])["points"]);
    if (use["reversed"].get<bool>()) std::reverse(l.begin(), l.end());
    whole.insert(whole.end(), whole.empty() ? l.begin() : l.begin() + 1, l.end());
  }
  return whole;
}

std::vector<PieceJson> exports() {
  std::vector<PieceJson> docs;
  for (Order& o : randomOrders(25, 61)) {
    o.choices["balance.keep"] = "balanced";
    const auto d = recalc(o);
    if (d.ok()) docs.push_back(PieceJson::parse(piecesJson(o, *d)));
  }
  REQUIRE(docs.size() > 20);
  return docs;
}

}  // namespace

TEST_CASE("in the file, edges follow each other round the piece and close") {
  for (const PieceJson& doc : exports())
    for (const PieceJson& piece : doc["pieces"]) {
      const PieceJson& edges = piece["edges"];
      for (size_t i = 0; i < edges.size(); ++i)
        REQUIRE(far(point(edges[i]["points"].back()), point(edges[(i + 1) % edges.size()]["points"].front())) < 1e-3);
    }
}

TEST_CASE("in the file, polylines follow their curves within 0.02 mm") {
  for (const PieceJson& doc : exports())
    for (const PieceJson& piece : doc["pieces"])
      for (const PieceJson& edge : piece["edges"]) {
        double curve = 0;
        for (const PieceJson& b : edge["beziers"]) curve += length(bezier(b));
        REQUIRE(length(line(edge["points"])) == Approx(curve).margin(0.02));
      }
}

TEST_CASE("in the file, both sides of a seam are equally long and meet at the underbust notch") {
  for (const PieceJson& doc : exports())
    for (const PieceJson& seam : doc["seams"]) {
      INFO(doc["garment"]["name"] << " " << seam["id"]);
      const double ease = seam["ease"].get<double>() * (seam["easeSide"] == "a" ? 1 : -1);
      REQUIRE(length(side(doc, seam["a"])) - ease == Approx(length(side(doc, seam["b"]))).margin(0.05));
      bool underbust = false;
      double lastA = 0, lastB = 0;
      for (const PieceJson& n : seam["notches"]) {
        REQUIRE((n["a"].get<double>() > lastA && n["b"].get<double>() > lastB));  // from the top down
        lastA = n["a"].get<double>();
        lastB = n["b"].get<double>();
        if (n["id"] != "underbust") continue;
        underbust = true;
        REQUIRE(lastA == Approx(lastB).margin(1e-4));
      }
      if (seam["id"] == "side" || seam["id"] == "back-line") REQUIRE(underbust);
    }
}

TEST_CASE("in the file, seam notches and piece notches are the same places") {
  for (const PieceJson& doc : exports())
    for (const PieceJson& seam : doc["seams"])
      for (const char* key : {"a", "b"}) {
        const PieceJson& piece = byId(doc["pieces"], seam[key]["piece"]);
        const std::string edgeId = seam[key]["edges"][0]["id"];
        const Line edge = line(byId(piece["edges"], edgeId)["points"]), walked = side(doc, seam[key]);
        for (const PieceJson& n : seam["notches"])
          for (const PieceJson& m : piece["notches"])
            if (m["id"] == n["id"] && m["edge"] == edgeId)
              REQUIRE(far(along(edge, m["at"].get<double>()), along(walked, n[key].get<double>())) < 0.05);
      }
}

TEST_CASE("in the file, widths and gap add up to the girth that is said, and to the finished one") {
  for (const PieceJson& doc : exports()) {
    REQUIRE(doc["levels"].size() >= 2);  // underbust and waist, whatever is cut away above and below
    for (const PieceJson& level : doc["levels"]) {
      double sum = level["openingGap"].get<double>();
      for (const PieceJson& piece : doc["pieces"]) {
        if (piece["layer"] != "shell") continue;
        for (const PieceJson& mark : piece["levels"]) {
          if (mark["id"] != level["id"]) continue;
          const double width = far(point(mark["a"]), point(mark["b"]));
          REQUIRE(width == Approx(mark["width"].get<double>()).margin(0.001));
          sum += width * (piece["onFold"].is_null() ? piece["quantity"].get<int>() : 2);
        }
      }
      INFO(doc["garment"]["name"] << " " << level["id"]);
      REQUIRE(sum == Approx(level["closedGirth"].get<double>()).margin(0.01));
      REQUIRE(sum == Approx(level["finishedGirth"].get<double>()).margin(0.01));
    }
  }
}

TEST_CASE("in the file, the finished girth is the body's, its ease and its reduction, and the gaps are the opening") {
  for (const PieceJson& doc : exports())
    for (const PieceJson& level : doc["levels"]) {
      INFO(doc["garment"]["name"] << " " << level["id"]);
      const auto mm = [&](const char* key) { return level[key].get<double>(); };
      REQUIRE(mm("finishedGirth") == Approx(mm("bodyGirth") + mm("ease") - mm("reduction")).margin(1e-4));
      REQUIRE((mm("ease") == 0 || mm("reduction") == 0));
      double gaps = 0;
      for (const PieceJson& gap : level["gaps"]) gaps += gap.get<double>();
      REQUIRE(gaps == Approx(mm("openingGap")).margin(1e-4));
      REQUIRE(level["estimated"] == !(level["girthTaken"].get<bool>() && level["heightTaken"].get<bool>()));
    }
}

TEST_CASE("in the file, a notch is struck from the sewing line to the cutting line") {
  size_t strokes = 0;
  for (const PieceJson& doc : exports())
    for (const PieceJson& piece : doc["pieces"]) {
      Line cut = line(piece["cutOutline"]);
      cut.push_back(cut.front());
      const auto off = [](const Line& l, P p) {
        double least = HUGE_VAL;
        for (size_t i = 0; i + 1 < l.size(); ++i) {
          const double dx = l[i + 1].x - l[i].x, dy = l[i + 1].y - l[i].y, n = dx * dx + dy * dy;
          const double t = n == 0 ? 0 : std::clamp(((p.x - l[i].x) * dx + (p.y - l[i].y) * dy) / n, 0.0, 1.0);
          least = std::min(least, far(p, {l[i].x + t * dx, l[i].y + t * dy}));
        }
        return least;
      };
      for (const PieceJson& mark : piece["marks"]) {
        if (mark["kind"] == "placement") {  // where a strap or a panel is sewn on: along the sewing line
          for (const PieceJson& at : mark["points"]) {
            double away = HUGE_VAL;
            for (const PieceJson& e : piece["edges"]) away = std::min(away, off(line(e["points"]), point(at)));
            CHECK(away < 0.03);
          }
          continue;
        }
        if (mark["kind"] == "channel" || mark["kind"] == "eyelet") {  // within the cloth, clear of the cutting line
          const Line fold = piece["onFold"].is_null() ? Line{} : line(byId(piece["edges"], piece["onFold"])["points"]);
          for (const PieceJson& at : mark["points"])
            CHECK((off(cut, point(at)) > 3 || (!fold.empty() && off(fold, point(at)) < 0.5)));
          if (mark["kind"] == "channel") CHECK(mark["width"].get<double>() > 6);
          continue;
        }
        REQUIRE(mark["kind"] == "notch");
        double sewn = HUGE_VAL;
        for (const PieceJson& e : piece["edges"])
          sewn = std::min(sewn, off(line(e["points"]), point(mark["points"][0])));
        CHECK(sewn < 0.02);
        CHECK(off(cut, point(mark["points"][1])) < 0.001);
        ++strokes;
      }
      CHECK(static_cast<size_t>(std::count_if(piece["marks"].begin(), piece["marks"].end(), [](const PieceJson& m) {
              return m["kind"] == "notch";
            })) <= piece["notches"].size());
      CHECK(piece["girthWeight"] == (piece["onFold"].is_null() ? piece["quantity"].get<int>() : 2));
    }
  CHECK(strokes > 20);
}

TEST_CASE("in the file, the fold is straight and has no allowance") {
  size_t folds = 0;
  for (const PieceJson& doc : exports())
    for (const PieceJson& piece : doc["pieces"]) {
      if (piece["onFold"].is_null()) continue;
      ++folds;
      const PieceJson& fold = byId(piece["edges"], piece["onFold"]);
      CHECK(fold["role"] == "fold");
      CHECK(fold["allowance"] == 0.0);
      for (const PieceJson& p : fold["points"]) CHECK(p[0] == fold["points"][0][0]);
      // Nothing is cut beyond it: all of the piece lies on one side.
      const double at = fold["points"][0][0].get<double>();
      double left = at, right = at;
      for (const PieceJson& p : piece["cutOutline"]) {
        left = std::min(left, p[0].get<double>());
        right = std::max(right, p[0].get<double>());
      }
      CHECK(std::min(at - left, right - at) < 1e-3);
    }
  CHECK(folds >= exports().size() / 2);
}

namespace {

// Where a level meets a leg, along the level from its start; nothing where it does not.
std::optional<double> met(const PieceJson& level, const Line& leg) {
  const P a = point(level["a"]), b = point(level["b"]);
  const double n = far(a, b), dx = (b.x - a.x) / n, dy = (b.y - a.y) / n;
  for (size_t i = 1; i < leg.size(); ++i) {
    const auto off = [&](P p) { return (p.x - a.x) * dy - (p.y - a.y) * dx; };
    const double s = off(leg[i - 1]), t = off(leg[i]);
    if (s == t || s * t > 0) continue;
    const double part = s / (s - t), x = leg[i - 1].x + part * (leg[i].x - leg[i - 1].x),
                 y = leg[i - 1].y + part * (leg[i].y - leg[i - 1].y), at = (x - a.x) * dx + (y - a.y) * dy;
    if (at >= 0 && at <= n) return at;
  }
  return std::nullopt;
}

}  // namespace

TEST_CASE("in the file, darts meet in their point, have equal legs and take what is said; none is a seam or an edge") {
  size_t open = 0;
  for (const char* kind : {"princess", "moulded"})
    for (const char* side : {"0", "0.4", "1"}) {
      Order o = orderWith({{"cup.kind", kind}, {"dial.side", side}, {"balance.keep", "balanced"}});
      const auto d = recalc(o);
      REQUIRE(d.ok());
      const PieceJson doc = PieceJson::parse(piecesJson(o, *d));
      for (const PieceJson& seam : doc["seams"]) CHECK(seam["a"]["piece"] != seam["b"]["piece"]);
      for (const PieceJson& piece : doc["pieces"])
        for (const PieceJson& dart : piece.value("darts", PieceJson::array())) {
          const Line one = line(dart["legs"][0]), two = line(dart["legs"][1]);
          CHECK(length(one) == Approx(length(two)).margin(0.02));
          CHECK(far(one.back(), two.back()) < 1e-3);
          std::string id = dart["id"];  // in a lining its seam has a name of its own, its mouth the shell's
          if (piece["layer"] != "shell") id = id.substr(piece["layer"].get<std::string>().size() + 1);
          const PieceJson& mouth = byId(piece["edges"], id + "-mouth");
          CHECK(mouth["role"] == "mouth");
          CHECK(length(line(mouth["points"])) == Approx(far(one.front(), two.front())).margin(1e-3));
          ++open;
          for (const PieceJson& l : piece["levels"]) {
            const auto a = met(l, one), b = met(l, two);
            CHECK(l["taken"].get<double>() == Approx(a && b ? *b - *a : 0).margin(0.05));
          }
        }
    }
  CHECK(open == 7);  // the side darts of two dials, shell and lining, and the dart of three covers
}

TEST_CASE("in the file, a dart pointed at both ends has closed legs, left first, and its levels count without it") {
  const Order o = orderWith({{"balance.keep", "drafted"}});
  Design d = recalc(o).value();
  size_t back = 0;
  while (d.pattern.pieces[back].id != "back-1") ++back;
  const LevelLine waist = *d.pattern.pieces[back].level(level::kWaist);
  const Vec2 middle = lerp(waist.a, waist.b, 0.5);
  const auto leg = [&](double by) {
    return Path(Cubic{middle - Vec2{0, 50}, middle + Vec2{by, -20}, middle + Vec2{by, 20}, middle + Vec2{0, 50}});
  };
  cutPointedDart(d.pattern, back, {"dart-back", "Back dart", leg(-8), leg(8)});
  const PieceJson doc = PieceJson::parse(piecesJson(o, d));
  const PieceJson& piece = byId(doc["pieces"], "back-1");
  REQUIRE(piece["darts"].size() == 1);
  const PieceJson& dart = piece["darts"][0];
  CHECK(dart["kind"] == "pointed");
  const Line left = line(dart["legs"][0]), right = line(dart["legs"][1]);
  CHECK((far(left.front(), right.front()) < 1e-3 && far(left.back(), right.back()) < 1e-3));
  CHECK(left[left.size() / 2].x < right[right.size() / 2].x);
  CHECK(left.front().y < left.back().y);  // from the upper point down
  const PieceJson& level = byId(piece["levels"], "waist");
  CHECK(level["taken"].get<double>() == Approx(12).margin(0.1));  // 3/4 of what the handles stand apart
  CHECK(level["taken"].get<double>() == Approx(*met(level, right) - *met(level, left)).margin(0.05));
  // The sum of what the file says is what the file says.
  const PieceJson& waistSum = byId(doc["levels"], "waist");
  double sum = waistSum["openingGap"].get<double>();
  for (const PieceJson& p : doc["pieces"])
    for (const PieceJson& l : p["levels"])
      if (p["layer"] == "shell" && l["id"] == "waist")
        sum += (l["width"].get<double>() - l.value("taken", 0.0)) * p["girthWeight"].get<double>();
  CHECK(sum == Approx(waistSum["closedGirth"].get<double>()).margin(1e-3));
  // Its points are marked; its notches lie in the cloth and are no notches of an edge.
  size_t points = 0;
  for (const PieceJson& m : piece["marks"]) points += m["kind"] == "point";
  CHECK(points == 2);
  for (const PieceJson& n : piece["notches"]) CHECK_NOTHROW(byId(piece["edges"], n["edge"]));
}
