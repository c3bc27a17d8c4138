// render/body_picture.h
//
// The cloth tried on, on the body, as a picture from any side: a software z-buffer, so that it needs no graphics card.
// Colours say what the cloth does; the numbers stand beside them, since colour alone carries no meaning.
//
//   const BodyPicture picture(tried, {.colour = ClothColour::Pressure, .turn = kFromTheSide}, theme, {640, 500});
//   painter.drawImage(0, 0, picture.image());
//   picture.pointAt(mouse)   // the point of the cloth under the finger, as an index into tried.cloth
#pragma once

#include <QColor>
#include <QImage>
#include <QPointF>
#include <array>
#include <numbers>
#include <optional>
#include <vector>

#include "render/theme.h"
#include "tryon/tryon.h"

namespace armure {

enum class ClothColour { Cloth, Pressure, StandOff, Stretch };

inline constexpr double kFromTheFront = 0, kFromTheSide = -std::numbers::pi / 2, kFromBehind = std::numbers::pi;

struct BodyLook {
  ClothColour colour = ClothColour::Cloth;
  bool clear = false;           // the body is seen through the cloth
  bool near = false;            // only from above the breasts to below them
  double turn = kFromTheFront;  // radians, about the upright
  double tilt = 0;              // radians, about the level axis
};

// What a colour stands for. The least value is the colour of quiet cloth, the greatest that of what needs a look.
struct ColourScale {
  double least = 0, most = 1;  // values beyond are shown as these
  const char* title = "";
  QColor at(double value) const;
  QColor low, middle, high;
};
ColourScale scaleOf(ClothColour colour, const Theme& theme);
// The value of a point of the cloth in that colour: kPa, mm off, percent; nothing for plain cloth.
std::optional<double> valueOf(const ClothPicture& cloth, int point, ClothColour colour);

class BodyPicture {
 public:
  BodyPicture(const TryOn& tried, const BodyLook& look, const Theme& theme, QSize size);

  QImage image() const { return image_; }
  // The nearest point of the cloth that is seen there, within a finger's width; on either half of the body the point
  // of the half that was tried.
  std::optional<int> pointAt(QPointF place) const;
  // Where a point of the half that was tried is drawn, if it is seen.
  std::optional<QPointF> placeOf(int point) const;
  double heightOf(double y) const;  // where a height of the body, on its middle, is drawn

 private:
  struct Screen {
    double x = 0, y = 0, z = 0;  // pixels; z towards the viewer, mm
  };
  Screen onScreen(const Vec3& p, bool mirrored) const;
  double lightOn(const Vec3& normal) const;
  void fit(const TryOn& tried, bool near);
  void drawBody(const SkinPicture& skin, const Theme& theme);
  void drawCloth(const TryOn& tried, const BodyLook& look, const Theme& theme);
  void drawLines(const ClothPicture& cloth, const Theme& theme);
  void fill(const std::array<Screen, 3>& corners, const std::array<QColor, 3>& colours, std::vector<float>& depths,
            std::vector<QRgb>& pixels);
  void compose(const Theme& theme, bool clear);
  bool isSeen(const Screen& s) const;

  QImage image_;
  double turn_, tilt_;
  double scale_ = 1, middleY_ = 0, middleZ_ = 0;
  int width_, height_;
  std::vector<float> bodyDepth_, clothDepth_;
  std::vector<QRgb> bodyPixels_, clothPixels_;
  std::vector<std::array<Screen, 2>> points_;  // of the cloth, and mirrored
};

}  // namespace armure
