#include "io/measurement_csv.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cmath>

#include "io/atomic_file.h"
#include "measure/measure_table.h"

namespace armure {
namespace {

std::string_view trimmed(std::string_view s) {
  const size_t a = s.find_first_not_of(" \t\r"), b = s.find_last_not_of(" \t\r");
  return a == std::string_view::npos ? std::string_view{} : s.substr(a, b - a + 1);
}

// True for well-formed UTF-8 without control characters other than tab and line ends.
bool isText(std::string_view s) {
  for (size_t i = 0; i < s.size();) {
    const auto c = static_cast<unsigned char>(s[i]);
    if (c < 0x20 && c != '\t' && c != '\r' && c != '\n') return false;
    const size_t length = c < 0x80 ? 1 : (c >> 5) == 6 ? 2 : (c >> 4) == 14 ? 3 : (c >> 3) == 30 ? 4 : 0;
    if (length == 0 || i + length > s.size()) return false;
    for (size_t k = 1; k < length; ++k)
      if ((static_cast<unsigned char>(s[i + k]) >> 6) != 2) return false;
    i += length;
  }
  return true;
}

// One line into fields (RFC 4180: fields may stand in double quotes, a quote inside is doubled).
Result<std::vector<std::string>> splitLine(std::string_view line) {
  std::vector<std::string> fields(1);
  bool quoted = false;
  for (size_t i = 0; i < line.size(); ++i) {
    const char c = line[i];
    if (quoted) {
      if (c != '"') {
        fields.back() += c;
      } else if (i + 1 < line.size() && line[i + 1] == '"') {
        fields.back() += line[++i];
      } else {
        quoted = false;
      }
    } else if (c == '"' && trimmed(fields.back()).empty()) {
      fields.back().clear();
      quoted = true;
    } else if (c == ',') {
      fields.emplace_back();
    } else {
      fields.back() += c;
    }
  }
  if (quoted) return Problem{"", "a quotation mark is not closed", "close it with \""};
  for (std::string& f : fields) f = std::string(trimmed(f));
  return fields;
}

std::string quoted(const std::string& field) {
  if (field.find_first_of(",\"\n") == std::string::npos) return field;
  std::string out = "\"";
  for (char c : field) out += c == '"' ? std::string("\"\"") : std::string(1, c);
  return out + "\"";
}

class Reader {
 public:
  Reader(std::string_view text, const std::string& name) : text_(text), name_(name) {}

  Result<MeasurementFile> read() && {
    if (text_.substr(0, 3) == "\xEF\xBB\xBF") text_.remove_prefix(3);
    if (trimmed(text_).find_first_not_of('\n') == std::string_view::npos)
      return Problem{name_, "the file is empty", "it should start with the line measure,value,unit,note"};
    if (!isText(text_)) return Problem{name_, "this is not a text file", "export the measures as CSV in UTF-8"};
    size_t begin = 0;
    while (begin < text_.size()) {
      size_t end = text_.find('\n', begin);
      if (end == std::string_view::npos) end = text_.size();
      ++line_;
      if (auto problem = readLine(text_.substr(begin, end - begin))) return *problem;
      begin = end + 1;
    }
    if (!headerSeen_) return Problem{name_, "there is no header", "the first line should be measure,value,unit,note"};
    if (file_.measures.all().empty())
      return Problem{name_, "there is no measure in it", "add rows like bust,36 1/2,in"};
    file_.unit = inchRows_ >= metricRows_ ? Unit::Inch : Unit::Centimetre;
    return std::move(file_);
  }

 private:
  Problem at(std::string what, std::string remedy) const {
    return {fmt::format("{}, line {}", name_, line_), std::move(what), std::move(remedy)};
  }

