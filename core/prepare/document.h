// core/prepare/document.h
//
// A sheet of words and tables, before it is written as a page or a file: the job sheet, the sheet to draw by hand.
#pragma once

#include <vector>

#include "message.h"

namespace armure {

struct DocumentTable {
  std::vector<Message> head;
  std::vector<std::vector<Message>> rows;  // as many cells as the head has
};

struct DocumentSection {
  Message title;
  std::vector<Message> paragraphs = {};
  DocumentTable table = {};
  bool figure = false;  // the drawing of the garment stands here
};

struct Document {
  Message title;
  std::vector<Message> facts;  // under the title, one line
  std::vector<DocumentSection> sections;
};

}  // namespace armure
