// Goes through the corpus and mutations of it, with no help of a fuzzer: the same inputs on every machine.
//
//   fuzz_replay CORPUS [--mutations N] [--seed S] [--only TARGET]
//
// Ends with 1 at the first input that throws, takes longer than two seconds of the processor or makes the program grow
// by more than 200 MB, and leaves that input in the working folder. Prints what it did.
#include <fmt/format.h>
#include <unistd.h>

#include <CLI/CLI.hpp>
#include <QCoreApplication>
#include <ctime>
#include <filesystem>
#include <fstream>
#include <random>

#include "fuzz/targets.h"

namespace {

using armure::fuzz::Target;

constexpr double kLongest = 2;    // seconds
constexpr double kLargest = 200;  // MB

// Words that mean something to one of the readers.
constexpr std::string_view kWords[] = {"\"",
                                       "{",
                                       "}",
                                       "[",
                                       "]",
                                       ",",
                                       ";",
                                       "\t",
                                       "\r\n",
                                       ":",
                                       "\\u0000",
                                       "1e999",
                                       "-0",
                                       "0.1",
                                       "9 1/2",
                                       "9,5",
                                       "\xE2\x80\xB3",
                                       "\xC2\xA0",
                                       "in",
                                       "cm",
                                       "mm",
                                       "kg",
                                       "null",
                                       "true",
                                       "\"mm\"",
                                       "\"typed\"",
                                       "\"takings\"",
                                       "\"choices\"",
                                       "\"version\"",
                                       "#",
                                       "measure,value,unit,note\n",
                                       "bust",
                                       "waist",
                                       "=",
                                       "seam.",
                                       "hold.",
                                       "\x00",
                                       "\xFF",
                                       "\xEF\xBB\xBF",
                                       "SQLite format 3"};

std::string mutated(std::string text, const std::vector<std::string>& corpus, std::mt19937& dice) {
  const int changes = 1 + static_cast<int>(dice() % 4);
  for (int i = 0; i < changes; ++i) {
    const size_t at = text.empty() ? 0 : dice() % text.size();
    switch (dice() % 6) {
      case 0:
        if (!text.empty()) text[at] = static_cast<char>(dice());
        break;
      case 1:
        text.erase(at, dice() % 16);
        break;
      case 2:
        text.insert(at, kWords[dice() % std::size(kWords)]);
        break;
      case 3:
        text.insert(at, text.substr(at, dice() % 64));
        break;
      case 4: {  // a piece of another one
        const std::string& other = corpus[dice() % corpus.size()];
        const size_t from = other.empty() ? 0 : dice() % other.size();
        text.replace(at, dice() % 32, other.substr(from, dice() % 64));
        break;
      }
      default:
        if (!text.empty()) text[at] = static_cast<char>(text[at] ^ (1 << dice() % 8));
    }
  }
  return text;
}

double residentMb() {
  std::ifstream in("/proc/self/statm");
  double pages = 0, resident = 0;
  in >> pages >> resident;
  return resident * static_cast<double>(::sysconf(_SC_PAGESIZE)) / 1e6;
}

// False where the input must not be like this.
bool holds(const Target& target, const std::string& input) {
  const double before = residentMb();
  const std::clock_t start = std::clock();
  std::string fault;
  try {
    target.run(input);
  } catch (const std::exception& e) {
    fault = e.what();
  }
  const double took = static_cast<double>(std::clock() - start) / CLOCKS_PER_SEC;
  if (fault.empty() && took > kLongest) fault = fmt::format("it takes {:.1f} s", took);
  if (fault.empty() && residentMb() - before > kLargest) fault = "it takes more than 200 MB";
  if (fault.empty()) return true;
  const std::string name = fmt::format("fault-{}.bin", target.name);
  std::ofstream(name, std::ios::binary) << input;
  fmt::print(stderr, "fuzz: {}: {}; the input is in {}\n", target.name, fault, name);
  return false;
}

std::vector<std::string> corpusIn(const std::filesystem::path& folder) {
  std::vector<std::filesystem::path> files;
  for (const auto& entry : std::filesystem::directory_iterator(folder)) files.push_back(entry.path());
  std::sort(files.begin(), files.end());
  std::vector<std::string> all;
  for (const auto& file : files) {
    std::ifstream in(file, std::ios::binary);
    all.emplace_back(std::istreambuf_iterator<char>(in), std::istreambuf_iterator<char>());
  }
  if (all.empty()) all.emplace_back();
  return all;
}

}  // namespace

int main(int argc, char** argv) {
  QCoreApplication qt(argc, argv);
  CLI::App app("Replays the corpus and mutations of it.");
  std::string corpus, only;
  size_t mutations = 4000;
  unsigned seed = 1;
  app.add_option("corpus", corpus, "folder with one folder a target")->required();
  app.add_option("--mutations", mutations, "of each target");
  app.add_option("--seed", seed, "of the random numbers");
  app.add_option("--only", only, "this target alone");
  CLI11_PARSE(app, argc, argv);
  for (const Target& target : armure::fuzz::targets()) {
    if (!only.empty() && only != target.name) continue;
    const std::vector<std::string> known = corpusIn(std::filesystem::path(corpus) / target.name);
    std::mt19937 dice(seed);
    for (const std::string& input : known)
      if (!holds(target, input)) return 1;
    // A book is a file with a disk behind it, and every choice drafts: fewer of them.
    const size_t count = target.name == "book"                                  ? mutations / 20
                         : target.name == "choices" || target.name == "drawing" ? mutations / 7
                                                                                : mutations;
    for (size_t i = 0; i < count; ++i)
      if (!holds(target, mutated(known[dice() % known.size()], known, dice))) return 1;
    fmt::print("fuzz: {}: {} known inputs, {} mutations\n", target.name, known.size(), count);
  }
  return 0;
}
