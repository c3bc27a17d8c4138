#include "app/client_pages.h"

#include <QButtonGroup>
#include <QHBoxLayout>
#include <QVBoxLayout>

namespace armure {

QPushButton* pillButton(const QString& text, bool checkable) {
  auto* pill = new QPushButton(text);
  pill->setObjectName("pill");
  pill->setCheckable(checkable);
  pill->setCursor(Qt::ArrowCursor);
  return pill;
}

ClientPages::ClientPages(OrderSession& session, ClientRecords& records, QWidget* parent)
    : QWidget(parent),
      figure_(new FigureView(session)),
      book_(new BookView(records, session)),
      compare_(new CompareView(records, session)),
      stack_(new QStackedWidget) {
  setObjectName("paperPage");
  setAttribute(Qt::WA_StyledBackground);
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 0, 0, 0);
  column->setSpacing(0);
  auto* top = new QHBoxLayout;
  top->setContentsMargins(12, 10, 12, 0);
  top->setSpacing(4);
  top->addStretch(1);
  auto* group = new QButtonGroup(this);
  const std::pair<const char*, ClientPage> pages[] = {
      {"figure", ClientPage::Figure}, {"client book", ClientPage::Book}, {"two dates", ClientPage::TwoDates}};
  for (const auto& [text, page] : pages) {
    QPushButton* pill = pillButton(text);
    group->addButton(pill);
    top->addWidget(pill);
    pills_.push_back(pill);
    connect(pill, &QPushButton::clicked, this, [this, p = page] { setPage(p); });
  }
  QPushButton* pattern = pillButton("pattern", false);
  top->addWidget(pattern);
  column->addLayout(top);
  stack_->addWidget(figure_);
  stack_->addWidget(book_);
  stack_->addWidget(compare_);
  column->addWidget(stack_, 1);
  connect(pattern, &QPushButton::clicked, this, &ClientPages::patternWanted);
  connect(figure_, &FigureView::measureChosen, this, &ClientPages::measureChosen);
  connect(book_, &BookView::compareWanted, this, [this](const std::string& client, const std::string& set) {
    setPage(ClientPage::TwoDates);
    compare_->compare(client, set);
  });
  setPage(ClientPage::Figure);
}

void ClientPages::setTheme(const Theme& theme) {
  figure_->setTheme(theme);
  compare_->setTheme(theme);
}

void ClientPages::setPage(ClientPage page) {
  stack_->setCurrentIndex(static_cast<int>(page));
  pills_[static_cast<size_t>(page)]->setChecked(true);
}

}  // namespace armure
