#include "measure/body_statistics.h"

#include <array>
#include <cmath>
#include <stdexcept>
#include <string>

namespace armure {
namespace {

constexpr size_t kCount = 8;
constexpr std::array<std::string_view, kCount> kIds{"stature",    "weight", "shoulder_width", "round_shoulder",
                                                    "upper_bust", "waist",  "high_hip",       "hip"};
constexpr std::array<double, kCount> kMeans{1648.8462, 60.1615,  366.8,    999.7846,
                                            856.3769,  690.1615, 832.1615, 954.3692};
// Lower triangle, row by row: sample covariances (n - 1), mm^2 (kg for weight).
constexpr std::array<double, kCount*(kCount + 1) / 2> kCovariances{
    3524.8909, 216.8219,  76.3884,   460.3023,  65.2736,   262.9674,  1158.1449, 404.1436,  551.0574,
    3422.4339, 643.136,   419.7371,  363.5643,  2796.4074, 3512.0971, 550.5522,  509.5815,  410.4899,
    2954.4304, 3379.3727, 4759.9349, 1093.1258, 630.6629,  426.4202,  3268.6475, 3872.8069, 5106.4466,
    8196.4156, 1094.1193, 491.3887,  360.0279,  2429.4987, 2571.7202, 3478.3973, 4607.2035, 3894.9014};

size_t indexOf(std::string_view id) {
  for (size_t i = 0; i < kCount; ++i)
    if (kIds[i] == id) return i;
  throw std::out_of_range("body statistics: no measure " + std::string(id));
}

double covariance(size_t i, size_t j) {
  if (i < j) std::swap(i, j);
  return kCovariances[i * (i + 1) / 2 + j];
}

// Solves A x = b for a symmetric positive definite A of order n (Cholesky); A and b are overwritten, x returns in b.
void solveInPlace(std::array<double, kCount * kCount>& a, std::array<double, kCount>& b, size_t n) {
  const auto at = [&](size_t i, size_t j) -> double& { return a[i * kCount + j]; };
  for (size_t j = 0; j < n; ++j) {
    for (size_t k = 0; k < j; ++k) at(j, j) -= at(j, k) * at(j, k);
    at(j, j) = std::sqrt(at(j, j));
    for (size_t i = j + 1; i < n; ++i) {
      for (size_t k = 0; k < j; ++k) at(i, j) -= at(i, k) * at(j, k);
      at(i, j) /= at(j, j);
    }
  }
  for (size_t i = 0; i < n; ++i) {
    for (size_t k = 0; k < i; ++k) b[i] -= at(i, k) * b[k];
    b[i] /= at(i, i);
  }
  for (size_t i = n; i-- > 0;) {
    for (size_t k = i + 1; k < n; ++k) b[i] -= at(k, i) * b[k];
    b[i] /= at(i, i);
  }
}

}  // namespace

std::span<const std::string_view> statisticsMeasures() { return kIds; }

double statisticsMean(std::string_view id) { return kMeans[indexOf(id)]; }

double statisticsCovariance(std::string_view a, std::string_view b) { return covariance(indexOf(a), indexOf(b)); }

Regression regress(std::string_view target, std::span<const std::string_view> given) {
  const size_t t = indexOf(target), n = given.size();
  if (n >= kCount) throw std::invalid_argument("regress: too many measures given");
  std::array<size_t, kCount> g{};
  std::array<double, kCount> b{};
  std::array<double, kCount * kCount> a{};
  for (size_t i = 0; i < n; ++i) {
    g[i] = indexOf(given[i]);
    if (g[i] == t) throw std::invalid_argument("regress: the target is among the given measures");
    b[i] = covariance(g[i], t);
    for (size_t j = 0; j <= i; ++j) a[i * kCount + j] = covariance(g[i], g[j]);
  }
  solveInPlace(a, b, n);
  Regression r{kMeans[t], {}, covariance(t, t)};
  for (size_t i = 0; i < n; ++i) {
    r.constant -= b[i] * kMeans[g[i]];
    r.spread -= b[i] * covariance(g[i], t);
    r.parts.push_back({given[i], b[i]});
  }
  constexpr double kFreedom = kStatisticsSample - 1;
  r.spread = std::sqrt(r.spread * kFreedom / (kFreedom - static_cast<double>(n)));
  return r;
}

}  // namespace armure
