// bench/frames.cpp
//
// Frames: every style, every handle on its table that accepts a step, the pieces kept balanced: one step by its key to
// the screen. And on the stages that have no handles, a changed waist. Told at the end: the median, the worst, how many
// are over a 60 Hz frame. Processor time.
//
// usage: armure_frames [WIDTH HEIGHT] [benchmark flags]; 1280 800 by default. For one style:
// --benchmark_filter=straight-skirt
#include <benchmark/benchmark.h>

#include <QApplication>
#include <QKeyEvent>
#include <QTemporaryDir>
#include <algorithm>
#include <cmath>
#include <cstdlib>
#include <set>

#include "app/main_window.h"
#include "rules/presets.h"

using namespace armure;

namespace {

constexpr double kFrameMs = 1000.0 / 60;
constexpr int kSteps = 20;

// The demo order in this style, at a stage, on the screen of the one window all share.
class Table {
 public:
  Table(MainWindow& window, std::string_view style, Stage stage) : window_(window) {
    window_.openFile(ARMURE_SOURCE_DIR "/demo/2-lamp-room.armure");
    window_.session().setStyle(style);
    window_.session().setChoice("balance.keep", "balanced");
    window_.session().settle();
    window_.stages().setStage(stage);
    settle();
  }

  MainWindow& window() { return window_; }
  static void settle() {
    for (int i = 0; i < 3; ++i) QApplication::processEvents();
  }

  const SceneItem* handle(std::string_view key) {
    for (const SceneItem& item : window_.table().scene().items)
      if (item.guide && item.guide->key == key) return &item;
    return nullptr;
  }
  std::set<std::string> handles() {
    std::set<std::string> keys;
    for (const SceneItem& item : window_.table().scene().items)
      if (item.guide) keys.insert(item.guide->key);
    return keys;
  }

  // Takes hold of a handle. False where it is not there.
  bool take(std::string_view key) {
    const SceneItem* item = handle(key);
    if (!item) return false;
    const QPointF axis = item->guide->axis;
    const bool level = std::abs(axis.x()) > std::abs(axis.y());
    keys_[0] = level ? Qt::Key_Right : Qt::Key_Down;
    keys_[1] = level ? Qt::Key_Left : Qt::Key_Up;
    window_.session().select(item->target);
    settle();
    return true;
  }

  // There and back again.
  void step(int i) {
    QKeyEvent press(QEvent::KeyPress, keys_[i % 2], Qt::ShiftModifier);
    QApplication::sendEvent(&window_.table(), &press);
    QApplication::processEvents();
  }

 private:
  MainWindow& window_;
  Qt::Key keys_[2]{};
};

void drag(benchmark::State& state, MainWindow& window, std::string_view style, Stage stage, const std::string& key) {
  Table table(window, style, stage);
  const auto value = [&] {
    const auto& choices = table.window().session().order().choices;
    const auto it = choices.find(key);
    return it == choices.end() ? std::string() : it->second;
  };
  if (!table.take(key)) return state.SkipWithError("no such handle");
  const std::string before = value();
  table.step(0);
  if (value() == before) return state.SkipWithError("it accepts no step");
  table.step(1);
  int i = 0;
  for (auto _ : state) table.step(i++);
}

void measure(benchmark::State& state, MainWindow& window, std::string_view style, Stage stage) {
  Table table(window, style, stage);
  int i = 0;
  for (auto _ : state) {
    table.window().session().setMeasure("waist", ++i % 2 ? "31 1/8" : "31");
    QApplication::processEvents();
  }
}

// The table of the console, and beneath it what all frames come to.
class Summary : public benchmark::ConsoleReporter {
 public:
  void ReportRuns(const std::vector<Run>& runs) override {
    std::vector<Run> kept;
    for (const Run& r : runs)
      if (!r.error_occurred) {
        kept.push_back(r);
        frames_.emplace_back(r.GetAdjustedCPUTime(), r.benchmark_name());
      }
    if (!kept.empty()) ConsoleReporter::ReportRuns(kept);
  }

  void Finalize() override {
    if (frames_.empty()) return;
    std::sort(frames_.begin(), frames_.end());
    const auto over = std::count_if(frames_.begin(), frames_.end(), [](const auto& f) { return f.first > kFrameMs; });
    GetOutputStream() << frames_.size() << " frames: median " << frames_[frames_.size() / 2].first << " ms, worst "
                      << frames_.back().first << " ms (" << frames_.back().second << "), " << over << " over "
                      << kFrameMs << " ms\n";
  }

 private:
  std::vector<std::pair<double, std::string>> frames_;
};

void registerAll(MainWindow& window) {
  const auto add = [](const std::string& name, auto run) {
    benchmark::RegisterBenchmark(name.c_str(), run)->Unit(benchmark::kMillisecond)->Iterations(kSteps);
  };
  for (const Preset& style : styleTable()) {
    const std::string_view id = style.id;
    for (const Stage stage : {Stage::Shape, Stage::Cups, Stage::Lines})
      for (const std::string& key : Table(window, id, stage).handles())
        add(std::string(id) + "/" + stageName(stage) + "/" + key,
            [=, &window](benchmark::State& state) { drag(state, window, id, stage, key); });
    for (const Stage stage : {Stage::Client, Stage::Block, Stage::Balance, Stage::Prepare})
      add(std::string(id) + "/" + stageName(stage) + "/waist",
          [=, &window](benchmark::State& state) { measure(state, window, id, stage); });
  }
}

}  // namespace

int main(int argc, char** argv) {
  const QTemporaryDir state;  // not the user's
  for (const char* folder : {"XDG_STATE_HOME", "XDG_DATA_HOME", "XDG_CONFIG_HOME"})
    qputenv(folder, state.path().toUtf8());
  qputenv("QT_QPA_PLATFORM", "offscreen");
  QApplication app(argc, argv);
  loadFonts();
  app.setFont(uiFont());
  benchmark::Initialize(&argc, argv);
  const QSize size = argc > 2 ? QSize(std::atoi(argv[1]), std::atoi(argv[2])) : QSize(1280, 800);
  MainWindow window;
  window.resize(size);
  window.show();
  registerAll(window);
  Summary summary;
  benchmark::RunSpecifiedBenchmarks(&summary);
}
