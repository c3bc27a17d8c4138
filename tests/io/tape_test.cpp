// The line to a digital tape: what is understood, and what is not taken.
#include <catch2/catch.hpp>
#include <random>

#include "io/tape_protocol.h"

using namespace armure;
using Kind = TapeEvent::Kind;

namespace {

std::vector<Kind> kinds(TapeInbox& inbox, std::string_view bytes) {
  std::vector<Kind> all;
  for (const TapeEvent& e : inbox.feed(bytes)) all.push_back(e.kind);
  return all;
}

}  // namespace

TEST_CASE("readings come through, however the bytes are cut") {
  const std::string bytes = tapeHello("Workroom tape", "1") + tapeReading(1, 914.4, 0) + tapeReading(2, 700.25, 40);
  for (size_t cut = 1; cut < 7; ++cut) {
    TapeInbox inbox;
    std::vector<TapeEvent> events;
    for (size_t at = 0; at < bytes.size(); at += cut)
      for (TapeEvent& e : inbox.feed(std::string_view(bytes).substr(at, cut))) events.push_back(std::move(e));
    REQUIRE(events.size() == 3);
    CHECK(events[0].kind == Kind::Hello);
    CHECK(events[0].text == "Workroom tape");
    CHECK(events[1].mm == 914.4);
    CHECK(events[2].number == 2);
    CHECK(events[2].missed == 0);
  }
}

TEST_CASE("duplicates, late readings and gaps are told apart") {
  TapeInbox inbox;
  (void)inbox.feed(tapeHello("A", "1") + tapeReading(1, 900, 0));
  CHECK(kinds(inbox, tapeReading(1, 900, 30)) == std::vector{Kind::Duplicate});
  CHECK(kinds(inbox, tapeReading(2, 800, 5001)) == std::vector{Kind::Late});
  CHECK(kinds(inbox, tapeReading(2, 800, 0)) == std::vector{Kind::Duplicate});
  const auto gap = inbox.feed(tapeReading(6, 700, 0));
  CHECK(gap.front().kind == Kind::Reading);
  CHECK(gap.front().missed == 3);
}

TEST_CASE("the count is kept through a lost connection, half a line is not; another tape counts anew") {
  TapeInbox inbox;
  (void)inbox.feed(tapeHello("A", "1") + tapeReading(1, 900, 0) + "{\"reading\": 2, \"mm\": 8");
  inbox.disconnected();
  CHECK(kinds(inbox, tapeHello("A", "1") + tapeReading(1, 900, 900) + tapeReading(2, 800, 700)) ==
        std::vector{Kind::Hello, Kind::Duplicate, Kind::Reading});
  inbox.disconnected();
  CHECK(kinds(inbox, tapeHello("B", "1") + tapeReading(1, 650, 0)) == std::vector{Kind::Hello, Kind::Reading});
  inbox.disconnected();
  CHECK(kinds(inbox, tapeHello("B", "2") + tapeReading(1, 655, 0)) == std::vector{Kind::Hello, Kind::Reading});
}

TEST_CASE("noise is said to be noise and disturbs nothing after it") {
  for (const char* noise :
       {"hello", "[]", "{}", "17", "\x01\xff{]", "{\"reading\": \"1\", \"mm\": 5}", "{\"reading\": 1}", "{\"mm\": 900}",
        "{\"reading\": 1.5, \"mm\": 5}", "{\"reading\": 1, \"mm\": \"900\"}", "{\"reading\": 1, \"mm\": -3}",
        "{\"reading\": 1, \"mm\": 1e999}", "{\"reading\": 1, \"mm\": 20000}", "{\"reading\": -1, \"mm\": 900}",
        "{\"reading\": 1, \"mm\": 900, \"age\": -5}", "{\"reading\": 1, \"mm\": 900, \"age\": \"old\"}",
        "{\"reading\": 99999999999999999999, \"mm\": 900}", "{\"armure-tape\": 2}", "{\"reading\": 1, \"mm\": null}"}) {
    TapeInbox inbox;
    INFO(noise);
    const auto events = inbox.feed(std::string(noise) + "\n" + tapeReading(1, 900, 0));
    REQUIRE(events.size() == 2);
    CHECK(events[0].kind == Kind::Garbage);
    CHECK_FALSE(events[0].text.empty());
    CHECK(events[1].kind == Kind::Reading);
  }
}

TEST_CASE("a line without end is given up once and reading goes on after it") {
  TapeInbox inbox;
  const std::string flood(3 * kLongestTapeLine, 'x');
  CHECK(kinds(inbox, flood) == std::vector{Kind::Garbage});
  CHECK(kinds(inbox, flood).empty());
  CHECK(kinds(inbox, "\n" + tapeReading(1, 900, 0)) == std::vector{Kind::Reading});
}

TEST_CASE("any bytes at all are survived") {
  std::mt19937 random(3);
  TapeInbox inbox;
  for (int round = 0; round < 2000; ++round) {
    std::string bytes(random() % 60, ' ');
    for (char& c : bytes)
      c = static_cast<char>(random() % 5 ? "{}[]\":,readingm0123456789.e-\n"[random() % 30] : random());
    for (const TapeEvent& e : inbox.feed(bytes))
      if (e.kind == Kind::Reading) CHECK((e.mm > 0 && e.mm <= 10000));
  }
}

TEST_CASE("acknowledgements are read back; anything else is none") {
  CHECK(takenNumber(tapeTaken(17)) == 17);
  for (const char* text : {"", "{}", "taken 17", "{\"taken\": \"17\"}", "{\"taken\": 1.5}"})
    CHECK(takenNumber(text) == 0);
}
