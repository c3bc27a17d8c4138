#include "measure/standard_sizes.h"

#include <algorithm>
#include <array>

#include "measure/measure_table.h"
#include "units/length.h"

namespace armure {
namespace {

constexpr double kStature = 1680;
constexpr std::array<StandardSize, 14> kSizes{{{760, 600, 840},
                                               {800, 640, 880},
                                               {840, 680, 920},
                                               {880, 720, 960},
                                               {920, 760, 1000},
                                               {960, 800, 1040},
                                               {1000, 840, 1080},
                                               {1040, 880, 1120},
                                               {1100, 940, 1170},
                                               {1160, 1000, 1220},
                                               {1220, 1060, 1270},
                                               {1280, 1120, 1320},
                                               {1340, 1180, 1370},
                                               {1400, 1240, 1420}}};

StandardSize between(double bust) {
  if (bust <= kSizes.front().bust || bust >= kSizes.back().bust) {
    const StandardSize& end = bust <= kSizes.front().bust ? kSizes.front() : kSizes.back();
    const double scale = bust / end.bust;
    return {bust, end.waist * scale, end.hip * scale};
  }
  const auto* upper = std::find_if(kSizes.begin(), kSizes.end(), [&](const StandardSize& s) { return s.bust >= bust; });
  const StandardSize &b = *upper, &a = *(upper - 1);
  const double t = (bust - a.bust) / (b.bust - a.bust);
  return {bust, a.waist + t * (b.waist - a.waist), a.hip + t * (b.hip - a.hip)};
}

MeasureSet measures(const StandardSize& size, double stature) {
  MeasureSet set;
  for (const auto& [id, mm] :
       {std::pair{id::kBust, size.bust}, {id::kWaist, size.waist}, {id::kHip, size.hip}, {id::kStature, stature}})
    set.set(id, {mm, formatExact(mm, Unit::Centimetre) + " cm", "standard size, not taken on the client"});
  return set;
}

}  // namespace

std::span<const StandardSize> standardSizes() { return kSizes; }

Message standardSizeName(const StandardSize& s) {
  return msg("bust {:g}, waist {:g}, hip {:g} cm", s.bust / kMmPerCm, s.waist / kMmPerCm, s.hip / kMmPerCm);
}

MeasureSet standardMeasures(const StandardSize& size) { return measures(size, kStature); }

MeasureSet idealFigure(double bustMm, double statureMm) { return measures(between(bustMm), statureMm); }

}  // namespace armure
