// core/order/history.h
//
// Undo without end: every state of a value, and where in the row of states one stands.
#pragma once

#include <string>
#include <utility>
#include <vector>

namespace armure {

template <typename T>
class History {
 public:
  explicit History(T first) { states_.push_back({std::move(first), ""}); }

  const T& now() const { return states_[at_].value; }
  bool canUndo() const { return at_ > 0; }
  bool canRedo() const { return at_ + 1 < states_.size(); }

  // What undo would take back and redo would do again, as named by record(); empty when there is nothing.
  const std::string& undoName() const { return canUndo() ? states_[at_].name : empty_; }
  const std::string& redoName() const { return canRedo() ? states_[at_ + 1].name : empty_; }

  // A new state; what could be redone is forgotten. A state equal to the present one is not recorded. Two records in a
  // row with the same non-empty `mergeKey` become one step (typing in one field).
  void record(T value, std::string name, std::string mergeKey = "") {
    if (value == now()) return;
    const bool merges = !mergeKey.empty() && mergeKey == mergeKey_ && at_ > 0 && !canRedo();
    states_.resize(at_ + 1);
    if (merges) {
      states_[at_].value = std::move(value);
    } else {
      states_.push_back({std::move(value), std::move(name)});
      ++at_;
    }
    mergeKey_ = std::move(mergeKey);
  }
  // Ends a run of merged records: the next one is a step of its own.
  void settle() { mergeKey_.clear(); }

  bool undo() {
    if (!canUndo()) return false;
    --at_;
    settle();
    return true;
  }
  bool redo() {
    if (!canRedo()) return false;
    ++at_;
    settle();
    return true;
  }

 private:
  struct State {
    T value;
    std::string name;
  };
  std::vector<State> states_;
  size_t at_ = 0;
  std::string mergeKey_;
  std::string empty_;
};

}  // namespace armure
