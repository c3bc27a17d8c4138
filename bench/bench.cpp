// bench/bench.cpp
//
// How long things take: draft, pieces, outlines, sheet, all that follows one changed number, balancing, trying on,
// exports. With the window painted as well: window.cpp.
#include <benchmark/benchmark.h>

#include <QGuiApplication>
#include <array>

#include "body/body_form.h"
#include "distribute/distribution.h"
#include "garment/garment.h"
#include "io/order_file.h"
#include "io/pieces_json.h"
#include "io/svg.h"
#include "parts/cups/depth.h"
#include "prepare/cut_outlines.h"
#include "recalc/recalc.h"
#include "render/print_plan.h"
#include "render/theme.h"
#include "rules/presets.h"
#include "tryon/tryon.h"

using namespace armure;

namespace {

Order demoOrder() { return readOrder(ARMURE_SOURCE_DIR "/demo/2-lamp-room.armure").value().order; }

struct Parts {
  Order order = demoOrder();
  Body body = resolveBody(order.measures).value();
  Rules rules{order.choices, order.style, order.school, figureOf(body)};
  Block block = draftBlock(body, rules).value();
  Pattern pattern = makeGarment(block, body, rules).value();
  std::vector<Polyline> outlines = cutOutlines(pattern);
};

void draft(benchmark::State& state) {
  const Parts p;
  for (auto _ : state) {
    const Body body = resolveBody(p.order.measures).value();
    const Rules rules(p.order.choices, p.order.style, p.order.school, figureOf(body));
    benchmark::DoNotOptimize(draftBlock(body, rules));
  }
}

void pieces(benchmark::State& state) {
  const Parts p;
  for (auto _ : state) benchmark::DoNotOptimize(makeGarment(p.block, p.body, p.rules));
}

void outlines(benchmark::State& state) {
  const Parts p;
  for (auto _ : state) benchmark::DoNotOptimize(cutOutlines(p.pattern));
}

void sheet(benchmark::State& state) {
  const Parts p;
  for (auto _ : state) benchmark::DoNotOptimize(balanceSheet({p.pattern, p.outlines, p.block.intakes, p.body}));
}

void everythingFromMeasures(benchmark::State& state) {
  const Order order = demoOrder();
  for (auto _ : state) benchmark::DoNotOptimize(recalc(order));
}

void exportPieces(benchmark::State& state) {
  const Order order = demoOrder();
  const Design design = recalc(order).value();
  for (auto _ : state) benchmark::DoNotOptimize(piecesJson(order, design));
}

void exportPdf(benchmark::State& state) {
  const Order order = demoOrder();
  const Design design = recalc(order).value();
  for (auto _ : state) benchmark::DoNotOptimize(pdfBytes(PrintPlan(order, design, {.paper = "a4"}), order.title));
}

void questions(benchmark::State& state) {
  const Order order = demoOrder();
  for (auto _ : state) benchmark::DoNotOptimize(questionsAbout(order.measures));
}

// The largest case: four lines in each half, most at the side, a strong reduction.
void everythingFourLines(benchmark::State& state) {
  Order order = demoOrder();
  order.style = "reducing-four-lines";
  order.choices["reduction.waist"] = "4 in";
  for (auto _ : state) benchmark::DoNotOptimize(recalc(order).value());
}

// The drops of 18 pieces shared out alone: both halves, each with four lines and the side on six levels.
void shareOutFourLines(benchmark::State& state) {
  DistributionProblem p;
  for (int i = 0; i < 5; ++i) p.lines.push_back({std::to_string(i), 1});
  for (const auto& [id, y, drop] : {std::tuple{"top", 210.0, 20.0},
                                    {"bust", 270.0, 0.0},
                                    {"underbust", 350.0, 80.0},
                                    {"ribs", 390.0, 115.0},
                                    {"waist", 430.0, 140.0},
                                    {"high_hip", 525.0, 40.0}}) {
    p.levels.push_back({id, y, drop});
    for (int i = 0; i < 5; ++i) p.cells.push_back({drop * (i + 1) / 15, 0, i == 4 ? 50.0 : 38.0});
  }
  for (auto _ : state) {
    benchmark::DoNotOptimize(distribute(p));
    benchmark::DoNotOptimize(distribute(p));
  }
}

// The demo order with as many pieces in the whole garment, eight at the least.
Order orderWithPieces(int pieces) {
  Order order = demoOrder();
  order.style = "reducing-four-lines";
  const int lines = pieces / 2 - 2;  // panel lines on front and back together
  order.choices["lines.front"] = std::to_string((lines + 1) / 2);
  order.choices["lines.back"] = std::to_string(lines / 2);
  return order;
}

// Balancing from the draft; the argument is the number of pieces in the whole garment.
void balancing(benchmark::State& state) {
  const Design design = recalc(orderWithPieces(static_cast<int>(state.range(0)))).value();
  for (auto _ : state) benchmark::DoNotOptimize(balance(design.pattern));
  state.counters["pieces"] = static_cast<double>(2 * design.pattern.shellPieces());
}

// The same after a small change, from where it ended before.
void balancingWarm(benchmark::State& state) {
  Order order = orderWithPieces(static_cast<int>(state.range(0)));
  const BalanceEnd before = balance(recalc(order).value().pattern).end;
  order.choices["reduction.waist"] = "1 in";
  const Design design = recalc(order).value();
  for (auto _ : state) benchmark::DoNotOptimize(balance(design.pattern, {}, before));
}

// A measure typed while the balanced pieces are kept: the design, and what the stage Balance shows of it.
void typedMeasureBalanced(benchmark::State& state) {
  Order order = orderWithPieces(12);
  order.choices["balance.keep"] = "balanced";
  Result<Design> last = recalc(order);
  int i = 0;
  for (auto _ : state) {
    order.measures.set("waist", {inches(++i % 2 ? 28 : 28.125), "", ""});
    Result<Design> next = recalc(order, &*last);
    last = std::move(next);
    benchmark::DoNotOptimize(last->pattern);
  }
}

void howDeep(benchmark::State& state) {
  const Parts p;
  const BodyForm form(p.body);
  for (auto _ : state) benchmark::DoNotOptimize(cupDepth(p.block, form));
}

// The drawings of the whole shelf.
void shelf(benchmark::State& state) {
  Order order = demoOrder();
  for (auto _ : state)
    for (const Preset& style : styleTable()) {
      order.style = style.id;
      benchmark::DoNotOptimize(sketchOf(order));
    }
}

void bodyForm(benchmark::State& state) {
  const Body body = completeBody(demoOrder().measures);
  for (auto _ : state) benchmark::DoNotOptimize(BodyForm(body));
}

// The shell tried on the body, from cold.
void tryOnCold(benchmark::State& state) {
  const Design design = recalc(demoOrder()).value();
  for (auto _ : state)
    benchmark::DoNotOptimize(tryOn(design.pattern, design.body, {.spacing = static_cast<double>(state.range(0))}));
}

// After an edit, from where the cloth lay.
void tryOnAfterEdit(benchmark::State& state) {
  Order order = demoOrder();
  const Design before = recalc(order).value();
  const TryOn first = tryOn(before.pattern, before.body, {}).value();
  order.choices["hold.top"] = "1 in";
  const Design after = recalc(order).value();
  for (auto _ : state) benchmark::DoNotOptimize(tryOn(after.pattern, after.body, {.from = first.laid}));
}

}  // namespace

