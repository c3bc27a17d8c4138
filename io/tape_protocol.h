// io/tape_protocol.h
//
// What a digital tape says over its line (docs/format/tape.md): one JSON object a line, UTF-8.
//
//   tape     {"armure-tape": 1, "name": "Workroom tape", "count": "7f3a"}
//   tape     {"reading": 17, "mm": 914.4, "age": 0}
//   program  {"taken": 17}
//
// Readings are numbered upwards within one count; a tape that starts anew names another. The tape keeps a reading until
// it is acknowledged and sends it again after a lost connection; `age` is how many milliseconds ago it was taken.
#pragma once

#include <string>
#include <string_view>
#include <vector>

namespace armure {

inline constexpr int kTapeVersion = 1;
inline constexpr size_t kLongestTapeLine = 4096;  // bytes
inline constexpr double kLateAfterMs = 5000;      // an older reading is shown, not written into a field

struct TapeEvent {
  enum class Kind {
    Hello,      // `text` is the tape's name
    Reading,    // `number` and `mm`
    Late,       // a reading too old to be for the field one is in
    Duplicate,  // a number that has come before
    Garbage,    // `text` says what is wrong; nothing was read
  };
  Kind kind;
  long number = 0;
  double mm = 0, ageMs = 0;
  long missed = 0;  // how many numbers were left out before this reading
  std::string text{};
};

// Turns the bytes of the line into events, whole lines only, whatever arrives. Keeps its count of readings through a
// lost connection.
class TapeInbox {
 public:
  std::vector<TapeEvent> feed(std::string_view bytes);
  // The connection is gone: half a line is forgotten, the numbers are not. Another count is told by its hello.
  void disconnected();

 private:
  TapeEvent understand(std::string_view line);
  std::string rest_;
  bool skipping_ = false;  // within a line that is too long
  long last_ = 0;
  std::string count_;
};

std::string tapeHello(std::string_view name, std::string_view count);
std::string tapeReading(long number, double mm, double ageMs);
std::string tapeTaken(long number);
// The number of an acknowledgement, or 0 for any other line.
long takenNumber(std::string_view line);

}  // namespace armure
