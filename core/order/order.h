// core/order/order.h
//
// One order: a client's measures and what is to be made of them. A value: copied for undo, compared to know what
// changed.
#pragma once

#include <memory>
#include <optional>
#include <string>
#include <vector>

#include "measure/measure_set.h"
#include "order/alteration.h"
#include "order/base.h"
#include "order/fitting.h"
#include "rules/rules.h"
#include "units/length.h"

namespace armure {

// Which set of the client book the measures were taken from or kept in; empty when in none. The order carries its own
// copy of the measures and stands without the book.
struct BookReference {
  std::string client, set;  // ids
  bool operator==(const BookReference&) const = default;
};

struct Order;

// A state of the order that was named, to be compared or taken up again. The order in it has no revisions of its own.
struct Revision {
  std::string name, date;
  std::shared_ptr<const Order> order;            // never changed, and so shared between the states of undo
  bool operator==(const Revision& other) const;  // by what it holds
};

struct Order {
  std::string title;
  std::string client;
  std::string date;  // of the measures, as written: "2026-11-23"
  std::string notes;
  LengthFormat units;
  std::string style{kDefaultStyle};
  std::string school{kDefaultSchool};
  MeasureSet measures;
  BookReference book;
  Choices choices;
  std::optional<Recalculation> base;    // where the pattern is a base's, recalculated for this client
  std::vector<Alteration> alterations;  // of the pattern, from fittings or by hand; their order does not count
  std::vector<Fitting> fittings;        // what was seen, and when; each alteration it led to names it
  std::vector<Revision> revisions;      // from the first to the last

  bool operator==(const Order&) const = default;
};

// The order with its present state as one revision more; a revision taken up again, all of them kept.
Order withRevision(const Order& order, std::string name, std::string date);
Order takenUp(const Order& order, const Revision& revision);

}  // namespace armure