BENCHMARK(tryOnAfterEdit)->Unit(benchmark::kMillisecond);
BENCHMARK(tryOnCold)->Arg(24)->Arg(14)->Unit(benchmark::kMillisecond);
BENCHMARK(questions)->Unit(benchmark::kMillisecond);
BENCHMARK(shareOutFourLines)->Unit(benchmark::kMicrosecond);
BENCHMARK(everythingFourLines)->Unit(benchmark::kMillisecond);
BENCHMARK(balancing)->Arg(8)->Arg(12)->Arg(18)->Arg(20)->Unit(benchmark::kMillisecond);
BENCHMARK(balancingWarm)->Arg(12)->Arg(18)->Unit(benchmark::kMillisecond);
BENCHMARK(typedMeasureBalanced)->Unit(benchmark::kMillisecond);
BENCHMARK(howDeep)->Unit(benchmark::kMillisecond);
BENCHMARK(shelf)->Unit(benchmark::kMillisecond);
BENCHMARK(bodyForm)->Unit(benchmark::kMillisecond);
BENCHMARK(draft)->Unit(benchmark::kMillisecond);
BENCHMARK(pieces)->Unit(benchmark::kMillisecond);
BENCHMARK(outlines)->Unit(benchmark::kMillisecond);
BENCHMARK(sheet)->Unit(benchmark::kMillisecond);
BENCHMARK(everythingFromMeasures)->Unit(benchmark::kMillisecond);
BENCHMARK(exportPieces)->Unit(benchmark::kMillisecond);
BENCHMARK(exportPdf)->Unit(benchmark::kMillisecond);

int main(int argc, char** argv) {
  qputenv("QT_QPA_PLATFORM", "offscreen");
  QGuiApplication app(argc, argv);
  loadFonts();
  app.setFont(uiFont());
  benchmark::Initialize(&argc, argv);
  benchmark::RunSpecifiedBenchmarks();
}
