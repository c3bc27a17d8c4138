#include "io/measurement_csv.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "io/atomic_file.h"
#include "measure/measure_table.h"
#include "measure/takings.h"
#include "quotable.h"

namespace armure {
namespace {

std::string_view trimmed(std::string_view s) {
  const size_t a = s.find_first_not_of(" \t\r\n"), b = s.find_last_not_of(" \t\r\n");
  return a == std::string_view::npos ? std::string_view{} : s.substr(a, b - a + 1);
}

std::string inSmallLetters(std::string_view s) {
  std::string out(s);
  for (char& c : out)
    if (c >= 'A' && c <= 'Z') c = static_cast<char>(c - 'A' + 'a');
  return out;
}

bool isControl(char c) {
  const auto u = static_cast<unsigned char>(c);
  return (u < 0x20 && c != '\t' && c != '\r' && c != '\n') || u == 0x7F;
}

// One record of the file, and the line it begins on.
struct Record {
  std::vector<std::string> fields;
  int line = 1;
};

// Divides a text into records (RFC 4180: a field may stand in double quotes, a quote inside is doubled). Lines end with
// LF, CR LF or CR.
class Records {
 public:
  Records(std::string_view text, char separator) : text_(text), separator_(separator) {}

  int line() const { return line_; }
  bool atEnd() const { return at_ >= text_.size(); }

  // The next record that is neither empty nor a comment; without fields at the end.
  Result<Record> next() {
    while (!atEnd()) {
      const std::string_view rest = trimmedLeft(text_.substr(at_));
      Record record{{""}, line_};
      if (rest.starts_with('#')) {
        skipLine();
        continue;
      }
      while (readField(record)) record.fields.emplace_back();
      if (unclosed_) {
        line_ = record.line;
        return Problem{"", "a quotation mark is not closed", "close it with \""};
      }
      if (record.fields.size() > 1 || !record.fields[0].empty()) return record;
    }
    return Record{{}, line_};
  }

 private:
  static std::string_view trimmedLeft(std::string_view s) {
    const size_t a = s.find_first_not_of(" \t");
    return a == std::string_view::npos ? std::string_view{} : s.substr(a);
  }
  // Reads a line end, if one stands here.
  bool lineEnd() {
    if (atEnd()) return true;
    if (text_[at_] != '\n' && text_[at_] != '\r') return false;
    at_ += text_.substr(at_).starts_with("\r\n") ? 2 : 1;
    ++line_;
    return true;
  }
  void skipLine() {
    while (!lineEnd()) ++at_;
  }
  // Reads one field to the end of `record`; true when another follows on the line.
  bool readField(Record& record) {
    std::string& field = record.fields.back();
    bool quoted = false, wasQuoted = false;
    while (!atEnd()) {
      const char c = text_[at_];
      if (quoted) {
        if (c == '"' && text_.substr(at_).starts_with("\"\"")) {
          field += c;
          at_ += 2;
        } else if (c == '"') {
          quoted = false;
          ++at_;
        } else if (c == '\n' || c == '\r') {
          lineEnd();
          field += '\n';
        } else {
          field += c;
          ++at_;
        }
      } else if (c == separator_) {
        ++at_;
        if (!wasQuoted) field = std::string(trimmed(field));
        return true;
      } else if (c == '\n' || c == '\r') {
        break;
      } else if (c == '"' && trimmed(field).empty() && !wasQuoted) {
        field.clear();
        quoted = wasQuoted = true;
        ++at_;
      } else {
        if (!wasQuoted || (c != ' ' && c != '\t')) field += c;
        ++at_;
      }
    }
    unclosed_ = quoted;
    if (!wasQuoted) field = std::string(trimmed(field));
    lineEnd();
    return false;
  }

