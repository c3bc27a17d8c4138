#include "book/statement.h"

namespace armure {

QString sqlText(const std::string& text) { return text.empty() ? QString("") : QString::fromStdString(text); }

QSqlQuery statement(const QSqlDatabase& database, const char* sql, std::initializer_list<QVariant> values) {
  QSqlQuery query(database);
  query.prepare(sql);
  for (const QVariant& value : values) query.addBindValue(value);
  return query;
}

std::string textAt(const QSqlQuery& row, int column) { return row.value(column).toString().toStdString(); }

}  // namespace armure
