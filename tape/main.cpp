// tape/main.cpp
//
// armure-tape [--socket PATH] [--name NAME] [--from measures.csv] [--every MS]
//
// A stand-in for a digital tape. With --from it serves the measures of a file in the order the tape goes, each when the
// one before was taken. Else every line on standard input is a reading ("36 1/2", "92 cm"); an empty line sends the
// last one again, "drop" hangs up, "garbage" sends noise, "late 36" a reading of ten seconds ago.
#include <unistd.h>

#include <QCommandLineParser>
#include <QCoreApplication>
#include <QSocketNotifier>
#include <QTimer>
#include <cstdio>

#include "io/measurement_csv.h"
#include "io/plain_numerals.h"
#include "measure/measure_table.h"
#include "tape/tape_link.h"
#include "tape/tape_server.h"

namespace {

constexpr double kLateMs = 10000;

// One line typed by the person who plays the tape.
void obey(armure::TapeServer& tape, std::string line) {
  if (line.empty()) return tape.repeatLast();
  if (line == "drop") return tape.hangUp();
  if (line == "garbage") return tape.sendGarbage("\x01{]noise\n");
  const bool late = line.starts_with("late ");
  if (late) line.erase(0, 5);
  const auto mm = armure::parseLength(line, armure::Unit::Inch);
  if (!mm.ok()) {
    std::fprintf(stderr, "armure-tape: %s\n", mm.problem().text().c_str());
    return;
  }
  tape.take(*mm, late ? kLateMs : 0);
}

std::vector<double> readingsOf(const armure::MeasureSet& measures) {
  std::vector<double> readings;
  for (const armure::MeasureInfo* row : armure::measuresInTapeOrder())
    if (row->id != armure::id::kWeight)
      if (const auto mm = measures.mm(row->id)) readings.push_back(*mm);
  return readings;
}

}  // namespace

int main(int argc, char** argv) {
  QCoreApplication app(argc, argv);
  armure::usePlainNumerals();
  QCommandLineParser parser;
  parser.setApplicationDescription("A stand-in for a digital measuring tape.");
  parser.addHelpOption();
  const QCommandLineOption socket("socket", "where to listen", "path", armure::defaultTapeSocket());
  const QCommandLineOption name("name", "what the tape calls itself", "name", "Workroom tape");
  const QCommandLineOption from("from", "measures to serve (CSV)", "file");
  const QCommandLineOption every("every", "milliseconds between readings", "ms", "600");
  parser.addOptions({socket, name, from, every});
  parser.process(app);

  armure::TapeServer tape(parser.value(name));
  if (!tape.listen(parser.value(socket))) {
    std::fprintf(stderr, "armure-tape: %s: %s; name another socket with --socket\n", qPrintable(parser.value(socket)),
                 qPrintable(tape.errorString()));
    return 2;
  }
  std::printf("listening on %s\n", qPrintable(parser.value(socket)));
  std::fflush(stdout);

  QTimer timer;
  if (parser.isSet(from)) {
    const auto file = armure::readMeasurements(parser.value(from).toStdString());
    if (!file.ok()) {
      std::fprintf(stderr, "armure-tape: %s\n", file.problem().text().c_str());
      return 2;
    }
    timer.setInterval(parser.value(every).toInt());
    QObject::connect(&timer, &QTimer::timeout, &app,
                     [&tape, readings = readingsOf(file->measures), next = size_t{0}]() mutable {
                       if (!tape.isIdle()) return;
                       if (next == readings.size()) return QCoreApplication::quit();
                       tape.take(readings[next++]);
                     });
    timer.start();
    return QCoreApplication::exec();
  }
  QSocketNotifier input(STDIN_FILENO, QSocketNotifier::Read);
  QObject::connect(&input, &QSocketNotifier::activated, &app, [&tape, typed = std::string()]() mutable {
    char bytes[512];
    const ssize_t count = ::read(STDIN_FILENO, bytes, sizeof bytes);
    if (count <= 0) return QCoreApplication::quit();
    typed.append(bytes, static_cast<size_t>(count));
    for (size_t end; (end = typed.find('\n')) != std::string::npos; typed.erase(0, end + 1))
      obey(tape, typed.substr(0, end));
  });
  return QCoreApplication::exec();
}
