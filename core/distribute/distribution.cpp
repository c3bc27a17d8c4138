#include "distribute/distribution.h"

#include <algorithm>
#include <cmath>
#include <stdexcept>

#include "distribute/quadratic.h"

namespace armure {
namespace {

constexpr double kReference = 100;  // mm, h0
constexpr double kNothing = 1e-9;   // mm

void check(const DistributionProblem& p) {
  if (p.cells.size() != p.lines.size() * p.levels.size())
    throw std::invalid_argument("distribute: not one cell for each line on each level");
  for (const TakingLine& line : p.lines)
    if (!(line.weight > 0)) throw std::invalid_argument("distribute: the weight of " + line.id + " is not positive");
  for (size_t l = 1; l < p.levels.size(); ++l)
    if (!(p.levels[l].y > p.levels[l - 1].y))
      throw std::invalid_argument("distribute: level " + p.levels[l].id + " is not below " + p.levels[l - 1].id);
}

Cures curesFor(const DistributionProblem& p, size_t level, double amount) {
  double caps = 0;
  int capped = 0, free = 0;
  for (size_t i = 0; i < p.lines.size(); ++i) {
    const TakingCell& c = p.cell(level, i);
    if (!(c.high > c.low)) continue;
    ++free;
    if (!std::isfinite(c.high)) continue;
    caps += c.high;
    ++capped;
  }
  Cures cures;
  cures.lessReduction = 4 * std::max(0.0, amount);
  if (amount <= 0 || free == 0) return cures;
  cures.higherCap = amount / free;
  if (capped > 0 && caps > 0) cures.moreLines = static_cast<int>(std::ceil(amount / (caps / capped) - 1e-9));
  return cures;
}

}  // namespace

Distribution distribute(const DistributionProblem& p) {
  check(p);
  const size_t lines = p.lines.size(), levels = p.levels.size();
  Distribution out;
  out.intakes.assign(p.cells.size(), 0);

  // What each level can take; a drop beyond it is a miss, and the level then takes all it can.
  std::vector<double> drop(levels);
  for (size_t l = 0; l < levels; ++l) {
    double least = 0, most = 0;
    for (size_t i = 0; i < lines; ++i) {
      least += p.cell(l, i).low;
      most += p.cell(l, i).high;
    }
    drop[l] = std::clamp(p.levels[l].drop, least, std::max(least, most));
    const double missed = p.levels[l].drop - drop[l];
    if (std::abs(missed) > kNothing) out.misses.push_back({l, missed, curesFor(p, l, missed)});
  }

  // Held intakes are no unknowns.
  std::vector<Eigen::Index> unknown(p.cells.size(), -1);
  Eigen::Index n = 0;
  for (size_t k = 0; k < p.cells.size(); ++k) {
    out.intakes[k] = p.cells[k].low;
    if (p.cells[k].high > p.cells[k].low) unknown[k] = n++;
  }
  std::vector<size_t> open;  // levels with something to decide
  for (size_t l = 0; l < levels; ++l)
    for (size_t i = 0; i < lines; ++i)
      if (unknown[l * lines + i] >= 0) {
        open.push_back(l);
        break;
      }
  if (n == 0) return out;

  QuadraticProgram q;
  q.G = Eigen::MatrixXd::Zero(n, n);
  q.c = Eigen::VectorXd::Zero(n);
  q.low = q.high = Eigen::VectorXd::Zero(n);
  q.A = Eigen::MatrixXd::Zero(static_cast<Eigen::Index>(open.size()), n);
  q.b = Eigen::VectorXd::Zero(static_cast<Eigen::Index>(open.size()));
  for (size_t k = 0; k < p.cells.size(); ++k) {
    const Eigen::Index v = unknown[k];
    if (v < 0) continue;
    const double w = p.lines[k % lines].weight;
    q.G(v, v) += w;
    q.c(v) += w * p.cells[k].wish;
    q.low(v) = p.cells[k].low;
    q.high(v) = p.cells[k].high;
  }
  for (size_t l = 0; l + 1 < levels; ++l) {
    const double s = p.smoothness * kReference / (p.levels[l + 1].y - p.levels[l].y);
    for (size_t i = 0; i < lines; ++i) {
      const size_t a = l * lines + i, b = a + lines;
      const Eigen::Index va = unknown[a], vb = unknown[b];
      // s (e_b - e_a)^2 with e = x - wish; a held neighbour contributes its fixed deviation.
      const double wishStep = p.cells[b].wish - p.cells[a].wish;
      if (va >= 0) q.G(va, va) += s;
      if (vb >= 0) q.G(vb, vb) += s;
      if (va >= 0 && vb >= 0) {
        q.G(va, vb) -= s;
        q.G(vb, va) -= s;
      }
      if (va >= 0) q.c(va) += s * ((vb < 0 ? p.cells[b].low : 0) - wishStep);
      if (vb >= 0) q.c(vb) += s * ((va < 0 ? p.cells[a].low : 0) + wishStep);
    }
  }
  for (size_t r = 0; r < open.size(); ++r) {
    const auto row = static_cast<Eigen::Index>(r);
    double left = drop[open[r]];
    for (size_t i = 0; i < lines; ++i) {
      const size_t k = open[r] * lines + i;
      if (unknown[k] >= 0) {
        q.A(row, unknown[k]) = 1;
      } else {
        left -= p.cells[k].low;
      }
    }
    q.b(row) = left;
  }
  const auto solved = solveQuadratic(q);
  if (!solved) throw std::logic_error("distribute: a drop within its bounds was not found");
  out.steps = solved->steps;
  for (size_t k = 0; k < p.cells.size(); ++k)
    if (unknown[k] >= 0) out.intakes[k] = solved->x(unknown[k]);
  return out;
}

}  // namespace armure
