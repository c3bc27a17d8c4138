// The body as a form: what a tape reads on it, and the figure drawn from it.
#include <algorithm>
#include <boost/geometry.hpp>
#include <boost/geometry/geometries/multi_point.hpp>
#include <boost/geometry/geometries/point_xy.hpp>
#include <boost/geometry/geometries/polygon.hpp>
#include <catch2/catch.hpp>
#include <random>
#include <set>

#include "body/figure_outline.h"
#include "geometry/hull.h"
#include "measure/measure_table.h"
#include "measure/plausibility.h"
#include "measure/predict.h"
#include "measure/standard_sizes.h"
#include "tests/support/bodies.h"

using namespace armure;
using namespace armure::testing;
namespace bg = boost::geometry;

namespace {

using BoostPoint = bg::model::d2::point_xy<double>;

// The tape by a reference library, on the section sampled anew from its formula in the header: in polar angle, not in
// the angle parameter the form uses itself.
double referenceTape(const FormSection& s) {
  constexpr double kN = 2.3;
  bg::model::multi_point<BoostPoint> points;
  const auto front = [&](double x) {
    return s.axis + s.front * std::pow(std::max(0.0, 1 - std::pow(std::abs(x) / s.halfWidth, kN)), 1 / kN);
  };
  for (int i = 0; i < 6000; ++i) {
    const double angle = 2 * M_PI * i / 6000, c = std::cos(angle), d = std::sin(angle);
    const double depth = d > 0 ? s.front : s.back;
    const double r = std::pow(std::pow(std::abs(c) / s.halfWidth, kN) + std::pow(std::abs(d) / depth, kN), -1 / kN);
    bg::append(points, BoostPoint(r * c, s.axis + r * d));
  }
  for (int i = 0; i <= 2000 && s.breastDepth > 0; ++i) {
    const double u = -1 + i / 1000.0;  // across the breast
    const double x = s.breastX + u * (u < 0 ? s.breastInner : s.breastOuter);
    const double part = u < 0 ? (1 + std::cos(M_PI * u)) / 2 : std::sqrt(1 - u * u);
    const double z = front(std::min(x, s.halfWidth)) + s.breastDepth * part;
    bg::append(points, BoostPoint(x, z));
    bg::append(points, BoostPoint(-x, z));
  }
  bg::model::polygon<BoostPoint> hull;
  bg::convex_hull(points, hull);
  return bg::perimeter(hull);
}

}  // namespace

TEST_CASE("the hull of points is that of a reference library") {
  std::mt19937 random(5);
  for (int round = 0; round < 100; ++round) {
    Polyline mine;
    bg::model::multi_point<BoostPoint> theirs;
    for (int i = 0; i < 3 + round; ++i) {
      const Vec2 p{static_cast<double>(random() % 50), static_cast<double>(random() % 50)};  // many on one line
      mine.push_back(p);
      bg::append(theirs, BoostPoint(p.x, p.y));
    }
    bg::model::polygon<BoostPoint> hull;
    bg::convex_hull(theirs, hull);
    CHECK(ringLength(convexHull(mine)) == Approx(bg::perimeter(hull)).margin(1e-9));
  }
  CHECK(convexHull({}).empty());
  CHECK(convexHull({{1, 1}, {1, 1}}).size() == 1);
}

TEST_CASE("a tape laid round the form reads every girth to 0.1 mm on 130 bodies with three cups") {
  double worst = 0;
  for (const RealBody& b : realBodies())
    for (double cup : {40.0, 100.0, 160.0}) {
      const Body body = completeBody(measuresOf(b, cup));
      const BodyForm form(body);
      REQUIRE(form.levels().size() == 6);
      for (const FormLevel& level : form.levels()) {
        CHECK(level.girth == body.mm(level.id));
        worst = std::max(worst, std::abs(referenceTape(form.section(level.y)) - level.girth));
        worst = std::max(worst, std::abs(form.tape(level.y) - level.girth));
      }
    }
  WARN("the tape is off by at most " << worst << " mm");
  CHECK(worst < 0.1);
}

