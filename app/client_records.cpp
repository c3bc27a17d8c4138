#include "app/client_records.h"

#include "io/atomic_file.h"
#include "io/measurement_csv.h"

namespace armure {

ClientRecords::ClientRecords(OrderSession& session, QObject* parent) : QObject(parent), session_(session) {}

void ClientRecords::setFile(std::filesystem::path file) {
  book_.reset();
  file_ = std::move(file);
  emit changed();
}

void ClientRecords::fillFrom(const std::vector<std::string>& lists) {
  if (!book() || !clients().empty()) return;
  for (const std::string& list : lists) {
    const Result<MeasurementFile> file = readMeasurements(list);
    if (!file.ok()) {
      emit failed(file.problem());
      continue;
    }
    if (const auto client = clientNamed(file->client)) {
      const Result<std::string> added = book_->addSet(*client, file->date, file->measures);
      if (!added.ok()) emit failed(added.problem());
    }
  }
  emit changed();
}

ClientBook* ClientRecords::book() {
  if (!book_) {
    Result<ClientBook> opened = ClientBook::open(file_);
    if (!opened.ok()) {
      emit failed(opened.problem());
      return nullptr;
    }
    book_.emplace(std::move(opened).value());
    if (book_->damage()) emit failed(*book_->damage());
  }
  return &*book_;
}

bool ClientRecords::say(const std::optional<Problem>& problem) {
  if (problem) emit failed(*problem);
  return problem.has_value();
}

std::vector<ClientEntry> ClientRecords::clients() {
  ClientBook* open = book();
  if (!open) return {};
  const auto found = open->clients();
  if (!found.ok()) emit failed(found.problem());
  return found.ok() ? *found : std::vector<ClientEntry>{};
}

std::vector<SetEntry> ClientRecords::sets(const std::string& client) {
  ClientBook* open = book();
  if (!open) return {};
  const auto found = open->sets(client);
  if (!found.ok()) emit failed(found.problem());
  return found.ok() ? *found : std::vector<SetEntry>{};
}

std::optional<MeasureSet> ClientRecords::measures(const std::string& set) {
  ClientBook* open = book();
  if (!open) return std::nullopt;
  const auto found = open->measures(set);
  if (!found.ok()) emit failed(found.problem());
  return found.ok() ? std::optional(*found) : std::nullopt;
}

ClientRecords::Standing ClientRecords::standing() {
  const Order& order = session_.order();
  if (order.book == BookReference{}) return Standing::NotInBook;
  for (const SetEntry& set : sets(order.book.client)) {
    if (set.id != order.book.set) continue;
    const auto kept = measures(set.id);
    return kept && *kept == order.measures && set.date == order.date ? Standing::AsInBook : Standing::Changed;
  }
  return Standing::NotInBook;  // deleted since
}

std::optional<std::string> ClientRecords::clientToKeepIn() {
  const Order& order = session_.order();
  for (const ClientEntry& client : clients()) {
    if (client.id != order.book.client) continue;
    if (client.name == order.client) return client.id;
    emit failed({"Client",
                 msg("in the book these measures belong to {}, in this order to {}", client.name, order.client),
                 "write the same name in both, or start a new order for another client"});
    return std::nullopt;
  }
  return clientNamed(order.client);
}

std::optional<std::string> ClientRecords::clientNamed(const std::string& name) {
  std::vector<std::string> same;
  for (const ClientEntry& client : clients())
    if (client.name == name) same.push_back(client.id);
  if (same.size() == 1) return same.front();
  const Result<std::string> added = book_->addClient(name);
  if (!added.ok()) emit failed(added.problem());
  return added.ok() ? std::optional(*added) : std::nullopt;
}

void ClientRecords::keep() {
  if (!book()) return;
  const Order& order = session_.order();
  if (order.client.empty()) {
    emit failed({"Client", "the client has no name", "give her a name, then keep her measures"});
    return;
  }
  if (order.measures.all().empty()) {
    emit failed({"Client", "there is no measure to keep", "take one, then keep it"});
    return;
  }
  const auto client = clientToKeepIn();
  if (!client) return;
  BookReference kept{*client, {}};
  for (const SetEntry& set : sets(*client))
    if (set.id == order.book.set && set.date == order.date) kept.set = set.id;
  if (!kept.set.empty()) {
    if (say(book_->putSet(kept.set, order.date, order.measures))) return;
  } else {
    const Result<std::string> added = book_->addSet(*client, order.date, order.measures);
    if (!added.ok()) {
      emit failed(added.problem());
      return;
    }
    kept.set = *added;
  }
  session_.setBook(kept);
  emit changed();
}

void ClientRecords::use(const ClientEntry& client, const SetEntry& set) {
  if (const auto taken = measures(set.id)) session_.takeMeasures(*taken, client.name, set.date, {client.id, set.id});
  emit changed();
}

void ClientRecords::rename(const std::string& client, const std::string& name) {
  if (!book() || say(book_->renameClient(client, name))) return;
  if (session_.order().book.client == client) session_.setText(&Order::client, name, "client");
  emit changed();
}

void ClientRecords::deleteSet(const std::string& set) {
  if (book() && !say(book_->deleteSet(set))) emit changed();
}

void ClientRecords::deleteClient(const std::string& client) {
  if (book() && !say(book_->deleteClient(client))) emit changed();
}

void ClientRecords::exportSet(const ClientEntry& client, const SetEntry& set, const std::string& file) {
  if (const auto taken = measures(set.id))
    say(writeFileAtomically(file, writeMeasurements(*taken, client.name, set.date), Readers::Owner));
}

}  // namespace armure
