#include "app/tracing_session.h"

#include <QCryptographicHash>
#include <QDir>
#include <QFile>

#include "io/atomic_file.h"
#include "io/tracing_json.h"
#include "tracing/guess.h"

namespace armure {
namespace {

std::string markOf(const std::string& text) {
  return QCryptographicHash::hash(QByteArray::fromStdString(text), QCryptographicHash::Sha256).toHex().toStdString();
}

std::string tracingFolder() {
  const QByteArray state = qgetenv("XDG_STATE_HOME");
  const QString base = state.isEmpty() ? QDir::homePath() + "/.local/state" : QString::fromLocal8Bit(state);
  return (base + "/armure/tracings").toStdString();
}

}  // namespace

TracingSession::TracingSession(LineDrawing drawing, std::string file, const std::string& text, QObject* parent)
    : QObject(parent),
      drawing_(std::move(drawing)),
      scaled_(drawing_),
      file_(std::move(file)),
      mark_(markOf(text)),
      history_(guessedNames(drawing_)),
      pattern_(Problem{}) {
  if (const Result<std::string> kept = readFile(keptAs()); kept.ok())
    if (Result<TracingFile> said = parseTracing(*kept, keptAs()); said.ok()) {
      history_ = History<TracingNames>(std::move(said.value().names));
      wasKept_ = true;
    }
  outlines_ = outlinesOf(scaled_);
  follow();
  if (!names().pieces.empty()) picked_.piece = names().pieces.front().id;
}

std::string TracingSession::keptAs() const { return tracingFolder() + "/" + mark_ + ".json"; }

void TracingSession::keep() const {
  QDir().mkpath(QString::fromStdString(tracingFolder()));
  writeFileAtomically(keptAs(), tracingText(names()), Readers::Owner);
}

void TracingSession::forget() const { QFile::remove(QString::fromStdString(keptAs())); }

void TracingSession::follow() {
  if (names().scale != scale_) {
    scale_ = names().scale;
    scaled_ = scaled(drawing_, scale_);
    outlines_ = outlinesOf(scaled_);
  }
  pattern_ = tracedPattern(scaled_, outlines_, names());
  if (!pieceNamed(names(), picked_.piece)) picked_ = {names().pieces.empty() ? "" : names().pieces.front().id, ""};
  if (!edgeNamed(names(), picked_)) picked_.edge.clear();
}

void TracingSession::change(TracingNames next, const char* name, const char* mergeKey) {
  if (next == names()) return;
  history_.record(std::move(next), name, mergeKey);
  follow();
  keep();
  emit changed();
}

void TracingSession::setScale(double scale) {
  // What nobody has corrected yet is guessed anew at its true size.
  const bool guessed = names() == guessedNames(drawing_, {.scale = scale_});
  TracingNames next = guessed ? guessedNames(drawing_, {.scale = scale}) : names();
  next.scale = scale;
  change(std::move(next), "scale", "scale");
}

void TracingSession::undo() {
  if (!history_.undo()) return;
  follow();
  keep();
  emit changed();
}

void TracingSession::redo() {
  if (!history_.redo()) return;
  follow();
  keep();
  emit changed();
}

void TracingSession::pick(TracedEdge edge) {
  if (edge == picked_) return;
  picked_ = std::move(edge);
  emit pickedChanged();
}

}  // namespace armure