TEST_CASE("breasts stand out by what the bust is more, and none where it is less") {
  const auto depth = [](double bustInch) {
    MeasureSet m = plainFigure();
    m.set("bust", {inches(bustInch), ""});
    const BodyForm form(completeBody(m));
    return form.section(form.yOf("bust")).breastDepth;
  };
  CHECK(depth(35) < depth(36));
  CHECK(depth(36) < depth(40));
  MeasureSet flat = plainFigure();
  flat.set("bust", {inches(29), ""});
  const BodyForm form(completeBody(flat));
  CHECK(form.section(form.yOf("bust")).breastDepth == 0);
  CHECK(form.tape(form.yOf("bust")) == Approx(inches(29)).margin(0.1));
}

TEST_CASE("a breast ends within the torso's side, whoever it is") {
  for (const RealBody& b : realBodies())
    for (double cup : {40.0, 100.0, 160.0}) {
      const BodyForm form(completeBody(measuresOf(b, cup)));
      for (double y = form.top(); y < form.yOf("underbust"); y += 9) {
        const FormSection s = form.section(y);
        CHECK(s.breastX + s.breastOuter < s.halfWidth);
        CHECK(s.breastInner <= s.breastX + 1e-9);
      }
    }
}

TEST_CASE("the form stands by the lengths that were taken along it") {
  MeasureSet m = plainFigure();
  for (const double side : {7.5, 8.0, 8.5}) {
    m.set("side_length", {inches(side), ""});
    const BodyForm form(completeBody(m));
    const double waist = form.yOf("waist");
    CHECK(waist == Approx(inches(16)));
    double along = 0;
    for (double y = form.top(); y < waist - 0.5; y += 1) {
      const FormSection a = form.section(y), b = form.section(std::min(waist, y + 1));
      along += std::hypot(std::min(waist, y + 1) - y, b.halfWidth - a.halfWidth, b.axis - a.axis);
    }
    CHECK(along == Approx(inches(side)).margin(0.5));
    CHECK(form.yOf("bust") - form.top() == Approx(inches(2)));
  }
  // More taken behind the side seams: deeper behind, less deep in front.
  m.set("front_bust_arc", {inches(19), ""});
  const BodyForm half(completeBody(m));
  m.set("front_bust_arc", {inches(20), ""});
  const BodyForm more(completeBody(m));
  const double y = half.yOf("bust"), z = more.yOf("bust");
  CHECK(half.section(y).back > more.section(z).back + 3);
  CHECK(half.tape(y) == Approx(more.tape(z)).margin(0.1));
}

TEST_CASE("cup radii that were taken shape the breast") {
  MeasureSet m = plainFigure();
  m.set("bust", {inches(38), ""});
  const BodyForm plain(completeBody(m));
  for (const double more : {3.0, 8.0}) {
    MeasureSet taken = m;
    taken.set("cup_down", {plain.cupDown() + more, ""});
    CHECK(BodyForm(completeBody(taken)).cupDown() == Approx(plain.cupDown() + more).margin(0.1));
  }
  // Less than straight from bust point to underbust cannot be: it is as straight as can be, and asked about.
  MeasureSet less = m;
  less.set("cup_down", {plain.cupDown() - 25, ""});
  const BodyForm straight(completeBody(less));
  CHECK(straight.cupDown() < plain.cupDown());
  CHECK(straight.cupDown() > plain.cupDown() - 10);
  CHECK(std::ranges::any_of(questionsAbout(less), [](const Question& q) { return q.measure == "cup_down"; }));
  MeasureSet out = m;
  out.set("cup_out", {100, ""});
  const BodyForm narrow(completeBody(out));
  const double y = plain.yOf("bust");
  CHECK(narrow.section(y).breastOuter < plain.section(y).breastOuter);
  CHECK(narrow.section(y).breastDepth > plain.section(y).breastDepth);
  CHECK(narrow.tape(y) == Approx(inches(38)).margin(0.1));
  MeasureSet up = m;
  up.set("cup_up", {inches(5), ""});
  const double above = plain.yOf("bust") - 45;
  CHECK(BodyForm(completeBody(up)).section(above).breastDepth > plain.section(above).breastDepth);
}

