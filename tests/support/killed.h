// tests/support/killed.h
//
// Kills a process in the middle of its work, for the promise that nothing is lost then.
#pragma once

#include <signal.h>
#include <sys/wait.h>
#include <unistd.h>

#include <catch2/catch.hpp>
#include <cstdlib>
#include <string>

namespace armure::testing {

// How often to kill: as many as ./test can afford, or $ARMURE_KILLS by hand.
inline int kills(int usual) {
  const char* wanted = std::getenv("ARMURE_KILLS");
  return wanted ? std::stoi(wanted) : usual;
}

// Whether to kill once more: `usual` times, and on until what was to be seen has been seen. How many pieces of work are
// done when the kill comes depends on the machine and what else it does; waits that grow meet every count in the end.
inline bool killsAgain(int round, int usual, size_t seen) {
  return round < kills(usual) || (seen == 0 && round < kills(usual) + 200);
}

// `work(i)` for i = 0, 1, 2, … in a process of its own, which is killed `microseconds` after it has done the first.
template <typename Work>
void killedAfter(useconds_t microseconds, const Work& work) {
  int ends[2];
  REQUIRE(::pipe(ends) == 0);
  const pid_t child = ::fork();
  REQUIRE(child >= 0);
  if (child == 0) {
    work(0);
    (void)!::write(ends[1], "", 1);
    for (int i = 1;; ++i) work(i);
  }
  char done = 0;
  (void)!::read(ends[0], &done, 1);
  ::usleep(microseconds);
  ::kill(child, SIGKILL);
  ::waitpid(child, nullptr, 0);
  ::close(ends[0]);
  ::close(ends[1]);
}

}  // namespace armure::testing
