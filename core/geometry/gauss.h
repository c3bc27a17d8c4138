// core/geometry/gauss.h
//
// Rules of quadrature on [-1, 1]: the positive nodes and their weights. Every node but 0 stands for itself and its
// mirror image.
#pragma once

#include <array>

namespace armure {

struct GaussNode {
  double x, weight;
};

// Gauss-Legendre of 16 points (Abramowitz & Stegun, Handbook of Mathematical Functions, 25.4.30 and table 25.4).
inline constexpr std::array<GaussNode, 8> kGauss16{{{0.0950125098376374402, 0.1894506104550684963},
                                                    {0.2816035507792589132, 0.1826034150449235889},
                                                    {0.4580167776572273863, 0.1691565193950025382},
                                                    {0.6178762444026437484, 0.1495959888165767321},
                                                    {0.7554044083550030339, 0.1246289712555338720},
                                                    {0.8656312023878317439, 0.0951585116824927848},
                                                    {0.9445750230732325761, 0.0622535239386478929},
                                                    {0.9894009349916499326, 0.0271524594117540949}}};

// The pair of Gauss-Legendre with 10 and Kronrod's with 21 points, which share nodes: how far they differ says how good
// the finer one is (Piessens and others, QUADPACK, 1983, routine QK21). By node: weight in the rule of 21, and in that
// of 10, where 0 says that it has no part in it. The last node is 0 itself.
struct KronrodPair {
  static constexpr int kNodes = 10;  // without the middle
  static constexpr std::array<double, kNodes> x{
      0.148874338981631210884826001129720, 0.294392862701460198131126603103866, 0.433395394129247190799265943165784,
      0.562757134668604683339000099272694, 0.679409568299024406234327365114874, 0.780817726586416897063717578345042,
      0.865063366688984510732096688423493, 0.930157491355708226001207180059508, 0.973906528517171720077964012084452,
      0.995657163025808080735527280689003};
  static constexpr std::array<double, kNodes> fine{
      0.147739104901338491374841515972068, 0.142775938577060080797094273138717, 0.134709217311473325928054001771707,
      0.123491976262065851077958109585166, 0.109387158802297641899210590325805, 0.093125454583697605535065465083366,
      0.075039674810919952767043140916190, 0.054755896574351996031381300244580, 0.032558162307964727478818972459390,
      0.011694638867371874278064396062192};
  static constexpr std::array<double, kNodes> coarse{
      0.295524224714752870173815619188769, 0, 0.269266719309996355091226921569469, 0,
      0.219086362515982043995534934228163, 0, 0.149451349150580593145863396957658, 0,
      0.066671344308688137593568809893332, 0};
  static constexpr double fineMiddle = 0.149445554002916905664936468389821;
};

}  // namespace armure