TEST_CASE("how long it is over the breast is estimated as the form has it") {
  double worst = 0, sum = 0;
  int count = 0;
  for (const RealBody& b : realBodies())
    for (double cup : {40.0, 100.0, 150.0}) {
      const MeasureSet m = measuresOf(b, cup);
      const double off = lengthOverBreast(Known(m)) - BodyForm(completeBody(m)).cupDown();
      worst = std::max(worst, std::abs(off));
      sum += off * off;
      ++count;
    }
  WARN("off by " << std::sqrt(sum / count) << " mm root mean square, at most " << worst);
  CHECK(std::sqrt(sum / count) < 3);
}

TEST_CASE("a wrong number shows as a wrong body") {
  MeasureSet m = plainFigure();
  const BodyForm right(completeBody(m));
  m.set("waist", {inches(38), ""});
  const BodyForm wrong(completeBody(m));
  const double y = right.yOf("waist");
  CHECK(wrong.halfWidth(y) > 1.2 * right.halfWidth(y));
  CHECK(wrong.frontZ(y) > right.frontZ(y) + 15);
  CHECK(wrong.halfWidth(right.yOf("hip")) == Approx(right.halfWidth(right.yOf("hip"))));
}

TEST_CASE("the form runs smoothly between its levels, without swinging past them") {
  for (const RealBody& b : realBodies()) {
    const BodyForm form(completeBody(measuresOf(b, 100)));
    for (size_t i = 0; i + 1 < form.levels().size(); ++i) {
      const double y0 = form.levels()[i].y, y1 = form.levels()[i + 1].y;
      const double low = std::min(form.halfWidth(y0), form.halfWidth(y1)),
                   high = std::max(form.halfWidth(y0), form.halfWidth(y1));
      for (int k = 0; k <= 10; ++k) {
        const double w = form.halfWidth(y0 + (y1 - y0) * k / 10);
        CHECK(w >= low - 1e-9);
        CHECK(w <= high + 1e-9);
      }
    }
  }
}

TEST_CASE("a form can be made of any measures within their bounds") {
  std::mt19937 random(9);
  const auto part = [&] { return static_cast<double>(random()) / 4294967295.0; };
  for (int round = 0; round < 200; ++round) {
    MeasureSet m;
    for (const MeasureInfo& info : measureTable())
      if (part() < 0.7) m.set(info.id, {info.lowest + part() * (info.highest - info.lowest), ""});
    const MeasuredFigure figure(completeBody(m));
    for (size_t i = 0; i + 1 < figure.form().levels().size(); ++i)
      CHECK(figure.form().levels()[i].y < figure.form().levels()[i + 1].y);
    for (View view : {View::Front, View::Back, View::Side})
      for (Vec2 p : figure.outline(view).body) {
        CHECK(std::isfinite(p.x));
        CHECK(std::isfinite(p.y));
      }
  }
}

TEST_CASE("every measure but the weight has its place on the figure, within its outline's height") {
  const MeasuredFigure figure(completeBody(plainFigure()));
  std::set<std::string_view> placed;
  for (const MeasurePlace& place : figure.places()) {
    placed.insert(place.id);
    REQUIRE(place.line.size() >= 2);
    CHECK(findMeasure(place.id) != nullptr);
    CHECK(place.view != View::Side);
    for (Vec2 p : place.line) {
      CHECK(p.y >= figure.top() - 1);
      CHECK(p.y <= figure.floor() + 1);
    }
  }
  for (const MeasureInfo& info : measureTable()) CHECK((placed.contains(info.id) || info.id == id::kWeight));
}

TEST_CASE("the outlines of plain and standard figures do not cross themselves") {
  std::vector<MeasureSet> sets{plainFigure()};
  for (const StandardSize& size : standardSizes()) sets.push_back(standardMeasures(size));
  for (const MeasureSet& m : sets) {
    const MeasuredFigure figure(completeBody(m));
    for (View view : {View::Front, View::Side}) CHECK(isSimple(figure.outline(view).body));
    for (const Polyline& arm : figure.outline(View::Front).behind) CHECK(isSimple(arm));
  }
}

