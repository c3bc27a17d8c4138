// app/client_records.h
//
// The client book as the window uses it: opened when it is first needed, and told to everyone when it changes. What
// goes wrong is said through failed() and leaves book and order as they were.
#pragma once

#include <QObject>
#include <optional>

#include "app/order_session.h"
#include "book/client_book.h"

namespace armure {

class ClientRecords : public QObject {
  Q_OBJECT
 public:
  explicit ClientRecords(OrderSession& session, QObject* parent = nullptr);
  // Works on another book than the user's own, from now on.
  void setFile(std::filesystem::path file);
  // Fills a book that has no clients from measurement lists (CSV), each a set of the client it names.
  void fillFrom(const std::vector<std::string>& lists);

  std::vector<ClientEntry> clients();
  std::vector<SetEntry> sets(const std::string& client);
  std::optional<MeasureSet> measures(const std::string& set);

  // How the order's measures stand to the set they belong to.
  enum class Standing { NotInBook, AsInBook, Changed };
  Standing standing();

  // Keeps the order's client and measures: in the set they belong to when it has the same date, else as a new set of
  // that client; a client not yet in the book is added, or found by her name when just one has it. Never renames.
  void keep();
  void rename(const std::string& client, const std::string& name);  // in the book, and in the order if it is hers
  void use(const ClientEntry& client, const SetEntry& set);         // takes a set into the order
  void deleteSet(const std::string& set);
  void deleteClient(const std::string& client);
  void exportSet(const ClientEntry& client, const SetEntry& set, const std::string& file);

 signals:
  void changed();
  void failed(const armure::Problem& problem);

 private:
  ClientBook* book();
  bool say(const std::optional<Problem>& problem);  // true when there was one
  std::optional<std::string> clientToKeepIn();

  // The client of an entry, or a new one, for a name; nothing when the book cannot be written.
  std::optional<std::string> clientNamed(const std::string& name);

  OrderSession& session_;
  std::filesystem::path file_ = ClientBook::defaultFile();
  std::optional<ClientBook> book_;
};

}  // namespace armure
