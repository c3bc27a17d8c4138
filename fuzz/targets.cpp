#include "fuzz/targets.h"

#include <fmt/format.h>
#include <unistd.h>

#include <array>
#include <filesystem>
#include <fstream>
#include <stdexcept>

#include "book/client_book.h"
#include "io/base_file.h"
#include "io/dxf_reader.h"
#include "io/measurement_csv.h"
#include "io/order_file.h"
#include "io/tape_protocol.h"
#include "io/tracing_json.h"
#include "measure/takings.h"
#include "quotable.h"
#include "recalc/bases.h"
#include "recalc/idle.h"
#include "tracing/guess.h"

namespace armure::fuzz {
namespace {

void require(bool holds, const char* what) {
  if (!holds) throw std::logic_error(what);
}

// A body every choice can be tried on.
Order plainOrder() {
  Order o;
  for (const auto& [id, typed] : {std::pair{"bust", "36 in"},
                                  {"upper_bust", "33 1/2 in"},
                                  {"waist", "28 in"},
                                  {"high_hip", "35 in"},
                                  {"hip", "38 in"},
                                  {"stature", "66 in"}})
    o.measures.set(id, measureOf(readTakings(id, typed, Unit::Inch).value(), Use::Last, ""));
  return o;
}

// A folder of this process's own, gone at its end.
class Scratch {
 public:
  Scratch() { std::filesystem::create_directories(path_); }
  ~Scratch() {
    std::error_code failed;
    std::filesystem::remove_all(path_, failed);
  }
  void clear() const {
    std::error_code failed;
    for (const auto& entry : std::filesystem::directory_iterator(path_, failed))
      std::filesystem::remove_all(entry.path(), failed);
  }
  std::filesystem::path file(const char* name) const { return path_ / name; }