namespace {

// A tape over a profile, (height, how far it stands out), straight over hollows, by a reference library: the hull of
// the profile and of the same far behind it, less the way round behind.
double referenceTape(const Polyline& profile) {
  bg::model::multi_point<BoostPoint> points;
  const Vec2 first = profile.front(), last = profile.back();
  constexpr double kBehind = 5000;
  for (const Vec2 p : profile) bg::append(points, BoostPoint(p.x, p.y));
  bg::append(points, BoostPoint(first.x, -kBehind));
  bg::append(points, BoostPoint(last.x, -kBehind));
  bg::model::polygon<BoostPoint> hull;
  bg::convex_hull(points, hull);
  return bg::perimeter(hull) - (first.y + kBehind) - (last.y + kBehind) - (last.x - first.x);
}

}  // namespace

TEST_CASE("from the neck point the tape reads back length and bust height, and the shoulder falls outwards") {
  for (size_t i = 0; i < realBodies().size(); i += 9)
    for (const double cup : {60.0, 130.0}) {
      const Body body = completeBody(measuresOf(realBodies()[i], cup));
      const BodyForm form(body);
      const auto [neck, point] = form.shoulder();
      CHECK(point.x == Approx(body.mm(id::kShoulderWidth) / 2));
      CHECK(form.highest() < neck.y);
      CHECK(neck.y < point.y);
      CHECK(point.y < form.top());
      const double span = body.mm(id::kBustSpan) / 2, waist = form.yOf(id::kWaist), bust = form.yOf(id::kBust);
      Polyline behind{{neck.y, -neck.z}}, front{{neck.y, neck.z}};
      for (double t = 0.01; t <= 1.0001; t += 0.01) {
        const double y = neck.y + t * (waist - neck.y), over = neck.y + t * (bust - neck.y);
        const FormSection s = form.section(y);
        behind.push_back({y, s.back * std::pow(1 - std::pow(neck.x / s.halfWidth, 2.3), 1 / 2.3) - s.axis});
        front.push_back({over, form.frontAt(neck.x + t * (span - neck.x), over)});
      }
      CHECK(referenceTape(behind) == Approx(body.mm(id::kBackWaistLength)).margin(2));
      CHECK(std::hypot(referenceTape(front), span - neck.x) == Approx(body.mm(id::kShoulderToBust)).margin(2));
    }
}

TEST_CASE("below the hip the form narrows to both knees") {
  const Body body = completeBody(plainFigure());
  const BodyForm form(body);
  CHECK(form.lowest() > form.bottom() + 200);
  double before = form.tape(form.bottom());
  for (double y = form.bottom() + 20; y < form.lowest(); y += 20) {
    CHECK(form.tape(y) < before + 1e-6);
    before = form.tape(y);
  }
  CHECK(form.tape(form.lowest()) == Approx(0.23 * body.mm(id::kStature)).margin(0.1));
}

TEST_CASE("without a bra the breast is fuller below and flatter above, its girths as measured") {
  const Body body = completeBody(measuresOf(realBodies()[40], 120));
  const BodyForm worn(body), hanging(body, BreastShape::Unsupported);
  for (const FormLevel& l : hanging.levels()) CHECK(hanging.tape(l.y) == Approx(l.girth).margin(0.1));
  const double bust = worn.yOf(id::kBust), under = worn.yOf(id::kUnderbust), x = body.mm(id::kBustSpan) / 2;
  CHECK(hanging.frontAt(x, bust + 0.7 * (under - bust)) > worn.frontAt(x, bust + 0.7 * (under - bust)) + 3);
  CHECK(hanging.frontAt(x, bust) ==
        Approx(worn.frontAt(x, bust)).margin(8));  // the slope carries some of the upper bust
  CHECK(hanging.cupDown() > worn.cupDown() + 2);
}
