#include "render/exporters.h"

#include <array>

#include "io/measurement_csv.h"
#include "io/pieces_json.h"
#include "io/svg.h"
#include "render/print_plan.h"

namespace armure {
namespace {

std::string pdf(const Order& order, const Design* design, std::string_view paper) {
  return pdfBytes(PrintPlan(order, *design, paper), order.title);
}
std::string svg(const Order& order, const Design* design, std::string_view) { return patternSvg(order, *design); }
std::string pieces(const Order& order, const Design* design, std::string_view) { return piecesJson(order, *design); }
std::string measures(const Order& order, const Design*, std::string_view) {
  return writeMeasurements(order.measures, order.client, order.date);
}

constexpr std::array<Exporter, 4> kExporters{{
    {"pdf", "Pattern as PDF", "PDF at true size", ".pdf", FileKind::Pdf, Readers::Anyone, true, true, pdf},
    {"svg", "Pattern as SVG", "SVG at true size", ".svg", FileKind::Svg, Readers::Anyone, true, false, svg},
    {"pieces", "Pieces as JSON", "armure-pieces JSON", ".json", FileKind::Pieces, Readers::Anyone, true, false, pieces},
    {"measurements", "Measures as CSV", "the measures as CSV", ".csv", FileKind::Measures, Readers::Owner, false, false,
     measures},
}};

}  // namespace

std::span<const Exporter> exporterTable() { return kExporters; }

}  // namespace armure
