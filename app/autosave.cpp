#include "app/autosave.h"

#include <fmt/format.h>
#include <unistd.h>

#include <QDateTime>
#include <QDir>
#include <QFile>
#include <QUuid>
#include <algorithm>
#include <fstream>
#include <sstream>

#include "io/atomic_file.h"
#include "io/bounded_json.h"

namespace armure {
namespace {

constexpr int kPauseMs = 400;  // after the first change that is not kept yet, however many follow

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

std::string newId() { return QUuid::createUuid().toString(QUuid::WithoutBraces).toStdString(); }

}  // namespace

Autosave::Autosave(OrderSession& session, QObject* parent) : QObject(parent), session_(session), id_(newId()) {
  timer_.setSingleShot(true);
  timer_.setInterval(kPauseMs);
  connect(&timer_, &QTimer::timeout, this, &Autosave::writeNow);
  connect(&session, &OrderSession::changed, this, [this] {
    if (!timer_.isActive()) timer_.start();
  });
}

std::string Autosave::folder() {
  const QByteArray state = qgetenv("XDG_STATE_HOME");
  const QString base = state.isEmpty() ? QDir::homePath() + "/.local/state" : QString::fromLocal8Bit(state);
  return (base + "/armure/autosave").toStdString();
}

std::string Autosave::file() const { return fmt::format("{}/{}.json", folder(), id_); }

bool Autosave::writeNow() {
  timer_.stop();
  if (session_.isSaved()) {
    QFile::remove(QString::fromStdString(file()));
    return true;
  }
  const QString dir = QString::fromStdString(folder());
  if (!QDir().mkpath(dir)) {
    emit failed("The folder for autosaved work cannot be made: " + dir);
    return false;
  }
  QFile::setPermissions(dir, QFile::ReadOwner | QFile::WriteOwner | QFile::ExeOwner);
  const Json kept{{"pid", ::getpid()},
                  {"started", startOf(::getpid())},
                  {"path", session_.path()},
                  {"time", QDateTime::currentDateTime().toString("d MMMM, hh:mm").toStdString()},
                  {"title", session_.order().title},
                  {"order", orderText(session_.asFile())}};
  const auto problem = writeFileAtomically(file(), jsonText(kept), Readers::Owner);
  if (problem) emit failed(QString::fromStdString(problem->text()));
  return !problem;
}

bool Autosave::setAside() {
  if (!writeNow()) return false;
  if (!session_.isSaved()) id_ = newId();
  return true;
}

std::vector<Recovered> Autosave::kept() const {
  std::vector<Recovered> found;
  const QDir dir(QString::fromStdString(folder()));
  for (const QFileInfo& info : dir.entryInfoList({"*.json"}, QDir::Files, QDir::Time)) {
    Recovered r;
    r.file = info.filePath().toStdString();
    if (r.file == file()) continue;
    const auto text = readFile(r.file);
    const auto json = text.ok() ? parseBounded(*text, "autosaved work") : Result<BoundedJson>(text.problem());
    const auto string = [&](const char* key) {
      const bool has = json.ok() && json->doc.is_object() && json->doc.contains(key) && json->doc[key].is_string();
      return has ? json->doc[key].get<std::string>() : std::string();
    };
    r.path = string("path");
    r.time = string("time");
    r.title = string("title");
    r.text = string("order");
    if (!json.ok()) r.fault = json.problem().text();
    if (r.fault.empty() && r.text.empty()) r.fault = "there is no order in it";
    if (r.time.empty()) r.time = info.lastModified().toString("d MMMM, hh:mm").toStdString();
    const Json* pid = json.ok() && json->doc.is_object() && json->doc.contains("pid") ? &json->doc["pid"] : nullptr;
    const double process = pid && pid->is_number_integer() ? pid->get<double>() : 0;
    const bool runs = process > 0 && process < 1e9 && startOf(static_cast<pid_t>(process)) == string("started");
    const bool ours = static_cast<pid_t>(process) == ::getpid();
    if (runs && !ours) continue;  // another window has it
    found.push_back(std::move(r));
  }
  return found;
}

void Autosave::forget(const Recovered& recovered) { QFile::remove(QString::fromStdString(recovered.file)); }

}  // namespace armure
