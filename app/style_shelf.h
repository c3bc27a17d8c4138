// app/style_shelf.h
//
// The styles on a shelf: each with its drawing, made on this client's measures (a standard figure while there are
// none), its name, and in words what it is. Choosing one sets the style of the order.
#pragma once

#include <QLabel>
#include <QListWidget>

#include "app/order_session.h"
#include "render/theme.h"

namespace armure {

class StyleShelf : public QWidget {
  Q_OBJECT
 public:
  explicit StyleShelf(OrderSession& session, QWidget* parent = nullptr);
  void setTheme(const Theme& theme);
  QListWidget* list() const { return list_; }

 signals:
  void left();  // back to the table, with the style chosen or as it was

 protected:
  void showEvent(QShowEvent*) override { refresh(); }
  bool eventFilter(QObject* object, QEvent* event) override;

 private:
  // What the drawings were made of; they are kept as long as it stays the same.
  struct Drawn {
    MeasureSet measures;
    std::string school;
    const Theme* theme = nullptr;
    double ratio = 0;
    bool operator==(const Drawn&) const = default;
  };
  Drawn wanted() const;
  void refresh();
  void draw(const Drawn& wanted);
  void describe();
  void choose();

  OrderSession& session_;
  const Theme* theme_;
  QListWidget* list_;
  QLabel* words_;
  Drawn drawn_;
};

}  // namespace armure
