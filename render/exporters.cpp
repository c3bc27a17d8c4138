#include "render/exporters.h"

#include <array>

#include "io/document_html.h"
#include "io/dxf_writer.h"
#include "io/measurement_csv.h"
#include "io/pieces_json.h"
#include "io/svg.h"
#include "prepare/by_hand.h"
#include "recalc/job_sheet.h"
#include "render/document_pdf.h"
#include "render/print_plan.h"

namespace armure {
namespace {

std::string pdf(const Order& order, const Design* design, const PrintWishes& wishes) {
  return pdfBytes(PrintPlan(order, *design, wishes), order.title);
}
std::string svg(const Order& order, const Design* design, const PrintWishes& wishes) {
  return patternSvg(order, *design, wishes.pieces);
}
std::string dxf(const Order& order, const Design* design, const PrintWishes& wishes) {
  return patternDxf(order, *design, wishes.pieces);
}
std::string pieces(const Order& order, const Design* design, const PrintWishes&) { return piecesJson(order, *design); }
std::string measures(const Order& order, const Design*, const PrintWishes&) {
  return writeMeasurements(order.measures, order.client, order.date);
}

GarmentSketch sketchIn(const Design& design) { return sketchOf(design.half(BodySide::Left).pattern, design.block); }
std::string sheetPdf(const Order& order, const Design* design, const PrintWishes&) {
  return documentPdf(jobSheet(order, *design), order.units, sketchIn(*design));
}
std::string sheetHtml(const Order& order, const Design* design, const PrintWishes&) {
  return documentHtml(jobSheet(order, *design), order.units, sketchSvg(sketchIn(*design)));
}
std::string byHandPdf(const Order& order, const Design* design, const PrintWishes&) {
  return documentPdf(byHandSheet(order, *design), handUnits(order.units), sketchIn(*design));
}
std::string byHandHtml(const Order& order, const Design* design, const PrintWishes&) {
  return documentHtml(byHandSheet(order, *design), handUnits(order.units), sketchSvg(sketchIn(*design)));
}

constexpr std::array<Exporter, 9> kExporters{{
    {"pdf", "Pattern as PDF", "PDF at true size", ".pdf", FileKind::Pdf, Readers::Anyone, true, true, pdf, true},
    {"svg", "Pattern as SVG", "SVG at true size", ".svg", FileKind::Svg, Readers::Anyone, true, false, svg, true},
    {"dxf", "Pattern as DXF", "DXF (release 12) at true size", ".dxf", FileKind::Dxf, Readers::Anyone, true, false, dxf,
     true},
    {"pieces", "Pieces as JSON", "armure-pieces JSON", ".json", FileKind::Pieces, Readers::Anyone, true, false, pieces},
    {"measurements", "Measures as CSV", "the measures as CSV", ".csv", FileKind::Measures, Readers::Owner, false, false,
     measures},
    {"sheet", "Job sheet as PDF", "the job sheet as PDF", ".pdf", FileKind::Pdf, Readers::Owner, true, true, sheetPdf},
    {"sheet-html", "Job sheet as HTML", "the job sheet as HTML", ".html", FileKind::Html, Readers::Owner, true, false,
     sheetHtml},
    {"by-hand", "Block to draw by hand, PDF", "the block to draw by hand, as PDF", ".pdf", FileKind::Pdf,
     Readers::Anyone, true, true, byHandPdf},
    {"by-hand-html", "Block to draw by hand, HTML", "the block to draw by hand, as HTML", ".html", FileKind::Html,
     Readers::Anyone, true, false, byHandHtml},
}};

}  // namespace

std::span<const Exporter> exporterTable() { return kExporters; }

}  // namespace armure
