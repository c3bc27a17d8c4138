// book/statement.h
//
// One SQL statement with its values bound in order, so that no text of a client ever becomes part of a statement.
#pragma once

#include <QSqlDatabase>
#include <QSqlQuery>
#include <QVariant>
#include <initializer_list>
#include <string>

namespace armure {

// Never null: an empty text is kept as "".
QString sqlText(const std::string& text);

// Prepared and bound, not yet run. `sql` has one ? for each value:
//   QSqlQuery rename = statement(db, "UPDATE client SET name = ? WHERE id = ?", {sqlText(name), sqlText(id)});
QSqlQuery statement(const QSqlDatabase& database, const char* sql, std::initializer_list<QVariant> values = {});

// The column of a row as UTF-8.
std::string textAt(const QSqlQuery& row, int column);

}  // namespace armure
