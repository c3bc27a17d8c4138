#include "app/autosave.h"

#include <fmt/format.h>
#include <unistd.h>

#include <QDateTime>
#include <QDir>
#include <QFile>
#include <algorithm>
#include <fstream>
#include <nlohmann/json.hpp>
#include <sstream>

#include "io/atomic_file.h"

namespace armure {
namespace {

constexpr int kPauseMs = 700;

// When a process started, in clock ticks since boot (field 22 of /proc/PID/stat); empty when there is no such process.
// With it a number that has been given to another process is not taken for the run that wrote a file.
std::string startOf(pid_t pid) {
  std::ifstream in(fmt::format("/proc/{}/stat", pid));
  std::string text((std::istreambuf_iterator<char>(in)), std::istreambuf_iterator<char>());
  const size_t name = text.rfind(')');  // the name may hold anything
  if (name == std::string::npos) return {};
  std::istringstream fields(text.substr(name + 1));
  std::string field;
  for (int i = 3; i <= 22; ++i) fields >> field;
  return field;
}

}  // namespace

Autosave::Autosave(OrderSession& session, QObject* parent) : QObject(parent), session_(session) {
  timer_.setSingleShot(true);
  timer_.setInterval(kPauseMs);
  connect(&timer_, &QTimer::timeout, this, &Autosave::writeNow);
  connect(&session, &OrderSession::changed, this, [this] { timer_.start(); });
}

std::string Autosave::folder() {
  const QByteArray state = qgetenv("XDG_STATE_HOME");
  const QString base = state.isEmpty() ? QDir::homePath() + "/.local/state" : QString::fromLocal8Bit(state);
  return (base + "/armure/autosave").toStdString();
}

std::string Autosave::file() const { return fmt::format("{}/{}.json", folder(), ::getpid()); }

void Autosave::writeNow() {
  timer_.stop();
  if (session_.isSaved()) {
    QFile::remove(QString::fromStdString(file()));
    return;
  }
  if (!QDir().mkpath(QString::fromStdString(folder()))) {
    emit failed("The folder for autosaved work cannot be made: " + QString::fromStdString(folder()));
    return;
  }
  const nlohmann::ordered_json kept{{"pid", ::getpid()},
                                    {"started", startOf(::getpid())},
                                    {"path", session_.path()},
                                    {"time", QDateTime::currentDateTime().toString("d MMMM, hh:mm").toStdString()},
                                    {"title", session_.order().title},
                                    {"order", orderText(session_.asFile())}};
  if (const auto problem =
          writeFileAtomically(file(), kept.dump(1, ' ', false, nlohmann::ordered_json::error_handler_t::replace)))
    emit failed(QString::fromStdString(problem->text()));
}

std::vector<Recovered> Autosave::leftBehind() {
  std::vector<Recovered> found;
  const QDir dir(QString::fromStdString(folder()));
  for (const QFileInfo& info : dir.entryInfoList({"*.json"}, QDir::Files, QDir::Time)) {
    const auto text = readFile(info.filePath().toStdString());
    if (!text.ok()) continue;
    const auto kept = nlohmann::ordered_json::parse(*text, nullptr, false);
    if (!kept.is_object() || !kept.contains("order") || !kept["order"].is_string()) continue;
    const auto string = [&](const char* key) {
      return kept.contains(key) && kept[key].is_string() ? kept[key].get<std::string>() : std::string();
    };
    if (kept.contains("pid") && kept["pid"].is_number_integer() &&
        startOf(kept["pid"].get<pid_t>()) == string("started"))
      continue;
    found.push_back({info.filePath().toStdString(), string("path"), string("time"), string("title"), string("order")});
  }
  return found;
}

void Autosave::forget(const Recovered& recovered) { QFile::remove(QString::fromStdString(recovered.file)); }

}  // namespace armure
