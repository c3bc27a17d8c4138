// bench/window.cpp
//
// How long the window takes to show what follows: a measure typed, a handle or a gap's side dragged, the shelf opened;
// painted offscreen. The limit is one 60 Hz frame, 16 ms, for everything together (median).
#include <benchmark/benchmark.h>

#include <QApplication>
#include <QEvent>
#include <array>

#include "app/main_window.h"

using namespace armure;

namespace {

// Counts how often the table was painted, so that the figure is known to contain the painting.
struct PaintCounter : QObject {
  int paints = 0;
  bool eventFilter(QObject*, QEvent* event) override {
    paints += event->type() == QEvent::Paint;
    return false;
  }
};

// One measure typed in the window: undo step, design, every panel laid out again, and all that changed painted.
// `shown` is what must be painted each time.
void typeMeasures(benchmark::State& state, MainWindow& window, QWidget& shown) {
  window.show();
  QApplication::processEvents();
  PaintCounter counter;
  shown.installEventFilter(&counter);
  int i = 0;
  for (auto _ : state) {
    window.session().setMeasure("waist", ++i % 2 ? "30 1/2" : "31");
    window.session().settle();
    QApplication::processEvents();
  }
  state.counters["paints"] = benchmark::Counter(counter.paints, benchmark::Counter::kAvgIterations);
}

void typedMeasureWithRedraw(benchmark::State& state) {
  MainWindow window;
  window.openFile(ARMURE_SOURCE_DIR "/demo/2-lamp-room.armure");
  window.showTable(true);
  window.table().setMode(static_cast<TableMode>(state.range(0)));
  typeMeasures(state, window, window.table());
}

// The same with the figure of the stage Client instead of the table.
void typedMeasureWithFigure(benchmark::State& state) {
  MainWindow window;
  window.openFile(ARMURE_SOURCE_DIR "/demo/2-lamp-room.armure");
  typeMeasures(state, window, window.pages().figure());
}

// A gap's side moved by the width of a pixel or so on the rails of the largest corset: the intake held, everything
// solved and drafted again, table, rails, workings and sheet painted.
void dragOnTheRails(benchmark::State& state) {
  MainWindow window;
  window.openFile(ARMURE_SOURCE_DIR "/demo/1-ferry.armure");
  window.session().setStyle(state.range(0) == 0 ? "sweetheart-laced" : "reducing-four-lines");
  window.stages().setStage(Stage::Shape);
  window.show();
  QApplication::processEvents();
  PaintCounter table, rails;
  window.table().installEventFilter(&table);
  window.rails().installEventFilter(&rails);
  int i = 0;
  for (auto _ : state) {
    window.session().setChoice("hold.waist.princess", ++i % 2 ? "5/8 in" : "9/16 in");
    QApplication::processEvents();
  }
  state.counters["table"] = benchmark::Counter(table.paints, benchmark::Counter::kAvgIterations);
  state.counters["rails"] = benchmark::Counter(rails.paints, benchmark::Counter::kAvgIterations);
}

// A handle dragged on the taped figure: designed, balanced where kept, and painted.
struct LineDrag {
  const char *style, *key, *first, *second;
  Stage stage;
  bool balanced;
};
constexpr std::array<LineDrag, 9> kLineDrags{{
    {"plunge-v-cups", "top.plunge", "1 in", "1 1/16 in", Stage::Lines, false},
    {"plunge-v-cups", "top.plunge", "1 in", "1 1/16 in", Stage::Lines, true},
    {"plunge-v-cups", "cup.side", "1 in", "1 1/16 in", Stage::Cups, true},
    {"plunge-net-yoke", "yoke.armhole", "1 1/2 in", "1 9/16 in", Stage::Lines, true},
    {"covered-square", "neck.depth_front", "4 in", "4 1/16 in", Stage::Lines, true},
    {"off-shoulder", "skirt.gore", "8 in", "8 1/16 in", Stage::Lines, true},
    {"straight-skirt", "dial.side", "0.4", "0.45", Stage::Cups, true},
    {"gathered-cup", "gather.gap", "1 1/2 in", "1 9/16 in", Stage::Cups, true},
    {"moulded-cup", "mould.dart_wide", "1 in", "1 1/16 in", Stage::Cups, true},
}};

void dragALine(benchmark::State& state) {
  const LineDrag& drag = kLineDrags.at(static_cast<size_t>(state.range(0)));
  MainWindow window;
  window.openFile(ARMURE_SOURCE_DIR "/demo/2-lamp-room.armure");
  window.session().setStyle(drag.style);
  if (drag.balanced) window.session().setChoice("balance.keep", "balanced");
  window.stages().setStage(drag.stage);
  window.show();
  window.session().select({.working = "rule." + std::string(drag.key)});  // as taking hold of the handle does
  QApplication::processEvents();
  PaintCounter table;
  window.table().installEventFilter(&table);
  int i = 0;
  for (auto _ : state) {
    window.session().setChoice(drag.key, ++i % 2 ? drag.first : drag.second);
    QApplication::processEvents();
  }
  state.SetLabel(std::string(drag.style) + ", " + drag.key);
  state.counters["table"] = benchmark::Counter(table.paints, benchmark::Counter::kAvgIterations);
}

// A measure changed on the stage Balance, whose rows and moves follow.
void dragOnBalance(benchmark::State& state) {
  MainWindow window;
  window.openFile(ARMURE_SOURCE_DIR "/demo/2-lamp-room.armure");
  window.stages().setStage(Stage::Balance);
  window.show();
  QApplication::processEvents();
  int i = 0;
  for (auto _ : state) {
    window.session().setMeasure("waist", ++i % 2 ? "31 1/8" : "31");
    QApplication::processEvents();
  }
}

// The shelf of styles, opened again for the same client.
void openShelf(benchmark::State& state) {
  MainWindow window;
  window.openFile(ARMURE_SOURCE_DIR "/demo/2-lamp-room.armure");
  window.show();
  window.showShelf(true);
  QApplication::processEvents();
  for (auto _ : state) {
    window.showShelf(false);
    window.showShelf(true);
    QApplication::processEvents();
  }
}

}  // namespace

BENCHMARK(dragOnTheRails)->Arg(0)->Arg(1)->Unit(benchmark::kMillisecond);
BENCHMARK(dragALine)->DenseRange(0, kLineDrags.size() - 1)->Unit(benchmark::kMillisecond);
BENCHMARK(dragOnBalance)->Unit(benchmark::kMillisecond);
BENCHMARK(openShelf)->Unit(benchmark::kMillisecond);
BENCHMARK(typedMeasureWithFigure)->Unit(benchmark::kMillisecond);
BENCHMARK(typedMeasureWithRedraw)->DenseRange(0, 2)->Unit(benchmark::kMillisecond);

int main(int argc, char** argv) {
  qputenv("QT_QPA_PLATFORM", "offscreen");
  QApplication app(argc, argv);
  loadFonts();
  app.setFont(uiFont());
  benchmark::Initialize(&argc, argv);
  benchmark::RunSpecifiedBenchmarks();
}
