// app/settled_text.h
//
// Rich text in the column on the right that is new at every step of a drag: laid out once at its fixed width, where a
// label lays it out four times. It can be selected and copied, and never scrolls.
#pragma once

#include <QTextEdit>
#include <cmath>

namespace armure {

class SettledText : public QTextEdit {
 public:
  SettledText() {
    setFrameShape(QFrame::NoFrame);
    setReadOnly(true);
    setUndoRedoEnabled(false);  // nothing to undo in what is only read
    setTextInteractionFlags(Qt::TextSelectableByMouse);
    setFocusPolicy(Qt::ClickFocus);
    setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    setVerticalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    viewport()->setAutoFillBackground(false);
    viewport()->setCursor(Qt::ArrowCursor);
    document()->setDocumentMargin(0);
    setLineWrapMode(QTextEdit::FixedPixelWidth);
    setLineWrapColumnOrWidth(kTextWidth);
    setFixedWidth(kTextWidth);
  }

  void settle(const QString& html) {
    if (html == settled_) return;
    settled_ = html;
    setHtml(html);
    setFixedHeight(static_cast<int>(std::ceil(document()->size().height())));
  }

 private:
  static constexpr int kTextWidth = 296;
  QString settled_;
};

}  // namespace armure
