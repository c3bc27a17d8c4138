#include "tests/support/bodies.h"

#include <fstream>
#include <random>
#include <sstream>
#include <stdexcept>

namespace armure::testing {

MeasureSet inInches(const std::vector<std::pair<std::string, double>>& measures) {
  MeasureSet set;
  for (const auto& [id, value] : measures)
    set.set(id, {parseLength(formatExact(inches(value), Unit::Inch), Unit::Inch).value(),
                 formatExact(inches(value), Unit::Inch) + " in", ""});
  return set;
}

MeasureSet plainFigure() {
  return inInches({{"bust", 36},
                   {"upper_bust", 33},
                   {"underbust", 30},
                   {"waist", 28},
                   {"high_hip", 35},
                   {"hip", 38},
                   {"shoulder_to_bust", 10.5},
                   {"shoulder_to_underbust", 13.5},
                   {"shoulder_to_waist", 17.5},
                   {"back_waist_length", 16},
                   {"waist_to_high_hip", 4},
                   {"waist_to_hip", 8},
                   {"bust_span", 7.25},
                   {"shoulder_width", 15},
                   {"stature", 66}});
}

Order plainOrder() {
  Order order;
  order.title = "Plain bodice";
  order.measures = plainFigure();
  return order;
}

Order orderWith(std::initializer_list<std::pair<const char*, const char*>> choices) {
  Order o = plainOrder();
  for (const auto& [key, value] : choices) o.choices[key] = value;
  return o;
}

std::vector<RealBody> realBodies() {
  std::ifstream in(sourceDir() + "/data/bodies/body-dimensions.csv");
  std::string line;
  std::getline(in, line);
  std::vector<RealBody> bodies;
  while (std::getline(in, line)) {
    std::vector<double> v;
    std::stringstream fields(line);
    for (std::string field; std::getline(fields, field, ',');) v.push_back(std::stod(field) * 10);
    if (v.size() == 13) bodies.push_back({v[6], v[7], v[8], v[9], v[12], v[0], v[5], v[11] / 10, v[3], v[4]});
  }
  if (bodies.empty()) throw std::runtime_error("no bodies in data/bodies");
  return bodies;
}

MeasureSet measuresOf(const RealBody& body, double cup) {
  MeasureSet set;
  for (const auto& [id, mm] : {std::pair<const char*, double>{"upper_bust", body.upperBust},
                               {"bust", body.upperBust + cup},
                               {"waist", body.waist},
                               {"high_hip", body.highHip},
                               {"hip", body.hip},
                               {"stature", body.stature}})
    set.set(id, {mm, "", ""});
  return set;
}

MeasureSet allMeasuresOf(const RealBody& body, double cup) {
  MeasureSet set = measuresOf(body, cup);
  for (const auto& [id, value] : {std::pair<const char*, double>{"shoulder_width", body.biacromial},
                                  {"round_shoulder", body.roundShoulder},
                                  {"weight", body.weight}})
    set.set(id, {value, "", ""});
  return set;
}

// The first of the table: strapless, without skirts or gathers, so that whole seams fit as drafted already. All styles
// are surveyed in tests/survey.
constexpr size_t kStraplessStyles = 21;

std::vector<Order> randomOrders(size_t count, unsigned seed) {
  const std::vector<RealBody> bodies = realBodies();
  std::mt19937 random(seed);
  // Portable: the standard's distributions may differ from library to library.
  const auto part = [&] { return static_cast<double>(random()) / 4294967295.0; };
  const auto between = [&](double a, double b) { return a + (b - a) * part(); };
  std::vector<Order> orders;
  for (size_t i = 0; i < count; ++i) {
    RealBody b = bodies[random() % bodies.size()];
    for (double* v : {&b.upperBust, &b.waist, &b.highHip, &b.hip, &b.stature}) *v *= between(0.96, 1.04);
    Order o;
    o.title = "Random " + std::to_string(i);
    o.measures = measuresOf(b, between(20, 160));
    o.style = styleTable()[random() % kStraplessStyles].id;
    o.school = schoolTable()[random() % schoolTable().size()].id;
    o.choices["top.above_chest"] = std::to_string(between(0.2, 1.6)) + " in";
    o.choices["hem.length"] = std::to_string(between(3.5, 9)) + " in";
    o.choices["reduction.waist"] = std::to_string(between(0, 2)) + " in";
    o.choices["intake.centre_share"] = std::to_string(between(0.2, 0.5));
    o.choices["chest.school"] = "above-bust";  // the sixth school can run below the bust of a short, full figure
    orders.push_back(std::move(o));
  }
  return orders;
}

std::vector<Order> randomCombinations(size_t count, unsigned seed) {
  std::vector<Order> orders = randomOrders(count, seed);
  std::mt19937 random(seed + 1);
  for (Order& o : orders) {
    const auto any = [&](const char* key) {
      const auto& options = findRule(key)->options;
      o.choices[key] = std::string(options[random() % options.size()].id);
    };
    for (const char* key : {"distribution.school", "top.shape", "hem.shape", "opening.kind", "intake.share",
                            "share.rule", "princess.above", "lines.below"})
      any(key);
    // A bodice opens in one place: where the back is closed, in front, and then the dip of the top edge is shallow.
    const std::string& back = o.choices["opening.kind"];
    if (back == "seam" || back == "fold") o.choices["opening.front"] = random() % 2 ? "busk" : "lacing";
    o.choices["opening.gap"] = std::to_string(0.5 * static_cast<double>(1 + random() % 7)) + " in";
  }
  return orders;
}

std::vector<Order> withoutCups(std::vector<Order> orders) {
  for (Order& o : orders) o.choices["cup.kind"] = "princess";
  return orders;
}

std::string readText(const std::string& path) {
  std::ifstream in(path, std::ios::binary);
  if (!in) throw std::runtime_error("cannot read " + path);
  return {std::istreambuf_iterator<char>(in), {}};
}

std::string sourceDir() { return ARMURE_SOURCE_DIR; }

}  // namespace armure::testing
