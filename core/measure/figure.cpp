#include "measure/figure.h"

#include <array>
#include <cmath>

#include "units/length.h"

namespace armure {
namespace {

constexpr std::array<FigureClass, 3> kFigures{{
    {Figure::Small, "small bust", -1e9, inches(1)},
    {Figure::Medium, "medium bust", inches(2.5), inches(1.5)},
    {Figure::Full, "full bust", inches(5), inches(2)},
}};

constexpr std::array<std::string_view, 12> kCupLetters{"AA", "A", "B", "C", "D", "E", "F", "G", "H", "I", "J", "K"};
constexpr double kFirstCupCm = 10, kCupStepCm = 2;

}  // namespace

std::span<const FigureClass> figureTable() { return kFigures; }

const FigureClass& figureClass(Figure figure) { return kFigures[static_cast<size_t>(figure)]; }

Figure figureFor(double fullLessUpperMm) {
  Figure found = Figure::Small;
  for (const FigureClass& row : kFigures)
    if (fullLessUpperMm >= row.fromMm) found = row.figure;
  return found;
}

Message BraSize::text() const {
  if (band == 0) return "outside the usual bands";
  if (letter.empty()) return msg("{}, outside the usual cups", band);
  return msg("{} {}", band, letter);
}

BraSize braSize(double bustMm, double underbustMm) {
  BraSize size;
  const int band = 5 * static_cast<int>(std::lround(underbustMm / kMmPerCm / 5));
  if (band >= 60 && band <= 150) size.band = band;
  const double step = std::floor(((bustMm - underbustMm) / kMmPerCm - kFirstCupCm) / kCupStepCm + 1e-9);
  if (step >= 0 && step < static_cast<double>(kCupLetters.size())) size.letter = kCupLetters[static_cast<size_t>(step)];
  return size;
}

}  // namespace armure
