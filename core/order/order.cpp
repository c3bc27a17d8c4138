#include "order/order.h"

namespace armure {

bool Revision::operator==(const Revision& other) const {
  if (name != other.name || date != other.date) return false;
  return order == other.order || (order && other.order && *order == *other.order);
}

Order withRevision(const Order& order, std::string name, std::string date) {
  Order state = order;
  state.revisions.clear();
  Order next = order;
  next.revisions.push_back({std::move(name), std::move(date), std::make_shared<const Order>(std::move(state))});
  return next;
}

Order takenUp(const Order& order, const Revision& revision) {
  Order next = *revision.order;
  next.revisions = order.revisions;
  return next;
}

}  // namespace armure