  std::string_view text_;
  char separator_;
  size_t at_ = 0;
  int line_ = 1;
  bool unclosed_ = false;
};

bool isHeader(const std::vector<std::string>& f) {
  const auto is = [&](size_t i, std::string_view name) { return inSmallLetters(trimmed(f[i])) == name; };
  return f.size() >= 3 && is(0, "measure") && is(1, "value") && is(2, "unit") && (f.size() == 3 || is(3, "note"));
}

// The separator under which the first record is the header; a comma when none is.
char separatorOf(std::string_view text) {
  for (const char c : {',', ';', '\t'})
    if (const Result<Record> first = Records(text, c).next(); first.ok() && isHeader(first->fields)) return c;
  return ',';
}

// A field as it is written: in quotation marks where it needs them; control characters, which no list may hold, as
// blanks.
std::string quoted(std::string field) {
  std::replace_if(field.begin(), field.end(), isControl, ' ');
  const bool blankEnds = trimmed(field).size() != field.size();
  if (field.find_first_of(",\"\r\n") == std::string::npos && !field.starts_with('#') && !blankEnds) return field;
  std::string out = "\"";
  for (char c : field) out += c == '"' ? std::string("\"\"") : std::string(1, c);
  return out + "\"";
}

class Reader {
 public:
  Reader(std::string_view text, const std::string& name) : text_(text), name_(name) {}

  Result<MeasurementFile> read() && {
    if (text_.starts_with("\xEF\xBB\xBF")) text_.remove_prefix(3);
    if (trimmed(text_).empty())
      return Problem{verbatim(name_), "the file is empty", "it should start with the line measure,value,unit,note"};
    if (!isUtf8(text_) || std::any_of(text_.begin(), text_.end(), isControl))
      return Problem{verbatim(name_), "this is not a text file", "export the measures as CSV in UTF-8"};
    if (auto problem = readRecords()) return *problem;
    if (!headerSeen_)
      return Problem{verbatim(name_), "there is no header", "the first line should be measure,value,unit,note"};
    if (file_.measures.all().empty())
      return Problem{verbatim(name_), "there is no measure in it", "add rows like bust,36 1/2,in"};
    file_.unit = inchRows_ >= metricRows_ ? Unit::Inch : Unit::Centimetre;
    return std::move(file_);
  }

 private:
  std::optional<Problem> readRecords() {
    Records records(text_, separatorOf(text_));
    for (size_t rows = 0;; ++rows) {
      const Result<Record> record = records.next();
      line_ = record.ok() ? record->line : records.line();
      if (!record.ok()) return at(record.problem().what, record.problem().remedy);
      if (record->fields.empty()) return std::nullopt;
      if (rows > kMostCsvRows)
        return at(msg("there are more than {} rows", kMostCsvRows), "a list of measures has some thirty");
      if (auto problem = headerSeen_ ? readRow(record->fields) : readHeader(record->fields)) return problem;
    }
  }

  Problem at(Message what, Message remedy) const {
    return {msg("{}, line {}", name_, line_), std::move(what), std::move(remedy)};
  }

  std::optional<Problem> readHeader(const std::vector<std::string>& f) {
    if (!isHeader(f)) return at("the header is not understood", "it should be measure,value,unit,note");
    headerSeen_ = true;
    return std::nullopt;
  }

  std::optional<Problem> readRow(std::vector<std::string> f) {
    for (size_t i = 4; i < f.size(); ++i)
      if (!trimmed(f[i]).empty())
        return at(msg("there are {} fields", f.size()),
                  "put a value with a comma, or a note with a separator, in quotation marks");
    f.resize(4);
    const std::string id = inSmallLetters(trimmed(f[0]));
    const std::string &value = f[1], &unit = f[2];
    if (id.empty()) return at("the measure has no name", "put its id in the first column");
    if (id == "client" || id == "date") {
      std::string& into = id == "client" ? file_.client : file_.date;
      if (!into.empty()) return at(msg("{} stands twice", id), "keep one of the two rows");
      into = value;
      return std::nullopt;
    }
    const bool known = findMeasure(id) != nullptr;
    const std::string& name = known ? id : f[0];  // a name we do not know stays as it is
    if (file_.measures.has(name)) return at(msg("{} stands twice", quotable(name)), "keep one of the two rows");
    if (!known && file_.warnings.size() < kMostWarnings)
      file_.warnings.push_back(
          fmt::format("line {}: the measure \"{}\" is not known; it is kept but not used", line_, quotable(name)));
    return id == id::kWeight ? readWeight(value, unit, f[3]) : readLengthRow(name, value, unit, f[3]);
  }

