#include "render/document_pdf.h"

#include <QBuffer>
#include <QImage>
#include <QPageLayout>
#include <QPageSize>
#include <QPainter>
#include <QPdfWriter>
#include <QTextDocument>
#include <QUrl>

#include "io/document_html.h"
#include "render/sketch_painter.h"
#include "render/theme.h"
#include "render/words.h"
#include "units/language.h"

namespace armure {
namespace {

constexpr int kSheetDots = 300;
constexpr QSize kFigureDots(1400, 700);
constexpr double kPageMargin = 12;  // mm

QImage figureOf(const GarmentSketch& sketch) {
  QImage image(kFigureDots, QImage::Format_RGB32);
  image.fill(Qt::white);
  QPainter painter(&image);
  painter.scale(4, 4);  // lines as strong as on paper
  drawSketch(painter, sketch,
             QRectF(0, 0, kFigureDots.width() / 4.0, kFigureDots.height() / 4.0).adjusted(4, 4, -4, -4), lightTheme());
  return image;
}

}  // namespace

std::string documentPdf(const Document& document, LengthFormat units, const GarmentSketch& sketch) {
  QBuffer buffer;
  buffer.open(QIODevice::WriteOnly);
  {
    QPdfWriter writer(&buffer);
    writer.setResolution(kSheetDots);
    writer.setTitle(words(document.title));
    writer.setCreator("Armure");
    writer.setPageLayout(QPageLayout(QPageSize(QPageSize::A4), QPageLayout::Portrait,
                                     QMarginsF(kPageMargin, kPageMargin, kPageMargin, kPageMargin),
                                     QPageLayout::Millimeter));
    QTextDocument text;
    QFont font = uiFont(TextSize::Body, false);
    font.setPointSizeF(9);
    font.setLetterSpacing(QFont::AbsoluteSpacing, 0.05);  // sets no ligatures: text can be searched
    text.setDefaultFont(font);
    text.addResource(QTextDocument::ImageResource, QUrl("figure"), figureOf(sketch));
    text.setDefaultStyleSheet(
        "h1{font-size:16pt} h2{font-size:11pt} th{color:#6E675B;text-align:left} td{padding-right:8px}");
    text.setHtml(QString::fromStdString(documentHtml(document, units, "<img src=\"figure\" width=\"420\">")));
    text.print(&writer);
  }
  return buffer.data().toStdString();
}

}  // namespace armure
