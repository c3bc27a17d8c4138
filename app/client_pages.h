// app/client_pages.h
//
// The middle of the stage Client: the figure, the client book, or two dates side by side, chosen on top. The pattern is
// a fourth choice, shown by the window's table.
#pragma once

#include <QPushButton>
#include <QStackedWidget>

#include "app/book_view.h"
#include "app/compare_view.h"
#include "app/figure_view.h"

namespace armure {

enum class ClientPage { Figure, Book, TwoDates };

class ClientPages : public QWidget {
  Q_OBJECT
 public:
  ClientPages(OrderSession& session, ClientRecords& records, QWidget* parent = nullptr);
  void setTheme(const Theme& theme);
  void setPage(ClientPage page);
  ClientPage page() const { return static_cast<ClientPage>(stack_->currentIndex()); }
  FigureView& figure() { return *figure_; }

 signals:
  void measureChosen(const std::string& id);
  void patternWanted();

 private:
  FigureView* figure_;
  BookView* book_;
  CompareView* compare_;
  QStackedWidget* stack_;
  std::vector<QPushButton*> pills_;
};

// A round button of a choice on top of the paper.
QPushButton* pillButton(const QString& text, bool checkable = true);

}  // namespace armure
