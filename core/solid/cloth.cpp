#include "solid/cloth.h"

#include <Eigen/LU>

#include <cmath>
#include <numbers>
#include <stdexcept>

namespace armure {
namespace {

using Eigen::Matrix3d;
using Eigen::Vector3d;
constexpr double kRoot2 = std::numbers::sqrt2;

using Gradient = Eigen::Matrix<double, 3, 2>;  // F

Vector3d greenStrain(const Gradient& f) {
  const Eigen::Vector3d u = f.col(0), v = f.col(1);
  return {(u.dot(u) - 1) / 2, (v.dot(v) - 1) / 2, u.dot(v) / kRoot2};
}

// From (uu, vv, sqrt(2) uv) into axes turned by an angle. Orthogonal.
Matrix3d intoAxes(double angle) {
  const double c = std::cos(angle), s = std::sin(angle);
  Matrix3d turn;
  turn << c * c, s * s, kRoot2 * c * s,  //
      s * s, c * c, -kRoot2 * c * s,     //
      -kRoot2 * c * s, kRoot2 * c * s, c * c - s * s;
  return turn;
}

// A symmetric 2 x 2 matrix by its principal values and directions.
struct Principal {
  double greater = 0, lesser = 0;
  Matrix3d turn;  // into the principal axes

  explicit Principal(const Vector3d& m) {
    const double middle = (m[0] + m[1]) / 2, half = (m[0] - m[1]) / 2, off = m[2] / kRoot2;
    const double radius = std::hypot(half, off);
    greater = middle + radius;
    lesser = middle - radius;
    turn = intoAxes(0.5 * std::atan2(off, half));
  }
};

// The derivative of the tensile part with respect to the whole.
Matrix3d tensile(const Principal& p) {
  const double a = p.greater > 0 ? 1 : 0, b = p.lesser > 0 ? 1 : 0;
  const double apart = p.greater - p.lesser;
  const double both = a == b ? a : std::max(p.greater, 0.0) / apart;
  return p.turn.transpose() * Vector3d(a, b, both).asDiagonal() * p.turn;
}

struct Split {
  Matrix3d tensile, pressed;  // derivatives of either part
  Vector3d stress;            // second Piola-Kirchhoff, N/mm
  double density = 0;         // N/mm

  Split(const Vector3d& strain, const Principal& p, const Matrix3d& c, double relaxed)
      : tensile(armure::tensile(p)), pressed(Matrix3d::Identity() - tensile) {
    const Vector3d plus = tensile * strain, minus = strain - plus;
    const Vector3d cPlus = c * plus, cMinus = relaxed * (c * minus);
    density = (plus.dot(cPlus) + minus.dot(cMinus)) / 2;
    stress = tensile * cPlus + pressed * cMinus;
  }
};

double stretch(double green) { return std::sqrt(std::max(0.0, 1 + 2 * green)) - 1; }

}  // namespace

Matrix3d stiffnessOf(const Cloth& cloth, Vec2 grain) {
  const Vector3d own(cloth.alongGrain, cloth.acrossGrain, 2 * cloth.shear);
  const Matrix3d turn = intoAxes(std::atan2(grain.y, grain.x));
  return turn.transpose() * own.asDiagonal() * turn;
}

ClothTriangle::ClothTriangle(const std::array<Vec2, 3>& rest) {
  Eigen::Matrix2d sides;
  sides << rest[1].x - rest[0].x, rest[2].x - rest[0].x, rest[1].y - rest[0].y, rest[2].y - rest[0].y;
  area_ = std::abs(sides.determinant()) / 2;
  if (!(area_ > 0)) throw std::invalid_argument("a triangle of cloth has no area");
  const Eigen::Matrix2d inverse = sides.inverse();
  shape_.row(1) = inverse.row(0);
  shape_.row(2) = inverse.row(1);
  shape_.row(0) = -inverse.row(0) - inverse.row(1);
}

double ClothTriangle::value(const Corners& x, const Matrix3d& stiffness, double relaxed) const {
  const Vector3d strain = greenStrain(x * shape_);
  return area_ * Split(strain, Principal(strain), stiffness, relaxed).density;
}

ClothTriangle::State ClothTriangle::state(const Corners& x, const Matrix3d& stiffness, double relaxed) const {
  const Vector3d strain = greenStrain(x * shape_);
  const Principal p(strain);
  return {Split(strain, p, stiffness, relaxed).stress, stretch(p.greater), stretch(p.lesser)};
}

ClothTriangle::Energy ClothTriangle::energy(const Corners& x, const Matrix3d& stiffness, double relaxed) const {
  const Gradient f = x * shape_;
  const Vector3d strain = greenStrain(f);
  const Split split(strain, Principal(strain), stiffness, relaxed);

  // dE/dx: corner i moves u by shape(i, 0) and v by shape(i, 1).
  Eigen::Matrix<double, 3, 9> dStrain;
  for (int i = 0; i < 3; ++i) {
    const double a = shape_(i, 0), b = shape_(i, 1);
    dStrain.block<1, 3>(0, 3 * i) = a * f.col(0).transpose();
    dStrain.block<1, 3>(1, 3 * i) = b * f.col(1).transpose();
    dStrain.block<1, 3>(2, 3 * i) = (a * f.col(1) + b * f.col(0)).transpose() / kRoot2;
  }
  Energy e;
  e.value = area_ * split.density;
  e.gradient = area_ * dStrain.transpose() * split.stress;
  const Matrix3d material =
      split.tensile * stiffness * split.tensile + relaxed * split.pressed * stiffness * split.pressed;
  e.hessian = area_ * dStrain.transpose() * material * dStrain;

  const Principal tension(split.stress);
  const Vector3d kept =
      tension.turn.transpose() * Vector3d(std::max(0.0, tension.greater), std::max(0.0, tension.lesser), 0);
  Eigen::Matrix2d s;
  s << kept[0], kept[2] / kRoot2, kept[2] / kRoot2, kept[1];
  const Matrix3d along = area_ * shape_ * s * shape_.transpose();
  for (int i = 0; i < 3; ++i)
    for (int k = 0; k < 3; ++k) e.hessian.block<3, 3>(3 * i, 3 * k).diagonal().array() += along(i, k);
  return e;
}

}  // namespace armure
