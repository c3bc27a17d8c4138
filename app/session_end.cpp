#include "app/session_end.h"

#include <signal.h>
#include <sys/socket.h>
#include <unistd.h>

#include <QCoreApplication>
#include <QGuiApplication>
#include <QSessionManager>
#include <QSocketNotifier>

namespace armure {
namespace {

// Signals may only write a byte; the event loop reads it (signal-safety(7)). Written once before handlers are set.
int signalPipe[2] = {-1, -1};

void onSignal(int) {
  const char byte = 1;
  [[maybe_unused]] const ssize_t n = ::write(signalPipe[1], &byte, 1);
}

constexpr int kSignals[] = {SIGTERM, SIGINT, SIGHUP};

}  // namespace

SessionEnd::SessionEnd(std::function<void()> keep, QObject* parent) : QObject(parent) {
  connect(
      qGuiApp, &QGuiApplication::commitDataRequest, this, [keep](QSessionManager&) { keep(); }, Qt::DirectConnection);
  if (::pipe(signalPipe) != 0) return;
  auto* notifier = new QSocketNotifier(signalPipe[0], QSocketNotifier::Read, this);
  connect(notifier, &QSocketNotifier::activated, this, [keep] {
    char byte = 0;
    [[maybe_unused]] const ssize_t n = ::read(signalPipe[0], &byte, 1);
    keep();
    QCoreApplication::quit();
  });
  for (int number : kSignals) ::signal(number, onSignal);
}

SessionEnd::~SessionEnd() {
  for (int number : kSignals) ::signal(number, SIG_DFL);
  for (int& end : signalPipe) {
    if (end >= 0) ::close(end);
    end = -1;
  }
}

}  // namespace armure