 private:
  std::filesystem::path path_ = std::filesystem::temp_directory_path() / fmt::format("armure-fuzz-{}", ::getpid());
};

// Everything a book holds, as text.
std::string contentOf(const ClientBook& book) {
  std::string text;
  const auto clients = book.clients();
  if (!clients.ok()) return text;
  for (const ClientEntry& c : *clients) {
    text += c.id + c.name;
    const auto sets = book.sets(c.id);
    if (!sets.ok()) continue;
    for (const SetEntry& s : *sets) {
      text += s.id + s.date;
      if (const auto measures = book.measures(s.id); measures.ok())
        text += writeMeasurements(*measures, c.name, s.date);
    }
  }
  return text;
}

}  // namespace

void order(std::string_view bytes) {
  const Result<OrderFile> read = parseOrder(bytes, "order");
  if (!read.ok()) return require(!read.problem().text().empty(), "an order is refused without a word");
  const std::string written = orderText(*read);
  const Result<OrderFile> again = parseOrder(written, "order");
  require(again.ok(), "an order that was written is refused");
  require(again->order == read->order, "an order that was written is read back as another");
  require(orderText(*again) == written, "an order is not written the same twice");
  (void)recalc(read->order);
}

void base(std::string_view bytes) {
  const Result<BaseFile> read = parseBase(bytes, "base");
  if (!read.ok()) return require(!read.problem().text().empty(), "a base is refused without a word");
  const std::string written = baseText(*read);
  const Result<BaseFile> again = parseBase(written, "base");
  require(again.ok(), "a base that was written is refused");
  require(again->base == read->base, "a base that was written is read back as another");
  require(baseText(*again) == written, "a base is not written the same twice");
  Order order = orderFromBase(read->base, plainOrder().measures);
  (void)recalc(order);
}

void csv(std::string_view bytes) {
  const Result<MeasurementFile> read = parseMeasurements(bytes, "list");
  if (!read.ok()) return require(!read.problem().text().empty(), "a list is refused without a word");
  const std::string written = writeMeasurements(read->measures, read->client, read->date);
  const Result<MeasurementFile> again = parseMeasurements(written, "list");
  require(again.ok(), "a list that was written is refused");
  require(again->client == read->client && again->date == read->date, "client or date are read back as others");
  for (const auto& [id, m] : read->measures.all()) {
    const TakenMeasure* back = again->measures.find(id);
    require(back && back->note == m.note, "a measure or its note is lost");
    require(std::abs(back->mm - m.mm) < 1e-6, "a measure is read back as another");
  }
}

void choices(std::string_view bytes) {
  constexpr size_t kMostLines = 12;
  Order o = plainOrder();
  size_t lines = 0;
  while (!bytes.empty() && lines++ < kMostLines) {
    const size_t end = std::min(bytes.find('\n'), bytes.size());
    const std::string_view line = bytes.substr(0, end);
    bytes.remove_prefix(std::min(end + 1, bytes.size()));
    const size_t equals = line.find('=');
    if (equals == std::string_view::npos) continue;
    const std::string_view key = line.substr(0, equals), value = line.substr(equals + 1);
    for (const Unit unit : {Unit::Inch, Unit::Centimetre, Unit::Millimetre}) {
      const Result<std::string> kept = checkChoice(key, value, unit);
      if (!kept.ok()) continue;
      for (const Unit other : {Unit::Inch, Unit::Centimetre, Unit::Millimetre}) {
        const Result<std::string> again = checkChoice(key, *kept, other);
        require(again.ok() && *again == *kept, "a choice that was kept is not read back");
      }
      o.choices[std::string(key)] = *kept;
    }
    if (const auto takings = readTakings("bust", value, Unit::Inch); takings.ok())
      for (const Taking& t : *takings) {
        const auto again = readTakings("bust", t.typed, Unit::Centimetre);
        require(again.ok() && again->size() == 1 && again->front().mm == t.mm && again->front().typed == t.typed,
                "a taking that was kept is not read back");
      }
  }
  (void)recalc(o);
}

void drawing(std::string_view bytes) {
  const Result<LineDrawing> read = parseDrawing(bytes, "drawing");
  if (!read.ok()) return;
  const TracingNames names = guessedNames(*read);
  const Result<Pattern> pattern = tracedPattern(*read, names);
  require(!pattern.ok() || !patternProblem(*pattern), "a pattern that is not sound");
  const Result<TracingFile> again = parseTracing(tracingText(names), "names");
  require(again.ok() && again->names == names, "what is guessed is not read again");
}

void tracing(std::string_view bytes) {
  const Result<TracingFile> read = parseTracing(bytes, "names");
  if (!read.ok()) return;
  const Result<TracingFile> again = parseTracing(tracingText(read->names), "names");
  require(again.ok() && again->names == read->names, "what was written is not read again");
  LineDrawing square;
  square.shapes.push_back({Path::polyline({{0, 0}, {200, 0}, {200, 300}, {0, 300}, {0, 0}}), true, "", ""});
  if (const Result<Pattern> pattern = tracedPattern(square, read->names); pattern.ok())
    require(!patternProblem(*pattern), "a pattern that is not sound");
}

void tape(std::string_view bytes) {
  TapeInbox inbox;
  size_t part = 1;
  while (!bytes.empty()) {
    for (const TapeEvent& e : inbox.feed(bytes.substr(0, part)))
      if (e.kind == TapeEvent::Kind::Reading || e.kind == TapeEvent::Kind::Late)
        require(e.mm > 0 && e.mm <= 10000 && e.number > 0, "a reading that cannot be");
    bytes.remove_prefix(std::min(part, bytes.size()));
    part = part % 97 + 13;
  }
  inbox.disconnected();
}

void book(std::string_view bytes) {
  const Scratch scratch;
  const auto file = scratch.file("clients.sqlite");
  {
    std::ofstream out(file, std::ios::binary);
    out.write(bytes.data(), static_cast<std::streamsize>(bytes.size()));
  }
  std::string first;
  {
    const Result<ClientBook> opened = ClientBook::open(file);
    if (!opened.ok()) return require(!opened.problem().text().empty(), "a book is refused without a word");
    first = contentOf(*opened);
  }
  const Result<ClientBook> again = ClientBook::open(file);
  require(again.ok(), "a book that was opened is refused");
  require(!again->damage(), "a book that was restored is damaged");
  require(contentOf(*again) == first, "a book is read back as another");
}

std::span<const Target> targets() {
  static constexpr std::array<Target, 8> kTargets{{{"order", order},
                                                   {"base", base},
                                                   {"csv", csv},
                                                   {"choices", choices},
                                                   {"tape", tape},
                                                   {"drawing", drawing},
                                                   {"tracing", tracing},
                                                   {"book", book}}};
  return kTargets;
}

}  // namespace armure::fuzz
