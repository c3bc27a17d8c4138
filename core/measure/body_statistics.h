// core/measure/body_statistics.h
//
// Means and covariances of eight measures of 130 women (data/bodies/body-dimensions.csv), and the linear regression of
// any of them on any others. Source of the data: G. Heinz, L. J. Peterson, R. W. Johnson, C. J. Kerk, "Exploring
// Relationships in Body Dimensions", Journal of Statistics Education 11(2), 2003.
//
// Regressing t on the given g is ordinary least squares, solved from the covariances S:
//   coefficients  b  = inverse(S_gg) S_gt
//   constant      c  = mean_t - b . mean_g
//   spread        s  = sqrt((S_tt - b . S_gt) (n - 1) / (n - 1 - k)),   k the number of given measures
// (N. R. Draper, H. Smith, "Applied Regression Analysis", 3rd ed., Wiley 1998, chapters 5 and 6).
#pragma once

#include <span>
#include <string_view>
#include <vector>

namespace armure {

inline constexpr int kStatisticsSample = 130;

// The measures of the table: stature, weight (kg), shoulder_width (biacromial breadth), round_shoulder, upper_bust,
// waist, high_hip (girth at the navel), hip. mm but for weight.
std::span<const std::string_view> statisticsMeasures();

// Throws std::out_of_range for a measure that is not in the table.
double statisticsMean(std::string_view id);
double statisticsCovariance(std::string_view a, std::string_view b);

struct Regression {
  struct Part {
    std::string_view id;
    double coefficient;
  };
  double constant = 0;
  std::vector<Part> parts;  // in the order given
  double spread = 0;        // one standard deviation of what is left
};

// `given` may be empty (then the mean and its deviation) and must not hold `target` (std::invalid_argument).
Regression regress(std::string_view target, std::span<const std::string_view> given);

}  // namespace armure
