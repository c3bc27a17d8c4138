#include "solid/sewn_mesh.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <utility>

namespace armure {
namespace {

using Triangle = std::array<int, 3>;

// Calls back with the piece's vertices of every side that two triangles share: ends, then the corners opposite.
template <typename Callback>
void forEachHinge(const std::vector<Triangle>& triangles, const Callback& hinge) {
  std::map<std::pair<int, int>, int> opposite;
  for (const Triangle& t : triangles)
    for (size_t i = 0; i < 3; ++i) {
      const int a = t[i], b = t[(i + 1) % 3], corner = t[(i + 2) % 3];
      const auto [at, isFirst] = opposite.try_emplace(std::minmax(a, b), corner);
      if (!isFirst) hinge(std::array<int, 4>{at->first.first, at->first.second, at->second, corner});
    }
}

}  // namespace

std::vector<double> SewnMesh::areas() const {
  std::vector<double> all(static_cast<size_t>(vertices), 0);
  for (const Triangle& t : triangles) {
    const double area = std::abs(cross(t.flat[1] - t.flat[0], t.flat[2] - t.flat[0])) / 2;
    for (const int v : t.vertices) all[static_cast<size_t>(v)] += area / 3;
  }
  return all;
}

int Sewing::add(PlaneMesh piece) {
  starts_.push_back(parents_.size());
  for (size_t i = 0; i < piece.vertices.size(); ++i) parents_.push_back(parents_.size());
  pieces_.push_back(std::move(piece));
  return static_cast<int>(pieces_.size()) - 1;
}

size_t Sewing::root(size_t place) const {
  while (parents_[place] != place) place = parents_[place];
  return place;
}

void Sewing::sew(PieceVertex a, PieceVertex b) {
  const size_t x = root(place(a)), y = root(place(b));
  parents_[std::max(x, y)] = std::min(x, y);
}

SewnMesh Sewing::done() const {
  SewnMesh mesh;
  std::vector<int> numbers(parents_.size(), -1);
  for (size_t i = 0; i < parents_.size(); ++i) {
    const size_t first = root(i);
    if (numbers[first] < 0) numbers[first] = mesh.vertices++;
    numbers[i] = numbers[first];
  }
  for (size_t p = 0; p < pieces_.size(); ++p) {
    const PlaneMesh& piece = pieces_[p];
    const auto from = numbers.begin() + static_cast<std::ptrdiff_t>(starts_[p]);
    mesh.numbers.emplace_back(from, from + static_cast<std::ptrdiff_t>(piece.vertices.size()));
    const auto number = [&](int v) { return mesh.numbers[p][static_cast<size_t>(v)]; };
    const auto flat = [&](int v) { return piece.vertices[static_cast<size_t>(v)]; };
    for (const Triangle& t : piece.triangles)
      mesh.triangles.push_back(
          {static_cast<int>(p), {number(t[0]), number(t[1]), number(t[2])}, {flat(t[0]), flat(t[1]), flat(t[2])}});
    forEachHinge(piece.triangles, [&](const std::array<int, 4>& h) {
      mesh.hinges.push_back({static_cast<int>(p),
                             {number(h[0]), number(h[1]), number(h[2]), number(h[3])},
                             {flat(h[0]), flat(h[1]), flat(h[2]), flat(h[3])}});
    });
  }
  return mesh;
}

}  // namespace armure
