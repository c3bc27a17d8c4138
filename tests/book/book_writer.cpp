// tests/book/book_writer.cpp
//
// Writes in the client book until it is killed, one keystroke's edit after the other, and says on standard output which
// one is done. usage: book_writer BOOK SET FIRST
#include <unistd.h>

#include <QCoreApplication>
#include <cstdlib>
#include <string>

#include "book/client_book.h"

int main(int argc, char** argv) {
  QCoreApplication app(argc, argv);
  if (argc != 4) return 2;
  auto book = armure::ClientBook::open(argv[1]);
  if (!book.ok()) return 2;
  armure::ClientBook writer = std::move(book).value();
  auto measures = writer.measures(argv[2]);
  if (!measures.ok()) return 2;
  armure::MeasureSet set = *measures;
  for (int i = std::atoi(argv[3]);; ++i) {
    set.set("waist", {500.0 + i * 0.001, std::to_string(i)});
    if (writer.putSet(argv[2], "2026-11-23", set)) return 2;
    const std::string done = std::to_string(i) + "\n";
    if (::write(STDOUT_FILENO, done.data(), done.size()) < 0) return 2;
  }
}
