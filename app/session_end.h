// app/session_end.h
//
// The end of the user's session, or of the program by a signal: work is kept before it is too late. The window is
// closed by SIGTERM, SIGINT and SIGHUP as by the user; the session manager's question whether data should be saved is
// answered by saving the state.
#pragma once

#include <QObject>
#include <functional>

namespace armure {

class SessionEnd : public QObject {
  Q_OBJECT
 public:
  // `keep` writes what is unsaved. One of these at a time.
  explicit SessionEnd(std::function<void()> keep, QObject* parent = nullptr);
  ~SessionEnd() override;
};

}  // namespace armure