  std::optional<Problem> readLengthRow(const std::string& id, const std::string& value, const std::string& unit,
                                       const std::string& note) {
    const Result<Unit> u = parseUnit(inSmallLetters(unit));
    if (!u.ok()) return at(msg("{}: {}", quotable(id), u.problem().what), u.problem().remedy);
    const Result<TypedLength> length = readLength(value, u.value());
    if (!length.ok()) return at(msg("{}: {}", quotable(id), length.problem().what), length.problem().remedy);
    if (length->unit != u.value())
      return at(msg("{}: the value says {}, the unit {}", quotable(id), known(unitSymbol(length->unit)),
                    known(unitSymbol(u.value()))),
                "keep the one that is right");
    if (length->mm <= 0) return at(msg("{} is {}", quotable(id), quotable(value)), "a measure is more than nothing");
    if (const auto problem = measureProblem(id, length->mm)) return at(problem->what, problem->remedy);
    ++(u.value() == Unit::Inch ? inchRows_ : metricRows_);
    file_.measures.set(id, {length->mm, length->text(), note});
    return std::nullopt;
  }

  std::optional<Problem> readWeight(const std::string& value, const std::string& unit, const std::string& note) {
    if (inSmallLetters(unit) != "kg") return at("weight is not in kg", "give it in kilograms, with the unit kg");
    const Result<double> kg = parseWeight(value);
    if (!kg.ok()) return at(msg("weight: {}", kg.problem().what), "write it like 62.5");
    if (const auto problem = measureProblem(id::kWeight, *kg)) return at(problem->what, problem->remedy);
    file_.measures.set(id::kWeight, {*kg, fmt::format("{} kg", *kg), note});
    return std::nullopt;
  }

  static constexpr size_t kMostWarnings = 20;

  std::string_view text_;
  const std::string& name_;
  int line_ = 0;
  int inchRows_ = 0, metricRows_ = 0;
  bool headerSeen_ = false;
  MeasurementFile file_;
};

// Value and unit columns of a measure: as typed when that still says the value, else in millimetres.
std::pair<std::string, std::string> columns(const std::string& id, const TakenMeasure& m) {
  if (!m.takings.empty() && m.use == Use::Last) return columns(id, {m.takings.back().mm, m.takings.back().typed});
  if (id == id::kWeight) return {fmt::format("{}", m.mm), "kg"};
  const Result<TypedLength> typed = readLength(m.typed, Unit::Millimetre);
  if (typed.ok() && std::abs(typed->mm - m.mm) < 1e-6) return {typed->number, std::string(unitSymbol(typed->unit))};
  return {fmt::format("{:.10g}", m.mm), "mm"};
}

}  // namespace

Result<MeasurementFile> parseMeasurements(std::string_view text, const std::string& name) {
  return Reader(text, name).read();
}

bool looksLikeMeasures(std::string_view text) {
  if (text.starts_with("\xEF\xBB\xBF")) text.remove_prefix(3);
  const Result<Record> first = Records(text, separatorOf(text)).next();
  return first.ok() && isHeader(first->fields);
}

Result<MeasurementFile> readMeasurements(const std::filesystem::path& path) {
  const Result<std::string> text = readFile(path);
  if (!text.ok()) return text.problem();
  return parseMeasurements(*text, quotable(path.string()));
}

std::string writeMeasurements(const MeasureSet& measures, const std::string& client, const std::string& date) {
  std::string out = "measure,value,unit,note\n";
  if (!client.empty()) out += fmt::format("client,{},,\n", quoted(client));
  if (!date.empty()) out += fmt::format("date,{},,\n", quoted(date));
  const auto row = [&](const std::string& id, const TakenMeasure& m) {
    const auto [value, unit] = columns(id, m);
    const bool several = !m.takings.empty() && m.note.empty();  // the list has one value a row; the note tells the rest
    const std::string note = several ? fmt::format("{} of {}", m.use == Use::Mean ? "mean" : "last", m.typed) : m.note;
    out += fmt::format("{},{},{},{}\n", quoted(id), quoted(value), unit, quoted(note));
  };
  for (const MeasureInfo& info : measureTable())
    if (const auto it = measures.all().find(info.id); it != measures.all().end()) row(it->first, it->second);
  for (const auto& [id, m] : measures.all())
    if (!findMeasure(id)) row(id, m);
  return out;
}

}  // namespace armure
