// app/body_view.h
//
// The bodice tried on: the cloth on the body, turned with the mouse or the arrow keys, what the trial found beside it,
// and what would mend it, shown before it is taken. Found in the background; while a newer one is being found the last
// is shown as old.
#pragma once

#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QPushButton>
#include <QTimer>
#include <QWidget>
#include <memory>
#include <optional>

#include "app/body_canvas.h"
#include "app/order_session.h"
#include "app/trial_runner.h"

namespace armure {

class BodyView : public QWidget {
  Q_OBJECT
 public:
  explicit BodyView(OrderSession& session, QWidget* parent = nullptr);
  void setTheme(const Theme& theme);
  BodyCanvas& canvas() { return *canvas_; }
  void setColour(ClothColour colour);
  void setNear(bool near);  // on the cups
  QListWidget& findings() { return *list_; }
  const TryOn* shown() const { return tried_ ? &*tried_->result : nullptr; }
  // Whether what is shown is that of the order as it stands.
  bool isCurrent() const { return tried_ && !old_; }

 signals:
  void left();

 protected:
  void showEvent(QShowEvent*) override { refresh(); }

 private:
  QWidget* makeHead();
  QWidget* makeFoot();
  void makeCorner();
  void refresh();
  void take(std::shared_ptr<const Trying> tried);
  void compare(std::shared_ptr<const Trying> mended);
  void list();
  void choose(int row);
  void tryMending();
  void takeMending();
  void leaveMending();
  const Finding* chosen() const;
  void readTension();
  void outdated();
  QString compared(const TryOn& before, const TryOn& after) const;

  OrderSession& session_;
  TrialRunner runner_, mender_;
  QTimer later_;
  std::shared_ptr<const Trying> tried_;
  bool old_ = false;
  std::optional<Mending> mending_;  // that is being tried, or shown
  BodyCanvas* canvas_;
  QListWidget* list_;
  QLabel *state_, *mendText_;
  QPushButton *try_, *take_, *leave_, *near_ = nullptr;
  QLineEdit* lacedField_;          // N/cm; empty: to its gap
  std::optional<double> tension_;  // as it was last typed and could be read
  std::vector<QPushButton*> pills_;
};

}  // namespace armure
