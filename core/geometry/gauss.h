// core/geometry/gauss.h
//
// Gauss-Legendre quadrature of 16 points on [-1, 1]: the positive nodes and their weights (Abramowitz & Stegun,
// Handbook of Mathematical Functions, 25.4.30 and table 25.4). Every node stands for itself and its mirror image.
#pragma once

#include <array>

namespace armure {

struct GaussNode {
  double x, weight;
};

inline constexpr std::array<GaussNode, 8> kGauss16{{{0.0950125098376374402, 0.1894506104550684963},
                                                    {0.2816035507792589132, 0.1826034150449235889},
                                                    {0.4580167776572273863, 0.1691565193950025382},
                                                    {0.6178762444026437484, 0.1495959888165767321},
                                                    {0.7554044083550030339, 0.1246289712555338720},
                                                    {0.8656312023878317439, 0.0951585116824927848},
                                                    {0.9445750230732325761, 0.0622535239386478929},
                                                    {0.9894009349916499326, 0.0271524594117540949}}};

}  // namespace armure