  std::optional<Problem> readLine(std::string_view line) {
    line = trimmed(line);
    if (line.empty() || line.front() == '#') return std::nullopt;
    const auto fields = splitLine(line);
    if (!fields.ok()) return at(fields.problem().what, fields.problem().remedy);
    if (!headerSeen_) return readHeader(*fields);
    return readRow(*fields);
  }

  std::optional<Problem> readHeader(const std::vector<std::string>& f) {
    const bool right =
        f.size() >= 3 && f[0] == "measure" && f[1] == "value" && f[2] == "unit" && (f.size() == 3 || f[3] == "note");
    if (!right) return at("the header is not understood", "it should be measure,value,unit,note");
    headerSeen_ = true;
    return std::nullopt;
  }

  std::optional<Problem> readRow(std::vector<std::string> f) {
    f.resize(std::max<size_t>(f.size(), 4));
    const std::string &id = f[0], &value = f[1], &unit = f[2];
    if (id.empty()) return at("the measure has no name", "put its id in the first column");
    if (id == "client" || id == "date") {
      (id == "client" ? file_.client : file_.date) = value;
      return std::nullopt;
    }
    if (file_.measures.has(id)) return at(fmt::format("{} stands twice", id), "keep one of the two rows");
    if (!findMeasure(id))
      file_.warnings.push_back(
          fmt::format("line {}: the measure \"{}\" is not known; it is kept but not used", line_, id));
    return id == id::kWeight ? readWeight(value, unit, f[3]) : readLength(id, value, unit, f[3]);
  }

  std::optional<Problem> readLength(const std::string& id, const std::string& value, const std::string& unit,
                                    const std::string& note) {
    const Result<Unit> u = parseUnit(unit);
    if (!u.ok()) return at(fmt::format("{}: {}", id, u.problem().what), u.problem().remedy);
    const Result<double> mm = parseLength(value, u.value());
    if (!mm.ok()) return at(fmt::format("{}: {}", id, mm.problem().what), mm.problem().remedy);
    if (mm.value() <= 0) return at(fmt::format("{} is {}", id, value), "a measure is more than nothing");
    if (const auto problem = measureProblem(id, mm.value())) return at(problem->what, problem->remedy);
    ++(u.value() == Unit::Inch ? inchRows_ : metricRows_);
    file_.measures.set(id, {mm.value(), fmt::format("{} {}", value, unitSymbol(u.value())), note});
    return std::nullopt;
  }

  std::optional<Problem> readWeight(const std::string& value, const std::string& unit, const std::string& note) {
    if (unit != "kg") return at("weight is not in kg", "give it in kilograms, with the unit kg");
    const Result<double> kg = parseLength(value, Unit::Millimetre);
    if (!kg.ok()) return at(fmt::format("weight: {}", kg.problem().what), "write it like 62.5");
    if (const auto problem = measureProblem(id::kWeight, kg.value())) return at(problem->what, problem->remedy);
    file_.measures.set(id::kWeight, {kg.value(), value + " kg", note});
    return std::nullopt;
  }

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
  if (id == id::kWeight) return {fmt::format("{:.6g}", m.mm), "kg"};
  const size_t unitAt = m.typed.find_last_of(' ');
  if (unitAt != std::string::npos) {
    const Result<Unit> unit = parseUnit(m.typed.substr(unitAt + 1));
    const Result<double> mm = parseLength(m.typed, Unit::Millimetre);
    if (unit.ok() && mm.ok() && std::abs(mm.value() - m.mm) < 1e-6)
      return {m.typed.substr(0, unitAt), std::string(unitSymbol(unit.value()))};
  }
  return {fmt::format("{:.6g}", m.mm), "mm"};
}

}  // namespace

Result<MeasurementFile> parseMeasurements(std::string_view text, const std::string& name) {
  return Reader(text, name).read();
}

Result<MeasurementFile> readMeasurements(const std::filesystem::path& path) {
  const Result<std::string> text = readFile(path);
  if (!text.ok()) return text.problem();
  return parseMeasurements(*text, path.string());
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
