// Pages of several PDFs as layers of one.
#include <QBuffer>
#include <QGuiApplication>
#include <QPainter>
#include <QPdfWriter>
#include <QProcess>
#include <QTemporaryDir>
#include <catch2/catch.hpp>

#include "io/atomic_file.h"
#include "render/layered_pdf.h"

using namespace armure;

namespace {

// Pages with a filled square each, so many dots from the left.
std::string pdfWith(int pages, int left) {
  QBuffer buffer;
  buffer.open(QIODevice::WriteOnly);
  {
    QPdfWriter writer(&buffer);
    writer.setResolution(72);
    writer.setPageSize(QPageSize(QSizeF(200, 100), QPageSize::Point));
    writer.setPageMargins(QMarginsF());
    QPainter painter(&writer);
    for (int page = 0; page < pages; ++page) {
      if (page > 0) writer.newPage();
      painter.fillRect(left, 20, 40, 40, Qt::black);
    }
  }
  return buffer.data().toStdString();
}

QImage rendered(const std::string& pdf, int page) {
  const QTemporaryDir folder;
  const QString file = folder.filePath("p.pdf"), base = folder.filePath("page");
  REQUIRE_FALSE(writeFileAtomically(file.toStdString(), pdf));
  REQUIRE(QProcess::execute("pdftoppm", {"-r", "72", "-gray", "-png", "-singlefile", "-f", QString::number(page), "-l",
                                         QString::number(page), file, base}) == 0);
  QImage image(base + ".png");
  REQUIRE_FALSE(image.isNull());
  return image;
}

bool isDark(const QImage& image, int x, int y) { return qGray(image.pixel(x, y)) < 128; }

}  // namespace

TEST_CASE("every layer's page is drawn where it was, on the page of the same number") {
  const std::string pdf = layeredPdf(pdfWith(2, 10), {{"One", pdfWith(2, 70)}, {"Two", pdfWith(2, 130)}});
  for (const int page : {1, 2}) {
    const QImage image = rendered(pdf, page);
    for (const int left : {10, 70, 130}) {
      CHECK(isDark(image, left + 20, 40));
      CHECK_FALSE(isDark(image, left + 50, 40));
      CHECK_FALSE(isDark(image, left + 20, 10));
    }
  }
}

TEST_CASE("layers are named, in their order, and shown at first") {
  const std::string pdf = layeredPdf(pdfWith(1, 10), {{"Sewing lines", pdfWith(1, 70)}, {"Grain", pdfWith(1, 130)}});
  const size_t sewing = pdf.find("/Name (Sewing lines)"), grain = pdf.find("/Name (Grain)");
  REQUIRE(sewing != std::string::npos);
  REQUIRE(grain != std::string::npos);
  CHECK(pdf.find("/OCProperties") != std::string::npos);
  CHECK(pdf.find("/OFF") == std::string::npos);
  CHECK(layeredPdf(pdfWith(1, 10), {}).find("/PrintScaling /None") != std::string::npos);
}

TEST_CASE("a layer of fewer pages leaves the others as they are, and what is no PDF is refused") {
  const std::string pdf = layeredPdf(pdfWith(2, 10), {{"One", pdfWith(1, 70)}});
  CHECK(isDark(rendered(pdf, 1), 90, 40));
  CHECK_FALSE(isDark(rendered(pdf, 2), 90, 40));
  CHECK(isDark(rendered(pdf, 2), 30, 40));
  CHECK_THROWS_AS(layeredPdf("no PDF at all", {}), std::runtime_error);
}
