// app/keys_dialog.h
//
// The keys of the window, as a list to be read (F1): what each does, in the order of the work.
#pragma once

#include <QDialog>
#include <QString>
#include <vector>

namespace armure {

struct KeyHint {
  QString keys, what;
};

// The keys of the views, which are theirs alone: they count where the view has the focus.
std::vector<KeyHint> keysOfViews();

class KeysDialog : public QDialog {
 public:
  KeysDialog(const std::vector<KeyHint>& keys, QWidget* parent);
};

}  // namespace armure
