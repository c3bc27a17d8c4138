// The measured figure as it is drawn: where the ink lies, and what the pointer finds.
#include <QImage>
#include <catch2/catch.hpp>

#include "measure/measure_table.h"
#include "measure/standard_sizes.h"
#include "render/figure_painter.h"
#include "tests/support/bodies.h"

using namespace armure;
using namespace armure::testing;

namespace {

struct Drawn {
  MeasuredFigure figure, ideal{completeBody(idealFigure(inches(36), inches(66)))};
  FigurePainter painter{figure, ideal, QRectF(10, 10, 620, 660)};
  explicit Drawn(const MeasureSet& measures) : figure(completeBody(measures)) {}
  QImage picture(std::string_view lit, const Theme& theme = lightTheme()) const {
    QImage image(640, 680, QImage::Format_RGB32);
    image.fill(theme.paper);
    QPainter p(&image);
    painter.draw(p, theme, lit, "", "tag");
    return image;
  }
};

// Width of the tinted body along a row of pixels through a point, counted from it to both sides.
int widthAt(const QImage& image, QPointF at, const QColor& ground) {
  int width = 0;
  for (int step : {-1, 1})
    for (int x = static_cast<int>(at.x()); x > 0 && x < image.width(); x += step, ++width)
      if (image.pixelColor(x, static_cast<int>(at.y())) == ground) break;
  return width;
}

}  // namespace

TEST_CASE("every measure's place is found again under the pointer, or another one that crosses it there") {
  const Drawn d(plainFigure());
  int itself = 0, all = 0;
  for (const MeasureInfo& info : measureTable()) {
    const auto middle = d.painter.middleOf(info.id);
    CHECK(middle.has_value() == (info.id != id::kWeight));
    if (!middle) continue;
    const std::string found = d.painter.measureAt(*middle);
    CHECK_FALSE(found.empty());
    itself += found == info.id;
    ++all;
  }
  CHECK(itself >= all - 3);
  CHECK(d.painter.measureAt({630, 5}).empty());
}

TEST_CASE("the lit measure is drawn in the working colour, in light and dark") {
  const Drawn d(plainFigure());
  for (const Theme* theme : {&lightTheme(), &darkTheme()})
    for (const char* id : {"bust", "hip", "side_length", "back_waist_length"}) {
      const QPoint at = d.painter.middleOf(id)->toPoint();
      CHECK(d.picture(id, *theme).pixelColor(at) == theme->working);
      CHECK(d.picture("wrist", *theme).pixelColor(at) != theme->working);
    }
}

TEST_CASE("a larger waist draws a wider body there, by the scale of the drawing") {
  MeasureSet wide = plainFigure();
  wide.set("waist", {inches(30), ""});
  const Drawn plain(plainFigure()), wider(wide);
  const auto drawn = [](const Drawn& d) {
    const QImage image = d.picture("");
    return widthAt(image, *d.painter.middleOf("waist") + QPointF(0, 3), lightTheme().paper) / d.painter.scale();
  };
  const double wanted = 2 * (wider.figure.form().halfWidth(wider.figure.form().yOf("waist")) -
                             plain.figure.form().halfWidth(plain.figure.form().yOf("waist")));
  CHECK(drawn(wider) - drawn(plain) == Approx(wanted).margin(6));  // two pixels at this scale
}

TEST_CASE("the whole figure lies within its area, for every real body") {
  for (const RealBody& body : realBodies()) {
    const Drawn d(measuresOf(body, 160));
    for (const MeasureInfo& info : measureTable())
      if (const auto middle = d.painter.middleOf(info.id)) CHECK(QRectF(10, 10, 620, 660).contains(*middle));
  }
}
